import { flatEnd, type ToolKindSpec, drilledWidth, floors, sizeFigure, wantedSize } from './kind.ts';

export const reamerTool: ToolKindSpec = {
  kind: 'reamer',
  label: 'reamer',
  onlyPlunges: true,
  needsHole: true,
  cycles: ['feed-out', 'straight'],
  isCone: false,
  own: ['teeth'],
  needs: 0,
  end: (t) => flatEnd(t.diameter),
  bottoms: (_, h) => floors(h),
  touches: (_, h, thread) => drilledWidth(h, thread),
  usual: (n) => {
    const d = wantedSize(n, []);
    if (d === null) return null;
    return {
      diameter: d,
      sizeName: `${sizeFigure(d)} H7`,
      tipDiameter: 0,
      fluteLength: Math.max(Math.round(15 + 3 * d), Math.ceil(n.reach ?? 0)),
      shankDiameter: d,
      cutterMaterial: 'hss',
    };
  },
};
