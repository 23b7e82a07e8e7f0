import { parseCallout, type Callout } from '../callout/callout.ts';
import { fitWish } from '../callout/fit-wish.ts';
import type { FitWish } from '../methods/schema.ts';
import type { HoleFeature } from '../features/hole/schema.ts';
import { drilledStep, entryCone, type HoleView, type PlacedStep } from '../operations/hole-view.ts';
import type { Remark } from '../operations/kind.ts';
import { TAPER_ANGLE } from '../threads/candidates.ts';
import type { Thread } from '../threads/thread.ts';
import type { LengthUnit } from '../units/length.ts';
import type { SizeDecision } from '../plan/plan.ts';

/** Sizes of print and model this near are the same, mm. */
const SAME = 0.05;
/** A print's diameter this near the model's is drilled as printed; farther off one of the two is wrong. */
const NEAR_DIAMETER = 0.11;
/** What goes on below a taper is this near its narrow end, mm on diameter. */
const AS_WIDE = 0.8;
/** Point angle of what is drilled where the model has nothing to say, degrees. */
const DRILL_POINT = 118;

/** What a typed callout decides for a size. Throws the callout's own error. */
export function decisionFromCallout(
  text: string,
  unit: LengthUnit,
): Required<Pick<SizeDecision, 'callout'>> & Pick<SizeDecision, 'print' | 'thread' | 'threadDepth'> {
  const print = parseCallout(text, unit);
  return { callout: text, print, thread: print.thread ?? null, threadDepth: print.threadDepth };
}

/** What the print says of a size, as far as the programmer has said it. */
export function printOf(decision: SizeDecision): Callout {
  const print = decision.print ?? { through: false };
  const { threadDepth } = decision;
  if (decision.thread)
    return { ...print, thread: decision.thread, ...(threadDepth === undefined ? {} : { threadDepth }) };
  // Documents of before kept a plain hole's depth with the threads'.
  return threadDepth !== undefined && print.depth === undefined && !print.through
    ? { ...print, depth: threadDepth }
    : print;
}

export interface Printed {
  /** The hole as it is to be made: the print's sizes over the model's. */
  view: HoleView;
  remarks: Remark[];
  /** Where print and model contradict each other so that somebody must say which is right. */
  asks: string[];
}

/** Lays the print over a hole of the model, and says where the two differ. */
export function printed(view: HoleView, print: Callout, count: number, say: (mm: number) => string): Printed {
  const out: Printed = { view, remarks: [], asks: [] };
  const warn = (message: string, severity: Remark['severity'] = 'warning'): void =>
    void out.remarks.push({ rule: 'print-and-model', severity, message });
  if (print.count !== undefined && print.count !== count)
    warn(`The print says ${print.count}×, the model has ${count} of this size. Check which is right.`);
  out.view = withTaper(view, print.thread);
  applyDiameter(out, print, say);
  applyDepth(out, print, say, warn);
  applyCounterbore(out, print, say, warn);
  applyCountersink(out, print, say, warn);
  checkThread(out.view, print, say, warn);
  checkWishes(out, print);
  return out;
}

/**
 * A tapered thread is cut into a straight hole (ASME B1.20.1 has its drill): a taper of the model is drilled straight, and so is what goes
 * on below it as wide.
 */
function withTaper(view: HoleView, thread: Thread | undefined): HoleView {
  if (thread?.form !== 'pipe-tapered') return view;
  const at = view.steps.findIndex(isTaper);
  const taper = view.steps[at];
  if (taper?.shape !== 'cone') return view;
  const below = view.steps[at + 1];
  const goesOn = below?.shape === 'cylinder' && Math.abs(below.diameter - taper.endDiameter) < AS_WIDE;
  const end = goesOn ? below.end : taper.end;
  const drilled: PlacedStep = {
    shape: 'cylinder',
    diameter: thread.tapDrill,
    length: end - taper.top,
    top: taper.top,
    end,
  };
  return withSteps(view, [...view.steps.slice(0, at), drilled, ...view.steps.slice(at + (goesOn ? 2 : 1))]);
}

const isTaper = (s: PlacedStep): boolean =>
  s.shape === 'cone' && s.startDiameter > s.endDiameter && Math.abs(s.angle - TAPER_ANGLE) < 0.05;

function applyDiameter(out: Printed, print: Callout, say: (mm: number) => string): void {
  const { diameter } = print;
  const drilled = drilledStep(out.view);
  if (diameter === undefined || !drilled) return;
  if (print.thread) {
    const { tapDrill, designation } = print.thread;
    if (Math.abs(diameter - tapDrill) > 0.6 * print.thread.pitch)
      out.asks.push(
        `The print's ⌀${say(diameter)} is no hole for ${designation}, whose tap drill is ⌀${say(tapDrill)}. Correct the callout.`,
      );
    return;
  }
  const off = Math.abs(diameter - drilled.diameter);
  if (off < 1e-6) return;
  if (off > NEAR_DIAMETER)
    out.asks.push(
      `The print says ⌀${say(diameter)}, the model has ⌀${say(drilled.diameter)}: one of them is wrong. Correct the callout, or open a newer file of the part.`,
    );
  else
    out.view = withSteps(
      out.view,
      out.view.steps.map((s) => (s === drilled ? { ...drilled, diameter } : s)),
    );
}

function applyDepth(
  out: Printed,
  print: Callout,
  say: (mm: number) => string,
  warn: (m: string) => void,
): void {
  const { view } = out;
  const { depth } = print;
  if (print.through && !print.thread && !view.through)
    out.asks.push(
      `The print says THRU, the model's hole ends ${say(view.depth)} below its entry. Correct the callout, or the hole's depth, or open a newer file of the part.`,
    );
  else if (print.through && print.thread && !view.through)
    out.asks.push(
      `The print says the thread goes through, the model's hole ends ${say(view.depth)} below its entry. Correct the callout or the hole.`,
    );
  if (depth === undefined || Math.abs(depth - view.depth) <= SAME) return;
  const drilled = drilledStep(view);
  if (!drilled || depth <= drilled.top + 1e-6) {
    out.asks.push(
      `The print's depth of ${say(depth)} ends above the hole's narrow part, which begins at ${say(drilled?.top ?? 0)}. Correct the callout.`,
    );
    return;
  }
  if (depth > view.depth && view.through) return;
  if (depth > view.depth + SAME)
    warn(
      `The print says ${say(depth)} deep, the model ${say(view.depth)}. The print's depth is drilled, into metal that the model keeps; check which is right.`,
    );
  else
    warn(
      `The print says ${say(depth)} deep, the model ${view.through ? 'goes through' : say(view.depth)}. The print's depth is drilled; check which is right.`,
    );
  out.view = {
    ...withSteps(
      view,
      view.steps.map((s) => (s === drilled ? { ...drilled, length: depth - drilled.top, end: depth } : s)),
    ),
    depth,
    through: false,
    farSteps: [],
    bottom: view.through ? { shape: 'cone', angle: DRILL_POINT } : view.bottom,
  };
}

function applyCounterbore(
  out: Printed,
  { counterbore }: Callout,
  say: (mm: number) => string,
  warn: (m: string) => void,
): void {
  if (!counterbore) return;
  const { view } = out;
  const drilled = drilledStep(view);
  const isFar = view.farSteps.some(
    (s) => s.shape === 'cylinder' && Math.abs(s.diameter - counterbore.diameter) <= SAME,
  );
  if (isFar || !drilled) return;
  const wide = view.steps.find((s) => s.shape === 'cylinder' && s !== drilled);
  if (wide?.shape === 'cylinder') {
    if (Math.abs(wide.diameter - counterbore.diameter) > SAME)
      out.asks.push(
        `The print's counterbore is ⌀${say(counterbore.diameter)}, the model's ⌀${say(wide.diameter)}: one of them is wrong. Correct the callout, or open a newer file of the part.`,
      );
    else if (counterbore.depth !== undefined && Math.abs(counterbore.depth - wide.end) > SAME) {
      warn(
        `The print's counterbore is ${say(counterbore.depth)} deep, the model's ${say(wide.end)}. The print's is cut; check which is right.`,
      );
      out.view = restack(view, wide, {
        ...wide,
        end: counterbore.depth,
        length: counterbore.depth - wide.top,
      });
    }
    return;
  }
  const { depth } = counterbore;
  if (depth === undefined || counterbore.diameter <= drilled.diameter + SAME || depth >= view.depth) {
    out.asks.push(
      `The model has no counterbore, and the print's ⌀${say(counterbore.diameter)}${depth === undefined ? ' has no depth' : ` ↧${say(depth)} does not fit the hole`}. Complete the callout.`,
    );
    return;
  }
  warn(
    `The print has a counterbore ⌀${say(counterbore.diameter)} ↧${say(depth)} that the model lacks. It is cut as printed.`,
  );
  const step: PlacedStep = {
    shape: 'cylinder',
    diameter: counterbore.diameter,
    length: depth,
    top: 0,
    end: depth,
  };
  out.view = withSteps(view, [
    step,
    ...view.steps
      .filter((s) => s.end > depth + 1e-6)
      .map((s) => (s.top < depth ? { ...s, top: depth, length: s.end - depth } : s)),
  ]);
}

function applyCountersink(
  out: Printed,
  { countersink }: Callout,
  say: (mm: number) => string,
  warn: (m: string) => void,
): void {
  if (!countersink) return;
  const { view } = out;
  const cone = entryCone(view);
  const drilled = drilledStep(view);
  if (!drilled) return;
  const isFar = view.farSteps.some((s) => s.shape === 'cone');
  if (!cone && isFar) return;
  if (cone && Math.abs(cone.angle - countersink.angleDeg) > 0.5) {
    out.asks.push(
      `The print's countersink has ${countersink.angleDeg}°, the model's ${Math.round(cone.angle)}°: one of them is wrong. Correct the callout, or open a newer file of the part.`,
    );
    return;
  }
  if (cone && Math.abs(cone.startDiameter - countersink.diameter) <= SAME) return;
  const inner = cone?.endDiameter ?? drilled.diameter;
  if (countersink.diameter <= inner + SAME) {
    out.asks.push(
      `The print's countersink of ⌀${say(countersink.diameter)} is not wider than the hole. Correct the callout.`,
    );
    return;
  }
  warn(
    cone
      ? `The print's countersink is ⌀${say(countersink.diameter)}, the model's ⌀${say(cone.startDiameter)}. The print's is cut; check which is right.`
      : `The print has a countersink ⌀${say(countersink.diameter)} that the model lacks. It is cut as printed.`,
  );
  const length = (countersink.diameter - inner) / 2 / Math.tan((countersink.angleDeg * Math.PI) / 360);
  const sunk: PlacedStep = {
    shape: 'cone',
    startDiameter: countersink.diameter,
    endDiameter: inner,
    angle: countersink.angleDeg,
    length,
    top: 0,
    end: length,
  };
  const rest = view.steps.filter((s) => s !== cone);
  out.view = {
    ...withSteps(view, [
      sunk,
      ...rest.map((s) => (s.top < length ? { ...s, top: length, length: s.end - length } : s)),
    ]),
    feature: { ...view.feature, role: 'countersunk' },
  };
}

function checkThread(
  view: HoleView,
  print: Callout,
  say: (mm: number) => string,
  warn: (m: string, severity: Remark['severity']) => void,
): void {
  const { thread, threadDepth } = print;
  if (!thread || threadDepth === undefined || view.through) return;
  // Whether a tap's lead has room as well, whoever taps it says.
  if (threadDepth > view.depth)
    warn(`${say(threadDepth)} of thread does not fit into a hole ${say(view.depth)} deep.`, 'error');
}

/** What the print wants made in a way that no method has yet keeps the row open: tapped or drilled it would be another part. */
function checkWishes(out: Printed, { wishes = [], thread }: Callout): void {
  const name = thread?.designation ?? 'the thread';
  if (wishes.includes('insert'))
    out.asks.push(
      `The print has ${name} for a thread insert (STI): hole and tap are larger than ${name}'s own, and no method makes them yet. Make it elsewhere, and leave it out here with that as the reason.`,
    );
}

/** Limits that the way a hole is made does not hold are said. `held`: how closely it is made. */
export function checkLimits(print: Callout, held: FitWish, say: (mm: number) => string): Remark[] {
  const { diameter, tolerance } = print;
  if (diameter === undefined) return [];
  const warn = (message: string): Remark[] => [{ rule: 'print-and-model', severity: 'warning', message }];
  const { fit, lower, upper } = tolerance ?? {};
  if (tolerance && (lower === undefined || upper === undefined))
    return warn(
      `The print's \u2300${say(diameter)} ${fit} has limits that are not in the table here. Look them up, and measure what is made.`,
    );
  const wish = fitWish(print);
  const isOff = lower !== undefined && upper !== undefined && (lower > 0 || upper < 0);
  const isHeld = wish === 'drilled' ? !isOff : held === wish || held === 'bored';
  if (isHeld) return [];
  const mend = 'Choose a method that reams or bores it.';
  if (lower === undefined || upper === undefined)
    return warn(`The print wants \u2300${say(diameter)} reamed. It is not, here. ${mend}`);
  const limits = `${say(diameter + lower)} to ${say(diameter + upper)}`;
  return warn(
    `The print allows ${fit ? `${fit}: ` : ''}${limits}${wish === 'drilled' ? '' : ', finer than it is made here'}${isOff ? `; \u2300${say(diameter)} lies outside` : ''}. ${mend}`,
  );
}

const withSteps = (view: HoleView, steps: PlacedStep[]): HoleView => ({ ...view, steps });

/** The steps with one moved, and the one below it made to begin where it ends. */
function restack(view: HoleView, old: PlacedStep, fresh: PlacedStep): HoleView {
  const at = view.steps.indexOf(old);
  return withSteps(
    view,
    view.steps.map((s, i) =>
      i === at ? fresh : i === at + 1 ? { ...s, top: fresh.end, length: s.end - fresh.end } : s,
    ),
  );
}

/** The callout of a hole: the print's word where it has one, else the model's. */
export function calloutOf(f: HoleFeature, narrowest: number, print: Callout, thread: Thread | null): Callout {
  const straight = f.stack.flatMap((s) => (s.shape === 'cylinder' ? [s] : []));
  const out: Callout = { through: f.kind === 'through' };
  if (print.count !== undefined) out.count = print.count;
  if (thread) out.thread = thread;
  if (!thread || print.diameter !== undefined) out.diameter = print.diameter ?? narrowest;
  if (print.threadDepth !== undefined) [out.threadDepth, out.through] = [print.threadDepth, false];
  if (print.depth !== undefined) [out.depth, out.through] = [print.depth, false];
  else if (print.through) out.through = true;
  else if (f.kind === 'blind' && out.threadDepth === undefined) {
    // A thread of unsaid depth: the hole's own sizes are shown before it.
    out.depth = f.depth;
    out.diameter ??= narrowest;
  }
  const first = straight[0];
  const modelled =
    first && f.role === 'counterbored' && first.diameter > narrowest + 1e-6
      ? { diameter: first.diameter, depth: first.length }
      : undefined;
  if (print.counterbore) out.counterbore = { ...modelled, ...print.counterbore };
  else if (modelled) out.counterbore = modelled;
  const cone = f.stack[0];
  if (print.countersink) out.countersink = print.countersink;
  else if (cone?.shape === 'cone' && f.role === 'countersunk')
    out.countersink = { diameter: cone.startDiameter, angleDeg: cone.angle };
  return out;
}
