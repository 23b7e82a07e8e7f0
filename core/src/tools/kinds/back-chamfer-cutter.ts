import {
  coneHeight,
  type ShapeFault,
  type ToolKindSpec,
  sizeFigure,
  wantedSize,
  widestStep,
} from './kind.ts';
import type { Tool } from '../schema.ts';

const angleOf = (t: Tool): number => t.pointAngleDeg ?? 90;
const neckOf = (t: Tool): number => t.neckDiameter ?? t.diameter / 2;
/** Height of the cone that looks up, and of the one below it, mm. */
const backHeight = (t: Tool): number => coneHeight(t.diameter, neckOf(t), angleOf(t));
const frontHeight = (t: Tool): number => coneHeight(t.diameter, t.tipDiameter, angleOf(t));

/** Height above the tip of the widest place from which the back cone narrows upward, mm. */
export const widestHeight = (t: Tool): number => t.fluteLength - backHeight(t);

/** A head with a cone that looks up, behind a neck: it breaks the far rim of a hole through which it was let down. */
export const backChamferCutter: ToolKindSpec = {
  kind: 'back-chamfer-cutter',
  label: 'back chamfer cutter',
  onlyPlunges: false,
  onRims: true,
  onEdges: true,
  feedsByTooth: true,
  needsHole: true,
  cycles: [],
  isCone: true,
  own: ['neckDiameter', 'neckLength', 'pointAngleDeg', 'tipDiameter', 'teeth'],
  needs: 3,
  wrong: (t, say): ShapeFault[] => {
    const least = frontHeight(t) + backHeight(t);
    return t.fluteLength < least - 1e-6
      ? [
          {
            field: 'fluteLength',
            message: `Its two cones are ${say(least)} high; the head has ${say(t.fluteLength)}.`,
          },
        ]
      : [];
  },
  end: (t) => [
    { z: 0, r: t.tipDiameter / 2 },
    { z: frontHeight(t), r: t.diameter / 2 },
    { z: Math.max(frontHeight(t), widestHeight(t)), r: t.diameter / 2 },
    { z: Math.max(t.fluteLength, frontHeight(t) + backHeight(t)), r: neckOf(t) / 2 },
  ],
  bottoms: (_, h) => [h.entryZ - h.depth],
  touches: (_, h) => widestStep(h),
  usual: (n) => {
    const d = wantedSize(n, [3, 4, 5, 6, 8, 10, 12]);
    if (d === null) return null;
    const neck = Math.round(6 * d) / 10;
    const angle = n.angleDeg ?? 90;
    return {
      diameter: d,
      sizeName: sizeFigure(d),
      pointAngleDeg: angle,
      tipDiameter: neck,
      fluteLength: Math.ceil(20 * coneHeight(d, neck, angle) + 4) / 10,
      shankDiameter: Math.max(6, Math.ceil(d)),
      cutterMaterial: 'carbide',
      teeth: 4,
      neckDiameter: neck,
      neckLength: Math.max(4 * d, Math.ceil(n.reach ?? 0) + 2),
    };
  },
};
