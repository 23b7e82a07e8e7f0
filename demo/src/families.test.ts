import type { Shape3D } from 'replicad';
import { beforeAll, describe, expect, it } from 'vitest';
import type { Feature } from '@yellow-pin/core/features/family';
import { recognise } from '@yellow-pin/core/features/recognise';
import { isOptional } from '@yellow-pin/core/features/registry';
import type { Frame } from '@yellow-pin/core/geometry/frame';
import { readStep } from '@yellow-pin/kernel';
import { HOME, UP, WAYS, type Expected } from './stored-parts.ts';
import { EDGE_FIXTURES } from './edge-parts.ts';
import { GROOVE_FIXTURES } from './groove-parts.ts';
import { fits, read } from './found.ts';
import { box, capsule, cutAll, outline, prepare, prism, stepText, straight, turned } from './solids.ts';

/** Exactly the expected features, and what nothing asks for. */
function holdsExactly(found: Feature[], expected: Expected[], frame: Frame): void {
  const shaped = found.filter((f) => !isOptional(f));
  for (const e of expected)
    expect(
      shaped.filter((f) => fits(f, e, frame)),
      `${JSON.stringify(e)} among ${JSON.stringify(shaped.map(({ faces: _, ...f }) => f))}`,
    ).toHaveLength(1);
  expect(shaped.map((f) => f.family).sort()).toEqual(expected.map((e) => e.family).sort());
}

beforeAll(prepare);

describe.each([...GROOVE_FIXTURES, ...EDGE_FIXTURES])('$name', ({ body, expected, splitX }) => {
  let shape: Shape3D;
  beforeAll(() => {
    shape = body();
  });
  it.each(WAYS)('%s', async (way) => {
    const { features, frame } = await read(shape, way, splitX);
    holdsExactly(features, expected, frame);
  });
});

describe('sharp edges', () => {
  it('are chained into loops and runs with the free room beside and below', async () => {
    const body = cutAll(box([0, 0, -20], [80, 50, 0]), [
      turned(straight(10, 30), [20, 25, 0], UP),
      prism(capsule(24, 8, [50, 25]), 1, -5),
      box([70, -1, -12], [81, 51, 1]),
    ]);
    const { features } = await read(body, 'as modelled', 0);
    const edges = features.filter((f) => f.family === 'sharp-edge' && f.axis[2] > 0.9);
    const hole = features.find((f) => f.family === 'hole')!;
    holdsAll(edges, [
      {
        family: 'sharp-edge',
        loop: 'closed',
        length: 10 * Math.PI,
        side: 'inside',
        holeId: hole.id,
        rimDiameter: 10,
        roomBeside: 10,
      },
      {
        family: 'sharp-edge',
        loop: 'closed',
        length: 32 + 8 * Math.PI,
        side: 'inside',
        roomBeside: 8,
        roomBelow: 5,
      },
      {
        family: 'sharp-edge',
        loop: 'closed',
        length: 2 * (70 + 50),
        side: 'outside',
        roomBeside: null,
        roomBelow: 12,
      },
      // The step's own three outer edges end at its wall.
      { family: 'sharp-edge', loop: 'open', length: 10 + 50 + 10, side: 'outside', roomBelow: null },
    ]);
    expect(edges).toHaveLength(4);
  });
  it('follow the direction that is up', async () => {
    const model = await readStep(
      new TextEncoder().encode(await stepText([box([0, 0, -20], [80, 50, 0])], 'block')),
    );
    const right = recognise(model, { up: [1, 0, 0] }).features.filter(
      (f) => f.axis[0] > 0.9 && f.family === 'sharp-edge',
    );
    expect(right).toHaveLength(1);
    expect(right[0]).toMatchObject({ family: 'sharp-edge', loop: 'closed', length: 140 });
  });
});

function holdsAll(found: Feature[], expected: Expected[]): void {
  for (const e of expected)
    expect(
      found.filter((f) => fits(f, e, HOME)),
      JSON.stringify(e),
    ).toHaveLength(1);
}

describe('what is left', () => {
  it('is named', async () => {
    // Two of its walls lean: neither pocket nor step.
    const leaning = prism(outline([0, 0], [30, 0], [25, -8], [5, -8]), 40, 0)
      .rotate(90, [0, 0, 0], [1, 0, 0])
      .translate(20, 60, 0) as Shape3D;
    const { notes } = await read(cutAll(box([0, 0, -30], [120, 80, 0]), [leaning]), 'as modelled', 0);
    expect(notes.map((n) => n.code)).toEqual(['pocket']);
    for (const n of notes) expect(n.message).toMatch(/faces \d+/);
  });
});
