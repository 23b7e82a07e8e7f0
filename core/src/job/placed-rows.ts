import { at, first as firstOf } from '../lists.ts';
import type { Feature } from '../features/family.ts';
import { fromFrame, toFrame, type Frame } from '../geometry/frame.ts';
import { dot } from '../geometry/vec.ts';
import { plainSteps, type MethodSubject } from '../methods/match.ts';
import type { Method } from '../methods/schema.ts';
import { SHIPPED_METHODS } from '../methods/shipped.ts';
import type { SizeDecision } from '../plan/plan.ts';
import { bestMade, candidatesFor, sayLacks, takeMade } from './method-candidates.ts';
import { isReached, labelOf, type PlannerInput } from './placed.ts';
import type { Row } from './row.ts';
import type { JobView, RowFamily } from './row-planner.ts';
import { foldReasons } from './row-words.ts';
import { Standing } from './standing.ts';
import { StepPlanner, type Given, type View } from './step-planner.ts';

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
  /** As the setup on its other side finds it when all down to a level is made, program coordinates there; null: such are made from one side. */
  restOf(view: V, level: number): V | null;
  /** Told that a setup looks at its other side. */
  withOtherSide(view: V): V;
  subject(view: V, materialId: string): MethodSubject;
  /** Where a row keeps them, and how kinds of operation are given them. */
  listOf(row: Row): V[];
  give(views: V[]): Given;
  /** What makes it already, in words; null where nothing does. */
  madeBy?(view: V, decision: SizeDecision): string | null;
}

/** How far the two sides overlap where they meet, mm; and axes that are opposed by less are across each other. */
const BOTH = 0.5;
const ACROSS = 0.999;

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
          reason: `${label}: ${k < 0 ? this.job.unreached([f]) : 'Its exact shape is not known: the file was read before that was kept (load it again as a newer file), or edges chosen by hand make no level run (choose them again).'}`,
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
    const placed = views.map((v) => {
      const seen = this.placing.stand(this.standing, v, k, row, after);
      return this.otherSideOf(v, k) < 0 ? seen : this.placing.withOtherSide(seen);
    });
    this.placing.listOf(row).push(...placed);
    const isLeft = placed.filter((v) => {
      const what = this.placing.madeBy?.(v, decision) ?? null;
      if (what !== null) row.madeBy.push({ label: v.label, feature: v.feature.id, what });
      return what === null;
    });
    if (isLeft.length === 0) return;
    const subject = this.placing.subject(firstOf(placed), material.id);
    const candidates = candidatesFor(row, decision, [...library.methods, ...SHIPPED_METHODS], subject);
    const best = bestMade(candidates, (m) =>
      this.steps.plan(row, decision, at(setups, k), isLeft, plainSteps(m), ''),
    );
    if (!best) {
      if (row.reasons.length === 0) row.reasons.push('No method applies to it. Leave it out with a reason.');
      return;
    }
    row.method ??= { id: best.method.id, name: best.method.name };
    takeMade(row, best.made, after);
    sayLacks(row, best);
    for (const o of best.made.operations)
      for (const [label, z] of o.leaves ?? []) this.planRest(row, decision, best.method, k, label, z, placed);
  }

  /** The setup that looks at a feature from its other side; -1 where none does. */
  private otherSideOf({ feature }: V, k: number): number {
    const { setups, sizes } = this.input;
    const own = sizes.flatMap((s) => s.features).find((f) => f.id === feature.id);
    const z = at(setups, k).frame.frame.z;
    return setups.findIndex(
      (s, i) => i !== k && own && isReached(own, s) && dot(s.frame.frame.z, z) < -ACROSS,
    );
  }

  /** What one setup leaves of a feature below a level, from its other side. */
  private planRest(
    row: Row,
    decision: SizeDecision,
    method: Method,
    k: number,
    label: string,
    z: number,
    placed: readonly V[],
  ): void {
    const { setups } = this.input;
    const view = placed.find((v) => v.label === label);
    const other = view ? this.otherSideOf(view, k) : -1;
    const own = row.size.features.find((f) => f.id === view?.feature.id);
    if (other < 0 || !own) return;
    const [here, there] = [at(setups, k).frame.frame, at(setups, other).frame.frame];
    const seen = this.placing.view(own, label, there);
    const level = toFrame(there, fromFrame(here, [0, 0, z]))[2];
    const after = new Set<string>();
    const stands = seen && this.placing.stand(this.standing, seen, other, row, after);
    const rest = stands && this.placing.restOf(stands, level - BOTH);
    if (!rest) return;
    const made = this.steps.plan(row, decision, at(setups, other), [rest], plainSteps(method), 'far ');
    const [missing] = made.missing;
    const [blocked] = made.blocked;
    if (missing || blocked)
      row.remarks.push({
        rule: 'rest-not-made',
        severity: 'warning',
        message: `${label} is milled down to Z ${this.job.say(z)} in ${at(setups, k).setup.name}, and the rest cannot be made from its other side: ${missing?.missing ?? blocked?.reason ?? ''}`,
      });
    takeMade(row, { ...made, missing: [], blocked: [] }, after);
  }
}
