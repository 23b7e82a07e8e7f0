import { coneEnd, type ToolKindSpec, sizeFigure, wantedSize, widestStep } from './kind.ts';

/** Breaks edges with its flank: a cone with a flat tip, fed sideways or down onto a rim. */
export const chamferMill: ToolKindSpec = {
  kind: 'chamfer-mill',
  label: 'chamfer mill',
  onlyPlunges: false,
  onRims: true,
  onEdges: true,
  feedsByTooth: true,
  needsHole: true,
  cycles: ['dwell', 'straight'],
  isCone: true,
  own: ['pointAngleDeg', 'tipDiameter', 'teeth'],
  needs: 2,
  cone: (t) => ({ z: 0, diameter: t.tipDiameter, angleDeg: t.pointAngleDeg ?? 90 }),
  end: (t) => coneEnd(t.tipDiameter, t.diameter, t.pointAngleDeg ?? 90),
  bottoms: (t, h) => [h.entryZ - t.diameter / 4],
  touches: (t, h) => Math.max(widestStep(h), t.diameter),
  usual: (n) => {
    const d = wantedSize(n, [4, 6, 8, 10, 12, 16, 20]);
    if (d === null) return null;
    const tip = Math.round(2 * d) / 10;
    return {
      diameter: d,
      sizeName: sizeFigure(d),
      pointAngleDeg: n.angleDeg ?? 90,
      tipDiameter: tip,
      fluteLength: Math.max(d, Math.ceil(n.reach ?? 0)),
      shankDiameter: d,
      cutterMaterial: 'carbide',
      teeth: 4,
    };
  },
};
