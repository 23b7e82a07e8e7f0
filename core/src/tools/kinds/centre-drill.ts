import {
  coneEnd,
  coneHeight,
  type MainCone,
  type ToolKindSpec,
  sizeFigure,
  wantedSize,
  widestStep,
} from './kind.ts';
import type { Tool } from '../schema.ts';

/** Point of the thin drill, degrees, and a centre drill's cone where it does not say its own (ISO 866, form A). */
const PILOT_POINT = 120;
const CONE = 60;
/** Body diameter and that of its pilot, mm (ISO 866). */
const SERIES: readonly (readonly [body: number, pilot: number])[] = [
  [3.15, 1],
  [4, 1.6],
  [5, 2],
  [6.3, 2.5],
  [8, 3.15],
  [10, 4],
  [12.5, 5],
  [16, 6.3],
];

const pilotOf = (t: Tool): number => t.pilotDiameter ?? t.diameter / 2.5;

/** Where a centre drill's 60° cone begins: above its pilot. */
export function centreCone(t: Tool): MainCone {
  const pilot = pilotOf(t);
  return {
    z: coneHeight(pilot, 0, PILOT_POINT) + (t.pilotLength ?? pilot),
    diameter: pilot,
    angleDeg: t.pointAngleDeg ?? CONE,
  };
}

/** A thin drill and a cone in one: it starts a drill, and seats a centre. */
export const centreDrill: ToolKindSpec = {
  kind: 'centre-drill',
  label: 'centre drill',
  onlyPlunges: true,
  spots: true,
  needsHole: false,
  cycles: ['dwell', 'straight'],
  isCone: true,
  own: ['pilotDiameter', 'pilotLength', 'pointAngleDeg'],
  needs: 2,
  cone: centreCone,
  wrong: (t, say) =>
    pilotOf(t) >= t.diameter
      ? [
          {
            field: 'pilotDiameter',
            message: `The pilot must be thinner than the body, ${say(t.diameter)}.`,
          },
        ]
      : [],
  end: (t) => {
    const cone = centreCone(t);
    const pilot = coneEnd(0, cone.diameter, PILOT_POINT);
    return [
      ...pilot,
      { z: cone.z, r: cone.diameter / 2 },
      { z: cone.z + coneHeight(t.diameter, cone.diameter, cone.angleDeg), r: t.diameter / 2 },
    ];
  },
  bottoms: (t, h) => [h.entryZ, h.metalZ].map((z) => z - centreCone(t).z - t.diameter / 4),
  touches: (t, h) => Math.max(widestStep(h), t.diameter),
  usual: (n) => {
    const d = wantedSize(
      n,
      SERIES.map(([body]) => body),
    );
    if (d === null) return null;
    const pilot = SERIES.find(([body]) => Math.abs(body - d) < 1e-6)?.[1] ?? Math.round(4 * d) / 10;
    return {
      diameter: d,
      sizeName: sizeFigure(d),
      pointAngleDeg: n.angleDeg ?? CONE,
      tipDiameter: 0,
      pilotDiameter: pilot,
      pilotLength: pilot,
      fluteLength: Math.max(2.5 * d, n.reach ?? 0),
      shankDiameter: d,
      cutterMaterial: 'hss',
    };
  },
};
