import { leftOf, move2 } from '../../geometry/parallel.ts';
import { distance2, tangentAt, type Segment, type Vec2 } from '../../geometry/path.ts';
import type { Vec3 } from '../../geometry/vec.ts';
import type { EdgeShape } from '../../features/edge/shape.ts';
import { first, last } from '../../lists.ts';
import { leadPlace, type Lead } from '../../motion/edges/run.ts';
import type { Hit, Space } from '../../space/space.ts';
import type { Disc } from '../../tools/profile.ts';
import { stretches } from '../grooves/reach.ts';
import { endOf, type FoundEnd } from './ends.ts';
import type { Contact } from './flank.ts';
import { meetsPart, type OnEdge } from './room.ts';
import { hasInsideCorners, type RunEnd } from './way.ts';

/** Radii of the quarter circle onto an edge that are tried, of the cutter's at the edge; and no less than that, mm. */
const LEADS = [1, 0.5, 0.25];
const LEAST_LEAD = 0.25;
/** Room round a cutter where it comes straight down beside an edge, mm. */
const CLEAR = 0.1;
/** Past the end of an open run, beyond where the cutter leaves it, mm. */
const PAST = 0.5;
/** Where it is looked whether the part goes on beyond an open run's end, mm. */
const AHEAD = 0.3;

/** How far past the place where it stands a cutter reaches over the edge, mm. */
const lensOf = ({ radius, offset }: Contact): number => Math.sqrt(Math.max(0, radius ** 2 - offset ** 2));

/** How far past the end of an open run a cutter is clear of it, mm. */
export const clearOf = (contact: Contact): number => lensOf(contact) + PAST;

/** A cutter as it stands on an edge in its last pass, and what it must not meet there. */
export interface Standing {
  space: Space;
  shape: EdgeShape;
  contact: Contact;
  edge: OnEdge;
  /** All of the cutter, and what of it is beside the part while it cuts. */
  whole: readonly Disc[];
  discs: readonly Disc[];
  isClimb: boolean;
}

/** Answers where a cutter beside an edge has room: along its way, at its ends, and where it comes on and goes off. */
export class BesideEdge {
  readonly side: 'left' | 'right';

  constructor(private readonly s: Standing) {
    this.side = s.isClimb ? 'right' : 'left';
  }

  /** The way into the air beside a direction of travel: on the left to climb, else on the right. */
  private outOf([x, y]: Vec2): Vec2 {
    return this.s.isClimb ? [-y, x] : [y, -x];
  }

  private up([x, y]: Vec2): Vec3 {
    return [x, y, this.s.edge.tip];
  }

  /** What it would meet on a way, at the depth of its last pass; null where it has room all along. */
  along(way: readonly Segment[]): Hit | null {
    const { space, discs, edge, shape } = this.s;
    // Across an inside corner both walls are cut at once, and neither side of the way is all air.
    const hasCorners = hasInsideCorners(shape);
    for (const [a, b] of stretches(way)) {
      const l = distance2(a, b);
      if (l < 1e-9) continue;
      const out = hasCorners ? null : this.outOf([(b[0] - a[0]) / l, (b[1] - a[1]) / l]);
      const hit = meetsPart(space, discs, [this.up(a), this.up(b)], edge, out);
      if (hit) return hit;
    }
    return null;
  }

  /** How the ends of an open way are made: past them by as much as is asked (null: until it is clear), or as far before them as it must stop. */
  ends(way: readonly Segment[], asked: readonly [number | null, number | null]): [FoundEnd, FoundEnd] {
    const { contact } = this.s;
    const lens = lensOf(contact);
    const found = (['start', 'end'] as const).map((end, i): FoundEnd => {
      const past = asked[i] ?? clearOf(contact);
      if (past < 0) return { by: past, hit: null };
      const goesOn = this.goesOn(end);
      const own = this.endAt(way, end, past, goesOn);
      return own.by !== null && goesOn ? { ...own, by: Math.min(own.by, -lens) } : own;
    });
    return [first(found), last(found)];
  }

  private endAt(way: readonly Segment[], end: 'start' | 'end', past: number, goesOn: boolean): FoundEnd {
    const { space, discs, edge } = this.s;
    return endOf(way, { end, z: edge.tip, past, goesOn }, (a, b, along) =>
      meetsPart(space, discs, [a, b], edge, this.outOf(along)),
    );
  }

  /** Whether the face above goes on beyond an end of the edge: then nothing of it is to be cut there. */
  private goesOn(end: 'start' | 'end'): boolean {
    const { space, shape, edge, isClimb } = this.s;
    if (edge.inset === 0 || !space.heights) return false;
    // The way may run against the edge.
    const isFirst = (end === 'start') !== isClimb;
    const s = isFirst ? first(shape.path) : last(shape.path);
    const t = tangentAt(s, isFirst ? 'from' : 'to');
    const ahead = move2(isFirst ? s.from : s.to, t, isFirst ? -AHEAD : AHEAD);
    const p = move2(ahead, leftOf(t), 0.5 * edge.inset);
    return space.heights.column(p[0], p[1], 0.01) > shape.top - 0.05;
  }

  /** How it comes onto a way, or leaves it: an open one from past its end where it is clear of all there. */
  lead(way: readonly Segment[], end: 'from' | 'to'): Lead {
    const { space, shape, whole } = this.s;
    if (!shape.closed) {
      const p = this.up(leadPlace(way, end, { kind: 'past' }, this.side));
      if (!space.partAlong(whole, p, p, 0)) return { kind: 'past' };
    }
    return this.arcLead(way, end) ?? { kind: 'along' };
  }

  private arcLead(way: readonly Segment[], end: 'from' | 'to'): Lead | null {
    const { space, contact, whole, discs, edge } = this.s;
    const on = this.up((end === 'from' ? first(way) : last(way))[end]);
    for (const share of LEADS) {
      const lead: Lead = { kind: 'arc', radius: share * contact.radius };
      if (lead.radius < LEAST_LEAD) return null;
      const p = this.up(leadPlace(way, end, lead, this.side));
      // Clear of the edge as well: it comes straight down there.
      const isFree = !space.partAlong(whole, p, p, CLEAR) && !meetsPart(space, discs, [p, on], edge);
      if (isFree && !space.holdingAlong(discs, p, on)) return lead;
    }
    return null;
  }
}

/** How far past its ends a way goes, where both were found. */
export const foundEnds = ([start, end]: readonly [FoundEnd, FoundEnd]): readonly [RunEnd, RunEnd] | null =>
  start.by === null || end.by === null ? null : [start.by, end.by];
