import { at, first as firstOf } from '../lists.ts';
import { formatCallout } from '../callout/callout.ts';
import type { Callout } from '../callout/schema.ts';
import { isBoss } from '../features/family.ts';
import type { MethodStep } from '../methods/match.ts';
import { viewBoss, type BossView } from '../operations/boss-view.ts';
import type { SizeDecision } from '../plan/plan.ts';
import { outsideCandidates } from '../threads/candidates.ts';
import { isReached, labelOf, type PlannerInput } from './placed.ts';
import type { Row } from './row.ts';
import type { JobView, RowFamily } from './row-planner.ts';
import { takeMade } from './method-candidates.ts';
import { NOTHING, StepPlanner } from './step-planner.ts';

/** The one way in which bosses are made here: what stands is threaded. */
const METHOD = { id: 'thread-milled-boss', name: 'thread-milled boss' };
const STEP: MethodStep = { kind: 'outside-thread-mill', or: [], step: null, set: {} };

/** Plans the rows of bosses: nothing is made of one until a callout gives it a thread. */
export class BossRows implements RowFamily {
  private readonly steps: StepPlanner<BossView>;

  constructor(
    private readonly input: PlannerInput,
    private readonly job: JobView,
  ) {
    this.steps = new StepPlanner(
      (bosses) => ({ ...NOTHING, bosses }),
      input,
      (mm) => job.say(mm),
    );
  }

  takesCallout({ thread }: Callout): boolean {
    return thread !== undefined;
  }

  describe(row: Row, decision: SizeDecision): void {
    const { units } = this.input.plan;
    const boss = row.size.features.find(isBoss);
    if (!boss) return;
    row.guesses =
      decision.thread === undefined
        ? outsideCandidates(boss.diameter, units).map((designation) => ({ kind: 'thread', designation }))
        : [];
    if (!row.thread) return;
    row.callout = { ...row.print, thread: row.thread };
    row.calloutText = formatCallout(row.callout, units);
  }

  /** Each boss in the first setup that reaches it. */
  plan(row: Row, decision: SizeDecision): void {
    const { setups } = this.input;
    const { size } = row;
    row.reasons.push(...asksNothingElse(row.print));
    const groups = new Map<number, BossView[]>();
    size.features.filter(isBoss).forEach((f, i) => {
      const k = setups.findIndex((s) => isReached(f, s));
      const view = k < 0 ? null : viewBoss(f, labelOf(size, i), at(setups, k).frame.frame);
      const label = labelOf(size, i);
      if (!view) row.blocked.push({ label, feature: f.id, reason: `${label}: ${this.job.unreached([f])}` });
      else groups.set(k, [...(groups.get(k) ?? []), view]);
    });
    row.method = METHOD;
    row.methods = [METHOD];
    for (const [k, bosses] of groups) {
      const made = this.steps.plan(row, decision, at(setups, k), bosses, [STEP], '');
      row.setupId = at(setups, firstOf([...groups.keys()])).setup.id;
      takeMade(row, made, new Set());
    }
  }
}

/** A boss takes a thread and nothing else: what a callout says beyond that is not passed over. */
function asksNothingElse({ diameter, depth, counterbore, countersink }: Callout): string[] {
  const more = [
    diameter === undefined ? '' : 'a diameter',
    depth === undefined ? '' : 'a depth of a hole',
    counterbore ? 'a counterbore' : '',
    countersink ? 'a countersink' : '',
  ].filter((t) => t !== '');
  return more.length > 0
    ? [`The callout has ${more.join(' and ')}, which a boss has not. Leave it out.`]
    : [];
}
