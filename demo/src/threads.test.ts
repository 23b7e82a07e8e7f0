import type { Shape3D } from 'replicad';
import { describe, expect, it } from 'vitest';
import type { Plan } from '@yellow-pin/core/plan/plan';
import { blind, box, cutAll, prepare, straight, turned, type Point } from './solids.ts';
import { errors, jobOf, proved, type Trial } from './trial.ts';

const UP: Point = [0, 0, 1];
const milled = (p: Plan): void => {
  for (const s of Object.values(p.sizes)) s.method = 'thread-milled';
};

await prepare();

describe('threads that are milled, in metal', () => {
  it.each([
    ['metric, blind', 22, 'M24x2 ↧18', false],
    ['metric, left hand, through', 22, 'M24x2 LH THRU', true],
    ['fine and large', 28.5, 'M30x1.5 ↧16', false],
    ['inch', 20.4, '7/8-14 UNF ↧17', false],
    ['pipe', 24.1, 'G 3/4 ↧14', false],
  ])(
    '%s: its band is meant, and nothing of the part is cut',
    async (_, diameter, callout, isThrough) => {
      const height = isThrough ? 24 : 30;
      const hole = isThrough ? straight(diameter, height) : blind(diameter, 28);
      const job = await jobOf(
        cutAll(box([0, 0, -height], [70, 60, 0]), [turned(hole, [35, 30, 0], UP)]),
        { [diameter]: callout },
        milled,
      );
      expect(job.texts[0]).toMatch(/THREAD MILL/);
      const { metal, checks } = proved(job);
      expect(checks.filter((c) => c.severity === 'error').map((c) => c.message)).toEqual([]);
      expect(metal.overcutVolume).toBe(0);
      expect(metal.places.some((p) => p.kind === 'wanted' && p.volume > 100)).toBe(true);
    },
    60_000,
  );

  /** A 1:16 taper from a mouth, so long, then as wide on. */
  const tapered = (mouth: number, length: number, depth: number): [number, number][] => [
    [0, mouth / 2],
    [length, mouth / 2 - length / 32],
    [depth, mouth / 2 - length / 32],
  ];
  const INCH = 25.4;

  it.each([
    ['tapered, drawn straight', blind(0.7031 * INCH, 30), 0.7031 * INCH, '1/2-14 NPT'],
    ['tapered, drawn with its minor diameter', tapered(18.32, 13.6, 28), 18.32 - 13.6 / 16, '1/2-14 NPT'],
    ['tapered, drawn with its pitch diameter', tapered(19.77, 13.6, 28), 19.77 - 13.6 / 16, 'NPTF 1/2'],
    ['Whitworth taper', blind(14.75, 28), 14.75, 'Rc 3/8'],
    ['Whitworth taper by a lone tooth', blind(23.75, 34), 23.75, 'R 3/4'],
    ['of two starts', blind(22, 34), 22, 'M24x2 2 STARTS \u21a714'],
  ] as const)(
    '%s: found right in text and metal',
    async (_, hole, diameter, callout) => {
      const body = cutAll(box([0, 0, -50], [70, 60, 0]), [turned([...hole], [35, 30, 0], UP)]);
      const job = await jobOf(body, { [diameter]: callout }, (p) => {
        milled(p);
        for (const s of Object.values(p.sizes))
          s.overrides['thread-mill'] = { compensation: 'in the control' };
      });
      expect(job.texts[0]).toMatch(/THREAD MILL/);
      expect(job.texts[0]).toMatch(/G41 G1/);
      const { metal, checks } = proved(job);
      expect(checks.filter((c) => c.severity === 'error').map((c) => c.message)).toEqual([]);
      expect(metal.overcutVolume).toBe(0);
    },
    60_000,
  );

  it('cut 0.1 too wide is found by its line, in text and metal', async () => {
    const job = await jobOf(
      cutAll(box([0, 0, -30], [70, 60, 0]), [turned(blind(22, 28), [35, 30, 0], UP)]),
      { 22: 'M24x2 ↧18' },
      milled,
    );
    const wide = (t: string): string =>
      t.replace(/\(A THREAD MILL[\s\S]*/, (part) =>
        part.replace(/I-6\./g, 'I-6.05').replace(/X6\. (Z\S+) I3\./, 'X6.05 $1 I3.025'),
      );
    const { metal, checks } = proved(job, wide);
    expect(errors(checks)).toContain('thread-size');
    expect(metal.largestOvercut).toBeGreaterThan(0.03);
  }, 60_000);
});

/** A plate with a round boss, chamfered on top where that is said. */
function bossPart(diameter: number, height: number, chamfer = 0): Shape3D {
  const plate = box([0, 0, -20], [90, 80, 0]);
  const r = diameter / 2;
  const edge: [number, number][] =
    chamfer > 0
      ? [
          [0, r - chamfer],
          [chamfer, r],
        ]
      : [[0, r]];
  return plate.fuse(turned([...edge, [height + 1, r]], [45, 40, height], UP, 0)) as Shape3D;
}

describe('threads on bosses', () => {
  it.each([
    ['metric', bossPart(24, 22, 1.5), 24, 'M24x2 - 6g ↧12', {}],
    ['left hand, by the control', bossPart(30, 18), 30, 'M30x1.5 LH ↧9', { compensation: 'in the control' }],
    ['two starts, conventional', bossPart(24, 26), 24, 'M24x2 2 STARTS ↧14', { cut: 'conventional' }],
    ['tapered pipe', bossPart(21.34, 24), 21.34, '1/2-14 NPT', {}],
    ['as long as the boss allows', bossPart(30, 20, 1), 30, 'M30x2', {}],
  ] as const)(
    '%s: nothing but the band of the thread is cut',
    async (_, body, diameter, callout, typed) => {
      const job = await jobOf(body, { [diameter]: callout }, (p) => {
        for (const s of Object.values(p.sizes)) s.overrides['outside-thread-mill'] = { ...typed };
      });
      expect(job.texts[0]).toMatch(/OUTSIDE THREAD MILL/);
      const { metal, checks } = proved(job);
      // The chamfer on top is a row of its own, and nobody makes it here.
      const others = checks.filter((c) => c.severity !== 'note' && c.rule !== 'open-row');
      expect(others.map((c) => c.message)).toEqual([]);
      expect(metal.overcutVolume).toBe(0);
      expect(metal.places.some((p) => p.kind === 'wanted' && p.volume > 50)).toBe(true);
    },
    60_000,
  );

  it('cut too deep, of another lead, or not at all is found', async () => {
    const textOf = async (callout: string, fit = 0): Promise<Trial> =>
      jobOf(bossPart(24, 22), { 24: callout }, (p) => {
        for (const s of Object.values(p.sizes)) s.overrides['outside-thread-mill'] = { fit };
      });
    const job = await textOf('M24x2 ↧12');
    const turns = /^G2 Z\S+ I\S+ J0\.( F\S+)?\n/gm;
    for (const [text, rule] of [
      [(await textOf('M24x2 ↧12', -0.1)).texts[0]!, 'thread-size'],
      [(await textOf('M24x1.5 ↧12', -0.541)).texts[0]!, 'thread-lead'],
      [(await textOf('M24x2 LH ↧12')).texts[0]!, 'thread-hand'],
      [(await textOf('M24x2 ↧10')).texts[0]!, 'thread-short'],
      [job.texts[0]!.replace(turns, ''), 'thread-missing'],
    ] as const)
      expect(errors(proved(job, () => text).checks), rule).toContain(rule);
  }, 60_000);
});
