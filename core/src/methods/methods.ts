import type { Thread } from '../threads/thread.ts';
import { drilledStep, entryCone, type HoleView, type PlacedStep } from '../operations/hole-view.ts';

export interface MethodStep {
  kind: string;
  step: PlacedStep | null;
}

/** A way to make a size: when it applies, and which operations in which order. */
export interface Method {
  id: string;
  name: string;
  applies(hole: HoleView, thread: Thread | null): boolean;
  steps(hole: HoleView, thread: Thread | null): MethodStep[];
}

const plain = (kind: string): MethodStep => ({ kind, step: null });
const hasWideSteps = (h: HoleView): boolean =>
  h.steps.some((s) => s.shape === 'cylinder' && s !== drilledStep(h));
const isSunk = (h: HoleView): boolean => entryCone(h) !== null && h.feature.role === 'countersunk';

/** Shipped methods; the first that applies is taken. */
export const METHODS: readonly Method[] = [
  {
    id: 'stepped-hole',
    name: 'stepped hole',
    applies: (h) => hasWideSteps(h) || isSunk(h),
    steps: (h, thread) => [
      plain('spot'),
      plain('pilot'),
      plain('drill'),
      ...wideSteps(h),
      ...(isSunk(h) ? [plain('countersink')] : []),
      ...(thread ? [plain('tap')] : []),
    ],
  },
  {
    id: 'tapped-hole',
    name: 'tapped hole',
    applies: (_, thread) => thread !== null,
    steps: () => [plain('spot'), plain('pilot'), plain('drill'), plain('tap')],
  },
  {
    id: 'plain-hole',
    name: 'plain hole',
    applies: () => true,
    steps: () => [plain('spot'), plain('pilot'), plain('drill')],
  },
];

/** Steps above the narrowest: flat floors by a cutter of that size, cone floors by a drill. From the inside out. */
function wideSteps(h: HoleView): MethodStep[] {
  const main = drilledStep(h);
  const out: MethodStep[] = [];
  h.steps.forEach((s, i) => {
    if (s.shape !== 'cylinder' || s === main) return;
    out.push({ kind: h.steps[i + 1]?.shape === 'cone' ? 'drill' : 'counterbore', step: s });
  });
  return out.reverse();
}

/** Steps of a hole that the first setup could not make because they widen toward this side. */
export function farSideSteps(h: HoleView): MethodStep[] {
  const sunk = entryCone(h);
  return [...wideSteps(h), ...(sunk ? [{ kind: 'countersink', step: sunk }] : [])];
}

export function methodFor(hole: HoleView, thread: Thread | null): Method {
  return METHODS.find((m) => m.applies(hole, thread))!;
}
