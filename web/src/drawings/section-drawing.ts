import type { BossView } from '@yellow-pin/core/operations/boss-view';
import { startOfThread } from '@yellow-pin/core/operations/drill/index';
import type { HoleView } from '@yellow-pin/core/operations/hole-view';
import type { Parameter } from '@yellow-pin/core/operations/kind';
import { orbitOf } from '@yellow-pin/core/motion/work';
import type { PlannedOperation } from '@yellow-pin/core/job/derive';
import type { Thread } from '@yellow-pin/core/threads/thread';
import { toolKind } from '@yellow-pin/core/tools/kinds/registry';
import type { GrooveView } from '@yellow-pin/core/operations/groove-view';
import { cutterOff, grooveSide } from './groove-section.ts';
import { threadPlaces, threadProfile } from './thread-section.ts';

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
  /** Metal that is cut open, and the hole in it as modelled; of a boss the boss alone. */
  metal: string;
  hole: string;
  /** Thread's major diameter lines, or null. */
  thread: string | null;
  /** A milled thread's profile to scale, on both sides, or null. */
  profile: string | null;
  /** Where else its cutter stands: axis and tip, px. */
  ghosts: { name: string; x: number; y: number }[];
  bottomY: number;
  open: boolean;
  r: { y: number; label: number };
  tipY: number;
  tip: number;
  /** Where the tool's axis is drawn: on the hole's, or where a mill cuts its wall. */
  toolX: number;
  dimensions: Dimension[];
}

/** What is drawn: a hole, a boss, or a slot, groove or channel cut across. */
export type Drawn = HoleView | BossView | GrooveView;

/** A boss's outline as steps of a hole have theirs: diameters by depth below its end. */
const stepsOf = (view: HoleView | BossView): HoleView['steps'] => {
  if ('steps' in view) return [...view.steps, ...view.farSteps];
  const { feature, height, chamfered } = view;
  const { diameter } = feature;
  const straight = {
    shape: 'cylinder',
    diameter,
    length: height - chamfered,
    top: chamfered,
    end: height,
  } as const;
  if (chamfered === 0) return [straight];
  const top = feature.chamfer?.diameter ?? diameter;
  const angle = (2 * Math.atan((diameter - top) / 2 / chamfered) * 180) / Math.PI;
  return [
    {
      shape: 'cone',
      startDiameter: top,
      endDiameter: diameter,
      angle,
      length: chamfered,
      top: 0,
      end: chamfered,
    },
    straight,
  ];
};

/** Lays out the cut-open hole with the tool at its final depth: one scale both ways, so that angles are true. */
export function drawSection(
  view: Drawn,
  operation: PlannedOperation | null,
  thread: Thread | null,
): SectionDrawing {
  if ('shape' in view) return drawGroove(view, operation);
  const isBoss = !('steps' in view);
  const depthOf = isBoss ? view.height : view.depth;
  const isOpen = isBoss ? view.isOpen : view.through;
  const isMilled = operation !== null && toolKind(operation.tool.kind).cutsThreads === true;
  const made = operation?.work.find((h) => h.label === view.label) ?? operation?.work[0] ?? null;
  const tip = made ? made.entryZ - made.z : depthOf;
  const r = made ? made.r - made.entryZ : 2;
  const steps = stepsOf(view);
  const axis = made ?? { x: 0, y: 0 };
  const places = isMilled && made?.motion.kind === 'path' ? threadPlaces(made.motion.passes, axis) : [];
  const widest = Math.max(
    ...steps.map((s) => (s.shape === 'cylinder' ? s.diameter : Math.max(s.startDiameter, s.endDiameter))),
    operation?.tool.diameter ?? 0,
    // Beside a boss the whole cutter is to be seen.
    ...(isBoss ? places.map((p) => 2 * p.away + (operation?.tool.diameter ?? 0)) : []),
  );
  const point = isBoss ? 0 : bottomPoint(view);
  const deepest = Math.max(depthOf + point, tip) + 2;
  const k = Math.min((HEIGHT - TOP - 16) / deepest, (2 * HALF - 16) / widest);
  const y = (depth: number): number => TOP + depth * k;
  const right: [number, number][] = [];
  for (const s of steps) {
    const [a, b] = s.shape === 'cylinder' ? [s.diameter, s.diameter] : [s.startDiameter, s.endDiameter];
    right.push([(a / 2) * k, y(s.top)], [(b / 2) * k, y(s.end)]);
  }
  if (!isOpen && point > 0) right.push([0, y(depthOf + point)]);
  const outline = [
    ...right.map(([x, v]) => `${CENTRE + x} ${v}`),
    ...[...right].reverse().map(([x, v]) => `${CENTRE - x} ${v}`),
  ].join('L');
  const full = operation?.parameters.find((p) => p.key === 'threadDepth')?.value;
  const length = typeof full === 'number' ? full : depthOf;
  const major = thread && !isMilled ? (thread.majorDiameter / 2) * k : null;
  const threadTo = y(length);
  const startsAt = isBoss ? view.chamfered : startOfThread(view);
  const bottomY = isOpen ? y(depthOf) : Math.min(HEIGHT - 4, y(depthOf + point) + 14);
  const wall = places.find((p) => p.name === 'full depth');
  const toY = (z: number): number => y((made?.entryZ ?? 0) - z);
  return {
    k,
    centre: CENTRE,
    half: HALF,
    y,
    metal: isBoss
      ? bossPath(outline, bottomY, isOpen)
      : `M${CENTRE - HALF} ${y(0)}H${CENTRE + HALF}V${bottomY}H${CENTRE - HALF}Z`,
    hole: isBoss ? '' : `M${outline}Z`,
    profile:
      thread && isMilled
        ? [1, -1]
            .map((sign) =>
              profilePath(thread, isBoss ? 'outside' : 'inside', { length, startsAt, sign, k, y }),
            )
            .join('')
        : null,
    ghosts: places
      .filter((p) => p !== wall)
      .map((p) => ({ name: p.name, x: CENTRE + p.away * k, y: toY(p.z) })),
    thread:
      major !== null ? `M${CENTRE - major} ${TOP}V${threadTo}M${CENTRE + major} ${TOP}V${threadTo}` : null,
    bottomY,
    open: isOpen,
    r: { y: Math.max(34, y(-r)), label: r },
    tipY: wall ? toY(wall.z) : y(tip),
    tip,
    toolX: CENTRE + (wall ? wall.away * k : made ? orbitOf(made) * k : 0),
    dimensions: operation ? dimensions(operation, depthOf, startsAt, y) : [],
  };
}

/** A groove cut across its middle line, the cutter at its last place: one scale both ways. Of a groove in a wall the wall is on the right. */
function drawGroove(view: GrooveView, operation: PlannedOperation | null): SectionDrawing {
  const { shape, entryZ, depth } = view;
  const made = operation?.work.find((h) => h.label === view.label) ?? operation?.work[0] ?? null;
  const tip = made ? entryZ - made.z : depth;
  const side = grooveSide(shape, entryZ);
  const off = operation ? cutterOff(view, operation) : 0;
  const radius = (operation?.tool.diameter ?? 0) / 2;
  const isSideways = shape.bore !== undefined || shape.isOneSided;
  // Above a groove in a wall or a bore some of that is seen.
  const over = isSideways ? Math.max(6, depth) : 0;
  const widest = Math.max(...side.map(([half]) => half), off + radius, radius - off, shape.bore ?? 0);
  const k = Math.min((HEIGHT - TOP - 22) / (Math.max(depth, tip) + 2 * over + 3), (HALF - 6) / widest);
  const y = (d: number): number => TOP + (d + over) * k;
  const bottomY = shape.through ? y(depth) : Math.min(HEIGHT - 4, y(depth + over) + 14);
  const at = (r: number): number => CENTRE + r * k;
  const block = `M${CENTRE - HALF} ${y(-over)}H${CENTRE + HALF}V${bottomY}H${CENTRE - HALF}Z`;
  const wall = `M${CENTRE} ${y(-over)}H${CENTRE + HALF}V${bottomY}H${CENTRE}Z`;
  const mirrored = (points: [number, number][]): string =>
    `M${[
      ...points.map(([r, d]) => `${at(r)} ${y(d)}`),
      ...[...points].reverse().map(([r, d]) => `${at(-r)} ${y(d)}`),
    ].join('L')}Z`;
  const bore = shape.bore;
  const open: [number, number][] =
    bore === undefined ? side : [[bore, -over], [bore, 0], ...side, [bore, depth], [bore, depth + over]];
  const cut = shape.isOneSided
    ? `M${[[0, 0] as const, ...side, [0, depth] as const].map(([r, d]) => `${at(r)} ${y(d)}`).join('L')}Z`
    : mirrored(open);
  return {
    k,
    centre: CENTRE,
    half: HALF,
    y,
    metal: shape.isOneSided ? wall : block,
    hole: cut,
    profile: null,
    ghosts: [],
    thread: null,
    bottomY,
    open: shape.through,
    r: { y: Math.max(34, y(-over) - 14), label: made ? made.r - entryZ : 2 },
    tipY: y(tip),
    tip,
    toolX: at(off),
    dimensions: operation ? dimensions(operation, depth, 0, y) : [],
  };
}

/** A boss on its foot; without one where it is open there. */
function bossPath(outline: string, bottomY: number, isOpen: boolean): string {
  if (isOpen) return `M${outline}Z`;
  const foot = `M${CENTRE - HALF} ${bottomY - 14}H${CENTRE + HALF}V${bottomY}H${CENTRE - HALF}Z`;
  return `M${outline}Z${foot}`;
}

/** The thread's profile on one side, px. */
function profilePath(
  thread: Thread,
  side: 'inside' | 'outside',
  {
    length,
    startsAt,
    sign,
    k,
    y,
  }: { length: number; startsAt: number; sign: number; k: number; y(d: number): number },
): string {
  const points = threadProfile(thread, side, length, sign > 0 ? 0 : 0.5);
  return points.length === 0
    ? ''
    : `M${points.map(([r, d]) => `${(CENTRE + sign * r * k).toFixed(1)} ${y(startsAt + d).toFixed(1)}`).join('L')}`;
}

const bottomPoint = (v: HoleView): number => {
  const last = v.steps[v.steps.length - 1];
  const d = last?.shape === 'cylinder' ? last.diameter : 0;
  if (v.bottom.shape === 'cone') return d / 2 / Math.tan((v.bottom.angle * Math.PI) / 360);
  return v.bottom.shape === 'ball' ? d / 2 : 0;
};

/** Which two depths each of an operation's numbers lies between. */
function dimensions(
  o: PlannedOperation,
  depth: number,
  threadFrom: number,
  y: (d: number) => number,
): Dimension[] {
  const spans: Record<string, (p: number) => [number, number]> = {
    depth: (p) => [0, p],
    tip: (p) => [0, p],
    threadDepth: (p) => [threadFrom, threadFrom + p],
    breakThrough: (p) => [depth, depth + p],
    aboveFloor: (p) => [depth - p, depth],
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
