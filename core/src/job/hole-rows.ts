import { at, first as firstOf } from '../lists.ts';
import { formatCallout } from '../callout/callout.ts';
import { isHole } from '../features/family.ts';
import { narrowest } from '../features/hole/recognise.ts';
import { farSideSteps, stepsOf } from '../methods/match.ts';
import type { FitWish, Method } from '../methods/schema.ts';
import { SHIPPED_METHODS } from '../methods/shipped.ts';
import { viewHole, type HoleView } from '../operations/hole-view.ts';
import type { SizeDecision } from '../plan/plan.ts';
import { calloutOf, checkLimits, printed } from './print.ts';
import { isReached, labelOf, type PlannerInput } from './placed.ts';
import type { Row } from './row.ts';
import type { JobView, RowFamily } from './row-planner.ts';
import { foldReasons, guessesOf, threadFit } from './row-words.ts';
import { subjectOf } from './subject.ts';
import { Standing } from './standing.ts';
import { bestMade, candidatesFor, sayLacks, takeMade } from './method-candidates.ts';
import { NOTHING, StepPlanner } from './step-planner.ts';

/** Plans the rows of holes: what the print says is laid over the model, then the best method that the shop's tools can do is taken. */
export class HoleRows implements RowFamily {
  private readonly standing: Standing;
  private readonly steps: StepPlanner;
  private readonly say: (mm: number) => string;

  constructor(
    private readonly input: PlannerInput,
    private readonly job: JobView,
  ) {
    this.say = (mm) => job.say(mm);
    this.steps = new StepPlanner((holes) => ({ ...NOTHING, holes }), input, this.say);
    this.standing = new Standing(input, job.sizeOf, job, this.say);
  }

  takesCallout(): boolean {
    return true;
  }

  describe(row: Row, decision: SizeDecision): void {
    const { units } = this.input.plan;
    const hole = row.size.features.find(isHole);
    if (!hole) return;
    row.callout = calloutOf(hole, narrowest(hole), row.print, row.thread);
    row.calloutText = formatCallout(row.callout, units);
    row.guesses = decision.thread === undefined ? guessesOf(hole) : [];
  }

  /** Each hole in the first setup that reaches it; what one of them cannot have does not keep the others open. */
  plan(row: Row, decision: SizeDecision): void {
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
          reason: `${labelOf(size, i)}: ${this.job.unreached([f])}`,
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
    const best = bestMade(this.candidates(row, decision, placed), (m) =>
      this.steps.plan(row, decision, where, placed, stepsOf(m, firstOf(placed), row.thread !== null), ''),
    );
    if (!best) {
      if (row.reasons.length === 0)
        row.reasons.push(
          'No method applies to it. Leave it out with a reason, or correct what the print says.',
        );
      return;
    }
    const { method, made } = best;
    row.method ??= { id: method.id, name: method.name };
    if (row.holes.length === placed.length)
      row.remarks.push(...checkLimits(row.print, heldBy(method), this.say));
    takeMade(row, made, after);
    sayLacks(row, best);
    if (made.holes.some((h) => h.farSteps.length > 0)) this.planFarSide(row, decision, k, made.holes, method);
  }

  private candidates(row: Row, decision: SizeDecision, holes: readonly HoleView[]): Method[] {
    const { library, material } = this.input;
    const all = [...library.methods, ...SHIPPED_METHODS];
    return candidatesFor(row, decision, all, subjectOf(row, firstOf(holes), material.id));
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
    takeMade(
      row,
      this.steps.plan(row, decision, where, there, farSideSteps(method, firstOf(there)), 'far '),
      after,
    );
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
