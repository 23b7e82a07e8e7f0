import { arcCorners, type ToolKindSpec, sizeFigure, wantedSize, widestStep } from './kind.ts';
import type { Tool } from '../schema.ts';

/** Height at which the ball meets its neck, mm. */
const ballHeight = (t: Tool): number => {
  const r = t.diameter / 2;
  const neck = Math.min(r, (t.neckDiameter ?? t.diameter / 2) / 2);
  return r + Math.sqrt(r * r - neck * neck);
};

/** Most of a ball on a neck: it reaches behind edges. */
export const lollipop: ToolKindSpec = {
  kind: 'lollipop',
  label: 'lollipop cutter',
  onlyPlunges: false,
  onRims: true,
  onEdges: true,
  feedsByTooth: true,
  needsHole: true,
  cycles: [],
  isCone: false,
  own: ['neckDiameter', 'neckLength', 'teeth'],
  needs: 2,
  wrong: (t, say) =>
    t.fluteLength > ballHeight(t) + 0.01
      ? [{ field: 'fluteLength', message: `The ball ends ${say(ballHeight(t))} above its tip.` }]
      : [],
  end: (t) => {
    const r = t.diameter / 2;
    const top = Math.asin(Math.min(1, (ballHeight(t) - r) / r));
    // In two pieces, so that its widest place is a corner.
    const ball = (from: number, to: number) => arcCorners({ z: r, r: 0 }, r, from, to);
    return [...ball(-Math.PI / 2, 0), ...ball(0, top)];
  },
  bottoms: (_, h) => [h.entryZ - h.depth],
  touches: (_, h) => widestStep(h),
  usual: (n) => {
    const d = wantedSize(n, [3, 4, 5, 6, 8, 10, 12]);
    if (d === null) return null;
    const neck = Math.round(6 * d) / 10;
    const r = d / 2;
    return {
      diameter: d,
      sizeName: sizeFigure(d),
      tipDiameter: 0,
      fluteLength: Math.floor(100 * (r + Math.sqrt(r * r - (neck * neck) / 4))) / 100,
      shankDiameter: Math.max(6, Math.ceil(d)),
      cutterMaterial: 'carbide',
      teeth: 4,
      neckDiameter: neck,
      neckLength: Math.max(4 * d, Math.ceil(n.reach ?? 0) + 2),
    };
  },
};
