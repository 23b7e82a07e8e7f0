import { type ToolKindSpec, sizeFigure, wantedSize, widestStep } from './kind.ts';
import type { Tool } from '../schema.ts';

/** Angle between the floor and the flank that it cuts, degrees; `pointAngleDeg` holds it. */
const flankOf = (t: Tool): number => t.pointAngleDeg ?? 60;
/** Diameter at the top of its teeth, mm. */
const topOf = (t: Tool): number => t.diameter - (2 * t.fluteLength) / Math.tan((flankOf(t) * Math.PI) / 180);

/** Widest at its tip: its flanks lean over what they cut. */
export const dovetailCutter: ToolKindSpec = {
  kind: 'dovetail-cutter',
  label: 'dovetail cutter',
  onlyPlunges: false,
  feedsByTooth: true,
  needsHole: true,
  cycles: [],
  isCone: false,
  own: ['pointAngleDeg', 'neckDiameter', 'neckLength', 'teeth', 'cornerRadius'],
  needs: 1,
  wrong: (t, say) =>
    flankOf(t) >= 90
      ? [{ field: 'pointAngleDeg', message: 'The flank leans over the floor: less than 90°.' }]
      : topOf(t) <= 0
        ? [{ field: 'fluteLength', message: `Teeth ${say(t.fluteLength)} high would meet at their top.` }]
        : t.neckDiameter !== undefined && t.neckDiameter > topOf(t) + 1e-6
          ? [
              {
                field: 'neckDiameter',
                message: `Above the teeth there is room for a neck of ${say(topOf(t))}.`,
              },
            ]
          : [],
  end: (t) => [
    { z: 0, r: t.diameter / 2 },
    { z: t.fluteLength, r: Math.max(0, topOf(t) / 2) },
  ],
  bottoms: (_, h) => [h.entryZ - h.depth],
  touches: (_, h) => widestStep(h),
  usual: (n) => {
    const d = wantedSize(n, [10, 16, 20, 25]);
    if (d === null) return null;
    const angle = n.angleDeg ?? 60;
    const height = Math.round(3 * d) / 10;
    const top = Math.floor(10 * (d - (2 * height) / Math.tan((angle * Math.PI) / 180))) / 10;
    const neck = Math.max(0.2 * d, top - 0.2);
    return {
      diameter: d,
      sizeName: sizeFigure(d),
      pointAngleDeg: angle,
      tipDiameter: 0,
      fluteLength: height,
      shankDiameter: Math.max(6, Math.round(0.6 * d)),
      cutterMaterial: 'hss',
      teeth: 6,
      neckDiameter: neck,
      neckLength: Math.max(Math.round(0.8 * d), Math.ceil(n.reach ?? 0) + 2),
    };
  },
};
