import { connect } from '../model/connect.ts';
import type { SolidModel } from '../model/solid-model.ts';
import type { Vec3 } from '../geometry/vec.ts';

/** A closed box from `min` to `max` as a solid model, made by hand. */
export function boxModel(min: Vec3, max: Vec3): SolidModel {
  const corner = (i: number): Vec3 => [
    i & 1 ? max[0] : min[0],
    i & 2 ? max[1] : min[1],
    i & 4 ? max[2] : min[2],
  ];
  const model: SolidModel = {
    format: 'yellow-pin/solid-model@1',
    name: 'box',
    sourceUnits: 'mm',
    solids: [{ name: 'box', closed: true }],
    faces: [],
    edges: [],
    bounds: { min, max },
    notes: [],
  };
  const ids = new Map<string, number>();
  const edge = (a: number, b: number): { edge: number; reversed: boolean } => {
    const key = a < b ? `${a}-${b}` : `${b}-${a}`;
    let id = ids.get(key);
    if (id === undefined) {
      id = model.edges.length;
      ids.set(key, id);
      model.edges.push({
        curve: { kind: 'line' },
        points: [corner(Math.min(a, b)), corner(Math.max(a, b))],
        faces: [],
        convexity: 'open',
        angle: 0,
      });
    }
    return { edge: id, reversed: a > b };
  };
  const sides: [Vec3, number[]][] = [
    [
      [0, 0, 1],
      [4, 5, 7, 6],
    ],
    [
      [0, 0, -1],
      [0, 2, 3, 1],
    ],
    [
      [1, 0, 0],
      [1, 3, 7, 5],
    ],
    [
      [-1, 0, 0],
      [0, 4, 6, 2],
    ],
    [
      [0, 1, 0],
      [2, 6, 7, 3],
    ],
    [
      [0, -1, 0],
      [0, 1, 5, 4],
    ],
  ];
  for (const [normal, ring] of sides) {
    const loop = ring.map((c, i) => edge(c, ring[(i + 1) % 4]!));
    model.faces.push({
      solid: 0,
      surface: { kind: 'plane', origin: corner(ring[0]!), normal },
      reversed: false,
      loops: [loop],
    });
  }
  connect(model);
  return model;
}
