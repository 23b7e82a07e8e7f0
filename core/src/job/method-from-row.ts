import { fitWish } from '../callout/fit-wish.ts';
import { drilledStep } from '../operations/hole-view.ts';
import { operationKind } from '../operations/registry.ts';
import type { Row } from './row.ts';
import { rowSubject } from './subject.ts';
import { endKind } from '../methods/groove-match.ts';
import { isAreaFamily, isEdgeFamily, isGrooveFamily } from '../methods/schema.ts';
import { isStepped, whyNotMethod } from '../methods/match.ts';
import type { Method, MethodOperation } from '../methods/schema.ts';

/** Numbers that belong to the feature and never to the way it is made: copied onto another they would be somebody else's depth. */
const OF_THE_FEATURE: readonly string[] = ['depth', 'threadDepth', 'byMachine'];

/**
 * How a row is made as a method of the shop's own: its operations with the numbers that were typed for them, and the conditions that hold
 * for it. Depths are left out: they belong to the feature. Null for a row that no method makes.
 */
export function methodFromRow(
  row: Row,
  base: Method,
  {
    overrides,
    operations: changed,
  }: {
    overrides: Readonly<Record<string, Readonly<Record<string, number | string | boolean>>>>;
    operations?: MethodOperation[];
  },
  named: { id: string; name: string },
): Method | null {
  const when = conditionsOf(row);
  if (!when) return null;
  const counts = new Map<string, number>();
  const operations = (changed ?? base.operations).map((o): MethodOperation => {
    const nth = (counts.get(o.kind) ?? 0) + 1;
    counts.set(o.kind, nth);
    const typed = overrides[nth === 1 ? o.kind : `${o.kind} ${nth}`] ?? {};
    const { numbers, choices = {} } = operationKind(o.kind);
    const carried = Object.entries(typed).flatMap(([key, v]) =>
      typeof v !== 'boolean' && (key in numbers || key in choices) && !OF_THE_FEATURE.includes(key)
        ? [[key, v] as const]
        : [],
    );
    return { ...o, set: { ...o.set, ...Object.fromEntries(carried) } };
  });
  return { ...named, ...when, onRequest: false, operations };
}

/** For what a row's method holds: features like its first. */
function conditionsOf(row: Row): Pick<Method, 'family' | 'when'> | null {
  const [hole] = row.holes;
  const [groove] = row.grooves;
  const only = (v: number): { from: number; to: number } => ({ from: round(v), to: round(v) });
  if (hole) {
    const diameter = drilledStep(hole)?.diameter;
    return {
      family: 'hole',
      when: {
        threaded: row.thread !== null,
        fit: [fitWish(row.print)],
        stepped: isStepped(hole),
        through: hole.through,
        ...(diameter === undefined ? {} : { diameter: only(diameter) }),
      },
    };
  }
  const [area] = row.areas;
  const { family } = row.size;
  if (row.edges.length > 0 && isEdgeFamily(family)) return { family, when: {} };
  if (area && isAreaFamily(family)) return { family, when: { through: area.shape.through } };
  if (!groove || !isGrooveFamily(family)) return null;
  return {
    family,
    when: { through: groove.shape.through, ends: [endKind(groove)], width: only(groove.width) },
  };
}

const round = (v: number): number => Math.round(v * 1000) / 1000;

/** Rows of a job that a method would match, by its conditions alone. */
export const matchedRows = (method: Method, rows: readonly Row[], materialId: string): Row[] =>
  rows.filter((row) => {
    const subject = rowSubject(row, materialId);
    return subject !== null && whyNotMethod(method, subject) === null;
  });
