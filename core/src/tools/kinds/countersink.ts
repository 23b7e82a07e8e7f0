import { coneEnd, type ToolKindSpec, sizeFigure, wantedSize, widestStep } from './kind.ts';

export const countersinkTool: ToolKindSpec = {
  kind: 'countersink',
  label: 'countersink',
  onlyPlunges: true,
  needsHole: true,
  cycles: ['dwell', 'straight'],
  isCone: true,
  own: ['pointAngleDeg', 'tipDiameter', 'teeth'],
  needs: 1,
  cone: (t) => ({ z: 0, diameter: t.tipDiameter, angleDeg: t.pointAngleDeg ?? 90 }),
  end: (t) => coneEnd(t.tipDiameter, t.diameter, t.pointAngleDeg ?? 90),
  bottoms: (t, h) => [h.entryZ - t.diameter / 4],
  touches: (_, h) => widestStep(h),
  usual: (n) => {
    const d = wantedSize(n, [6.3, 8.3, 10.4, 12.4, 16.5, 20.5, 25, 31]);
    if (d === null) return null;
    return {
      diameter: d,
      sizeName: sizeFigure(d),
      pointAngleDeg: n.angleDeg ?? 90,
      tipDiameter: Math.round(2 * d) / 10,
      fluteLength: Math.max(d, n.reach ?? 0),
      shankDiameter: Math.min(d, 10),
      cutterMaterial: 'hss',
    };
  },
};
