import type { Shape3D } from 'replicad';
import { beforeAll, describe, expect, it } from 'vitest';
import type { Tool } from '@yellow-pin/core/tools/schema';
import { isHole } from '@yellow-pin/core/features/family';
import { featureSizes } from '@yellow-pin/core/features/sets';
import { testTool } from './groove-tools.ts';
import { circle } from './cut-shapes.ts';
import { stored, WAYS } from './stored-parts.ts';
import { GROOVE_FIXTURES } from './groove-parts.ts';
import { box, capsule, cutAll, prepare, prism, stepText } from './solids.ts';
import { errors, jobOfText, proved } from './trial.ts';

/** Cutters for the grooves of the fixtures that the sample shop does not have. */
const MORE: Tool[] = [
  testTool('dovetail-cutter', 20, { fluteLength: 11, pointAngleDeg: 60, neckDiameter: 7, neckLength: 22 }),
  testTool('t-cutter', 16, { fluteLength: 7, neckDiameter: 7, neckLength: 24 }),
  testTool('t-cutter', 20, { fluteLength: 4, neckDiameter: 9, neckLength: 40, shankDiameter: 10 }),
  testTool('t-cutter', 12, { fluteLength: 1.5, neckDiameter: 6, neckLength: 30 }),
];

const FAMILIES = ['slot', 'channel', 'face-groove', 't-slot', 'dovetail', 'bore-groove', 'wall-groove'];

beforeAll(prepare);

describe.each(GROOVE_FIXTURES)('$name', ({ body, splitX }) => {
  it.each(WAYS)('are milled as they are in the model, %s', async (way) => {
    const trial = await jobOfText(await stored(body(), way, splitX), {
      more: MORE,
      // A drill's cone would stand in the way of a groove just over a floor.
      change: (p, features) => {
        for (const size of featureSizes(features))
          if (size.features.some((f) => isHole(f) && f.bottom.shape === 'flat'))
            p.sizes[size.key] = { method: 'drilled-flat-floor', overrides: {} };
      },
    });
    const rows = trial.job.rows.filter((r) => FAMILIES.includes(r.size.family));
    expect(rows.length).toBeGreaterThan(0);
    expect(rows.flatMap((r) => r.reasons)).toEqual([]);
    const { checks, metal } = proved(trial);
    expect(errors(checks).length > 0 ? checks.filter((c) => c.severity === 'error') : []).toEqual([]);
    expect(metal.largestOvercut).toBeLessThanOrEqual(0.005);
    const tags = new Set(rows.map((r) => r.tag));
    expect(metal.places.filter((p) => p.kind === 'left-over' && tags.has(p.tag ?? ''))).toEqual([]);
  });
});

describe('what runs out, lies in stock, or is one size at several depths', () => {
  const kept = async (text: string, change: Parameters<typeof jobOfText>[1] = {}) => {
    const trial = await jobOfText(text, { more: MORE, ...change });
    expect(trial.job.rows.flatMap((r) => (FAMILIES.includes(r.size.family) ? r.reasons : []))).toEqual([]);
    const { checks, metal } = proved(trial);
    expect(checks.filter((c) => c.severity === 'error')).toEqual([]);
    expect(metal.largestOvercut).toBeLessThanOrEqual(0.005);
    return metal;
  };

  it('a wall groove ends in its cutter’s own arc, both ends or all of it', async () => {
    const disc = (x: number) => prism(circle(12.5, x, 4 - 12.5), -12, -17);
    const body = cutAll(box([0, 0, -30], [120, 40, 0]), [
      box([35, -1, -17], [85, 4, -12]),
      disc(35),
      disc(85),
    ]);
    expect((await kept(await stepText([body], 'runout'))).leftoverVolume).toBe(0);
    const one = cutAll(box([0, 0, -30], [120, 40, 0]), [disc(60)]);
    expect((await kept(await stepText([one], 'runout'))).leftoverVolume).toBe(0);
  });

  it('slots of one size with a hundredth between their depths go to their own floors', async () => {
    const body = cutAll(box([0, 0, -30], [120, 60, 0]), [
      prism(capsule(40, 10, [30, 20]), 1, -8),
      prism(capsule(40, 10, [90, 20]), 1, -8.02),
    ]);
    const metal = await kept(await stepText([body], 'depths'));
    expect(metal.leftoverVolume).toBe(0);
  });

  it('a slot that runs over a wider hole is no hole that was milled too wide', async () => {
    const body = cutAll(box([0, 0, -30], [120, 60, 0]), [
      prism(capsule(60, 9, [50, 30]), 1, -12),
      prism(circle(8, 50, 30), 1, -31),
    ]);
    expect((await kept(await stepText([body], 'crossed'))).leftoverVolume).toBe(0);
  });

  it('a slot with hardly any way to ramp along is not cut in hundreds of passes', async () => {
    const body = cutAll(box([0, 0, -30], [120, 60, 0]), [prism(capsule(8.4, 8, [60, 30]), 1, -6)]);
    const { job, texts } = await jobOfText(await stepText([body], 'short'), { more: MORE });
    expect(job.rows.flatMap((r) => (r.size.family === 'slot' ? r.reasons : []))).toEqual([]);
    expect(texts.join('').split('\n').length).toBeLessThan(150);
  });

  it('in a block with stock all round the cutter comes down beyond it', async () => {
    const body = cutAll(box([0, 0, -30], [100, 50, 0]), [box([40, 15, -8], [101, 25, 1])]).cut(
      prism(circle(5, 40, 20), 1, -8),
    ) as Shape3D;
    const trial = await jobOfText(await stepText([body], 'block'), {
      change: (p) => {
        const w = 3;
        for (const s of p.setups)
          s.stock = { ...s.stock, xLow: w, xHigh: w, yLow: w, yHigh: w, zLow: w, zHigh: w, kind: 'block' };
      },
    });
    const cut = trial.job.rows.flatMap((r) => r.operations).find((o) => o.kind === 'slot-mill')!;
    // The part ends at X 50 of the zero in the middle, the stock at 53: the cutter's edge is past it.
    expect(cut.work[0]!.x - cut.tool.diameter / 2).toBeGreaterThanOrEqual(53);
    expect(errors(proved(trial).checks)).toEqual([]);
  });
});
