import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { modelFromDrawing } from '../drawing/to-model.ts';
import { frameFrom } from '../geometry/frame.ts';
import type { Segment, Vec2 } from '../geometry/path.ts';
import { placeModel } from '../testing/turn-model.ts';
import { meshArea, meshModel } from './mesh.ts';

const circle = ([x, y]: Vec2, radius: number): Segment[] => [
  { kind: 'arc', from: [x + radius, y], to: [x + radius, y], centre: [x, y], radius, turn: 2 * Math.PI },
];

/** A disc of 40 mm with a bore of 10 mm aside its middle, 20 mm thick. */
const disc = modelFromDrawing(
  {
    format: 'yellow-pin/drawing@1',
    name: 'disc',
    sourceUnits: 'mm',
    outlines: [
      { layer: 'P', segments: circle([0, 0], 20) },
      { layer: 'C', segments: circle([8, -6], 5) },
    ],
    notes: [],
  },
  {
    thickness: 20,
    layers: { P: { use: 'outline', depth: null }, C: { use: 'cut', depth: null } },
    sizes: {},
  },
);
const areaOf = (model: typeof disc, face: number): number =>
  meshArea(meshModel(model, (_, index) => index === face));

describe('mesh of a placed part', () => {
  it('has no sliver across the rim of a bore, however slightly the axes are turned', () => {
    const here = disc.faces.map((_, i) => areaOf(disc, i));
    const tilt = fc.double({ min: -0.4, max: 0.4, noNaN: true });
    // Turns down to the last digits: there the samples of a level rim are level but for rounding.
    const small = fc
      .tuple(fc.double({ min: -1, max: 1, noNaN: true }), fc.integer({ min: -14, max: 0 }))
      .map(([m, e]) => m * 10 ** e);
    fc.assert(
      fc.property(tilt, tilt, small, small, (x, y, hint, far) => {
        const there = placeModel(disc, frameFrom([1e4 * far, 0, far], [x, y, 1], [1, hint, 0]));
        disc.faces.forEach((_, i) => {
          // Single precision of far corners costs some 1e-4; a sliver across one chord costs 4e-3.
          expect(Math.abs(areaOf(there, i) / here[i]! - 1)).toBeLessThan(1e-3);
        });
      }),
      { numRuns: 200 },
    );
  });
});
