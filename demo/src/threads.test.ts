import { beforeAll, describe, expect, it } from 'vitest';
import type { Plan } from '@yellow-pin/core/plan/plan';
import { blind, box, cutAll, prepare, straight, turned, type Point } from './solids.ts';
import { errors, jobOf, proved } from './trial.ts';

const UP: Point = [0, 0, 1];
const milled = (p: Plan): void => {
  for (const s of Object.values(p.sizes)) s.method = 'thread-milled';
};

beforeAll(prepare, 60_000);

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
