import type { MotionWork } from '../../motion/program.ts';
import type { FeedRole, Move, PathMotion } from '../../motion/work.ts';
import type { MadeBlock } from './cycles.ts';
import type { Words } from './words.ts';

export type PathWork = MotionWork & { motion: PathMotion };

/** Feed of a role, mm/min. */
export type FeedOf = (role: FeedRole) => number;

/**
 * Writes paths as lines and arcs with I and J: words are written where they change. A helix is written turn by turn, since not every control
 * takes several in one block. `clearance`: where it goes between works that are not joined.
 */
export function pathBlocks(
  works: readonly PathWork[],
  feedOf: FeedOf,
  clearance: number,
  words: Words,
  /** Where the tool stands already, above its first work: null where it is to be taken there. */
  at: { x: number; y: number } | null,
): MadeBlock[] {
  const writer = new PathWriter(feedOf, words, at);
  return works.flatMap((w) => writer.work(w, clearance).map((text) => ({ text, label: w.label })));
}

class PathWriter {
  private out: string[] = [];
  private mode = '';
  private feed = '';
  private at: Record<'X' | 'Y' | 'Z', string> = { X: '', Y: '', Z: '' };

  constructor(
    private readonly feedOf: FeedOf,
    private readonly words: Words,
    at: { x: number; y: number } | null,
  ) {
    if (at) this.at = { X: words.coordinate(at.x), Y: words.coordinate(at.y), Z: '' };
  }

  work(w: PathWork, clearance: number): string[] {
    this.out = [];
    this.rapid({ X: w.x, Y: w.y });
    this.rapid({ Z: w.r });
    for (const pass of w.motion.passes) {
      const [x, y, z] = pass.start;
      // Up before across, across before down: a pass may begin elsewhere.
      if (z > Number(this.at.Z) * this.words.mm + 1e-9) this.rapid({ Z: z });
      this.rapid({ X: x, Y: y });
      this.rapid({ Z: z });
      for (const move of pass.moves) this.move(move);
    }
    this.rapid({ Z: w.lift ? clearance : w.r });
    return this.out;
  }

  private rapid(to: Partial<Record<'X' | 'Y' | 'Z', number>>): void {
    const words = this.place(to);
    if (words.length > 0) this.block('G0', words);
  }

  private move(m: Move): void {
    if (m.kind === 'dwell') {
      this.out.push(`G4 ${this.words.dwell(m.seconds)}`);
      return;
    }
    const feed = this.feedOf(m.feed) * (m.share ?? 1);
    if (m.kind === 'line') {
      const [X, Y, Z] = m.to;
      const words = this.place({ X, Y, Z });
      if (words.length > 0) this.block('G1', [...words, ...this.feedWord(feed)]);
      return;
    }
    const [x, y, z] = m.to;
    const from = Number(this.at.Z) * this.words.mm;
    const isFull = this.at.X === this.words.coordinate(x) && this.at.Y === this.words.coordinate(y);
    // A whole turn where it ends where it began: each has a block of its own.
    const blocks = isFull ? Math.max(1, m.turns) : m.turns + 1;
    const [cx, cy] = m.centre;
    for (let i = 1; i <= blocks; i++) {
      const I = cx - Number(this.at.X) * this.words.mm;
      const J = cy - Number(this.at.Y) * this.words.mm;
      const isLast = i === blocks;
      const words = this.place({
        ...(isLast && !isFull ? { X: x, Y: y } : {}),
        Z: isLast ? z : from + ((z - from) * i) / blocks,
      });
      const centre = [`I${this.words.coordinate(I)}`, `J${this.words.coordinate(J)}`];
      this.block(m.clockwise ? 'G2' : 'G3', [...words, ...centre, ...this.feedWord(feed)]);
    }
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
