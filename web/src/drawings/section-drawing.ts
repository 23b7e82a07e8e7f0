import type { HoleView } from '@yellow-pin/core/operations/hole-view';
import type { Parameter } from '@yellow-pin/core/operations/kind';
import { orbitOf } from '@yellow-pin/core/motion/work';
import type { PlannedOperation } from '@yellow-pin/core/job/derive';

export const WIDTH = 282;
export const HEIGHT = 250;
const CENTRE = 82;
const HALF = 62;
const TOP = 58;

/** A dimension beside the section: between two depths (below the entry, mm). */
export interface Dimension {
  from: number;
  to: number;
  parameter: Parameter;
  column: number;
  /** Middle of its label, px. */
  labelY: number;
}

export interface SectionDrawing {
  k: number;
  centre: number;
  half: number;
  /** px of a depth below the entry. */
  y(depth: number): number;
  /** The hole as modelled. */
  hole: string;
  /** Thread's major diameter lines, or null. */
  thread: string | null;
  bottomY: number;
  open: boolean;
  r: { y: number; label: number };
  tipY: number;
  tip: number;
  /** Where the tool's axis is drawn: on the hole's, or where a mill cuts its wall. */
  toolX: number;
  dimensions: Dimension[];
}

/** Lays out the cut-open hole with the tool at its final depth: one scale both ways, so that angles are true. */
export function drawSection(
  view: HoleView,
  operation: PlannedOperation | null,
  threadMajor: number | null,
): SectionDrawing {
  const made = operation?.work.find((h) => h.label === view.label) ?? operation?.work[0] ?? null;
  const tip = made ? made.entryZ - made.z : view.depth;
  const r = made ? made.r - made.entryZ : 2;
  const steps = [...view.steps, ...view.farSteps];
  const widest = Math.max(
    ...steps.map((s) => (s.shape === 'cylinder' ? s.diameter : s.startDiameter)),
    operation?.tool.diameter ?? 0,
  );
  const point = bottomPoint(view);
  const deepest = Math.max(view.depth + point, tip) + 2;
  const k = Math.min((HEIGHT - TOP - 16) / deepest, (2 * HALF - 16) / widest);
  const y = (depth: number): number => TOP + depth * k;
  const right: [number, number][] = [];
  for (const s of steps) {
    const [a, b] = s.shape === 'cylinder' ? [s.diameter, s.diameter] : [s.startDiameter, s.endDiameter];
    right.push([(a / 2) * k, y(s.top)], [(b / 2) * k, y(s.end)]);
  }
  if (!view.through && point > 0) right.push([0, y(view.depth + point)]);
  const outline = [
    ...right.map(([x, v]) => `${CENTRE + x} ${v}`),
    ...[...right].reverse().map(([x, v]) => `${CENTRE - x} ${v}`),
  ].join('L');
  const full = operation?.parameters.find((p) => p.key === 'threadDepth')?.value;
  const major = threadMajor !== null ? (threadMajor / 2) * k : null;
  const threadTo = y(typeof full === 'number' ? full : view.depth);
  return {
    k,
    centre: CENTRE,
    half: HALF,
    y,
    hole: `M${outline}Z`,
    thread:
      major !== null ? `M${CENTRE - major} ${TOP}V${threadTo}M${CENTRE + major} ${TOP}V${threadTo}` : null,
    bottomY: view.through ? y(view.depth) : Math.min(HEIGHT - 4, y(view.depth + point) + 14),
    open: view.through,
    r: { y: Math.max(34, y(-r)), label: r },
    tipY: y(tip),
    tip,
    toolX: CENTRE + (made ? orbitOf(made) * k : 0),
    dimensions: operation ? dimensions(operation, view, y) : [],
  };
}

const bottomPoint = (v: HoleView): number => {
  const last = v.steps[v.steps.length - 1];
  const d = last?.shape === 'cylinder' ? last.diameter : 0;
  if (v.bottom.shape === 'cone') return d / 2 / Math.tan((v.bottom.angle * Math.PI) / 360);
  return v.bottom.shape === 'ball' ? d / 2 : 0;
};

/** Which two depths each of an operation's numbers lies between. */
function dimensions(o: PlannedOperation, v: HoleView, y: (d: number) => number): Dimension[] {
  const spans: Record<string, (p: number) => [number, number]> = {
    depth: (p) => [0, p],
    tip: (p) => [0, p],
    threadDepth: (p) => [0, p],
    breakThrough: (p) => [v.depth, v.depth + p],
  };
  const out: Dimension[] = [];
  for (const parameter of o.parameters) {
    const span = spans[parameter.key];
    if (!span || typeof parameter.value !== 'number') continue;
    const [from, to] = span(parameter.value);
    out.push({ from, to, parameter, column: out.length % 3, labelY: (y(from) + y(to)) / 2 });
  }
  // Labels must not cover each other: each stays at least a line below the one before.
  const sorted = [...out].sort((a, b) => a.labelY - b.labelY);
  sorted.forEach((d, i) => {
    if (i > 0) d.labelY = Math.max(d.labelY, sorted[i - 1]!.labelY + 24);
  });
  const over = (sorted[sorted.length - 1]?.labelY ?? 0) - (HEIGHT - 14);
  if (over > 0) sorted.forEach((d, i) => (d.labelY = Math.max(TOP + 24 * i, d.labelY - over)));
  return out;
}
