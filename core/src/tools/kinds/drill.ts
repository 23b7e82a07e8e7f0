import { coneEnd, type ToolKindSpec, drilledWidth, floors, sizeFigure, wantedSize } from './kind.ts';

/** Angle of a twist drill that does not say its own, degrees. */
export const USUAL_POINT = 118;

export const drillTool: ToolKindSpec = {
  kind: 'drill',
  label: 'drill',
  onlyPlunges: true,
  drills: true,
  needsHole: false,
  cycles: ['straight', 'dwell', 'chip-break', 'full-retract'],
  isCone: false,
  own: ['pointAngleDeg', 'teeth'],
  needs: 1,
  end: (t) => coneEnd(t.tipDiameter, t.diameter, t.pointAngleDeg ?? USUAL_POINT),
  bottoms: (t, h) => {
    const point = t.diameter / 2 / Math.tan(((t.pointAngleDeg ?? USUAL_POINT) * Math.PI) / 360);
    return [h.entryZ - h.depth, ...floors(h)].flatMap((z) => [z, z - point]);
  },
  touches: (t, h, thread) => {
    const own = h.steps.find((s) => s.shape === 'cylinder' && Math.abs(s.diameter - t.diameter) < 0.06);
    return Math.max(drilledWidth(h, thread), own?.shape === 'cylinder' ? own.diameter : 0);
  },
  usual: (n) => {
    const d = wantedSize(n, []);
    if (d === null) return null;
    const jobber = jobberFlute(d);
    // Deeper than a jobber drill: a long one, with flute left for the chips.
    const fluteLength = n.reach !== undefined && n.reach > jobber ? 5 * Math.ceil((n.reach + d) / 5) : jobber;
    return {
      diameter: d,
      sizeName: sizeFigure(d),
      pointAngleDeg: n.angleDeg ?? USUAL_POINT,
      tipDiameter: 0,
      fluteLength,
      shankDiameter: d,
      cutterMaterial: 'hss',
    };
  },
};

/** Flute length of a jobber drill by its diameter, mm: up to which diameter, how long (ISO 235, DIN 338). */
const JOBBER: readonly (readonly [number, number])[] = [
  [0.53, 6],
  [0.6, 7],
  [0.67, 8],
  [0.75, 9],
  [0.85, 10],
  [0.95, 11],
  [1.06, 12],
  [1.18, 14],
  [1.32, 16],
  [1.5, 18],
  [1.7, 20],
  [1.9, 22],
  [2.12, 24],
  [2.36, 27],
  [2.65, 30],
  [3, 33],
  [3.35, 36],
  [3.75, 39],
  [4.25, 43],
  [4.75, 47],
  [5.3, 52],
  [6, 57],
  [6.7, 63],
  [7.5, 69],
  [8.5, 75],
  [9.5, 81],
  [10.6, 87],
  [11.8, 94],
  [13.2, 101],
  [14, 108],
  [15, 114],
  [16, 120],
  [17, 125],
  [18, 130],
  [19, 135],
  [20, 140],
];

/** Flute length of a jobber drill, mm; above the table seven diameters. */
export const jobberFlute = (d: number): number =>
  JOBBER.find(([to]) => d <= to + 1e-6)?.[1] ?? Math.round(7 * d);
