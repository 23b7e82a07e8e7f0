import type { CycleHow } from '../../motion/work.ts';
import type { MachineProfile } from '../profiles/schema.ts';
import { piecesOf, type CycleFeed, type CycleWork, type MadeBlock, type Piece } from './cycles.ts';
import type { Words } from './words.ts';

/** What writing holes out needs to know beside their numbers. */
export interface WrittenOutStyle extends CycleFeed {
  words: Words;
  profile: Pick<MachineProfile, 'chipBreakBackOff' | 'peckClearance'>;
  /** Where the tool goes between holes that something stands between, mm. */
  clearance: number;
  /** The word that turns the spindle for this tool, and its speed. */
  spindle: 'M3' | 'M4';
  speed: number;
  /** Where the tool stands already, above the first hole at the clearance level; null where it is to be taken there. */
  at: { x: number; y: number } | null;
}

/** Ways out of the hole that are nearer than this to where it stands are none, mm. */
const NONE = 1e-6;

/**
 * Writes holes as straight moves, just as their cycles would run (handbook, Machine code: Cycles): for controls that do not have the cycle.
 * A tap is turned back by the spindle's own words and must hang in a holder that gives way.
 */
export function writtenOut(works: readonly CycleWork[], style: WrittenOutStyle): MadeBlock[] {
  const writer = new HoleWriter(style);
  return works.flatMap((w) => writer.hole(w).map((text) => ({ text, label: w.label })));
}

const placeIn = (words: Words, { x, y }: { x: number; y: number }): string =>
  `X${words.coordinate(x)} Y${words.coordinate(y)}`;

class HoleWriter {
  private out: string[] = [];
  private mode = '';
  private feed = '';
  private place = '';
  private z = NaN;

  constructor(private readonly style: WrittenOutStyle) {
    const { at, words, clearance } = style;
    if (!at) return;
    this.place = placeIn(words, at);
    this.z = clearance;
  }

  hole(w: CycleWork): string[] {
    const { words, clearance } = this.style;
    this.out = [];
    for (const piece of piecesOf(w)) {
      const place = placeIn(words, w);
      if (place !== this.place) this.block('G0', place);
      this.place = place;
      this.rapid(piece.r);
      this.bottom(w, w.motion.how, piece);
      if (piece.lift) this.rapid(clearance);
    }
    return this.out;
  }

  private bottom(w: CycleWork, how: CycleHow, { r, z, share, lift }: Piece): void {
    const f = this.style.feed * share;
    // Where it is lifted anyway it comes out in one way.
    const out = lift ? this.style.clearance : r;
    switch (how.how) {
      case 'chip-break':
      case 'full-retract':
        return this.pecks(how, { r, out }, z, f);
      case 'tap':
        return this.tap(r, z, f, how.peck);
      case 'feed-out':
        this.down(z, f);
        if (how.seconds !== undefined) this.dwell(how.seconds);
        return this.down(r, f);
      case 'stop-out':
        this.down(z, f);
        this.out.push('M5');
        this.rapid(out);
        return this.turn();
      case 'shift-out':
        this.down(z, f);
        this.out.push('M19');
        this.block('G0', `X${this.style.words.coordinate(w.x + how.shift)}`);
        this.rapid(r);
        this.block('G0', `X${this.style.words.coordinate(w.x)}`);
        return this.turn();
      case 'dwell':
        this.down(z, f);
        this.dwell(how.seconds);
        return this.rapid(out);
      case 'straight':
        this.down(z, f);
        return this.rapid(out);
    }
  }

  private pecks(
    { how, peck }: Extract<CycleHow, { how: 'chip-break' | 'full-retract' }>,
    { r, out }: { r: number; out: number },
    z: number,
    feed: number,
  ): void {
    const { peckClearance, chipBreakBackOff } = this.style.profile;
    for (let last = r; last > z + NONE;) {
      if (last < r && how === 'full-retract') this.rapid(Math.min(r, last + peckClearance));
      const next = last - peck > z + NONE ? last - peck : z;
      this.down(next, feed);
      if (next === z) this.rapid(out);
      else this.rapid(how === 'full-retract' ? r : Math.min(r, next + chipBreakBackOff));
      last = next;
    }
  }

  /** Fed in, turned back, fed out, in pecks where they are wanted. */
  private tap(r: number, z: number, feed: number, peck: number | undefined): void {
    const back = this.style.spindle === 'M3' ? 'M4' : 'M3';
    for (let last = r; last > z + NONE;) {
      const next = peck !== undefined && last - peck > z + NONE ? last - peck : z;
      this.down(next, feed);
      this.out.push('M5', back);
      this.down(r, feed);
      this.out.push('M5');
      this.turn();
      last = next;
    }
  }

  private turn(): void {
    this.out.push(`S${this.style.speed} ${this.style.spindle}`);
  }

  private dwell(seconds: number): void {
    this.out.push(`G4 ${this.style.words.dwell(seconds)}`);
    this.mode = '';
  }

  private rapid(z: number): void {
    if (Math.abs(z - this.z) < NONE) return;
    this.block('G0', `Z${this.style.words.coordinate(z)}`);
    this.z = z;
  }

  /** A way along the axis at a feed, in or out. */
  private down(z: number, feed: number): void {
    const { words, exact } = this.style;
    const f = `F${words.feed(feed, exact)}`;
    this.block('G1', `Z${words.coordinate(z)}${f === this.feed ? '' : ` ${f}`}`);
    [this.feed, this.z] = [f, z];
  }

  private block(mode: string, words: string): void {
    this.out.push(mode === this.mode ? words : `${mode} ${words}`);
    this.mode = mode;
  }
}
