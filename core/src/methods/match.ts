import { drilledStep, entryCone, type HoleView, type PlacedStep } from '../operations/hole-view.ts';
import { operationKind } from '../operations/registry.ts';
import { edgeLeft, whyNotEdge, type EdgeSubject } from './edge-match.ts';
import { areaLeft, whyNotArea, type AreaSubject } from './area-match.ts';
import { grooveLeft, whyNotGroove, type GrooveSubject } from './groove-match.ts';
import {
  FAMILY_WORDS,
  within,
  type FitWish,
  type HolePart,
  type Method,
  type MethodOperation,
} from './schema.ts';

/** What a method is matched against: a hole, a slot, groove or channel, an area, or an edge. */
export type MethodSubject = HoleSubject | GrooveSubject | AreaSubject | EdgeSubject;

export interface HoleSubject {
  family: 'hole';
  hole: HoleView;
  threaded: boolean;
  /** Major diameter of its thread, mm. */
  major: number | null;
  /** The print wants its thread milled. */
  isToBeMilled: boolean;
  fit: FitWish;
  materialId: string;
}

/** One operation that a method asks for in a feature. */
export interface MethodStep {
  kind: string;
  /** Kinds that make the same where the first cannot. */
  or: readonly string[];
  /** The step that it makes, where it is one of several. */
  step: PlacedStep | null;
  set: MethodOperation['set'];
  ifNeeded?: boolean;
}

const isSunk = (h: HoleView): boolean => entryCone(h) !== null && h.feature.role === 'countersunk';
const hasChamfer = (h: HoleView): boolean => entryCone(h) !== null && h.feature.role !== 'countersunk';
const isFlatStep = (h: HoleView, i: number): boolean => h.steps[i + 1]?.shape !== 'cone';
const wideSteps = (h: HoleView): { step: PlacedStep; isFlat: boolean }[] =>
  h.steps.flatMap((step, i) =>
    step.shape === 'cylinder' && step !== drilledStep(h) ? [{ step, isFlat: isFlatStep(h, i) }] : [],
  );

/** Whether a hole has a step wider than what is drilled, or a countersink. */
export const isStepped = (h: HoleView): boolean => wideSteps(h).length > 0 || isSunk(h);

/** What stands against a method for a feature, in words; null where it applies. */
export function whyNotMethod(m: Method, s: MethodSubject): string | null {
  if (m.family !== s.family) return `it is for ${FAMILY_WORDS[m.family]}`;
  if ('area' in s) return whyNotArea(m, s);
  if ('edge' in s) return whyNotEdge(m, s);
  return 'groove' in s ? whyNotGroove(m, s) : whyNotHole(m, s);
}

function whyNotHole({ when, operations }: Method, s: HoleSubject): string | null {
  const { hole } = s;
  const diameter = drilledStep(hole)?.diameter ?? 0;
  if (when.threaded !== undefined && when.threaded !== s.threaded)
    return when.threaded ? 'it is for threads' : 'it is for holes without a thread';
  if (when.fit && !when.fit.includes(s.fit)) return `it is for holes to be ${when.fit.join(' or ')}`;
  if (s.isToBeMilled && !operations.some((o) => operationKind(o.kind).millsThreads))
    return 'the print wants its thread milled';
  const stepped = isStepped(hole);
  if (when.stepped !== undefined && when.stepped !== stepped)
    return when.stepped ? 'it is for stepped holes' : 'it is for holes without steps';
  if (when.through !== undefined && when.through !== hole.through)
    return when.through ? 'it is for through holes' : 'it is for blind holes';
  const hasFlatFloor = !hole.through && hole.bottom.shape === 'flat';
  if (when.flatFloor !== undefined && when.flatFloor !== hasFlatFloor)
    return when.flatFloor ? 'it is for flat floors' : 'it is for holes without a flat floor';
  if (!within(diameter, when.diameter)) return 'it is for other diameters';
  if (when.major && !within(s.major ?? NaN, when.major)) return 'it is for threads of other sizes';
  if (diameter > 0 && !within(hole.depth / diameter, when.ratio)) return 'it is for other depths';
  return when.materials && !when.materials.includes(s.materialId) ? 'it is for other materials' : null;
}

/** What of a hole a method would leave unmade, or make of what is not there, in words; null where it makes the whole. */
export const whyNotMade = (m: Method, s: MethodSubject): string | null => {
  if ('groove' in s) return grooveLeft(m, s);
  if ('area' in s) return areaLeft(m, s);
  if ('edge' in s) return edgeLeft(m, s);
  if (m.family !== s.family) return whyNotMethod(m, s);
  const { threaded, stepped, through, flatFloor } = m.when;
  const own = { ...m, when: { threaded, stepped, through, flatFloor } };
  return whyNotHole(own, { ...s, isToBeMilled: false }) ?? leftUnmade(m, s);
};

const STEP_PARTS: readonly HolePart[] = ['pointed steps', 'flat steps'];

/** Parts of a hole that none of a method's operations makes, in words; null where all are made. */
function leftUnmade({ operations }: Method, { hole, threaded }: HoleSubject): string | null {
  const has = (part: HolePart): boolean => operations.some((o) => o.part === part);
  const wide = wideSteps(hole);
  const left = [
    operations.some((o) => o.part === 'hole' && operationKind(o.kind).opensSolid) ? '' : 'the hole itself',
    // A spot that is told its rim leaves the model's chamfer to another.
    hasChamfer(hole) &&
    !operations.some((o) => operationKind(o.kind).breaksRims && o.set['rim'] === undefined)
      ? 'its chamfer'
      : '',
    wide.some((w) => w.isFlat) && !has('flat steps') ? 'its flat step' : '',
    wide.some((w) => !w.isFlat) && !has('pointed steps') ? 'its pointed step' : '',
    isSunk(hole) && !has('countersink') ? 'its countersink' : '',
    hole.farSteps.some((f) => f.shape === 'cylinder') && !STEP_PARTS.some(has)
      ? 'the step on its far side'
      : '',
    hole.farSteps.some((f) => f.shape === 'cone') && !has('countersink')
      ? 'the countersink on its far side'
      : '',
    threaded && !has('thread') ? 'its thread' : '',
  ].filter((t) => t !== '');
  return left.length > 0 ? `none of its operations makes ${left.join(' and ')}` : null;
}

/** Methods that apply, the first listed first. */
export const methodsFor = (methods: readonly Method[], s: MethodSubject): Method[] =>
  methods.filter((m) => whyNotMethod(m, s) === null);

/** A method's operations in a hole: one for each part that the hole has; steps are opened from the inside out. */
export function stepsOf(method: Method, hole: HoleView, threaded: boolean): MethodStep[] {
  const out: MethodStep[] = [];
  let inner: (Omit<MethodStep, 'step'> & { flat: boolean })[] = [];
  const takeSteps = (): void => {
    // Whatever opens them, the narrower step is opened before the wider one above it.
    for (const { step, isFlat } of wideSteps(hole).reverse())
      for (const { kind, or, set, flat } of inner) if (flat === isFlat) out.push({ kind, or, step, set });
    inner = [];
  };
  for (const { kind, or = [], part, set, ifNeeded } of method.operations) {
    if (STEP_PARTS.includes(part)) {
      inner.push({ kind, or, flat: part === 'flat steps', set });
      continue;
    }
    takeSteps();
    const has =
      part === 'countersink'
        ? isSunk(hole)
        : part === 'chamfer'
          ? hasChamfer(hole)
          : part === 'thread'
            ? threaded
            : true;
    if (has) out.push({ kind, or, step: null, set, ...(ifNeeded ? { ifNeeded } : {}) });
  }
  takeSteps();
  return out;
}

/** What the far side of a hole still needs from a method: its steps and its countersink, nothing of what the near side made. */
export function farSideSteps(method: Method, hole: HoleView): MethodStep[] {
  const sunk = entryCone(hole);
  const steps = stepsOf(method, hole, false).filter((s) => s.step !== null);
  const cone = method.operations.find((o) => o.part === 'countersink');
  return [
    ...steps,
    ...(sunk && cone ? [{ kind: cone.kind, or: cone.or ?? [], step: sunk, set: cone.set }] : []),
  ];
}

/** A method's operations where the feature has no parts of its own to be told apart. */
export const plainSteps = ({ operations }: Method): MethodStep[] =>
  operations.map(({ kind, or = [], set, ifNeeded }) => ({
    kind,
    or,
    step: null,
    set,
    ...(ifNeeded ? { ifNeeded } : {}),
  }));
