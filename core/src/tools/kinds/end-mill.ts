import {
  type Corner,
  type ToolKindSpec,
  drilledWidth,
  floors,
  sizeFigure,
  wantedSize,
  widestStep,
} from './kind.ts';
import type { Tool } from '../schema.ts';

/** Steps in which a corner's radius is drawn. */
const ROUND_STEPS = 8;

/** A flat, corner-radius or ball end. */
function millEnd(t: Tool): Corner[] {
  const r = t.diameter / 2;
  const c = Math.min(t.cornerRadius ?? 0, r);
  if (c <= 0) return [{ z: 0, r }];
  // Corners lie on the radius: the outline stays inside the cutter by less than 0.01 mm in steps of this angle.
  return Array.from({ length: ROUND_STEPS + 1 }, (_, i) => {
    const a = (i / ROUND_STEPS) * (Math.PI / 2);
    return { z: c * (1 - Math.cos(a)), r: r - c + c * Math.sin(a) };
  });
}

export const endMillTool: ToolKindSpec = {
  kind: 'end-mill',
  label: 'end mill',
  onlyPlunges: false,
  feedsByTooth: true,
  needsHole: false,
  cycles: ['straight', 'dwell'],
  isCone: false,
  end: millEnd,
  bottoms: (_, h) => [h.entryZ - h.depth, ...floors(h)],
  touches: (_, h, thread) => Math.max(widestStep(h), drilledWidth(h, thread)),
  usual: (n) => {
    const d = wantedSize(
      n,
      n.widest ? [20, 16, 12, 10, 8, 6, 5, 4, 3, 2] : [2, 3, 4, 5, 6, 8, 10, 12, 16, 20],
    );
    if (d === null) return null;
    const flute = Math.round(2.2 * d + 4);
    const isDeep = n.reach !== undefined && n.reach > flute;
    return {
      diameter: d,
      sizeName: sizeFigure(d),
      tipDiameter: 0,
      fluteLength: flute,
      shankDiameter: Math.max(d, 6),
      cutterMaterial: 'carbide',
      teeth: d < 6 ? 3 : 4,
      cornerRadius: 0,
      // Deeper than its flutes: relieved behind them, so that it does not rub.
      ...(isDeep ? { neckDiameter: 0.92 * d, neckLength: Math.ceil(n.reach ?? 0) + 2 } : {}),
    };
  },
};
