import type { Feature } from '@yellow-pin/core/features/family';
import { familyOf, placeOf } from '@yellow-pin/core/features/registry';
import { dot } from '@yellow-pin/core/geometry/vec';
import type { Row } from '@yellow-pin/core/job/derive';
import { sideOf } from '@yellow-pin/core/setup/setup';
import type { SetupFrame } from '@yellow-pin/core/setup/setup-frame';
import { formatLength, LengthError, parseLength, type LengthUnit } from '@yellow-pin/core/units/length';

/** What narrows the worksheet down. Empty: everything. */
export interface Narrow {
  family: string;
  direction: string;
  level: string;
  /** A size or a range, as typed. */
  range: string;
}

export const EVERYTHING: Narrow = { family: '', direction: '', level: '', range: '' };

/** The side that a feature's tool comes from, for filters. */
const directionOf = (f: Feature): string => {
  const d = f.reachableFrom[0] ?? f.axis;
  return sideOf(d) ?? d.map((v) => v.toFixed(2)).join(', ');
};

/** The level of a feature along the setup's Z, program coordinates; null for features that look another way. */
export function levelOf(f: Feature, frame: SetupFrame | null, unit: LengthUnit): string | null {
  if (!frame || Math.abs(dot(f.axis, frame.frame.z)) < 0.999) return null;
  const p = placeOf(f);
  const z = dot(
    [p[0] - frame.frame.origin[0], p[1] - frame.frame.origin[1], p[2] - frame.frame.origin[2]],
    frame.frame.z,
  );
  return formatLength(z, unit, unit === 'mm' ? 2 : 3);
}

export const sizeOf = (r: Row): number => familyOf(r.size.features[0]!).sortBy(r.size.features[0]!);

/** Whether a row passes, and what is wrong with the range as typed. */
export function narrowTest(
  n: Narrow,
  frame: SetupFrame | null,
  unit: LengthUnit,
): { test(r: Row): boolean; error: string | null } {
  let range: [number, number] | null = null;
  let error: string | null = null;
  if (n.range.trim() !== '') {
    try {
      const [a, b] = n.range
        .split(/\s*(?:–|\.\.|to|\s-\s|(?<=\d)-(?=\d))\s*/)
        .map((p) => parseLength(p, unit));
      range = b === undefined ? [a! - 0.01, a! + 0.01] : [a!, b];
    } catch (e) {
      error = e instanceof LengthError ? e.message : 'Not a range.';
    }
  }
  const test = (r: Row): boolean =>
    (n.family === '' || r.size.family === n.family) &&
    (n.direction === '' || r.size.features.some((f) => directionOf(f) === n.direction)) &&
    (n.level === '' || r.size.features.some((f) => levelOf(f, frame, unit) === n.level)) &&
    (range === null || (sizeOf(r) >= range[0] - 1e-6 && sizeOf(r) <= range[1] + 1e-6));
  return { test, error };
}

/** What can be chosen from: families, directions and levels that the rows have. */
export function choices(
  rows: Row[],
  frame: SetupFrame | null,
  unit: LengthUnit,
): { families: string[]; directions: string[]; levels: string[] } {
  const features = rows.flatMap((r) => r.size.features);
  const levels = [...new Set(features.flatMap((f) => levelOf(f, frame, unit) ?? []))];
  return {
    families: [...new Set(rows.map((r) => r.size.family))],
    directions: [...new Set(features.map(directionOf))].sort(),
    levels: levels.sort((a, b) => Number(b) - Number(a)),
  };
}
