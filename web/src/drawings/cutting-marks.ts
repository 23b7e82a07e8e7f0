import type { Tool, ToolKind } from '@yellow-pin/core/tools/schema';
import { toolKind } from '@yellow-pin/core/tools/kinds/registry';

/** A drawn cutting end: radius and flute length in pixels, tip at (0, 0), up is negative y. */
interface End {
  tool: Tool;
  r: number;
  /** Height of the point up to the full radius. */
  point: number;
  flute: number;
  k: number;
}

const line = (x0: number, y0: number, x1: number, y1: number): string =>
  `M${x0.toFixed(1)} ${(-y0).toFixed(1)}L${x1.toFixed(1)} ${(-y1).toFixed(1)}`;

/** Turning flutes: lines that climb across the body. */
const helix = ({ r, point, flute }: End): string => {
  const step = Math.max(5, 2.6 * r);
  let d = '';
  for (let y = point; y + step * 0.5 < flute; y += step) d += line(-r, y, r, Math.min(flute, y + step * 0.8));
  return d;
};

/** Only the cone cuts: it is ruled, the body is bare. */
const cone = ({ r, point }: End): string => {
  let d = '';
  const n = Math.max(2, Math.min(5, Math.round(r / 1.6)));
  for (let i = 1; i <= n; i++) {
    const t = i / (n + 1);
    d += line(-r * t, point * t, r * t, point * t);
  }
  return d + line(-r, point, r, point);
};

const threads = ({ tool, r, flute, k }: End): string => {
  const step = Math.max(2.5, (tool.thread?.pitch ?? tool.threadForm?.pitch ?? 1) * k);
  let d = '';
  for (let y = 3; y < flute; y += step) d += line(-r, y, r, y + Math.min(2, step / 2));
  return d;
};

/** Straight flutes. */
const straight = ({ r, flute }: End): string => line(-r / 3, 1, -r / 3, flute) + line(r / 3, 1, r / 3, flute);

/** A ball: lines round it, as on a globe. */
const round = ({ r, flute }: End): string => {
  let d = '';
  for (const t of [0.25, 0.5, 0.75]) {
    const y = t * flute;
    const half = Math.sqrt(Math.max(0, r * r - (y - r) * (y - r)));
    d += line(-half, y, half, y);
  }
  return d;
};

/** How each kind's cutting part is marked, so that kinds are told apart at a glance. */
const MARKS: Record<ToolKind, (end: End) => string> = {
  'spot-drill': cone,
  drill: helix,
  reamer: straight,
  countersink: cone,
  counterbore: straight,
  tap: threads,
  'end-mill': helix,
  'boring-bar': straight,
  'centre-drill': cone,
  'core-drill': helix,
  'thread-mill': threads,
  't-cutter': straight,
  'dovetail-cutter': straight,
  'chamfer-mill': straight,
  'back-chamfer-cutter': straight,
  'corner-rounding-cutter': straight,
  lollipop: round,
};

/** Lines that show what of a tool cuts, as an SVG path; `k` px per mm, nothing above `top` mm. */
export function cuttingMarks(tool: Tool, k: number, top = Infinity): string {
  const end = toolKind(tool.kind).end(tool);
  const point = (end[end.length - 1]?.z ?? 0) * k;
  return MARKS[tool.kind]({
    tool,
    r: (tool.diameter / 2) * k,
    point,
    flute: Math.min(tool.fluteLength, top) * k,
    k,
  });
}
