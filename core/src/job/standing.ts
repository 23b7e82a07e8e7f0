import { at, first, got } from '../lists.ts';
import { isHole } from '../features/family.ts';
import { narrowest } from '../features/hole/recognise.ts';
import type { HoleFeature } from '../features/hole/schema.ts';
import type { FeatureSize } from '../features/sets.ts';
import { dot } from '../geometry/vec.ts';
import { crossing } from '../operations/crossing.ts';
import { drilledStep, type HoleView } from '../operations/hole-view.ts';
import { OVER_AXIS } from '../space/space.ts';
import type { Row } from './row.ts';
import { isReached, labelOf, type PlacedSetup, type PlannerInput } from './placed.ts';

/** What the rows that are planned already say. */
interface Rows {
  row(size: FeatureSize): Row;
  isMadeBefore(size: FeatureSize, feature: string, k: number): boolean;
}

/** What may stand over a hole when its turn comes, and which cavities its wall opens into by then. */
export class Standing {
  private readonly setups: readonly PlacedSetup[];
  private readonly crossed: HoleFeature[];

  constructor(
    { sizes, setups }: Pick<PlannerInput, 'sizes' | 'setups'>,
    private readonly sizeOf: ReadonlyMap<string, FeatureSize>,
    private readonly rows: Rows,
    private readonly say: (mm: number) => string,
  ) {
    this.setups = setups;
    this.crossed = sizes.flatMap((s) => s.features.filter(isHole).filter((f) => f.interrupted));
  }

  /** The hole as setup `k` finds it; sizes that it waits for in that setup are added to `after`. */
  view(view: HoleView, k: number, row: Row, after: Set<string>): HoleView {
    const { space } = at(this.setups, k);
    const diameter = drilledStep(view)?.diameter ?? 2;
    let [metalZ, from] = [view.entryZ, null as string | null];
    const raise = (z: number, why: string): void => {
      if (z > metalZ + 0.01) [metalZ, from] = [z, why];
    };
    raise(space.stockOver(view.x, view.y, 0), 'the stock');
    let open = view.entryZ;
    let isGuided = false;
    for (const o of space.openingsOver(view.x, view.y, OVER_AXIS, view.entryZ)) {
      if (o.feature === view.feature.id) continue;
      const size = this.sizeOf.get(o.feature);
      if (!size) continue;
      const above = size.features.find((f) => f.id === o.feature);
      if (above && isHole(above) && Math.abs(narrowest(above) - diameter) < 0.5 && o.runs.length === 1)
        isGuided ||= Math.hypot(first(o.runs)[0] - view.x, first(o.runs)[1] - view.y) < 0.05;
      if (this.rows.isMadeBefore(size, o.feature, k)) {
        open = Math.max(open, o.top);
        const container = this.rows.row(size);
        if (container.operations.some((p) => p.setupId === at(this.setups, k).setup.id)) after.add(size.key);
      } else raise(o.top, `${o.label} is not made before`);
    }
    const pocket = space.pocketTop(view.x, view.y, Math.max(view.entryZ, open));
    if (pocket > Math.max(open, view.entryZ) + 0.1) raise(pocket, 'a pocket that is not made here');
    if (metalZ > view.entryZ + 0.01 && from !== null) this.sayMetal(row, view, metalZ, from);
    return { ...view, metalZ, metalFrom: from, isGuided, crossings: this.crossingsOf(view, k) };
  }

  private sayMetal(row: Row, view: HoleView, metalZ: number, from: string): void {
    if (from === 'the stock') return;
    const known = row.remarks.find((r) => r.rule === 'starts-in-metal');
    if (known) return;
    row.remarks.push({
      rule: 'starts-in-metal',
      severity: 'note',
      message: `${view.label} starts ${this.say(metalZ - view.entryZ)} below metal that may still stand there (${from}): its tools start above it, at Z ${this.say(metalZ)}.`,
    });
  }

  private crossingsOf(view: HoleView, k: number): HoleView['crossings'] {
    if (!view.feature.interrupted) return [];
    return this.crossed.flatMap((other) => {
      if (other === view.feature) return [];
      const found = crossing(view.feature, other);
      const size = found && got(this.sizeOf, other.id);
      if (!found || !size) return [];
      // Only what an earlier setup made is a cavity by now; what comes later will cross this one.
      const home = this.setups.findIndex((s) => isReached(other, s));
      if (home < 0 || home >= k || !this.rows.isMadeBefore(size, other.id, k)) return [];
      const isTurned = dot(view.feature.axis, at(this.setups, k).frame.frame.z) < 0;
      const [top, end] = isTurned
        ? [view.feature.depth - found.end, view.feature.depth - found.top]
        : [found.top, found.end];
      return [{ label: labelOf(size, size.features.indexOf(other)), top, end }];
    });
  }
}
