import { flatEnd, type ToolKindSpec, floors, sizeFigure, wantedSize, widestStep } from './kind.ts';

/** A single point on a bar that is set to the bore's diameter; the bar is thinner. */
export const boringBarTool: ToolKindSpec = {
  kind: 'boring-bar',
  label: 'boring bar',
  onlyPlunges: true,
  needsHole: true,
  cycles: ['feed-out', 'stop-out', 'shift-out', 'straight'],
  isCone: false,
  own: ['neckDiameter', 'neckLength', 'teeth'],
  needs: 2,
  end: (t) => flatEnd(t.diameter),
  bottoms: (_, h) => [h.entryZ - h.depth, ...floors(h)],
  touches: (_, h) => widestStep(h),
  usual: (n) => {
    const d = wantedSize(n, []);
    if (d === null) return null;
    const reach = Math.max(Math.ceil(n.reach ?? 0) + 5, Math.round(2.5 * d));
    return {
      diameter: d,
      sizeName: sizeFigure(d),
      tipDiameter: 0,
      fluteLength: 3,
      shankDiameter: Math.round(8 * d) / 10,
      cutterMaterial: 'carbide',
      teeth: 1,
      neckDiameter: Math.round(8 * d) / 10,
      neckLength: reach,
    };
  },
};
