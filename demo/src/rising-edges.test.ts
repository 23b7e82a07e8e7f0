import type { Shape3D } from 'replicad';
import { beforeAll, describe, expect, it } from 'vitest';
import { newSetup } from '@yellow-pin/core/setup/setup';
import type { Feature } from '@yellow-pin/core/features/family';
import { circle } from './cut-shapes.ts';
import { box, cutAll, prepare, prism, straight, turned } from './solids.ts';
import { UP } from './stored-parts.ts';
import { errors, jobOf, proved, type Trial } from './trial.ts';

/** A round bar with two flats, and a hole down through its round side. */
const body = (): Shape3D =>
  cutAll(
    (prism(circle(25, 0, 0), 100, 0) as Shape3D)
      .rotate(90, [0, 0, 0], [0, 1, 0])
      .intersect(box([0, -18, -25], [100, 18, 25])) as Shape3D,
    [turned(straight(14, 60), [50, 0, 30], UP)],
  );

let trial: Trial;
let found: Feature[] = [];
beforeAll(async () => {
  await prepare();
  trial = await jobOf(body(), {}, (p, features) => {
    p.edgeBreak = 0.4;
    p.setups = [newSetup('s1', 'top up', '+Z')];
    found = features;
  });
}, 60_000);

const rim = (features: readonly Feature[]) =>
  features.flatMap((f) => (f.family === 'rising-edge' && f.axis[2] > 0.9 ? [f] : []));

describe('an edge that rises and falls', () => {
  it('is found where a hole opens in a round side: on both surfaces, as long and as high as it is', () => {
    const [own, ...more] = rim(found);
    expect(more).toEqual([]);
    expect(own).toMatchObject({ loop: 'closed', axis: [0, 0, 1] });
    expect(own!.rise).toBeCloseTo(25 - Math.sqrt(25 ** 2 - 7 ** 2), 4);
    for (const { at, up, out } of own!.run) {
      expect(Math.hypot(at[1], at[2])).toBeCloseTo(25, 4);
      expect(Math.hypot(at[0] - 50, at[1])).toBeCloseTo(7, 4);
      expect(up[1]).toBeCloseTo(at[1] / 25, 4);
      // The hole's wall looks to its axis.
      expect(out[0]).toBeCloseTo(-(at[0] - 50) / 7, 4);
    }
  });

  it('is broken by a ball along it, and the hollow is said', () => {
    const row = trial.job.rows.find((r) => r.size.features.some((f) => rim([f]).length > 0))!;
    expect(row.state).toBe('planned');
    const [o] = row.operations;
    expect(o!.kind).toBe('edge-follow');
    // As on a square edge, or a little deeper where it is blunter or keener.
    const r = o!.tool.diameter / 2;
    const square = r - Math.sqrt(r * r - 0.4 ** 2 / 2);
    expect(Number(o!.parameters.find((p) => p.key === 'hollow')!.value) / square).toBeCloseTo(1, 1);
    expect(o!.remarks.map((r) => r.rule)).toContain('hollow-edge');
    const { checks, metal } = proved(trial);
    expect(errors(checks)).toEqual([]);
    expect(metal).toMatchObject({ overcutVolume: 0 });
    expect(metal.places.some((p) => p.kind === 'wanted')).toBe(true);
  });

  it('too near to it, too far, or only in part, is found', () => {
    const block = (t: string, change: (l: string) => string): string => {
      const lines = t.split('\n');
      const from = lines.findIndex((l) => l.includes('EDGE BREAK BY A BALL'));
      return lines.map((l, i) => (i > from && l.includes('Z-') ? change(l) : l)).join('\n');
    };
    const moved = (by: number) => (l: string) =>
      l.replace(/Z-([\d.]+)/, (_, z: string) => `Z${(-Number(z) + by).toFixed(3)}`);
    expect(errors(proved(trial, (t) => block(t, moved(-0.05))).checks)).toContain('edge-too-wide');
    expect(errors(proved(trial, (t) => block(t, moved(0.05))).checks)).toContain('edge-too-narrow');
    const half = (t: string): string => {
      const lines = t.split('\n');
      const from = lines.findIndex((l) => l.includes('EDGE BREAK BY A BALL'));
      return [...lines.slice(0, from + 20), ...lines.slice(lines.length - 6)].join('\n');
    };
    expect(errors(proved(trial, half).checks)).toContain('edge-not-cut');
  });

  it('is left to a larger ball, or to none, where the break is too wide', async () => {
    const wide = await jobOf(body(), {}, (p) => {
      p.edgeBreak = 9;
      p.setups = [newSetup('s1', 'top up', '+Z')];
    });
    const row = wide.job.rows.find((r) => r.size.features.some((f) => rim([f]).length > 0))!;
    expect(row.state).toBe('open');
    expect(row.reasons.join()).toMatch(/too small for a break of 9 mm/);
  });
});
