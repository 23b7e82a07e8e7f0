import { toFrame, type Frame } from '../geometry/frame.ts';
import { along, dot, type Vec3, isAlong } from '../geometry/vec.ts';
import type { HoleBottom, HoleFeature, StackStep } from '../features/hole/schema.ts';

/** A step with its place below the entry, mm. */
export type PlacedStep = Exclude<StackStep, { shape: 'flat' }> & { top: number; end: number };

/** A hole as seen from a setup's direction: program coordinates, depths below the entry. */
export interface HoleView {
  feature: HoleFeature;
  /** Tag and number, such as A1. */
  label: string;
  x: number;
  y: number;
  /** Z of the entry: the highest point of the rim. */
  entryZ: number;
  entryDrop: number;
  depth: number;
  through: boolean;
  bottom: HoleBottom;
  /** Steps that this side makes, from the entry to the narrowest one. */
  steps: PlacedStep[];
  /** Steps beyond the narrowest, which widen toward the other side. */
  farSteps: PlacedStep[];
  /** Z up to which metal may stand over it: the stock's top, or that of a cavity which is not made before. Its own entry where it is free. */
  metalZ: number;
  /** Why metal may stand over it, in words; null where none does. */
  metalFrom: string | null;
  /** A hole as wide above it on its axis leads the drill: no spot is needed, and none would pass. */
  isGuided: boolean;
  /** Cavities made before that its wall opens into: from where to where below the entry, mm. */
  crossings: { label: string; top: number; end: number }[];
}

/** The hole from the side of `frame`'s Z; null where it cannot be reached from there. */
export function viewHole(feature: HoleFeature, label: string, frame: Frame): HoleView | null {
  if (!feature.reachableFrom.some((d) => isAlong(d, frame.z))) return null;
  const same = dot(feature.axis, frame.z) > 0;
  const entry: Vec3 = same ? feature.entry : along(feature.entry, feature.axis, -feature.depth);
  const placed = placeSteps(feature.stack);
  const steps = same ? placed : [...placed].reverse().map((s) => turnRound(s, feature.depth));
  const narrowest = narrowestIndex(steps);
  const [x, y, z] = toFrame(frame, entry);
  return {
    feature,
    label,
    x,
    y,
    entryZ: z,
    entryDrop: same ? feature.entryDrop : 0,
    depth: feature.depth,
    through: feature.kind === 'through',
    bottom: feature.bottom,
    steps: steps.slice(0, narrowest + 1),
    farSteps: steps.slice(narrowest + 1),
    metalZ: z,
    metalFrom: null,
    isGuided: false,
    crossings: [],
  };
}

function placeSteps(stack: StackStep[]): PlacedStep[] {
  const out: PlacedStep[] = [];
  let depth = 0;
  for (const s of stack) {
    if (s.shape === 'flat') continue;
    out.push({ ...s, top: depth, end: depth + s.length });
    depth += s.length;
  }
  return out;
}

function turnRound(s: PlacedStep, depth: number): PlacedStep {
  const place = { top: depth - s.end, end: depth - s.top };
  return s.shape === 'cone'
    ? { ...s, ...place, startDiameter: s.endDiameter, endDiameter: s.startDiameter }
    : { ...s, ...place };
}

function narrowestIndex(steps: PlacedStep[]): number {
  let best = -1;
  steps.forEach((s, i) => {
    if (s.shape !== 'cylinder') return;
    const b = steps[best];
    if (!b || (b.shape === 'cylinder' && s.diameter < b.diameter - 1e-6)) best = i;
  });
  return best < 0 ? steps.length - 1 : best;
}

/** The straight step that the drill makes, if the hole has one. */
export function drilledStep(v: HoleView): Extract<PlacedStep, { shape: 'cylinder' }> | null {
  const last = v.steps[v.steps.length - 1];
  return last?.shape === 'cylinder' ? last : null;
}

/** A cone at the entry whose wide end is on top: entry chamfer or countersink. */
export function entryCone(v: HoleView): Extract<PlacedStep, { shape: 'cone' }> | null {
  const first = v.steps[0];
  return first?.shape === 'cone' && first.startDiameter > first.endDiameter ? first : null;
}

/**
 * How far below the entry a rim is measured, mm. A cone of the model stands where it stands: its wide end is at the entry, the highest
 * point. A rim that the model does not have is wanted all round, so it is measured at the lowest point of a slanted entry.
 */
export const rimLevel = (v: HoleView): number => (entryCone(v) ? 0 : v.entryDrop);
