import { coneEnd, drilledWidth, type ToolKindSpec, floors, sizeFigure, wantedSize } from './kind.ts';
import { jobberFlute, USUAL_POINT } from './drill.ts';

/** Narrowest hole that a core drill of a diameter enters, as a share: its teeth do not meet in the middle. */
export const CORE_SHARE = 0.7;

/** Opens a drilled or cast hole; with three or four teeth it runs truer than a drill, and cannot start one. */
export const coreDrillTool: ToolKindSpec = {
  kind: 'core-drill',
  label: 'core drill',
  onlyPlunges: true,
  needsHole: true,
  cycles: ['straight', 'dwell'],
  isCone: false,
  own: ['pointAngleDeg', 'tipDiameter', 'teeth'],
  needs: 2,
  end: (t) => coneEnd(t.tipDiameter, t.diameter, t.pointAngleDeg ?? USUAL_POINT),
  bottoms: (t, h) => {
    const point =
      (t.diameter - t.tipDiameter) / 2 / Math.tan(((t.pointAngleDeg ?? USUAL_POINT) * Math.PI) / 360);
    return [h.entryZ - h.depth, ...floors(h)].flatMap((z) => [z, z - point]);
  },
  touches: (t, h, thread) => Math.max(drilledWidth(h, thread), t.diameter),
  usual: (n) => {
    const d = wantedSize(n, []);
    if (d === null) return null;
    return {
      diameter: d,
      sizeName: sizeFigure(d),
      pointAngleDeg: n.angleDeg ?? 120,
      tipDiameter: Math.round(10 * CORE_SHARE * d) / 10 - 0.1,
      fluteLength: Math.max(jobberFlute(d), Math.ceil(n.reach ?? 0)),
      shankDiameter: d,
      cutterMaterial: 'hss',
      teeth: 3,
    };
  },
};
