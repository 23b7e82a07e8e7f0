import { beforeAll, describe, expect, it } from 'vitest';
import type { Tool } from '@yellow-pin/core/tools/schema';
import { isHole } from '@yellow-pin/core/features/family';
import { featureSizes } from '@yellow-pin/core/features/sets';
import { testTool } from './groove-tools.ts';
import { FIXTURES, stored, WAYS } from './family-parts.ts';
import { prepare } from './solids.ts';
import { errors, jobOfText, proved } from './trial.ts';

/** Cutters for the grooves of the fixtures that the sample shop does not have. */
const MORE: Tool[] = [
  testTool('dovetail-cutter', 20, { fluteLength: 11, pointAngleDeg: 60, neckDiameter: 7, neckLength: 22 }),
  testTool('t-cutter', 16, { fluteLength: 7, neckDiameter: 7, neckLength: 24 }),
  testTool('t-cutter', 20, { fluteLength: 4, neckDiameter: 9, neckLength: 40, shankDiameter: 10 }),
  testTool('t-cutter', 12, { fluteLength: 1.5, neckDiameter: 6, neckLength: 30 }),
];

const GROOVED = FIXTURES.filter((f) =>
  [
    'slots',
    'T-slots and a dovetail',
    'T-slots open at both ends',
    'face grooves',
    'channels',
    'bore grooves',
    'wall grooves',
  ].includes(f.name),
);
const FAMILIES = ['slot', 'channel', 'face-groove', 't-slot', 'dovetail', 'bore-groove', 'wall-groove'];

beforeAll(prepare);

describe.each(GROOVED)('$name', ({ body, splitX }) => {
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
