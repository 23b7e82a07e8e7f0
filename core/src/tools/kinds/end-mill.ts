import {
  arcCorners,
  type Corner,
  type ToolKindSpec,
  drilledWidth,
  floors,
  sizeFigure,
  wantedSize,
  widestStep,
} from './kind.ts';
import type { Tool } from '../schema.ts';

/** A flat, corner-radius or ball end. */
function millEnd(t: Tool): Corner[] {
  const r = t.diameter / 2;
  const c = Math.min(t.cornerRadius ?? 0, r);
  if (c <= 0) return [{ z: 0, r }];
  return arcCorners({ z: c, r: r - c }, c, -Math.PI / 2, 0);
}

export const endMillTool: ToolKindSpec = {
  kind: 'end-mill',
  label: 'end mill',
  onlyPlunges: false,
  feedsByTooth: true,
  needsHole: false,
  cycles: ['straight', 'dwell'],
  isCone: false,
  own: ['teeth', 'cornerRadius', 'neckDiameter', 'neckLength', 'rampAngleDeg'],
  needs: 1,
  wrong: (t, say) =>
    (t.cornerRadius ?? 0) > t.diameter / 2 + 1e-6
      ? [
          {
            field: 'cornerRadius',
            message: `A corner of more than ${say(t.diameter / 2)} is wider than the cutter.`,
          },
        ]
      : [],
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
