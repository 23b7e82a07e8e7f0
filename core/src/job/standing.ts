import { at, first, got } from '../lists.ts';
import { isBoss, isHole, type Feature } from '../features/family.ts';
import { familyOf, isInPreparedStock } from '../features/registry.ts';
import { leftOf, move2, parallelPath } from '../geometry/parallel.ts';
import { segmentPoint, tangentAt, type Vec2 } from '../geometry/path.ts';
import { insidePoint, isWithin, ringPoints } from '../features/area/rings.ts';
import type { AreaView } from '../operations/area-view.ts';
import type { EdgeView } from '../operations/edge-view.ts';
import type { GrooveView } from '../operations/groove-view.ts';
import type { SeenOpening } from '../space/openings.ts';
import { narrowest } from '../features/hole/recognise.ts';
import type { HoleFeature } from '../features/hole/schema.ts';
import type { FeatureSize } from '../features/sets.ts';
import { dot } from '../geometry/vec.ts';
import { pointLength } from '../cutting/depths.ts';
import { USUAL_POINT } from '../tools/kinds/drill.ts';
import { operationKind } from '../operations/registry.ts';
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

/** mm. */
const BEFORE_WALL = 0.5;
const SAME_LEVEL = 0.001;

/** Metal over a place when its turn comes, and cavities whose mouths lie over it. */
interface Over {
  metalZ: number;
  from: string | null;
  above: { feature: Feature; opening: SeenOpening }[];
}

/** What may stand over a hole when its turn comes, and which cavities its wall opens into by then. */
export class Standing {
  private readonly setups: readonly PlacedSetup[];
  private readonly crossed: HoleFeature[];
  /** Features by the faces that they make, edges not counted. */
  private readonly owners = new Map<string, { size: FeatureSize; feature: Feature }[]>();

  constructor(
    { sizes, setups }: Pick<PlannerInput, 'sizes' | 'setups'>,
    private readonly sizeOf: ReadonlyMap<string, FeatureSize>,
    private readonly rows: Rows,
    private readonly say: (mm: number) => string,
  ) {
    this.setups = setups;
    for (const size of sizes)
      for (const feature of size.features) {
        if (familyOf(feature).isOnEdge || isBoss(feature)) continue;
        for (const face of feature.faces) {
          const key = `${feature.solid}/${face}`;
          this.owners.set(key, [...(this.owners.get(key) ?? []), { size, feature }]);
        }
      }
    this.crossed = sizes.flatMap((s) => s.features.filter(isHole).filter((f) => f.interrupted));
  }

  /** The hole as setup `k` finds it; sizes that it waits for in that setup are added to `after`. */
  view(view: HoleView, k: number, row: Row, after: Set<string>): HoleView {
    const over = this.over([[view.x, view.y]], view, k, after);
    const diameter = drilledStep(view)?.diameter ?? 2;
    const isGuided = over.above.some(({ feature, opening: { runs } }) => {
      if (!isHole(feature) || Math.abs(narrowest(feature) - diameter) >= 0.5 || runs.length !== 1)
        return false;
      const [x, y] = first(runs);
      return Math.hypot(x - view.x, y - view.y) < 0.05;
    });
    const seen = { ...view, ...this.raised(over, view, row) };
    return { ...seen, isGuided, crossings: this.crossingsOf(view, k) };
  }

  /** The same of a slot, groove or channel: along the whole of it. */
  groove(view: GrooveView, k: number, row: Row, after: Set<string>): GrooveView {
    // Of a groove in a wall in the air before it.
    const { shape } = view;
    const path = shape.isOneSided
      ? (parallelPath(shape.path, BEFORE_WALL, shape.closed) ?? shape.path)
      : shape.path;
    const places = path.flatMap((s) => [0, 0.25, 0.5, 0.75, 1].map((t) => segmentPoint(s, t)));
    const over = this.over(places, view, k, after);
    if (view.shape.bore !== undefined) this.addCones(over, view);
    return { ...view, ...this.raised(over, view, row) };
  }

  /** The same of an area: over its border, and over its middle. */
  area(view: AreaView, k: number, row: Row, after: Set<string>): AreaView {
    const rings = view.shape.rings.map((r) => r.map((e) => e.segment));
    // Beside its border, on its own side: what stands on the border itself is another's.
    const border = rings.flatMap((r) =>
      (parallelPath(r, BEFORE_WALL, true) ?? r).flatMap((s) => [0.25, 0.75].map((t) => segmentPoint(s, t))),
    );
    // What an outline makes lies all beyond it.
    const { side } = view.shape;
    const isOn = (p: Vec2): boolean =>
      rings.filter((r) => isWithin(ringPoints(r), p)).length % 2 === (side === 'outside' ? 0 : 1);
    // In a pointed corner there is no such place beside both its sides.
    const beside = border.filter(isOn);
    const places = side === 'outside' ? beside : [insidePoint(rings), ...beside];
    const over = this.over(places, view, k, after);
    const seen = { ...view, ...this.raised(over, view, row) };
    return {
      ...seen,
      startZ: this.startOf(seen, places, k, after),
      isOutlineMade: side === 'open' && this.isOutlineMade(view, k, after),
    };
  }

  /** An edge: the faces above it and below it are there when its turn comes, or it is said whose are not. */
  edge(view: EdgeView, k: number, after: Set<string>): EdgeView {
    const { space } = at(this.setups, k);
    const isPrepared = this.setups.every((s) => s.setup.stock.kind === 'prepared');
    const path = view.shape.path;
    const places = path.flatMap((s) => [0.2, 0.5, 0.8].map((t) => segmentPoint(s, t)));
    const stock = Math.max(
      ...places.map(([x, y]) => {
        const made = space
          .openingsOver(x, y, OVER_AXIS, -Infinity)
          .filter((o) => o.clearsStock && this.isMade(o.feature, k));
        return Math.min(space.stockOver(x, y, 0), ...made.map((o) => o.bottom));
      }),
    );
    let metalFrom =
      stock > view.entryZ + 0.05 ? 'stock still stands over it when its turn comes. Mill that first.' : null;
    for (const { size, feature } of this.ownersOf(view.feature)) {
      const { state } = this.rows.row(size);
      // What somebody leaves out of it is made elsewhere, or was there before.
      const isThere = state === 'optional' || (state === 'left out' && isPrepared);
      if (isThere && isInPreparedStock(feature)) continue;
      const label = labelOf(size, size.features.indexOf(feature));
      if (this.rows.isMadeBefore(size, feature.id, k)) this.waitFor(size, k, after);
      else
        metalFrom ??= `it runs along ${label}, which is ${state === 'planned' ? 'made in a later setup' : 'not made here'}: the edge is not there yet.`;
    }
    return { ...view, metalFrom, broken: this.brokenBy(view) };
  }

  private isMade(feature: string, k: number): boolean {
    const size = this.sizeOf.get(feature);
    return size !== undefined && this.rows.isMadeBefore(size, feature, k);
  }

  /** The features that make the faces beside an edge. */
  private ownersOf(f: Feature): { size: FeatureSize; feature: Feature }[] {
    const own = new Map<Feature, FeatureSize>();
    const faces = 'beside' in f ? (f.beside ?? []) : [];
    for (const face of faces)
      for (const { size, feature } of this.owners.get(`${f.solid}/${face}`) ?? []) own.set(feature, size);
    return [...own].map(([feature, size]) => ({ size, feature }));
  }

  /** Width to which what makes a hole breaks its rim, mm. */
  private brokenBy(view: EdgeView): number {
    const hole = 'holeId' in view.feature ? view.feature.holeId : undefined;
    const size = hole === undefined ? undefined : this.sizeOf.get(hole);
    if (!size || view.rim === null) return 0;
    const rims = this.rows.row(size).operations.map((o) => o.rim ?? 0);
    return Math.max(0, ...rims) / 2 - view.rim;
  }

  /** Z at which the metal in an area begins: what is higher of the areas that lie over all of it is made first. */
  private startOf(
    view: AreaView,
    places: readonly (readonly [number, number])[],
    k: number,
    after: Set<string>,
  ): number {
    const { space } = at(this.setups, k);
    const top = Math.max(view.entryZ, view.metalZ);
    const own = this.sizeOf.get(view.feature.id);
    const waits: FeatureSize[] = [];
    const levels = places.map(([x, y]) => {
      let level = top;
      for (const o of space.openingsOver(x, y, 0, -Infinity)) {
        const size = this.sizeOf.get(o.feature);
        const isOver = o.clearsStock && o.bottom < level && o.bottom > view.shape.floor - SAME_LEVEL;
        if (!isOver || !size || size === own || !this.rows.isMadeBefore(size, o.feature, k)) continue;
        level = Math.min(level, this.madeTo(size, o, k));
        waits.push(size);
      }
      return level;
    });
    const start = Math.max(...levels);
    if (start < top) for (const size of waits) this.waitFor(size, k, after);
    return Math.max(start, view.shape.floor);
  }

  /** How low a feature is made: to its floor, or as far as was typed for it in this setup. */
  private madeTo(size: FeatureSize, { feature, bottom }: SeenOpening, k: number): number {
    const { id } = at(this.setups, k).setup;
    const levels = this.rows
      .row(size)
      .operations.filter((o) => o.setupId === id)
      .flatMap((o) => o.work.filter((w) => w.feature === feature).map((w) => w.z));
    return levels.length === 0 ? bottom : Math.max(bottom, Math.min(...levels));
  }

  /** Whether the part's outline beyond an area's open sides is made before. */
  private isOutlineMade({ shape }: AreaView, k: number, after: Set<string>): boolean {
    const { space } = at(this.setups, k);
    for (const { segment, isWall } of shape.rings.flat()) {
      if (isWall) continue;
      const [x, y] = move2(segmentPoint(segment, 0.5), leftOf(tangentAt(segment, 'from')), -BEFORE_WALL);
      for (const o of space.openingsOver(x, y, 0, -Infinity)) {
        const size = o.isOutside && this.sizeOf.get(o.feature);
        if (!size || !this.rows.isMadeBefore(size, o.feature, k)) continue;
        this.waitFor(size, k, after);
        return true;
      }
    }
    return false;
  }

  /** A size that is made in the same setup comes first. */
  private waitFor(size: FeatureSize, k: number, after: Set<string>): void {
    const { id } = at(this.setups, k).setup;
    if (this.rows.row(size).operations.some((p) => p.setupId === id)) after.add(size.key);
  }

  /** What a drill leaves on a floor that the model has flat stands in the way of a groove just over it. */
  private addCones(over: Over, view: GrooveView): void {
    for (const { feature, opening } of over.above) {
      const size =
        isHole(feature) && feature.bottom.shape === 'flat' ? this.sizeOf.get(feature.id) : undefined;
      if (!size || this.rows.row(size).operations.some((o) => operationKind(o.kind).leavesFlat)) continue;
      const cone = opening.bottom + pointLength(2 * opening.radius, USUAL_POINT);
      if (cone > view.entryZ - view.depth + 0.01 && cone > over.metalZ - view.depth)
        [over.metalZ, over.from] = [
          Math.max(over.metalZ, cone, view.entryZ + 0.02),
          'the cone that its drill leaves on the floor: choose a method for the hole that mills it flat',
        ];
    }
  }

  /** What stands over places in plan at a feature's top when its turn comes. */
  private over(
    places: readonly (readonly [number, number])[],
    { entryZ, feature }: Pick<HoleView, 'entryZ'> & { feature: { id: string } },
    k: number,
    after: Set<string>,
  ): Over {
    const { space } = at(this.setups, k);
    const out: Over = { metalZ: entryZ, from: null, above: [] };
    const raise = (z: number, why: string): void => {
      if (z > out.metalZ + 0.01) [out.metalZ, out.from] = [z, why];
    };
    for (const [x, y] of places) {
      let open = entryZ;
      // Stock that stands proud goes down with whatever is made right over the place.
      let stock = space.stockOver(x, y, 0);
      const right = new Set(space.openingsOver(x, y, 0, entryZ).map((o) => o.feature));
      for (const o of space.openingsOver(x, y, OVER_AXIS, entryZ)) {
        if (o.feature === feature.id) continue;
        const size = this.sizeOf.get(o.feature);
        if (!size) continue;
        const above = size.features.find((f) => f.id === o.feature);
        if (above) out.above.push({ feature: above, opening: o });
        if (this.rows.isMadeBefore(size, o.feature, k)) {
          open = Math.max(open, o.top);
          if (right.has(o.feature)) stock = Math.min(stock, this.madeTo(size, o, k));
          this.waitFor(size, k, after);
        } else raise(o.top, `${o.label} is not made before`);
      }
      raise(stock, 'the stock');
      const pocket = space.pocketTop(x, y, Math.max(entryZ, open));
      if (pocket > Math.max(open, entryZ) + 0.1) raise(pocket, 'a pocket that is not made here');
    }
    return out;
  }

  private raised(
    { metalZ, from }: Over,
    view: HoleView | GrooveView | AreaView,
    row: Row,
  ): Pick<HoleView, 'metalZ' | 'metalFrom'> {
    if (metalZ > view.entryZ + 0.01 && from !== null) this.sayMetal(row, view, metalZ, from);
    return { metalZ, metalFrom: from };
  }

  private sayMetal(row: Row, view: HoleView | GrooveView | AreaView, metalZ: number, from: string): void {
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
