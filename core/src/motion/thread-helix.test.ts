import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Vec3 } from '../geometry/vec.ts';
import {
  goesUp,
  passRadii,
  THREAD_LEADS,
  threadBands,
  threadMoves,
  type ThreadHelix,
} from './thread-helix.ts';

const helix = (part: Partial<ThreadHelix> = {}): ThreadHelix => ({
  x: 10,
  y: -5,
  side: 'inside',
  radius: 4,
  cone: 0,
  lead: 3,
  hand: 'right',
  clockwise: false,
  low: -20,
  turns: 7,
  angle: 0,
  leads: 'half circle',
  aside: 3,
  byControl: null,
  ...part,
});
const START: Vec3 = [10, -5, 2];
const movesOf = (h: ThreadHelix) => threadMoves(h, { in: 'ramp', turns: 'thread', share: 1 / 3 });
/** Ends of all moves, the start first. */
const places = (h: ThreadHelix): Vec3[] => [
  START,
  ...movesOf(h).flatMap((m) => (m.kind === 'dwell' ? [] : [m.to])),
];

describe('the way round a thread', () => {
  it('goes up or down by hand and sense, as the handbook has it', () => {
    expect(goesUp({ hand: 'right', clockwise: false })).toBe(true);
    expect(goesUp({ hand: 'right', clockwise: true })).toBe(false);
    expect(goesUp({ hand: 'left', clockwise: false })).toBe(false);
    expect(goesUp({ hand: 'left', clockwise: true })).toBe(true);
  });

  it('leads in by half a circle that rises half a pitch, then turns, then leads out', () => {
    expect(places(helix()).map((p) => p.map((v) => Math.round(v * 1e6) / 1e6))).toEqual([
      [10, -5, 2],
      [10, -5, -21.5],
      [14, -5, -20],
      [14, -5, 1],
      [10, -5, 2.5],
    ]);
    expect(movesOf(helix()).map((m) => m.kind !== 'dwell' && m.feed)).toEqual([
      'lead',
      'ramp',
      'thread',
      'thread',
    ]);
  });

  it('down begins above and ends below', () => {
    const z = places(helix({ clockwise: true })).map((p) => p[2]);
    expect(z).toEqual([2, 2.5, 1, -20, -21.5]);
  });

  it('is tangent where arc and turns meet, and each arc keeps its radius (property)', () => {
    const angle = fc.double({ min: -3, max: 3, noNaN: true });
    const hand = fc.constantFrom('right' as const, 'left' as const);
    fc.assert(
      fc.property(angle, hand, fc.boolean(), fc.constantFrom(...THREAD_LEADS), (a, h, clockwise, leads) => {
        const one = helix({ angle: a, hand: h, clockwise, leads });
        let at = START;
        let way: [number, number] | null = null;
        for (const m of movesOf(one)) {
          if (m.kind === 'dwell') continue;
          if (m.kind === 'arc') {
            const [cx, cy] = m.centre;
            const radius = Math.hypot(at[0] - cx, at[1] - cy);
            expect(Math.hypot(m.to[0] - cx, m.to[1] - cy)).toBeCloseTo(radius, 9);
            const sense = m.clockwise ? -1 : 1;
            const leaves = (p: Vec3): [number, number] => [
              (-sense * (p[1] - cy)) / radius,
              (sense * (p[0] - cx)) / radius,
            ];
            const begins = leaves(at);
            if (way) expect(begins[0] * way[0] + begins[1] * way[1]).toBeCloseTo(1, 9);
            way = leaves(m.to);
          } else way = null;
          at = m.to;
        }
        // It ends on the axis; beside it the tool only ever moves along the thread, or at one level.
        expect([at[0], at[1]].map((v) => Math.round(v * 1e9) / 1e9)).toEqual([10, -5]);
      }),
    );
  });
});

describe('passes and bands', () => {
  it('take equal metal: depths go with the root', () => {
    const depths = passRadii(3, 4, 4).map((r) => r - 3);
    expect(depths.map((d) => Math.round(d ** 2 * 1e6) / 1e6)).toEqual([0.25, 0.5, 0.75, 1]);
    expect(passRadii(3, 4, 1)).toEqual([4]);
  });

  it('are one turn where the rows are longer than the thread, and turns of its length for one row', () => {
    expect(threadBands(20, 3, 3, 1)).toEqual({ offsets: [0], turns: 7 });
    expect(threadBands(20, 3, 3, 9)).toEqual({ offsets: [0], turns: 1 });
    expect(threadBands(30, 3, 3, 9)).toEqual({ offsets: [0, 27], turns: 1 });
  });

  it('leave no groove of the thread uncut (property)', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 1, max: 60, noNaN: true }),
        fc.double({ min: 0.5, max: 4, noNaN: true }),
        fc.integer({ min: 1, max: 15 }),
        fc.integer({ min: 1, max: 3 }),
        (length, pitch, rows, starts) => {
          fc.pre(rows === 1 || rows >= starts);
          const lead = pitch * starts;
          const { offsets, turns } = threadBands(length, pitch, lead, rows);
          // What each row passes along one line of the wall, end to end, must hang together up to the top.
          const ways = offsets.flatMap((o) =>
            Array.from({ length: rows }, (_, k) => [o + k * pitch, o + k * pitch + turns * lead] as const),
          );
          let reached = 0;
          for (const [from, to] of ways.sort((a, b) => a[0] - b[0]))
            if (from <= reached + 1e-6) reached = Math.max(reached, to);
          expect(reached).toBeGreaterThan(length - 1e-6);
        },
      ),
    );
  });
});
