import { beforeAll, describe, expect, it } from 'vitest';
import { TOOL_KINDS } from '@yellow-pin/core/tools/kinds/registry';
import type { Tool, ToolKind } from '@yellow-pin/core/tools/schema';
import { isHole } from '@yellow-pin/core/features/family';
import { featureSizes } from '@yellow-pin/core/features/sets';
import { FIXTURES, stored, WAYS } from './family-parts.ts';
import { prepare } from './solids.ts';
import { errors, jobOfText, proved } from './trial.ts';

/** A tool of its kind's usual shape, with what is said otherwise. */
export function tool(kind: ToolKind, diameter: number, part: Partial<Tool> = {}): Tool {
  const usual = TOOL_KINDS.find((k) => k.kind === kind)?.usual({ kind, diameter });
  if (!usual) throw new RangeError(`no usual ${kind}`);
  const shape = { ...usual, ...part };
  const reach = Math.max(shape.fluteLength, shape.neckLength ?? 0);
  return {
    ...shape,
    id: `test-${kind}-${diameter}`,
    kind,
    number: null,
    description: `${kind.replace('-', ' ')} \u2300${diameter} test`,
    overallLength: reach + 40,
    stickOut: reach + 6,
    holderId: 'er16',
  };
}

/** Cutters for the grooves of the fixtures that the sample shop does not have. */
const MORE: Tool[] = [
  tool('dovetail-cutter', 20, { fluteLength: 11, pointAngleDeg: 60, neckDiameter: 7, neckLength: 22 }),
  tool('t-cutter', 16, { fluteLength: 7, neckDiameter: 7, neckLength: 24 }),
  tool('t-cutter', 20, { fluteLength: 4, neckDiameter: 9, neckLength: 40, shankDiameter: 10 }),
  tool('t-cutter', 12, { fluteLength: 1.5, neckDiameter: 6, neckLength: 30 }),
];

const GROOVED = FIXTURES.filter((f) =>
  [
    'slots',
    'T-slots and a dovetail',
    'T-slots open at both ends',
    'face grooves',
    'channels',
    'bore grooves',
    'wall grooves',
  ].includes(f.name),
);
const FAMILIES = ['slot', 'channel', 'face-groove', 't-slot', 'dovetail', 'bore-groove', 'wall-groove'];

beforeAll(prepare);

describe.each(GROOVED)('$name', ({ body, splitX }) => {
  it.each(WAYS)('are milled as they are in the model, %s', async (way) => {
    const trial = await jobOfText(await stored(body(), way, splitX), {
      more: MORE,
      // A drill's cone would stand in the way of a groove just over a floor.
      change: (p, features) => {
        for (const size of featureSizes(features))
          if (size.features.some((f) => isHole(f) && f.bottom.shape === 'flat'))
            p.sizes[size.key] = { method: 'drilled-flat-floor', overrides: {} };
      },
    });
    const rows = trial.job.rows.filter((r) => FAMILIES.includes(r.size.family));
    expect(rows.length).toBeGreaterThan(0);
    expect(rows.flatMap((r) => r.reasons)).toEqual([]);
    const { checks, metal } = proved(trial);
    expect(errors(checks).length > 0 ? checks.filter((c) => c.severity === 'error') : []).toEqual([]);
    expect(metal.largestOvercut).toBeLessThanOrEqual(0.005);
    const tags = new Set(rows.map((r) => r.tag));
    expect(metal.places.filter((p) => p.kind === 'left-over' && tags.has(p.tag ?? ''))).toEqual([]);
  });
});
