import type { MotionWork } from '../../motion/program.ts';
import type { Vec3 } from '../../geometry/vec.ts';
import type { FeedRole, Move, Pass, PathMotion } from '../../motion/work.ts';
import type { MachineProfile } from '../profiles/schema.ts';
import type { MadeBlock } from './cycles.ts';
import type { Words } from './words.ts';

/** An arc as it is written: of the centre's way, or of the wall where the control compensates. */
interface WrittenArc {
  to: Vec3;
  centre: readonly [number, number];
  clockwise: boolean;
  turns: number;
}

export type PathWork = MotionWork & { motion: PathMotion };

/** Feed of a role, mm/min. */
export type FeedOf = (role: FeedRole) => number;

/** How far a line may be from the arc that it stands for, mm (handbook, Thread milling). */
const CHORD = 0.005;

/** Ends nearer than this are one place: the arc between them is whole turns, mm. */
const WHOLE_TURN = 1e-5;

/** How a machine wants its paths. */
export interface PathStyle {
  feedOf: FeedOf;
  /** Where it goes between works that are not joined. */
  clearance: number;
  words: Words;
  /** Arcs that go up or down may be written; elsewhere they become lines. */
  helices: boolean;
  /** How an arc says where its centre is. */
  arcs: MachineProfile['arcs'];
  /** Number of the offset that holds the cutter's radius. */
  d: number | null;
}

/**
 * Writes paths as lines and arcs with I and J: words are written where they change. A helix is written turn by turn, since not every control
 * takes several in one block.
 */
export function pathBlocks(
  works: readonly PathWork[],
  style: PathStyle,
  /** Where the tool stands already, above its first work: null where it is to be taken there. */
  at: { x: number; y: number } | null,
): MadeBlock[] {
  const writer = new PathWriter(style, at);
  return works.flatMap((w) => writer.work(w).map((text) => ({ text, label: w.label })));
}

class PathWriter {
  private out: string[] = [];
  private mode = '';
  private feed = '';
  private at: Record<'X' | 'Y' | 'Z', string> = { X: '', Y: '', Z: '' };
  private readonly words: Words;
  private isCompensated = false;
  /** Where the last move went, before rounding: by it a whole turn is told from the least part of one. */
  private exact: readonly [number, number] | null = null;

  constructor(
    private readonly style: PathStyle,
    at: { x: number; y: number } | null,
  ) {
    this.words = style.words;
    if (at) this.at = { X: this.words.coordinate(at.x), Y: this.words.coordinate(at.y), Z: '' };
  }

  work(w: PathWork): string[] {
    this.out = [];
    this.rapid({ X: w.x, Y: w.y });
    this.rapid({ Z: w.r });
    for (const pass of w.motion.passes) {
      const [x, y, z] = pass.start;
      // Up before across, across before down: a pass may begin elsewhere.
      if (z > Number(this.at.Z) * this.words.mm + 1e-9) this.rapid({ Z: z });
      this.rapid({ X: x, Y: y });
      this.rapid({ Z: z });
      this.exact = [x, y];
      for (const move of pass.moves) this.move(move, pass.control);
    }
    this.rapid({ Z: w.lift ? this.style.clearance : w.r });
    return this.out;
  }

  private rapid(to: Partial<Record<'X' | 'Y' | 'Z', number>>): void {
    const words = this.place(to);
    if (words.length > 0) this.block('G0', words);
  }

  private move(m: Move, control: Pass['control']): void {
    if (m.kind === 'dwell') {
      this.out.push(`G4 ${this.words.dwell(m.seconds)}`);
      return;
    }
    const feed = this.style.feedOf(m.feed) * (m.share ?? 1);
    const [x, y] = m.wall?.to ?? m.to;
    const to: Vec3 = [x, y, m.to[2]];
    this.step(m, to, feed, control);
    this.exact = [x, y];
  }

  private step(m: Exclude<Move, { kind: 'dwell' }>, to: Vec3, feed: number, control: Pass['control']): void {
    if (m.kind === 'line') this.line(to, feed, m.wall === undefined ? undefined : control);
    else {
      const arc = { to, centre: m.wall?.centre ?? m.centre, clockwise: m.clockwise, turns: m.turns };
      if (this.style.helices || this.words.coordinate(to[2]) === this.at.Z) this.arc(arc, feed);
      else this.chords(arc, feed);
    }
  }

  /** A straight move; where it is the first that is told to the control as a wall, or the first that is not, it says so. */
  private line([X, Y, Z]: Vec3, feed: number, control: Pass['control']): void {
    const isOn = control !== undefined;
    if (isOn === this.isCompensated) return this.chord([X, Y, Z], feed);
    const words = this.place({ X, Y, Z });
    const { d } = this.style;
    if (isOn && d === null)
      throw new RangeError('a cutter that the control compensates has no offset number');
    this.isCompensated = isOn;
    this.mode = '';
    this.out.push(
      [
        isOn ? (control === 'left' ? 'G41' : 'G42') : 'G40',
        'G1',
        ...words,
        ...(isOn ? [`D${d}`] : []),
        ...this.feedWord(feed),
      ].join(' '),
    );
  }

  /** Whether a place is the one where the tool stands, seen from above. */
  private isHere([x, y]: Vec3): boolean {
    return this.exact !== null && Math.hypot(x - this.exact[0], y - this.exact[1]) < WHOLE_TURN;
  }

  private get standing(): Vec3 {
    const { mm } = this.words;
    return [Number(this.at.X) * mm, Number(this.at.Y) * mm, Number(this.at.Z) * mm];
  }

  private arc({ to: [x, y, z], centre: [cx, cy], clockwise, turns }: WrittenArc, feed: number): void {
    const from = this.standing[2];
    const isFull = this.isHere([x, y, z]);
    const isWrittenHere = this.at.X === this.words.coordinate(x) && this.at.Y === this.words.coordinate(y);
    // Shorter than anybody writes: as an arc it would be read as a whole circle.
    if (!isFull && turns === 0 && isWrittenHere) return this.chord([x, y, z], feed);
    if (this.style.arcs === 'radius')
      return this.quarters({ to: [x, y, z], centre: [cx, cy], clockwise, turns }, feed);
    // A whole turn where it ends where it began: each has a block of its own.
    const blocks = isFull ? Math.max(1, turns) : turns + 1;
    for (let i = 1; i <= blocks; i++) {
      const [ax, ay] = this.style.arcs === 'centre' ? this.standing : [0, 0];
      const isLast = i === blocks;
      const words = this.place({
        ...(isLast && !isFull ? { X: x, Y: y } : {}),
        Z: isLast ? z : from + ((z - from) * i) / blocks,
      });
      const centre = [`I${this.words.coordinate(cx - ax)}`, `J${this.words.coordinate(cy - ay)}`];
      this.block(clockwise ? 'G2' : 'G3', [...words, ...centre, ...this.feedWord(feed)]);
    }
  }

  /** The same arc by its radius, in pieces of a quarter at the most: longer ones say too little about where their centre is. */
  private quarters(arc: WrittenArc, feed: number): void {
    const [cx, cy] = arc.centre;
    for (const to of this.alongArc(arc, Math.PI / 2)) {
      const from = this.standing;
      const words = this.place({ X: to[0], Y: to[1], Z: to[2] });
      const here = this.standing;
      const radius = (Math.hypot(from[0] - cx, from[1] - cy) + Math.hypot(here[0] - cx, here[1] - cy)) / 2;
      if (words.length === 0) continue;
      this.block(arc.clockwise ? 'G2' : 'G3', [
        ...words,
        `R${this.words.coordinate(radius)}`,
        ...this.feedWord(feed),
      ]);
    }
  }

  /** The same arc in lines, their ends on it. */
  private chords(arc: WrittenArc, feed: number): void {
    const [x, y] = this.standing;
    const radius = Math.hypot(x - arc.centre[0], y - arc.centre[1]);
    for (const to of this.alongArc(arc, 2 * Math.acos(Math.max(0, 1 - CHORD / radius)))) this.chord(to, feed);
  }

  /** Places along an arc from where the tool stands, no farther apart than an angle, radians; the last is its end. */
  private alongArc({ to, centre: [cx, cy], clockwise, turns }: WrittenArc, step: number): Vec3[] {
    const [x, y, z] = this.standing;
    const radius = Math.hypot(x - cx, y - cy);
    const begin = Math.atan2(y - cy, x - cx);
    const sense = clockwise ? -1 : 1;
    const part = (sense * (Math.atan2(to[1] - cy, to[0] - cx) - begin)) / (2 * Math.PI);
    // Whole turns beyond the part of one; an arc that ends where it begins is whole.
    const sweep = 2 * Math.PI * (this.isHere(to) ? Math.max(1, turns) : turns + part - Math.floor(part));
    const n = Math.max(1, Math.ceil(sweep / step - 1e-9));
    const out: Vec3[] = [];
    for (let i = 1; i < n; i++) {
      const a = begin + (sense * sweep * i) / n;
      out.push([cx + radius * Math.cos(a), cy + radius * Math.sin(a), z + ((to[2] - z) * i) / n]);
    }
    return [...out, to];
  }

  private chord([X, Y, Z]: Vec3, feed: number): void {
    const words = this.place({ X, Y, Z });
    if (words.length > 0) this.block('G1', [...words, ...this.feedWord(feed)]);
  }

  /** Words of the coordinates that change. */
  private place(to: Partial<Record<'X' | 'Y' | 'Z', number>>): string[] {
    return (['X', 'Y', 'Z'] as const).flatMap((axis) => {
      const v = to[axis];
      if (v === undefined) return [];
      const text = this.words.coordinate(v);
      if (text === this.at[axis]) return [];
      this.at[axis] = text;
      return [`${axis}${text}`];
    });
  }

  private feedWord(mmPerMin: number): string[] {
    const text = `F${this.words.feed(mmPerMin, false)}`;
    if (text === this.feed) return [];
    this.feed = text;
    return [text];
  }

  private block(mode: string, words: readonly string[]): void {
    // Arcs say their word each time: a line with I and J alone is easily misread.
    const isSaid = mode === this.mode && mode !== 'G2' && mode !== 'G3';
    this.out.push([...(isSaid ? [] : [mode]), ...words].join(' '));
    this.mode = mode;
  }
}
