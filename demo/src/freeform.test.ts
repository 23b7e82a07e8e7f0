import {
  drawCircle,
  drawEllipse,
  drawRectangle,
  makeCylinder,
  makeEllipsoid,
  makeSphere,
  type Drawing,
  type Shape3D,
  type Sketch,
} from 'replicad';
import { describe, expect, it } from 'vitest';
import { meshModel, meshVolume } from '@yellow-pin/core/model/mesh';
import { asSplines } from './as-splines.ts';
import { openSides } from './open-sides.ts';
import { own } from './own.ts';
import { box, prepare, stepText } from './solids.ts';
import { withoutSeams } from './without-seams.ts';

describe('free-form faces', () => {
  const drawn = (d: Drawing, at = 0) => d.sketchOnPlane('XY', at) as Sketch;
  /** Shapes with their exact volumes, where there is one. */
  const SHAPES: Record<string, { body: () => Shape3D; volume: number | null }> = {
    'a loft from a square to a circle': {
      body: () => drawn(drawRectangle(30, 20)).loftWith(drawn(drawCircle(8), 25)),
      volume: null,
    },
    'a twisted bar': {
      body: () => drawn(drawRectangle(20, 12)).extrude(30, { twistAngle: 60 }),
      volume: 20 * 12 * 30,
    },
    'an elliptic bar': { body: () => drawn(drawEllipse(12, 7)).extrude(20), volume: Math.PI * 12 * 7 * 20 },
    'an ellipsoid': {
      body: () => makeEllipsoid(20, 14, 9) as Shape3D,
      volume: (4 / 3) * Math.PI * 20 * 14 * 9,
    },
    'an ellipsoid cut flat': {
      body: () => makeEllipsoid(20, 14, 9).cut(box([-30, -30, -30], [30, 30, 2]) as never) as Shape3D,
      volume: null,
    },
    'a whole ball': { body: () => makeSphere(11) as Shape3D, volume: (4 / 3) * Math.PI * 11 ** 3 },
    'a fillet where two cylinders cross': {
      body: () =>
        (makeCylinder(10, 40).fuse(makeCylinder(6, 30, [0, 0, 20], [1, 0, 0]) as never) as Shape3D).fillet(
          2,
        ) as Shape3D,
      volume: null,
    },
  };

  it.each(Object.keys(SHAPES))('fit their neighbours without a crack: %s', async (name) => {
    await prepare();
    const { body, volume } = SHAPES[name]!;
    const text = await stepText([body()], name);
    for (const written of [text, asSplines(text)]) {
      const mesh = meshModel(own(written));
      expect(openSides(mesh)).toBe(0);
      if (volume !== null) expect(Math.abs(meshVolume(mesh) / volume - 1)).toBeLessThan(0.007);
    }
    // As programs write it whose faces need no seam.
    const bare = meshModel(own(withoutSeams(text)));
    expect(openSides(bare)).toBe(0);
    expect(Math.abs(meshVolume(bare) / meshVolume(meshModel(own(text))) - 1)).toBeLessThan(3e-3);
  });
});
