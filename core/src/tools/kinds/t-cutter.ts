import { flatEnd, type ToolKindSpec, sizeFigure, wantedSize, widestStep } from './kind.ts';

/** A disc on a neck that cuts to the side, above and below it: T-slots, and grooves in walls and bores. */
export const tCutter: ToolKindSpec = {
  kind: 't-cutter',
  label: 'T-cutter',
  onlyPlunges: false,
  feedsByTooth: true,
  needsHole: true,
  cycles: [],
  isCone: false,
  own: ['neckDiameter', 'neckLength', 'teeth', 'cornerRadius'],
  needs: 2,
  end: (t) => flatEnd(t.diameter),
  bottoms: (_, h) => [h.entryZ - h.depth],
  touches: (_, h) => widestStep(h),
  usual: (n) => {
    const d = wantedSize(n, [8, 11, 12.5, 16, 18, 21, 25, 32]);
    if (d === null) return null;
    return {
      diameter: d,
      sizeName: sizeFigure(d),
      tipDiameter: 0,
      fluteLength: Math.round(4 * d) / 10,
      shankDiameter: Math.max(6, Math.round(d / 2)),
      cutterMaterial: 'hss',
      teeth: 6,
      neckDiameter: Math.round(4.5 * d) / 10,
      neckLength: Math.max(d, Math.ceil(n.reach ?? 0) + 2),
    };
  },
};
