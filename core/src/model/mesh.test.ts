import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { modelFromDrawing } from '../drawing/to-model.ts';
import { frameFrom } from '../geometry/frame.ts';
import type { Segment, Vec2 } from '../geometry/path.ts';
import type { Vec3 } from '../geometry/vec.ts';
import { circleEdge, oneFace } from '../testing/one-face.ts';
import { placeModel } from '../testing/turn-model.ts';
import { meshArea, meshModel } from './mesh.ts';
import type { SolidModel, Surface } from './solid-model.ts';

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

describe('mesh of a face that goes round without a seam', () => {
  const TURN = 2 * Math.PI;
  /** A ring's face between two rims, where its tube has turned by two angles from its outside up. */
  const band = (from: number, to: number): SolidModel => {
    const [major, minor] = [20, 8];
    const rim = (angle: number) =>
      circleEdge([0, 0, minor * Math.sin(angle)], [0, 0, 1], major + minor * Math.cos(angle), { n: 60 });
    const surface: Surface = {
      kind: 'torus',
      origin: [0, 0, 0],
      axis: [0, 0, 1],
      majorRadius: major,
      minorRadius: minor,
    };
    const loops = [[{ edge: 0, reversed: false }], [{ edge: 1, reversed: true }]];
    return oneFace({ surface, loops }, [rim(from), rim(to)]).model;
  };

  it('has its area: the cut that opens it follows the surface', () => {
    const angle = fc.double({ min: -1.4, max: 1.4, noNaN: true });
    fc.assert(
      fc.property(angle, fc.double({ min: 0.2, max: 4.5, noNaN: true }), (from, turn) => {
        const to = from + turn;
        const mesh = meshModel(band(from, to));
        expect(mesh.failed).toEqual([]);
        // Pappus and Guldin.
        const area = TURN * 8 * (20 * turn + 8 * (Math.sin(to) - Math.sin(from)));
        expect(Math.abs(meshArea(mesh) / area - 1)).toBeLessThan(0.01);
        // All corners lie on the ring.
        for (let i = 0; i < mesh.positions.length; i += 3) {
          const [x, y, z] = mesh.positions.subarray(i, i + 3);
          expect(Math.hypot(Math.hypot(x!, y!) - 20, z!)).toBeCloseTo(8, 4);
        }
        // Nor does a triangle leave it by more than a chord of its own.
        for (let t = 0; t < mesh.triangles.length; t += 3) {
          const middle = [0, 1, 2].map(
            (k) => [0, 1, 2].reduce((sum, c) => sum + mesh.positions[3 * mesh.triangles[t + c]! + k]!, 0) / 3,
          );
          const [x, y, z] = middle as Vec3;
          expect(Math.abs(Math.hypot(Math.hypot(x, y) - 20, z) - 8)).toBeLessThan(0.25);
        }
      }),
      { numRuns: 60 },
    );
  });
});
