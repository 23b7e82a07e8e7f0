import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { produceJob, proveText, type ProduceInput } from '../../job/produce.ts';
import { made, rowOf, usual } from '../../testing/fixtures.ts';
import { blind, CUTTERS, manyRows, oneRow, threadJob, wrongs } from '../../testing/threads.ts';
import type { Tool } from '../../tools/schema.ts';

const LONE = oneRow(60, 12);
const rowFor = (callout: string, tools: Tool[], depth = 30, typed = {}) =>
  rowOf(blind(22, depth), { callout, more: [...CUTTERS, ...tools], typed });
const value = (row: ReturnType<typeof rowFor>, key: string) =>
  made(row, 'thread-mill').parameters.find((p) => p.key === key)?.value;

describe('a thread that is milled', () => {
  it('is taken where the list has no tap: round a radius of (D − d)/2 (handbook: M24, cutter 16 → 4)', () => {
    const row = rowFor('M24x2 ↧18', [oneRow(60, 16, { neckDiameter: 11 })]);
    const { work } = made(row, 'thread-mill');
    const [pass] = work[0]!.motion.kind === 'path' ? work[0]!.motion.passes : [];
    const wall = pass!.moves.filter((m) => m.kind === 'arc' && m.turns > 0).at(-1)!;
    expect(
      wall.kind === 'arc' && Math.hypot(wall.to[0] - wall.centre[0], wall.to[1] - wall.centre[1]),
    ).toBeCloseTo(4);
  });

  it('says why it is not tapped', () => {
    expect(rowFor('M24x2 ↧18', [LONE]).remarks).toContainEqual({
      rule: 'method-instead',
      severity: 'note',
      message: '"thread-milled hole" makes it, not "drill and tap": No tap M24x2 in the tool list.',
    });
  });

  it('says where the hole is outside the limits of its minor diameter (6H)', () => {
    const of = (diameter: number) =>
      rowOf(blind(diameter, 30), {
        callout: 'M24x2 ↧18',
        // Without a drill of the size it is opened to what is drawn.
        more: [usual('end-mill', 63, 12), LONE],
        method: 'thread-milled',
      }).remarks.map((r) => r.rule);
    expect(of(22)).not.toContain('minor-limits');
    expect(of(22.4)).toContain('minor-limits');
  });

  it('goes half a tooth and half a lead below its lowest groove', () => {
    // 18 deep, a tooth 3 high, lead 2: the tip goes to 18 + 1.5 + 1.
    expect(made(rowFor('M24x2 ↧18', [LONE]), 'thread-mill').work[0]!.z).toBeCloseTo(-20.5);
    const quarter = rowFor('M24x2 ↧18', [LONE], 30, { 'thread-mill': { leads: 'quarter circle' } });
    expect(made(quarter, 'thread-mill').work[0]!.z).toBeCloseTo(-20);
  });

  it('says how deep it can be where the hole has no room, and what would help', () => {
    const shallow = rowOf(blind(22, 20), {
      callout: 'M24x2 ↧18',
      more: [...CUTTERS, LONE],
      method: 'thread-milled',
    });
    expect(shallow.reasons.join(' ')).toMatch(/needs 20\.7 mm of full diameter; the hole has 20 mm/);
    expect(made(rowFor('M24x2', [LONE], 20), 'thread-mill').work[0]!.z).toBeCloseTo(-19.8);
  });

  it('is not made where not even one pitch of it has room, said or not', () => {
    const of = (depth: number, callout: string, typed = {}) =>
      rowOf(blind(22, depth), { callout, more: [...CUTTERS, LONE], method: 'thread-milled', typed });
    for (const row of [
      of(2, 'M24x2'),
      of(4, 'M24x2'),
      of(30, 'M24x2 ↧18', { 'thread-mill': { threadDepth: -3 } }),
    ]) {
      expect(row.operations).toEqual([]);
      expect(row.reasons.join(' ')).toMatch(/less than one pitch/);
    }
  });

  it('takes no cutter of another pitch or angle, nor one without room beside it on the axis', () => {
    for (const tool of [
      manyRows(60, 12, 1.5, 9),
      oneRow(60, 12, { threadForm: { pitch: 1, pitchTo: 1.5, angleDeg: 60, rows: 1, tapered: false } }),
      oneRow(60, 12, { threadForm: { pitch: 1, pitchTo: 3, angleDeg: 55, rows: 1, tapered: false } }),
      oneRow(60, 21.8),
      // Its neck would rub in the hole while it is led round.
      oneRow(60, 12, { neckDiameter: 11.6 }),
    ])
      expect(rowFor('M24x2 ↧18', [tool]).operations.some((o) => o.kind === 'thread-mill')).toBe(false);
  });

  it('is one turn for many rows, and bands of whole pitches where it is longer than they are', () => {
    expect(value(rowFor('M24x2 ↧14', [manyRows(60, 14, 2, 10)]), 'turns')).toBe('1 up');
    expect(value(rowFor('M24x2 ↧14', [manyRows(60, 14, 2, 5)]), 'turns')).toBe('2 bands of 1 up');
    expect(value(rowFor('M24x2 LH ↧18', [LONE]), 'turns')).toBe('10 down');
  });

  it('takes equal metal in each pass, and is as much wider as the gauge asks for', () => {
    const row = rowFor('M24x2 ↧18', [LONE], 30, { 'thread-mill': { fit: 0.03, passes: 4, springPasses: 1 } });
    expect(value(row, 'diameter')).toBeCloseTo(24.03);
    const { motion } = made(row, 'thread-mill').work[0]!;
    const radii = (motion.kind === 'path' ? motion.passes[0]!.moves : []).flatMap((m) =>
      m.kind === 'arc' && m.turns > 0 ? [Math.hypot(m.to[0] - m.centre[0], m.to[1] - m.centre[1])] : [],
    );
    expect(radii).toHaveLength(5);
    const depths = radii.map((r) => r - 5);
    expect(depths[1]! ** 2 / depths[0]! ** 2).toBeCloseTo(2);
    expect(radii[4]).toBe(radii[3]);
  });
});

/** The text without the passes of the second start: those that begin on the other side of the axis. */
function oneStart(text: string): string {
  const at = text.indexOf('\n(T60');
  const passes = text.slice(at).split(/(?=^G1 Z-)/m);
  return text.slice(0, at) + passes.filter((_, i) => i === 0 || i % 2 === 1).join('');
}

describe('what its code is found to do', () => {
  const input = threadJob('M24x2 ↧18', 22, 30, [LONE]);
  /** The stretch that mills the thread, changed. */
  const inThread = (change: (t: string) => string) => (t: string) => {
    const at = t.indexOf('\n(T60');
    return t.slice(0, at) + change(t.slice(at));
  };

  it('is in order as it is written, for either hand and way, in bands and by quarters', () => {
    expect(wrongs(input)).toEqual([]);
    for (const typed of [
      { cut: 'conventional' },
      { leads: 'quarter circle' },
      { fit: 0.05 },
      { passes: 1 },
    ] as Record<string, number | string>[])
      expect(wrongs(threadJob('M24x2 ↧18', 22, 30, [LONE], { 'thread-mill': typed }))).toEqual([]);
    expect(wrongs(threadJob('M24x2 LH ↧18', 22, 30, [LONE]))).toEqual([]);
    expect(wrongs(threadJob('M24x2 ↧14', 22, 30, [manyRows(60, 14, 2, 5)]))).toEqual([]);
  });

  it('has as many turns as it climbs, though both ends of a turn are rounded apart', () => {
    const cutter = oneRow(60, 14.18, {
      neckDiameter: 8,
      threadForm: { pitch: 1.7, pitchTo: 2, angleDeg: 60, rows: 1, tapered: false },
    });
    const typed = { 'thread-mill': { passes: 1, compensation: 'in the control' } };
    const job = threadJob('7/8-14 UNF ↧4.535', 20.6375, 11.25, [cutter], typed);
    expect(wrongs(job)).toEqual([]);
  });

  it.each([
    [
      'too wide',
      'thread-size',
      (t: string) =>
        t.replace(/X-24\. Z-19\.5 I3\. J0\./, 'X-23.9 Z-19.5 I3.05 J0.').replace(/I-6\. J0\./g, 'I-6.1 J0.'),
    ],
    ['of another lead', 'thread-lead', (t: string) => t.replace(/Z-13\.5 I-6/, 'Z-13. I-6')],
    ['of the other hand', 'thread-hand', (t: string) => t.replace(/G3/g, 'G2')],
    [
      'short',
      'thread-short',
      (t: string) => t.replace(/^G3 Z-1[79]\.5 I-6\. J0\.\n/gm, '').replace(/Z-19\.5 I3\./, 'Z-15.5 I3.'),
    ],
    ['not up to the top', 'thread-gap', (t: string) => t.replace(/^G3 Z(-[1-5]|0)\.5 I-6\. J0\.\n/gm, '')],
    ['in a hole without one', 'thread-unplanned', (t: string) => t],
  ])('a thread %s', (what, rule, change) => {
    const asked = rule === 'thread-unplanned' ? { ...input, plan: { ...input.plan, sizes: {} } } : input;
    const text = produceJob(input).programs[0]!.text;
    const found = proveText(asked, 's1', inThread(change)(text)).checks.filter((c) => c.rule === rule);
    expect(found, what).toHaveLength(1);
    expect(found[0]).toMatchObject({ severity: 'error', line: expect.any(Number) as number });
  });

  it('a start left out, a thread of one start, or one begun elsewhere than it is timed', () => {
    const two = (typed = {}) => threadJob('M24x2 2 STARTS ↧12', 22, 34, [LONE], { 'thread-mill': typed });
    const textOf = (job: ProduceInput): string => produceJob(job).programs[0]!.text;
    expect(wrongs(two(), oneStart)).toContain('thread-starts');
    const single = textOf(threadJob('M24x2 ↧12', 22, 34, [LONE]));
    expect(wrongs(two(), () => single)).toContain('thread-lead');
    const elsewhere = textOf(two({ startAngle: 70 }));
    expect(wrongs(two({ startAngle: 10 }), () => elsewhere)).toContain('thread-angle');
  });

  it('is seen in its hole wherever its lines end, on the border of a grid cell too', () => {
    const cutter = oneRow(60, 6, {
      fluteLength: 1,
      neckDiameter: 2.4,
      threadForm: { pitch: 0.81, pitchTo: 1, angleDeg: 55, rows: 1, tapered: false },
    });
    const typed = { 'thread-mill': { passes: 2 } };
    const inLines = { machine: { helices: false } };
    expect(wrongs(threadJob('Rc 1/8 ↧2.2675', 8.4, 7.628, [cutter], typed, inLines))).toEqual([]);
  });

  it('a pass beside the groove of the others', () => {
    const asked = threadJob('M24x2 ↧12', 22, 34, [LONE]);
    // The last pass, half a millimetre higher.
    const raised = (text: string): string => {
      const at = text.lastIndexOf('G1 Z-');
      const higher = (t: string): string =>
        t.replace(/Z(-?[\d.]+)/g, (__, z: string) => `Z${(Number(z) + 0.5).toFixed(3)}`);
      const end = text.indexOf('G0 Z25.', at);
      return text.slice(0, at) + higher(text.slice(at, end)) + text.slice(end);
    };
    expect(wrongs(asked, raised)).toContain('thread-step');
  });

  it('begins where it is timed to, whichever the hand', () => {
    for (const hand of ['', ' LH'])
      for (const startAngle of [0, 33, 270])
        expect(
          wrongs(threadJob(`M24x2${hand} ↧12`, 22, 34, [LONE], { 'thread-mill': { startAngle } })),
        ).toEqual([]);
  });

  it('is in order for threads of any size, hand and depth (property)', () => {
    const pitch = fc.constantFrom(1, 1.5, 2, 3);
    fc.assert(
      fc.property(
        fc.integer({ min: 18, max: 40 }),
        pitch,
        fc.integer({ min: 6, max: 24 }),
        fc.boolean(),
        fc.constantFrom('climb', 'conventional'),
        fc.constantFrom('half circle', 'quarter circle'),
        fc.constantFrom('mm' as const, 'inch' as const),
        (major, p, deep, isLeft, cut, leads, units) => {
          const callout = `M${major}x${p}${isLeft ? ' LH' : ''} ↧${deep}`;
          const job = threadJob(
            callout,
            major - p,
            deep + 8,
            [LONE],
            { 'thread-mill': { cut, leads } },
            { units },
          );
          const { job: derived } = produceJob(job);
          expect(derived.rows[0]!.operations.map((o) => o.kind)).toContain('thread-mill');
          expect(wrongs(job)).toEqual([]);
        },
      ),
      { numRuns: 60 },
    );
  });
});
