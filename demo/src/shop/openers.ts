import { boringBarTool } from '@yellow-pin/core/tools/kinds/boring-bar';
import { inch, round, type Drawer } from './make.ts';

/** What opens a hole, or brings it to size: countersinks, counterbores, reamers, boring bars. */
const countersink = (diameter: number, angle: number, tip: number): Drawer => ({
  id: `csk-${diameter}-${angle}`,
  kind: 'countersink',
  description: `countersink ⌀${diameter} ${angle}°`,
  diameter,
  sizeName: String(diameter),
  pointAngleDeg: angle,
  tipDiameter: tip,
  fluteLength: diameter,
  overallLength: 70,
  shankDiameter: Math.min(diameter, 10),
  stickOut: 40,
  holderId: 'er16',
  cutterMaterial: 'hss',
});

const counterbore = (diameter: number, name = String(diameter)): Drawer => ({
  id: `cbore-${name.replace('/', '_')}`,
  kind: 'counterbore',
  description: `counterbore ${/\//.test(name) ? name : `⌀${name}`}`,
  diameter: round(diameter, 4),
  sizeName: name,
  tipDiameter: 0,
  fluteLength: 30,
  overallLength: 90,
  shankDiameter: Math.min(round(diameter, 2), 12.5),
  stickOut: 45,
  holderId: 'weldon20',
  cutterMaterial: 'hss',
});

const reamer = (diameter: number): Drawer => ({
  id: `reamer-${diameter}`,
  kind: 'reamer',
  description: `reamer ⌀${diameter} H7`,
  diameter,
  sizeName: `${diameter} H7`,
  tipDiameter: 0,
  fluteLength: Math.round(15 + 3 * diameter),
  overallLength: Math.round(60 + 6 * diameter),
  shankDiameter: diameter,
  stickOut: Math.round(30 + 4 * diameter),
  holderId: 'er16',
  cutterMaterial: 'hss',
});

const boringBar = (diameter: number): Drawer[] => {
  const shape = boringBarTool.usual({ kind: 'boring-bar', diameter });
  return shape
    ? [
        {
          ...shape,
          id: `bore-${diameter}`,
          kind: 'boring-bar',
          description: `boring bar set to ⌀${diameter}`,
          overallLength: (shape.neckLength ?? 0) + 40,
          stickOut: (shape.neckLength ?? 0) + 5,
          holderId: 'weldon20',
        },
      ]
    : [];
};

export const OPENERS: readonly Drawer[] = [
  ...[12.4, 16.5, 20, 25, 31].map((d) => countersink(d, 90, round(0.02 * d, 1))),
  countersink(8.3, 90, 0.2),
  countersink(12.4, 82, 0.2),
  countersink(20, 82, 0.4),
  countersink(12.4, 60, 0.2),
  countersink(16, 120, 0.3),
  ...[6, 6.5, 7.5, 8, 10, 11, 13.5, 15, 16, 18, 20, 22, 24, 26].map((d) => counterbore(d)),
  counterbore(inch(0.375), '3/8'),
  counterbore(inch(0.4375), '7/16'),
  counterbore(inch(0.5), '1/2'),
  ...[3, 4, 5, 6, 7, 8, 9, 10, 11, 12, 13, 14, 15, 16].map(reamer),
  ...[24, 26, 30, 32, 35, 40].flatMap(boringBar),
];
