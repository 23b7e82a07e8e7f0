import { flatEnd, type ToolKindSpec, floors, sizeFigure, wantedSize, widestStep } from './kind.ts';

export const counterboreTool: ToolKindSpec = {
  kind: 'counterbore',
  label: 'counterbore',
  onlyPlunges: true,
  needsHole: true,
  cycles: ['dwell', 'straight'],
  isCone: false,
  own: ['teeth'],
  needs: 0,
  end: (t) => flatEnd(t.diameter),
  bottoms: (_, h) => floors(h),
  touches: (_, h) => widestStep(h),
  usual: (n) => {
    const d = wantedSize(n, []);
    if (d === null) return null;
    return {
      diameter: d,
      sizeName: sizeFigure(d),
      tipDiameter: 0,
      fluteLength: Math.max(Math.round(2 * d), Math.ceil(n.reach ?? 0)),
      shankDiameter: Math.min(d, 12.5),
      cutterMaterial: 'hss',
    };
  },
};
