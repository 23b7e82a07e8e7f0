import type { Shape3D } from 'replicad';
import { beforeAll, describe, expect, it } from 'vitest';
import { AREA_FIXTURES } from './area-parts.ts';
import { WAYS } from './stored-parts.ts';
import { fits, read } from './found.ts';
import { prepare } from './solids.ts';

const FAMILIES = ['pocket', 'step', 'outline', 'face'];

beforeAll(prepare);

describe.each(AREA_FIXTURES)('$name', ({ body, expected, splitX }) => {
  let shape: Shape3D;
  beforeAll(() => {
    shape = body();
  });
  it.each(WAYS)('%s', async (way) => {
    const { features, frame } = await read(shape, way, splitX);
    const areas = features.filter((f) => FAMILIES.includes(f.family));
    const said = areas.map(({ faces: _, borders: _b, ...f }: Record<string, unknown>) => f);
    for (const e of expected)
      expect(
        areas.filter((f) => fits(f, e, frame)),
        `${JSON.stringify(e)} among ${JSON.stringify(said)}`,
      ).toHaveLength(1);
    expect(areas.filter((f) => f.reachableFrom.length === 0)).toEqual([]);
    expect(areas.map((f) => f.family).sort()).toEqual(expected.map((e) => e.family).sort());
  });
});
