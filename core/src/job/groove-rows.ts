import { at, first as firstOf } from '../lists.ts';
import type { FamilyName, Feature } from '../features/family.ts';
import { plainSteps } from '../methods/match.ts';
import { isGrooveFamily, METHOD_FAMILIES } from '../methods/schema.ts';
import { SHIPPED_METHODS } from '../methods/shipped.ts';
import type { GrooveSubject } from '../methods/groove-match.ts';
import { viewGroove, type GrooveView } from '../operations/groove-view.ts';
import type { SizeDecision } from '../plan/plan.ts';
import { bestMade, candidatesFor, sayLacks, takeMade } from './method-candidates.ts';
import { isReached, labelOf, type PlannerInput } from './placed.ts';
import type { Row } from './row.ts';
import type { JobView, RowFamily } from './row-planner.ts';
import { foldReasons } from './row-words.ts';
import { Standing } from './standing.ts';
import { NOTHING, StepPlanner } from './step-planner.ts';

type GrooveFamily = GrooveSubject['family'];

/** Plans the rows of slots, grooves and channels. */
class GrooveRows implements RowFamily {
  private readonly standing: Standing;
  private readonly steps: StepPlanner<GrooveView>;

  constructor(
    private readonly family: GrooveFamily,
    private readonly input: PlannerInput,
    private readonly job: JobView,
  ) {
    const say = (mm: number): string => job.say(mm);
    this.steps = new StepPlanner((grooves) => ({ ...NOTHING, grooves }), input, say);
    this.standing = new Standing(input, job.sizeOf, job, say);
  }

  /** A print says nothing of them that the model does not. */
  describe(): void {}

  /** Each in the first setup that reaches it. */
  plan(row: Row, decision: SizeDecision): void {
    const { setups } = this.input;
    const { size } = row;
    const groups = new Map<number, GrooveView[]>();
    size.features.forEach((f, i) => {
      const label = labelOf(size, i);
      const k = this.homeOf(f, label, row);
      const view = k < 0 ? null : viewGroove(f, label, at(setups, k).frame.frame);
      if (view) groups.set(k, [...(groups.get(k) ?? []), view]);
      else
        row.blocked.push({
          label,
          feature: f.id,
          reason: `${label}: ${k < 0 ? this.job.unreached([f]) : 'Its ends are not known: the file was read before they were kept. Load it again as a newer file.'}`,
        });
    });
    for (const [k, views] of groups) {
      if (k === firstOf([...groups.keys()])) row.setupId = at(setups, k).setup.id;
      this.planGroup(row, decision, k, views);
    }
    if (row.blocked.length > 0)
      row.remarks.push(
        ...foldReasons(row.blocked.map((b) => b.reason)).map((message) => ({
          rule: 'left-out-feature',
          severity: 'warning' as const,
          message,
        })),
      );
  }

  /** The first setup that reaches it with nothing over it by then; else the first that reaches it, -1 where none does. */
  private homeOf(f: Feature, label: string, row: Row): number {
    const { setups } = this.input;
    const reached = setups.flatMap((s, k) => (isReached(f, s) ? [k] : []));
    const free = reached.find((k) => {
      const view = viewGroove(f, label, at(setups, k).frame.frame);
      return view && this.standing.groove(view, k, { ...row, remarks: [] }, new Set()).metalFrom === null;
    });
    return free ?? reached[0] ?? -1;
  }

  private planGroup(row: Row, decision: SizeDecision, k: number, views: readonly GrooveView[]): void {
    const { library, material, setups } = this.input;
    const after = new Set<string>();
    const placed = views.map((v) => this.standing.groove(v, k, row, after));
    row.grooves.push(...placed);
    const subject: GrooveSubject = { family: this.family, groove: firstOf(placed), materialId: material.id };
    const candidates = candidatesFor(row, decision, [...library.methods, ...SHIPPED_METHODS], subject);
    const best = bestMade(candidates, (m) =>
      this.steps.plan(row, decision, at(setups, k), placed, plainSteps(m), ''),
    );
    if (!best) {
      if (row.reasons.length === 0) row.reasons.push('No method applies to it. Leave it out with a reason.');
      return;
    }
    row.method ??= { id: best.method.id, name: best.method.name };
    takeMade(row, best.made, after);
    sayLacks(row, best);
  }
}

/** Planners of all families of slots, grooves and channels. */
export const grooveRows: Partial<Record<FamilyName, (input: PlannerInput, job: JobView) => RowFamily>> =
  Object.fromEntries(
    METHOD_FAMILIES.filter(isGrooveFamily).map((family) => [
      family,
      (input: PlannerInput, job: JobView) => new GrooveRows(family, input, job),
    ]),
  );
