import { coneEnd, type ToolKindSpec, drilledWidth, sizeFigure, wantedSize } from './kind.ts';

/** How much wider than the thread or hole a spot's rim is made where the model has no chamfer, mm on diameter. */
export const EDGE_BREAK = 0.4;

export const spotDrill: ToolKindSpec = {
  kind: 'spot-drill',
  label: 'spot drill',
  onlyPlunges: true,
  spots: true,
  needsHole: false,
  cycles: ['dwell', 'straight'],
  isCone: true,
  own: ['pointAngleDeg', 'tipDiameter'],
  needs: 1,
  cone: (t) => ({ z: 0, diameter: t.tipDiameter, angleDeg: t.pointAngleDeg ?? 90 }),
  end: (t) => coneEnd(t.tipDiameter, t.diameter, t.pointAngleDeg ?? 90),
  bottoms: (t, h) => [h.entryZ, h.metalZ].map((z) => z - t.diameter / 4),
  // A rim wider than hole or thread: where the plan has one, proof takes the plan's.
  touches: (_, h, thread) => Math.max(drilledWidth(h, thread), thread?.majorDiameter ?? 0) + EDGE_BREAK,
  usual: (n) => {
    const d = wantedSize(n, [3, 4, 5, 6, 8, 10, 12, 16, 20, 25]);
    if (d === null) return null;
    return {
      diameter: d,
      sizeName: sizeFigure(d),
      pointAngleDeg: n.angleDeg ?? 90,
      tipDiameter: 0,
      fluteLength: Math.max(2.5 * d, n.reach ?? 0),
      shankDiameter: d,
      cutterMaterial: 'carbide',
    };
  },
};
