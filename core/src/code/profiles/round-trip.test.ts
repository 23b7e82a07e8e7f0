import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { MotionProgram, MotionWork } from '../../motion/program.ts';
import type { CycleHow, Move } from '../../motion/work.ts';
import { tap, usual } from '../../testing/fixtures.ts';
import { CYCLE_WORDS, cycleWord } from '../cycles.ts';
import type { Motion } from '../read/motion.ts';
import { readProgram } from '../read/read.ts';
import { writeProgram } from '../write/write.ts';
import { machineProfileSchema, type MachineProfile } from './schema.ts';
import { PROFILES, RIGID_TAP_BUILT_IN } from './shipped.ts';

/** Half of the last digit that is written, and what arcs may be off, mm. */
const ROUNDED = 0.0021;
const CLEARANCE = 25;

/** Ways of other controls and shops, as far apart as they come. */
const ODD: readonly MachineProfile[] = [
  {
    arcs: 'radius',
    wordSpaces: false,
    twoDigitWords: true,
    toolCall: 'two-blocks',
    holeSubprograms: true,
    levelSubprograms: true,
    coolantOn: 88,
    coolantOff: 89,
    commentStyle: 'semicolon',
    commentLength: 20,
    home: 'second-reference',
    endWord: 'M2',
    toolLength: 'with-change',
    lineEnding: 'crlf',
    tapping: 'announced',
    tapWord: 135,
  },
  {
    arcs: 'centre-from-zero',
    commentStyle: 'none',
    toolCall: 'change-first',
    lineNumbers: { on: true, start: 100, step: 10, where: 'tool-changes' },
    park: { x: -300, y: 0 },
    startLines: ['G64 P0.01'],
    endLines: ['M9'],
    decimals: { mm: 4, inch: 5 },
    cycles: ['G81', 'G83', 'G74'],
    coolant: false,
    percentSigns: false,
    dwellUnit: 'seconds',
  },
].map((own, i) =>
  machineProfileSchema.parse({ ...RIGID_TAP_BUILT_IN, id: `odd-${i}`, name: `odd ${i}`, ...own }),
);

const mm = (from: number, to: number): fc.Arbitrary<number> =>
  fc.integer({ min: from * 100, max: to * 100 }).map((v) => v / 100);

const hows: fc.Arbitrary<CycleHow> = fc.oneof(
  fc.constant<CycleHow>({ how: 'straight' }),
  fc.integer({ min: 1, max: 90 }).map((n): CycleHow => ({ how: 'dwell', seconds: n / 100 })),
  mm(0.4, 6).map((peck): CycleHow => ({ how: 'chip-break', peck })),
  mm(0.6, 6).map((peck): CycleHow => ({ how: 'full-retract', peck })),
  fc.constantFrom<CycleHow>({ how: 'tap', hand: 'right' }, { how: 'tap', hand: 'left' }),
  fc.constantFrom<CycleHow>({ how: 'feed-out' }, { how: 'feed-out', seconds: 0.25 }),
  fc.constant<CycleHow>({ how: 'stop-out' }),
  mm(0.1, 0.4).map((shift): CycleHow => ({ how: 'shift-out', shift })),
);

interface Holes {
  how: CycleHow;
  feed: number;
  speed: number;
  works: MotionWork[];
}

const holes: fc.Arbitrary<Holes> = fc
  .record({
    how: hows,
    feed: fc.integer({ min: 20, max: 900 }),
    speed: fc.integer({ min: 100, max: 8000 }),
    r: mm(-3, 4),
    deep: mm(1, 30),
    places: fc.uniqueArray(fc.tuple(fc.integer({ min: -90, max: 90 }), fc.integer({ min: -60, max: 60 })), {
      minLength: 1,
      maxLength: 9,
      selector: ([x, y]) => `${x},${y}`,
    }),
    lifts: fc.array(fc.boolean(), { minLength: 9, maxLength: 9 }),
  })
  .map(({ how, feed, speed, r, deep, places, lifts }) => ({
    how,
    feed,
    speed,
    works: places.map(([x, y], i): MotionWork => ({
      feature: `H${i}`,
      label: `A${i + 1}`,
      x,
      y,
      r,
      z: r - deep,
      entryZ: r,
      metalZ: r,
      lift: i === places.length - 1 || lifts[i] === true,
      motion: { kind: 'cycle', how },
    })),
  }));

/** A way round a middle: out, round on a helix, round level, back. */
const round: fc.Arbitrary<MotionWork> = fc
  .record({
    x: mm(-50, 50),
    y: mm(-50, 50),
    radius: mm(0.5, 20),
    deep: mm(0.5, 9),
    turns: fc.integer({ min: 1, max: 3 }),
    clockwise: fc.boolean(),
  })
  .map(({ x, y, radius, deep, turns, clockwise }) => {
    const out: [number, number, number] = [x + radius, y, 0];
    const arc = (to: Move & { kind: 'arc' }): Move => to;
    return {
      feature: 'P1',
      label: 'B1',
      x,
      y,
      r: 2,
      z: -deep,
      entryZ: 0,
      metalZ: 0,
      lift: true,
      motion: {
        kind: 'path',
        passes: [
          {
            start: [x, y, 0.5],
            moves: [
              { kind: 'line', to: out, feed: 'lead' },
              arc({
                kind: 'arc',
                to: [x + radius, y, -deep],
                centre: [x, y],
                clockwise,
                turns,
                feed: 'ramp',
              }),
              arc({
                kind: 'arc',
                to: [x, y + radius, -deep],
                centre: [x, y],
                clockwise,
                turns: 0,
                feed: 'cut',
              }),
              arc({
                kind: 'arc',
                to: [x, y + radius, -deep],
                centre: [x, y],
                clockwise,
                turns: 1,
                feed: 'cut',
              }),
              { kind: 'line', to: [x, y, -deep], feed: 'lead' },
            ],
          },
        ],
      },
    };
  });

function programOf(all: readonly Holes[], path: MotionWork, units: 'mm' | 'inch'): MotionProgram {
  const visit = (number: number, works: MotionWork[], feed: number, speed: number, left: boolean) => {
    const tool = left ? tap(number, 'M6x1', 6, 1, { hand: 'left' }) : usual('drill', number, 6);
    const operation = { feed, speed, tool };
    return {
      tool,
      operations: [{ id: `o${number}`, title: `A ${number}`, notes: [], operation, work: works }],
    };
  };
  return {
    name: 'round trip',
    units,
    workOffset: 'G54',
    zero: 'corner',
    clearanceZ: CLEARANCE,
    head: { index: 0, lines: [], notMade: [] },
    visits: [
      ...all.map((h, i) =>
        visit(i + 1, h.works, h.feed, h.speed, h.how.how === 'tap' && h.how.hand === 'left'),
      ),
      visit(all.length + 1, [path], 300, 3000, false),
    ],
  };
}

/** How far fed motions lie from a cylinder about an axis, mm, and by how much they turn about it in all. */
function roundsOf(motions: readonly Motion[], x: number, y: number): { lowest: number; radii: number[] } {
  const fed = motions.filter((m) => m.kind === 'feed' || m.kind === 'arc');
  return {
    lowest: Math.min(...fed.map((m) => m.to[2]!)),
    radii: fed.slice(1, -1).map((m) => Math.hypot(m.to[0]! - x, m.to[1]! - y)),
  };
}

describe.each([...PROFILES, ...ODD])('$name', (profile) => {
  it.each(['mm', 'inch'] as const)('reads back in %s what it writes, hole by hole (property)', (units) => {
    fc.assert(
      fc.property(fc.array(holes, { minLength: 1, maxLength: 3 }), round, (all, path) => {
        const { text } = writeProgram(programOf(all, path, units), profile);
        const read = readProgram(text, profile, { makesHoles: (n) => n <= all.length });
        expect(read.problems).toEqual([]);
        expect(read.units).toBe(units);
        const wanted = all.flatMap((h, i) => h.works.map((w) => ({ ...h, w, tool: i + 1 })));
        expect(read.calls).toHaveLength(wanted.length);
        wanted.forEach(({ how, w, tool, feed, speed }, i) => {
          const call = read.calls[i]!;
          const isWritten = !profile.cycles.includes(cycleWord(how));
          expect([call.tool, call.how, call.speed, call.cycle]).toEqual([
            tool,
            // One peck is as good as none, where it is written out.
            isWritten && 'peck' in how && how.peck! >= w.r - w.z - 1e-6 ? 'straight' : how.how,
            speed,
            isWritten ? 'G1' : cycleWord(how),
          ]);
          for (const k of ['x', 'y', 'z', 'r'] as const)
            expect(Math.abs(call[k] - w[k])).toBeLessThan(ROUNDED);
          expect(Math.abs(call.feed / feed - 1)).toBeLessThan(units === 'mm' ? 0.03 : 0.1);
          if ('seconds' in how) expect(call.dwellSeconds).toBeCloseTo(how.seconds!, 3);
          if (how.how === 'tap') expect(call.hand).toBe(how.hand);
        });
      }),
      { numRuns: 40 },
    );
  });

  it('goes the same way as the first profile, whatever words it takes (property)', () => {
    const lowest = (p: MachineProfile, program: MotionProgram, tool: number) =>
      readProgram(writeProgram(program, p).text, p, { makesHoles: () => false }).motions.filter(
        (m) => m.tool === tool,
      );
    fc.assert(
      fc.property(fc.array(holes, { minLength: 1, maxLength: 2 }), round, (all, path) => {
        const program = programOf(all, path, 'mm');
        const tool = all.length + 1;
        const [own, first] = [lowest(profile, program, tool), lowest(RIGID_TAP_BUILT_IN, program, tool)];
        const radius = Math.abs(roundsOf(first, path.x, path.y).radii[0]!);
        const seen = roundsOf(own, path.x, path.y);
        expect(seen.lowest).toBeCloseTo(path.z, 2);
        for (const r of seen.radii) expect(Math.abs(r - radius)).toBeLessThan(0.006);
        // A whole circle at the bottom is known as one, in however many pieces it is written.
        expect(own.some((m) => (m.turns ?? 0) >= 1 || m.round)).toBe(true);
      }),
      { numRuns: 40 },
    );
  });
});

describe('profiles', () => {
  it('have each word of the table but those of controls that lack some', () => {
    expect(PROFILES.map((p) => p.cycles.length)).toEqual([10, 10, 9, 0]);
    expect(PROFILES[0]!.cycles).toEqual([...CYCLE_WORDS]);
  });
  it('read a stored one of before', () => {
    const { cycles, arcs, lookAhead, ...old } = RIGID_TAP_BUILT_IN;
    expect(machineProfileSchema.parse(old)).toMatchObject({ cycles, arcs, lookAhead });
  });
  it.each([['%'], ['O7'], ['G1 X°']])('take no start line %s', (line) => {
    expect(machineProfileSchema.safeParse({ ...RIGID_TAP_BUILT_IN, startLines: [line] }).success).toBe(false);
  });
});
