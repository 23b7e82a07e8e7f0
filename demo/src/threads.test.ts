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
