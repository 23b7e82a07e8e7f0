import { at, first } from '../lists.ts';
import type { Feature } from '../features/family.ts';
import { narrowest } from '../features/hole/recognise.ts';
import type { HoleFeature } from '../features/hole/schema.ts';
import { clearanceFor } from '../threads/screws.ts';
import { taperedLength, threadSizes } from '../threads/shape.ts';
import type { Thread } from '../threads/thread.ts';
import type { Guess, Row } from './row.ts';

/** Many holes left out for one reason are one remark that counts them. */
export function foldReasons(reasons: string[]): string[] {
  const groups = new Map<string, string[]>();
  for (const r of reasons) {
    const shape = r.replace(/^\S+: /, '').replace(/-?\d+(\.\d+)?/g, '#');
    groups.set(shape, [...(groups.get(shape) ?? []), r]);
  }
  return [...groups.values()].flatMap((g) => {
    if (g.length <= 3) return g;
    const labels = g.map((r) => r.slice(0, r.indexOf(':')));
    return [`${first(g)} The same holds for ${labels.slice(1).join(', ')}.`];
  });
}

/** A head's sizes that agree with a screw's say clearance hole before any thread. */
export function guessesOf(f: HoleFeature): Guess[] {
  const threads = f.threadCandidates.map((c): Guess => ({ kind: 'thread', designation: c.designation }));
  const wide = f.stack.find((s) => s.shape === 'cylinder' && s.diameter > narrowest(f) + 1e-6);
  const cone = f.stack.find((s) => s.shape === 'cone' && Math.abs(s.angle - 90) < 1);
  const clearance =
    f.role === 'counterbored' && wide?.shape === 'cylinder'
      ? clearanceFor(narrowest(f), wide.diameter, 'counterbore')
      : f.role === 'countersunk' && cone?.shape === 'cone'
        ? clearanceFor(narrowest(f), Math.max(cone.startDiameter, cone.endDiameter), 'countersink')
        : null;
  return clearance ? [{ kind: 'clearance', ...clearance }, ...threads] : threads;
}

/** The sides from which a feature is reached, in words. */
export const sideNames = (f: Feature): string =>
  f.reachableFrom
    .map(
      (d) =>
        ['X', 'Y', 'Z']
          .map((n, i) => (Math.abs(at(d, i)) > 0.999 ? `${at(d, i) > 0 ? '+' : '-'}${n}` : ''))
          .join('') || `(${d.map((v) => v.toFixed(3)).join(', ')})`,
    )
    .join(' or ');

/** A thread that does not go into the hole as it is drawn. */
export function threadFit(
  thread: Thread | null,
  f: HoleFeature,
  say: (mm: number) => string,
): Row['remarks'] {
  if (!thread) return [];
  const drawn = narrowest(f);
  const least =
    thread.form === 'pipe-tapered'
      ? Math.min(thread.tapDrill, threadSizes(thread, 'inside', taperedLength(thread) ?? 0).minor) - 0.02
      : thread.majorDiameter - 1.35 * thread.pitch;
  if (drawn <= thread.majorDiameter + 0.02 && drawn >= least) return [];
  return [
    {
      rule: 'thread-and-hole',
      severity: 'error',
      message: `${thread.designation} does not go into a hole drawn at ⌀${say(drawn)}: its tap drill is ${say(thread.tapDrill)}. Check the callout.`,
    },
  ];
}
