import { at } from '../../../../lists.ts';
import type { Vec3 } from '../../../../geometry/vec.ts';
import { partName, type Allowed } from '../../../../space/space.ts';
import { rimAt } from '../../../../tools/cone.ts';
import { drilledWidth } from '../../../../tools/kinds/kind.ts';
import { toolKind } from '../../../../tools/kinds/registry.ts';
import type { Disc } from '../../../../tools/profile.ts';
import type { Tool } from '../../../../tools/schema.ts';
import { bossAt, depthInBoss } from '../../../threads/bosses.ts';
import { isAsPlanned, toolName, type MadeHole } from '../../check.ts';
import { MOST_FIT } from './in-hole.ts';
import { BESIDE_WALL, type Known, type WayState } from './state.ts';

type Place = Known['to'];
/** A cutter's corner and a fillet that count as one, mm. */
const SAME_CORNER = 0.02;

/** Sideways outside of every cavity: the part, and at rapid the metal that still stands. */
export function across(s: WayState, m: Known, tool: Tool, hole: MadeHole | null): void {
  const { space } = s.c;
  const lowest = Math.min(m.from[2], m.to[2]);
  if (m.kind !== 'rapid' && toolKind(tool.kind).onlyPlunges && lowest < space.setup.top) {
    s.say(
      m,
      'fed-sideways',
      hole,
      `${toolName(tool)} cuts straight down only and is fed sideways at Z ${s.c.say(lowest)}. Lift it first, or write a cycle.`,
    );
    return;
  }
  // Round a boss its teeth stand in metal as deep as the thread, which is judged by itself.
  const boss = bossAt(s.c.bosses, m, tool);
  const into = boss ? depthInBoss(boss) + MOST_FIT / 2 : 0;
  const discs = besideFoot(s, m, tool).map((d) =>
    into > 0 && d.part === 'cutting' ? { ...d, r: Math.max(0, d.r - into) } : d,
  );
  // A cutter as wide as its slot runs along both walls: touching them is its work.
  const inPart = space.partAlong(discs, m.from, m.to, m.kind === 'rapid' ? 0 : -BESIDE_WALL);
  if (inPart) return s.inPart(m, tool, hole, inPart);
  if (!space.heights && !boss && lowest < space.setup.top - 0.01 && m.how === undefined)
    low(s, m, hole, lowest);
  const length = Math.hypot(m.to[0] - m.from[0], m.to[1] - m.from[1]);
  const steps =
    lowest >= space.setup.top ? 1 : Math.min(400, Math.ceil(length / Math.max(1, tool.diameter / 2)));
  for (let i = 1; i <= steps; i++) {
    const t = i / steps;
    const [x, y, z] = [0, 1, 2].map((k) => at(m.from, k) + t * (at(m.to, k) - at(m.from, k))) as Vec3;
    if (inMetal(s, m, tool, hole, [x, y, Math.min(z, lowest)])) return;
  }
}

/**
 * Its discs for a fed way. A cutter whose corner is the fillet at the foot of an area's walls touches all of that, and the flat facets of a mesh
 * lie nearer than the fillet does: that part of it is judged by the metal and the exact surfaces.
 */
function besideFoot({ c }: WayState, m: Known, tool: Tool): readonly Disc[] {
  const discs = c.discs(tool);
  const corner = tool.cornerRadius ?? 0;
  const isFoot =
    m.kind !== 'rapid' &&
    corner > 0 &&
    c.areas.areas.some(({ view }) => Math.abs(view.shape.floorRadius - corner) <= SAME_CORNER);
  return isFoot ? discs.filter((d) => d.part !== 'cutting' || d.z === 0 || d.z >= corner - 1e-6) : discs;
}

/** Straight down. */
export function down(s: WayState, m: Known, tool: Tool, hole: MadeHole | null): void {
  const { space } = s.c;
  const [x, y, z] = m.to;
  const discs = s.c.discs(tool);
  const isCutting = m.kind !== 'rapid';
  // Of a cycle's pecks the last one says it all; what the others cut is air for the next.
  if (isCutting && m.how !== undefined && hole && z > hole.call.z + 1e-6) {
    s.columns.cut(discs, x, y, z);
    return;
  }
  const inPart = space.partAt(discs, x, y, z, allowed(s, hole, tool));
  if (inPart) s.inPart(m, tool, hole, inPart);
  else if (!isCutting) {
    if (!space.heights && z < space.setup.top - 0.01 && m.how === undefined) low(s, m, hole, z);
    if (!inMetal(s, m, tool, hole, m.to)) perhapsMetal(s, m, tool, hole, m.to);
  } else {
    s.columns.cut(discs, x, y, z);
    const wide = discs.find((d) => d.part !== 'cutting' && s.isUncut(x, y, d.r, z + d.z));
    if (wide)
      s.say(
        m,
        'holder-into-metal',
        hole,
        `the ${partName(wide.part)} of ${toolName(tool)} (⌀${s.c.say(2 * wide.r)}) goes into metal at Z ${s.c.say(z + wide.z)}. Stick the tool out farther, or use a longer one.`,
      );
  }
  if (
    isCutting &&
    m.how === undefined &&
    !hole &&
    z < s.metalTop(x, y, 0) - 0.01 &&
    toolKind(tool.kind).onlyPlunges
  )
    s.say(
      m,
      'cuts-where-nothing-is',
      hole,
      `${toolName(tool)} feeds down to Z ${s.c.say(z)} at X ${s.c.say(x)} Y ${s.c.say(y)}, where no hole is planned. Check the position.`,
    );
}

/** Where the part's shape is not known, every low rapid outside a cycle may meet it. */
function low(s: WayState, m: Known, hole: MadeHole | null, z: number): void {
  const { say, space } = s.c;
  s.say(
    m,
    'low-rapid',
    hole,
    `goes at rapid to Z ${say(z)}, below the top of the stock at ${say(space.setup.top)}. Feed there, or stay above.`,
  );
}

/** At rapid into metal that nobody has cut yet. */
function inMetal(s: WayState, m: Known, tool: Tool, hole: MadeHole | null, [x, y, z]: Place): boolean {
  if (m.kind !== 'rapid') return false;
  const hit = s.c.discs(tool).find((d) => s.isUncut(x, y, d.r, z + d.z));
  if (!hit) return false;
  const top = s.metalTop(x, y, hit.r);
  s.say(
    m,
    'rapid-into-metal',
    hole,
    `${toolName(tool)} goes at rapid to Z ${s.c.say(z)}, and metal stands to Z ${s.c.say(top)} there. ${s.c.word(m.how === undefined ? 'Z' : 'R', top + s.c.setup.setup.retract)} would clear it.`,
  );
  return true;
}

/** In a pocket that nothing here makes: prepared stock may have it, or may not. */
function perhapsMetal(s: WayState, m: Known, tool: Tool, hole: MadeHole | null, [x, y, z]: Place): void {
  const { space } = s.c;
  const pocket = space.pocketTop(x, y, z);
  if (pocket <= z + 0.05 || s.columns.isFree(x, y, 0.1, z)) return;
  if (space.openingsOver(x, y, 0.1, z).length > 0) return;
  s.say(
    m,
    'perhaps-metal',
    hole,
    `${toolName(tool)} goes at rapid to Z ${s.c.say(z)} in a pocket that this program does not make and that is ${s.c.say(pocket - z)} deep there. If it is not milled yet, ${s.c.word('R', pocket + s.c.setup.setup.retract)} would clear it.`,
    'warning',
  );
}

/** What of the part this tool is to touch in this hole. */
function allowed(s: WayState, hole: MadeHole | null, tool: Tool): Allowed | null {
  const view = hole?.view;
  if (!view) return null;
  const thread = hole.row?.thread ?? null;
  const kind = toolKind(tool.kind);
  const touches = kind.touches(tool, view, thread);
  return {
    radius: (kind.cone ? rim(hole, tool, touches) : touches) / 2 + 0.06,
    below: s.c.space.ledFrom(view.x, view.y, tool.diameter / 2, view.entryZ) + 0.06,
    // What is drilled through, or threaded through, is air: nothing behind it may be touched.
    ...(view.through && !kind.isCone
      ? { open: 0.45 * Math.min(drilledWidth(view, thread), tool.diameter) }
      : {}),
  };
}

/** Diameter that a cone tool is to leave at the entry: the plan's own, else what the hole wants. */
function rim(hole: MadeHole, tool: Tool, wanted: number): number {
  if (!isAsPlanned(hole) || !hole.view) return wanted;
  const tip = hole.view.entryZ - hole.call.z;
  return Math.max(wanted, Math.min(tool.diameter, rimAt(tool, Math.max(0, tip))));
}
