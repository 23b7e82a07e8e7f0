import { arcCorners, type ToolKindSpec, sizeFigure, wantedSize, widestStep } from './kind.ts';
import { roundingRadius as radiusOf } from '../find.ts';

/** Its flank is a hollow quarter circle between a pilot and its full diameter: it rounds an edge. */
export const cornerRoundingCutter: ToolKindSpec = {
  kind: 'corner-rounding-cutter',
  label: 'corner-rounding cutter',
  onlyPlunges: false,
  onEdges: true,
  feedsByTooth: true,
  needsHole: true,
  cycles: [],
  isCone: false,
  own: ['profileRadius', 'tipDiameter', 'teeth'],
  needs: 2,
  wrong: (t, say) =>
    t.tipDiameter + 2 * radiusOf(t) > t.diameter + 1e-6
      ? [
          {
            field: 'profileRadius',
            message: `A radius of ${say(radiusOf(t))} on a pilot of ${say(t.tipDiameter)} needs a cutter of ${say(t.tipDiameter + 2 * radiusOf(t))}.`,
          },
        ]
      : radiusOf(t) > t.fluteLength
        ? [{ field: 'fluteLength', message: `The radius is ${say(radiusOf(t))} high.` }]
        : [],
  // The middle of the hollow lies outside, level with the tip.
  end: (t) => [
    ...arcCorners({ z: 0, r: t.tipDiameter / 2 + radiusOf(t) }, radiusOf(t), Math.PI, Math.PI / 2),
    { z: radiusOf(t), r: t.diameter / 2 },
  ],
  bottoms: (_, h) => [h.entryZ - h.depth],
  touches: (_, h) => widestStep(h),
  usual: (n) => {
    const pilot = 6;
    const wanted =
      n.profileRadius === undefined ? wantedSize(n, [6, 8, 10, 12, 16]) : pilot + 2 * n.profileRadius;
    if (wanted === null) return null;
    const d = wanted;
    const radius = n.profileRadius ?? Math.round(2.5 * d) / 10;
    return {
      diameter: d,
      sizeName: sizeFigure(d),
      tipDiameter: d - 2 * radius,
      profileRadius: radius,
      fluteLength: Math.max(d, Math.ceil(n.reach ?? 0)),
      shankDiameter: d,
      cutterMaterial: 'carbide',
      teeth: 4,
    };
  },
};
