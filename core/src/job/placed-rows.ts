import { at, first as firstOf } from '../lists.ts';
import type { Feature } from '../features/family.ts';
import type { Frame } from '../geometry/frame.ts';
import { plainSteps, type MethodSubject } from '../methods/match.ts';
import { SHIPPED_METHODS } from '../methods/shipped.ts';
import type { KindContext } from '../operations/kind.ts';
import type { SizeDecision } from '../plan/plan.ts';
import { bestMade, candidatesFor, sayLacks, takeMade } from './method-candidates.ts';
import { isReached, labelOf, type PlannerInput } from './placed.ts';
import type { Row } from './row.ts';
import type { JobView, RowFamily } from './row-planner.ts';
import { foldReasons } from './row-words.ts';
import { Standing } from './standing.ts';
import { StepPlanner, type View } from './step-planner.ts';

/** A feature as a setup sees it, with the metal over it. */
interface PlacedView extends View {
  metalFrom: string | null;
}

/** What tells one sort of features from another while their rows are planned. */
export interface Placing<V extends PlacedView> {
  /** As seen from a setup; null where it is not. */
  view(f: Feature, label: string, frame: Frame): V | null;
  /** With the metal that stands over it when its turn comes in setup `k`; sizes that it waits for are added to `after`. */
  stand(standing: Standing, view: V, k: number, row: Row, after: Set<string>): V;
  subject(view: V, materialId: string): MethodSubject;
  /** Where a row keeps them, and how kinds of operation are given them. */
  listOf(row: Row): V[];
  give(views: V[]): Pick<KindContext, 'holes' | 'bosses' | 'grooves' | 'areas'>;
}

/** Plans the rows of features that are made whole in one setup, by one method for all of a size. */
export class PlacedRows<V extends PlacedView> implements RowFamily {
  private readonly standing: Standing;
  private readonly steps: StepPlanner<V>;

  constructor(
    private readonly placing: Placing<V>,
    private readonly input: PlannerInput,
    private readonly job: JobView,
  ) {
    const say = (mm: number): string => job.say(mm);
    this.steps = new StepPlanner((views) => placing.give(views), input, say);
    this.standing = new Standing(input, job.sizeOf, job, say);
  }

  /** A print says nothing of them that the model does not. */
  describe(): void {}

  /** Each in the first setup that reaches it. */
  plan(row: Row, decision: SizeDecision): void {
    const { setups } = this.input;
    const { size } = row;
    const groups = new Map<number, V[]>();
    size.features.forEach((f, i) => {
      const label = labelOf(size, i);
      const k = this.homeOf(f, label, row);
      const view = k < 0 ? null : this.placing.view(f, label, at(setups, k).frame.frame);
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
      const view = this.placing.view(f, label, at(setups, k).frame.frame);
      return (
        view &&
        this.placing.stand(this.standing, view, k, { ...row, remarks: [] }, new Set()).metalFrom === null
      );
    });
    return free ?? reached[0] ?? -1;
  }

  private planGroup(row: Row, decision: SizeDecision, k: number, views: readonly V[]): void {
    const { library, material, setups } = this.input;
    const after = new Set<string>();
    const placed = views.map((v) => this.placing.stand(this.standing, v, k, row, after));
    this.placing.listOf(row).push(...placed);
    const subject = this.placing.subject(firstOf(placed), material.id);
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
