import type { SeenOpening } from '../../../../space/openings.ts';
import { OVER_AXIS, partName, type Hit } from '../../../../space/space.ts';
import type { KnownMotion } from '../../../chords.ts';
import { Columns } from '../../../columns.ts';
import type { Tool } from '../../../../tools/schema.ts';
import { toolName, type CheckContext, type Finding, type MadeHole } from '../../check.ts';

/** A motion whose both ends the text says. */
export type Known = KnownMotion;

/** How far a fed cutter may seem to be in a wall that it runs along: chords of round walls lie inside them, mm. */
export const BESIDE_WALL = 0.03;

/** A place this far within a stock's side is in it, mm. */
const WITHIN = 1e-3;

export const isSideways = (m: Known): boolean =>
  m.kind === 'arc' || m.from[0] !== m.to[0] || m.from[1] !== m.to[1];

/** What the walk through a program knows so far: the metal that is gone, and what has been said. */
export class WayState {
  readonly columns = new Columns();
  readonly out: Finding[] = [];
  /** Slots, grooves and channels whose floor was reached. */
  readonly made = new Set<string>();
  private readonly told = new Set<string>();

  constructor(readonly c: CheckContext) {}

  /** Into the finished part. */
  inPart(m: Known, tool: Tool, hole: MadeHole | null, hit: Hit): void {
    const { say, word } = this.c;
    const lift = `${word('Z', Math.min(m.from[2], m.to[2]) + hit.depth)} or higher would clear it.`;
    this.say(
      m,
      m.kind === 'rapid' ? 'rapid-into-part' : 'into-part',
      hole,
      `the ${partName(hit.part)} of ${toolName(tool)} (⌀${say(hit.diameter)}) ${m.kind === 'rapid' ? 'goes at rapid' : 'is fed'} into the finished part, ${say(hit.depth)} deep at Z ${say(hit.height)}. ${lift}`,
    );
  }

  /** Top of metal that stands over a place before anything is cut: proud stock, and cavities that are not made before. */
  metalTop(x: number, y: number, r: number): number {
    const { space } = this.c;
    let top = Math.max(this.stockOver(x, y, r), space.heights?.along(x, y, x, y, r, -Infinity) ?? -Infinity);
    for (const o of space.openingsOver(x, y, OVER_AXIS, -Infinity))
      if (!this.isMade(o.feature)) top = Math.max(top, this.topOf(o, x, y));
    return top;
  }

  /** Top of the metal in a cavity that is not made: upon an area no higher than its stock still stands. */
  private topOf(o: SeenOpening, x: number, y: number): number {
    const stock = o.clearsStock ? this.stockOver(x, y, 0) : -Infinity;
    return stock === -Infinity ? o.top : Math.min(o.top, stock);
  }

  /** Top of stock over a place: down to what is milled under it. */
  private stockOver(x: number, y: number, r: number): number {
    const { space } = this.c;
    const stock = space.stockOver(x, y, r);
    if (stock === -Infinity) return stock;
    // Beside the stock it is asked for where that is nearest.
    const { min, max } = space.setup.body.box;
    const inside = (p: number, low: number, high: number): number =>
      Math.min(high - WITHIN, Math.max(low + WITHIN, p));
    const [u, v] = [inside(x, min[0], max[0]), inside(y, min[1], max[1])];
    const milled = space
      .openingsOver(u, v, 0, -Infinity)
      .filter((o) => o.clearsStock && this.isMade(o.feature));
    return milled.length > 0 ? Math.min(...milled.map((o) => o.bottom)) : stock;
  }

  private isMade(feature: string): boolean {
    return this.c.madeEarlier.has(feature) || this.made.has(feature);
  }

  /** Whether metal stands in a disc's way that nothing before has taken. mm. */
  isUncut(x: number, y: number, r: number, z: number): boolean {
    const { space } = this.c;
    const stands =
      this.stockOver(x, y, r) > z + 0.02 ||
      space
        .openingsOver(x, y, OVER_AXIS, z)
        .some((o) => !this.isMade(o.feature) && this.topOf(o, x, y) > z + 0.02);
    return stands && !this.columns.isFree(x, y, r, z);
  }

  /** One finding a line and rule. */
  say(
    m: Known,
    rule: string,
    hole: MadeHole | null,
    what: string,
    severity: Finding['severity'] = 'error',
    of: Pick<Finding, 'tag' | 'feature'> = { tag: hole?.tag ?? undefined, feature: hole?.view?.feature.id },
  ): void {
    const key = `${rule}/${m.line}`;
    if (this.told.has(key)) return;
    this.told.add(key);
    this.out.push({
      rule,
      severity,
      message: `${hole?.view ? `${hole.view.label}, line ${m.line}` : `Line ${m.line}`}: ${what}`,
      line: m.line,
      ...of,
    });
  }
}
