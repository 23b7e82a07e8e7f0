import { namedDrill } from '@yellow-pin/core/callout/drill-names';
import { centreDrill } from '@yellow-pin/core/tools/kinds/centre-drill';
import { coreDrillTool } from '@yellow-pin/core/tools/kinds/core-drill';
import { jobberFlute } from '@yellow-pin/core/tools/kinds/drill';
import { inch, round, sizeWords, type Drawer } from './make.ts';

/** A drill of jobber length, or of a flute length of its own. */
function drill(diameter: number, name: string, flute?: number): Drawer {
  const fluteLength = flute ?? Math.round(jobberFlute(diameter));
  const long = flute === undefined ? '' : '-long';
  return {
    id: `drill-${name.replace('/', '_').replace('#', 'n')}${long}`,
    kind: 'drill',
    description: `drill ${sizeWords(name)}${long ? ' long' : ''}`,
    diameter: round(diameter, 4),
    sizeName: name,
    pointAngleDeg: 118,
    tipDiameter: 0,
    fluteLength,
    overallLength: fluteLength + 35,
    shankDiameter: round(diameter, 3),
    stickOut: fluteLength + 5,
    holderId: diameter > 13 ? 'er32' : 'chuck13',
    cutterMaterial: 'hss',
  };
}

const TENTHS = Array.from({ length: 121 }, (_, i) => (10 + i) / 10);
const HALVES = Array.from({ length: 14 }, (_, i) => 13.5 + i / 2);
const LETTERS = Array.from({ length: 26 }, (_, i) => String.fromCharCode(65 + i));
const NUMBERS = Array.from({ length: 60 }, (_, i) => i + 1);

/** Drills of a name, where the table has it. */
const named = (name: string, shown = name): Drawer[] => {
  const diameter = namedDrill(name);
  return diameter === null ? [] : [drill(diameter, shown)];
};

/** Sixty-fourths in their lowest terms, up to a half. */
const FRACTIONS = Array.from({ length: 32 }, (_, i): [string, number] => {
  let [top, bottom] = [i + 1, 64];
  while (top % 2 === 0) [top, bottom] = [top / 2, bottom / 2];
  return [`${top}/${bottom}`, inch((i + 1) / 64)];
});

const LONG: readonly (readonly [diameter: number, flute: number])[] = [
  [3.3, 65],
  [4.2, 75],
  [5, 90],
  [5.5, 95],
  [6.6, 105],
  [6.8, 110],
  [8.5, 130],
  [10.2, 150],
];

export const DRILLS: readonly Drawer[] = [
  ...TENTHS.map((d) => drill(d, String(d))),
  ...HALVES.map((d) => drill(d, String(d))),
  ...FRACTIONS.map(([name, d]) => drill(d, name)),
  drill(inch(1), '1in'),
  ...NUMBERS.flatMap((n) => named(String(n), `#${n}`)),
  ...LETTERS.flatMap((l) => named(l)),
  ...LONG.map(([d, flute]) => drill(d, String(d), flute)),
].filter(
  (t, i, all) =>
    all.findIndex((o) => o.id === t.id || (o.sizeName === t.sizeName && o.fluteLength === t.fluteLength)) ===
    i,
);

const spot = (diameter: number, angle: number): Drawer => ({
  id: `spot-${diameter}-${angle}`,
  kind: 'spot-drill',
  description: `spot drill ⌀${diameter} ${angle}°`,
  diameter,
  sizeName: String(diameter),
  pointAngleDeg: angle,
  tipDiameter: 0,
  fluteLength: diameter * 2.5,
  overallLength: 80,
  shankDiameter: diameter,
  stickOut: 35,
  holderId: 'er16',
  cutterMaterial: 'carbide',
});

const centre = (diameter: number): Drawer[] => {
  const shape = centreDrill.usual({ kind: 'centre-drill', diameter });
  return shape
    ? [
        {
          ...shape,
          id: `centre-${diameter}`,
          kind: 'centre-drill',
          description: `centre drill ⌀${diameter} × ${shape.pilotDiameter}`,
          overallLength: round(shape.fluteLength + 30),
          stickOut: round(shape.fluteLength + 8),
          holderId: 'chuck13',
        },
      ]
    : [];
};

const core = (diameter: number): Drawer[] => {
  const shape = coreDrillTool.usual({ kind: 'core-drill', diameter });
  return shape
    ? [
        {
          ...shape,
          id: `core-${diameter}`,
          kind: 'core-drill',
          description: `core drill ⌀${diameter}`,
          overallLength: shape.fluteLength + 60,
          stickOut: shape.fluteLength + 15,
          holderId: 'er32',
        },
      ]
    : [];
};

export const STARTERS: readonly Drawer[] = [
  ...[6, 10, 16].flatMap((d) => [spot(d, 90), spot(d, 120)]),
  spot(3, 120),
  spot(20, 90),
  ...[3.15, 5, 8].flatMap(centre),
];
export const CORE_DRILLS: readonly Drawer[] = [12, 14, 16, 18, 20, 22, 25].flatMap(core);
