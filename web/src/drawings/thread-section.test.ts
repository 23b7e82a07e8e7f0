import { describe, expect, it } from 'vitest';
import { deriveJob } from '@yellow-pin/core/job/derive';
import { flankAngle, threadSizes } from '@yellow-pin/core/threads/shape';
import { NAMED_THREADS } from '@yellow-pin/core/threads/more';
import { oneRow, threadJob } from '@yellow-pin/core/testing/threads';
import { drawSection } from './section-drawing.ts';
import { threadPlaces, threadProfile } from './thread-section.ts';

const jobOf = (typed: Record<string, string> = {}) =>
  deriveJob(threadJob('M24x2 ↧18', 22, 30, [oneRow(60, 12)], { 'thread-mill': typed })).rows[0]!;

describe('a thread in section', () => {
  it.each([['climb'], ['conventional']])(
    'has its cutter at the start, at full depth and on its way out (%s)',
    (cut) => {
      const row = jobOf({ cut });
      const [work] = row.operations.find((o) => o.kind === 'thread-mill')!.work;
      const places = threadPlaces(work!.motion.kind === 'path' ? work!.motion.passes : [], work!);
      expect(places.map((p) => p.name)).toEqual(['start', 'full depth', 'way out']);
      expect(places.map((p) => Math.round(p.away * 1e6) / 1e6)).toEqual([0, 6, 0]);
      // 18 deep, a tooth 3 high: its tip stands at 19.5.
      expect(places[1]!.z).toBeCloseTo(-19.5);
    },
  );

  it('draws the cutter at full depth, its other places, and the profile between crest and root', () => {
    const row = jobOf();
    const d = drawSection(
      row.holes[0]!,
      row.operations.find((o) => o.kind === 'thread-mill')!,
      row.thread,
    );
    expect(d.toolX).toBeCloseTo(d.centre + 6 * d.k);
    expect(d.ghosts.map((g) => g.name)).toEqual(['start', 'way out']);
    expect(d.profile).toMatch(/^M/);
    expect(d.thread).toBeNull();
  });

  it('has flanks of the standard’s angle between major and minor diameter, whichever the thread', () => {
    for (const t of NAMED_THREADS.filter((n) => n.pitch > 0.5))
      for (const side of ['inside', 'outside'] as const) {
        const profile = threadProfile(t, side, 6 * t.pitch, 0);
        const { major, minor } = threadSizes(t, side);
        const slack = t.form === 'pipe-tapered' ? (6 * t.pitch) / 32 : 0;
        for (const [r] of profile) {
          expect(r).toBeLessThan(major / 2 + slack + 1e-9);
          expect(r).toBeGreaterThan(minor / 2 - slack - 1e-9);
        }
        const steep = profile.flatMap(([r, z], i) => {
          const [q, w] = profile[i - 1] ?? [r, z];
          return Math.abs(r - q) > 0.2 * t.pitch ? [Math.abs((w - z) / (r - q))] : [];
        });
        expect(steep.length, t.designation).toBeGreaterThan(5);
        // Along a taper one flank is a little longer than the other.
        for (const s of steep)
          expect(s).toBeCloseTo(Math.tan((flankAngle(t) * Math.PI) / 360), slack > 0 ? 1 : 6);
      }
  });
});
