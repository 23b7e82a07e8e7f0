import { at, first as firstOf } from '../lists.ts';
import { formatCallout } from '../callout/callout.ts';
import { fitWish } from '../callout/fit-wish.ts';
import { isHole, type Feature } from '../features/family.ts';
import { narrowest } from '../features/hole/recognise.ts';
import { familyOf } from '../features/registry.ts';
import type { FeatureSize } from '../features/sets.ts';
import {
  farSideSteps,
  methodsFor,
  stepsOf,
  whyNotMade,
  whyNotMethod,
  type MethodSubject,
} from '../methods/match.ts';
import type { FitWish, Method } from '../methods/schema.ts';
import { SHIPPED_METHODS } from '../methods/shipped.ts';
import { viewHole, type HoleView } from '../operations/hole-view.ts';
import { outlines } from '../tools/profile.ts';
import { formatLength } from '../units/length.ts';
import type { SizeDecision } from '../plan/plan.ts';
import { calloutOf, checkLimits, printed, printOf } from './print.ts';
import { isReached, labelOf, type PlannerInput } from './placed.ts';
import type { Row } from './row.ts';
import { foldReasons, guessesOf, sideNames, threadFit } from './row-words.ts';
import { Standing } from './standing.ts';
import { StepPlanner, type Made } from './step-planner.ts';

const EMPTY: SizeDecision = { overrides: {} };

/**
 * Plans every row. A size whose holes start in another's cavity is planned after that one, since it depends on whether that is made: so
 * rows are worked out as they are asked for, each once.
 */
export class RowPlanner {
  private readonly rows = new Map<FeatureSize, Row>();
  private readonly busy = new Set<FeatureSize>();
  private readonly sizeOf = new Map<string, FeatureSize>();
  private readonly standing: Standing;
  private readonly steps: StepPlanner;
  private readonly say: (mm: number) => string;

  constructor(private readonly input: PlannerInput) {
    for (const s of input.sizes) for (const f of s.features) this.sizeOf.set(f.id, s);
    const { units } = input.plan;
    this.say = (mm) => `${formatLength(mm, units)} ${units === 'mm' ? 'mm' : 'in'}`;
    this.steps = new StepPlanner(input, outlines(input.library), this.say);
    this.standing = new Standing(input, this.sizeOf, this, this.say);
  }

  all(): Row[] {
    return this.input.sizes.map((s) => this.row(s));
  }

  /** The row of a size, worked out when it is first asked for. */
  row(size: FeatureSize): Row {
    const known = this.rows.get(size);
    if (known) return known;
    this.busy.add(size);
    const row = this.make(size);
    this.busy.delete(size);
    this.rows.set(size, row);
    return row;
  }

  private make(size: FeatureSize): Row {
    const { plan, setups } = this.input;
    const decision = plan.sizes[size.key] ?? EMPTY;
    const thread = decision.thread ?? null;
    const print = printOf(decision);
    const first = firstOf(size.features);
    const row: Row = {
      size,
      tag: size.tag,
      state: 'open',
      callout: { through: false },
      calloutText: familyOf(first).describe(first, (mm) => formatLength(mm, plan.units)),
      thread,
      print,
      guesses: [],
      setupId: setups.find((s) => size.features.some((f) => isReached(f, s)))?.setup.id ?? null,
      method: null,
      methods: [],
      holes: [],
      operations: [],
      blocked: [],
      reasons: [],
      remarks: [],
      notMade: null,
      wants: [],
    };
    if (isHole(first)) {
      row.callout = calloutOf(first, narrowest(first), print, thread);
      row.calloutText = formatCallout(row.callout, plan.units);
      row.guesses = decision.thread === undefined ? guessesOf(first) : [];
    }
    if (decision.leftOut) return { ...row, state: 'left out', reasons: [decision.leftOut] };
    if (size.family === 'sharp-edge')
      return { ...row, state: 'optional', reasons: ['Sharp in the model: nothing asks for a break.'] };
    if (row.setupId === null)
      return {
        ...row,
        state: 'unreachable',
        notMade: 'out of reach',
        reasons: [this.unreached(size.features)],
      };
    if (!isHole(first))
      return {
        ...row,
        notMade: 'no method yet',
        reasons: [
          'Recognised and shown; no method makes it yet. Program it elsewhere and leave it out here with that as the reason.',
        ],
      };
    this.planHoles(row, decision);
    if (row.reasons.length > 0 || row.operations.length === 0) {
      // A row is made whole or not at all: half a hole in the program is a trap.
      if (row.reasons.length === 0) row.reasons.push(...row.blocked.slice(0, 1).map((b) => b.reason));
      const notMade = row.wants.length > 0 ? 'no tool' : 'to decide';
      return { ...row, notMade, operations: [], blocked: [] };
    }
    return { ...row, state: 'planned', wants: [] };
  }

  private unreached(features: Feature[]): string {
    return features.every((f) => f.reachableFrom.length === 0)
      ? 'No straight tool reaches it from outside: the part itself is in the way.'
      : `No setup looks at it: turn the part so that ${sideNames(firstOf(features))} is up, or add a setup.`;
  }

  /** Each hole in the first setup that reaches it; what one of them cannot have does not keep the others open. */
  private planHoles(row: Row, decision: SizeDecision): void {
    const { setups } = this.input;
    const { size, print } = row;
    const groups = new Map<number, HoleView[]>();
    size.features.filter(isHole).forEach((f, i) => {
      const k = setups.findIndex((s) => isReached(f, s));
      const view = k < 0 ? null : viewHole(f, labelOf(size, i), at(setups, k).frame.frame);
      if (!view) {
        row.blocked.push({
          label: labelOf(size, i),
          feature: f.id,
          reason: `${labelOf(size, i)}: ${this.unreached([f])}`,
        });
        return;
      }
      const laid = printed(view, print, size.features.length, this.say);
      if (i === 0) {
        row.remarks.push(...laid.remarks, ...threadFit(row.thread, f, this.say));
        row.reasons.push(...laid.asks);
      }
      groups.set(k, [...(groups.get(k) ?? []), laid.view]);
    });
    const home = groups.keys().next();
    if (!home.done) row.setupId = at(setups, home.value).setup.id;
    for (const [k, views] of groups) this.planGroup(row, decision, k, views);
    leaveOut(row);
    if (row.blocked.length > 0)
      row.remarks.push(
        ...foldReasons(row.blocked.map((b) => b.reason)).map((message) => ({
          rule: 'left-out-hole',
          severity: 'warning' as const,
          message,
        })),
      );
  }

  private planGroup(row: Row, decision: SizeDecision, k: number, views: HoleView[]): void {
    const where = at(this.input.setups, k);
    const after = new Set<string>();
    const placed = views.map((v) => this.standing.view(v, k, row, after));
    row.holes.push(...placed);
    // The first that the shop's tools can do; where none can, one that only something in the way keeps from it, else the first of all says
    // what is missing.
    let first: Made | null = null;
    let method: Method | null = null;
    for (const candidate of this.candidates(row, decision, placed)) {
      const steps = stepsOf(candidate, firstOf(placed), row.thread !== null);
      const made = this.steps.plan(row, decision, where, placed, steps, '');
      const isDone = made.missing.length === 0 && made.operations.length > 0;
      if (isDone || !first || (first.missing.length > 0 && made.missing.length === 0))
        [first, method] = [made, candidate];
      if (isDone) break;
    }
    if (!first || !method) {
      if (row.reasons.length === 0)
        row.reasons.push(
          'No method applies to it. Leave it out with a reason, or correct what the print says.',
        );
      return;
    }
    row.method ??= { id: method.id, name: method.name };
    if (row.holes.length === placed.length)
      row.remarks.push(...checkLimits(row.print, heldBy(method), this.say));
    this.take(row, first, after);
    if (first.holes.some((h) => h.farSteps.length > 0))
      this.planFarSide(row, decision, k, first.holes, method);
  }

  /** Methods that may make these holes, best first: the one that was chosen, else all that apply. */
  private candidates(row: Row, decision: SizeDecision, holes: readonly HoleView[]): Method[] {
    const { library, material } = this.input;
    const all = [...library.methods, ...SHIPPED_METHODS];
    const subject: MethodSubject = {
      hole: firstOf(holes),
      threaded: row.thread !== null,
      fit: fitWish(row.print),
      materialId: material.id,
    };
    const apply = methodsFor(all, subject);
    row.methods = apply.map(({ id, name }) => ({ id, name }));
    if (decision.method !== undefined) {
      const chosen = all.find((m) => m.id === decision.method);
      if (chosen)
        return decision.operations
          ? this.changed(row, chosen, decision.operations, subject)
          : this.chosen(row, chosen, subject);
      row.remarks.push({
        rule: 'method-gone',
        severity: 'warning',
        message: `The method that was chosen (${decision.method}) is not in the list any more: the best that applies is taken.`,
      });
    }
    // A shop's own method that leaves something out never makes half a hole by itself.
    const whole = apply.filter((m) => !m.onRequest && whyNotMade(m, subject) === null);
    return decision.operations ? this.changed(row, whole[0], decision.operations, subject) : whole;
  }

  /** A method with the operations that were changed for this size. */
  private changed(
    row: Row,
    base: Method | undefined,
    operations: Method['operations'],
    subject: MethodSubject,
  ): Method[] {
    return base ? this.chosen(row, { ...base, name: `${base.name}, changed here`, operations }, subject) : [];
  }

  /** A chosen method that would leave out what the hole has is refused; one that is meant for others is taken, and it is said. */
  private chosen(row: Row, method: Method, subject: MethodSubject): Method[] {
    const leaves = whyNotMade(method, subject);
    if (leaves !== null) {
      row.reasons.push(
        `The chosen method "${method.name}" does not fit: ${leaves}. Choose another, or the best.`,
      );
      return [];
    }
    const why = whyNotMethod(method, subject);
    if (why !== null)
      row.remarks.push({
        rule: 'method-unfit',
        severity: 'warning',
        message: `"${method.name}" was chosen, though ${why}.`,
      });
    return [method];
  }

  /** What widens toward the far side, in the first setup that looks at it from there. */
  private planFarSide(row: Row, decision: SizeDecision, k: number, views: HoleView[], method: Method): void {
    const { setups } = this.input;
    const far = setups.findIndex(
      (s, i) => i !== k && views.every((v) => viewHole(v.feature, v.label, s.frame.frame)),
    );
    if (far < 0) {
      row.remarks.push({
        rule: 'far-side',
        severity: 'warning',
        message: 'The step on the far side is not made: add a setup with that side up.',
      });
      return;
    }
    const after = new Set<string>();
    const where = at(setups, far);
    const there = views.flatMap((v) => {
      const seen = viewHole(v.feature, v.label, where.frame.frame);
      return seen ? [this.standing.view(seen, far, row, after)] : [];
    });
    this.take(
      row,
      this.steps.plan(row, decision, where, there, farSideSteps(method, firstOf(there)), 'far '),
      after,
    );
  }

  /** Puts what was planned into the row. */
  private take(row: Row, made: Made, after: ReadonlySet<string>): void {
    row.blocked.push(...made.blocked);
    row.reasons.push(...made.missing.map((m) => m.missing));
    row.wants.push(...made.missing.flatMap((m) => m.need ?? []));
    for (const o of made.operations) {
      row.operations.push({ ...o, position: row.operations.length, after: [...after] });
      row.remarks.push(...o.remarks);
    }
    for (const message of made.skipped) row.remarks.push({ rule: 'not-needed', severity: 'note', message });
  }

  /** Whether that feature of a size is made in this setup or an earlier one. A size in work cannot be waited for. */
  isMadeBefore(size: FeatureSize, feature: string, k: number): boolean {
    if (this.busy.has(size)) return false;
    const row = this.row(size);
    if (row.state !== 'planned' || row.blocked.some((b) => b.feature === feature)) return false;
    const ids = new Set(this.input.setups.slice(0, k + 1).map((s) => s.setup.id));
    const own = row.operations.filter((o) => o.work.some((w) => w.feature === feature));
    return own.length > 0 && own.every((o) => ids.has(o.setupId));
  }
}

/** How closely a method makes a hole: as closely as it may be asked for. */
const heldBy = ({ when: { fit = [] } }: Method): FitWish =>
  fit.includes('bored') ? 'bored' : fit.includes('reamed') ? 'reamed' : 'drilled';

/** A hole that one setup cannot finish is left out of the others too: it is made whole or not at all. */
function leaveOut(row: Row): void {
  const out = new Set(row.blocked.map((b) => b.label));
  if (out.size === 0) return;
  row.operations = row.operations
    .map((o) => ({ ...o, work: o.work.filter((w) => !out.has(w.label)) }))
    .filter((o) => o.work.length > 0);
}
