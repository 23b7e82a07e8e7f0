import { at } from '../../../lists.ts';
import { helixAngleDeg } from '../../../motion/circles.ts';
import { rimAt } from '../../../tools/cone.ts';
import type { Motion } from '../../../code/read/motion.ts';
import { OVER_AXIS, partName, type Allowed, type Hit } from '../../../space/space.ts';
import { drilledWidth, widestStep } from '../../../tools/kinds/kind.ts';
import { toolKind } from '../../../tools/kinds/registry.ts';
import type { Tool } from '../../../tools/schema.ts';
import { chordsOf, type KnownMotion } from '../../chords.ts';
import { Columns } from '../../columns.ts';
import { tooWide } from '../../clear.ts';
import { wideTo, type InHole } from '../../milled.ts';
import { bottomOf, topOf } from '../../../features/groove-shape.ts';
import type { SeenGroove } from '../../grooves/finder.ts';
import { aboveFoot } from '../../../operations/grooves/reach.ts';
import { discsAbove } from '../../../operations/grooves/fit.ts';
import { goesUnder, undercutting } from '../../grooves/undercut.ts';
import { bossAt, depthInBoss } from '../../threads/bosses.ts';
import { toolProfile } from '../../../tools/profile.ts';
import {
  DEPTH_TOLERANCE,
  isAsPlanned,
  toolName,
  type CheckContext,
  type CheckRule,
  type Finding,
  type MadeHole,
} from '../check.ts';

type Known = KnownMotion;

/** Every motion of the text, with the tool's whole outline, against part, uncut metal and holding. */
export const way: CheckRule = {
  rule: 'way',
  run: (c) => new Way(c).run(),
};

const isKnown = (m: Motion): m is Known => [...m.from, ...m.to].every((v) => v !== null);
const isSideways = (m: Known): boolean => m.kind === 'arc' || m.from[0] !== m.to[0] || m.from[1] !== m.to[1];

/** A groove counts as made where its cutter came this near to its floor, mm. */
const FLOOR_REACHED = 0.3;

/** Rounding of the code may make a helix this much steeper. */
const STEEP = 1.05;
/** How far a fed cutter may seem to be in a wall that it runs along: chords of round walls lie inside them, mm. */
const BESIDE_WALL = 0.03;

/** A thread may be cut this much wider than its major diameter for the gauge, mm. */
const MOST_FIT = 0.5;

/** Fed, and able to cut on its side. */
const isMill = (m: Motion, tool: Tool): boolean =>
  (m.kind === 'feed' || m.kind === 'arc') && m.cycle === undefined && !toolKind(tool.kind).onlyPlunges;

class Way {
  private readonly columns = new Columns();
  private readonly out: Finding[] = [];
  private readonly told = new Set<string>();
  /** Slots, grooves and channels whose floor was reached. */
  private readonly made = new Set<string>();
  private readonly byLine = new Map<number, MadeHole[]>();

  constructor(private readonly c: CheckContext) {
    for (const m of c.made) this.byLine.set(m.call.line, [...(this.byLine.get(m.call.line) ?? []), m]);
  }

  run(): Finding[] {
    for (const m of this.c.read.motions) {
      const tool = m.kind === 'dwell' ? null : this.c.toolOf(m.tool);
      if (!tool) continue;
      if (isKnown(m)) this.motion(m, tool);
      else this.arrival(m, tool);
    }
    return this.out;
  }

  private motion(m: Known, tool: Tool): void {
    const hole = this.holeAt(m);
    this.holding(m, tool, hole);
    const inside = isMill(m, tool) ? this.c.finder.at(m, tool) : null;
    const groove = inside ? null : this.c.grooves.at(m, tool);
    if (groove) this.inGroove(m, tool, groove);
    else if (inside) this.inHole(m, tool, inside);
    else if (isSideways(m)) for (const chord of chordsOf(m)) this.across(chord, tool, hole);
    // On the way up a tool stands where it stood on the way down.
    else if (m.to[2] < m.from[2]) this.down(m, tool, hole);
  }

  /** From a place that the text does not say, such as home: the tool comes down to where it arrives. */
  private arrival(m: Motion, tool: Tool): void {
    const [x, y, z] = m.to;
    if (x === null || y === null || z === null) return;
    const landed: Known = { ...m, from: [x, y, Math.max(z, this.c.space.setup.top) + 1], to: [x, y, z] };
    this.motion(landed, tool);
  }

  /** A mill that is fed in a slot, groove or channel: its walls are touched, and what is wider than its mouth is judged by its shape. */
  private inGroove(m: Known, tool: Tool, { view, row }: SeenGroove): void {
    const { shape, label, feature } = view;
    const { space, say } = this.c;
    const lowest = Math.min(m.from[2], m.to[2]);
    if (lowest < bottomOf(shape) + FLOOR_REACHED) this.made.add(feature.id);
    const named = (rule: string, what: string): void =>
      this.say(m, rule, null, `${label}: ${toolName(tool)} ${what}`, 'error', {
        tag: row.tag,
        feature: feature.id,
      });
    if (!shape.through && lowest < bottomOf(shape) - DEPTH_TOLERANCE)
      return named(
        'milled-too-deep',
        `cuts down to Z ${say(lowest)}; its floor is at Z ${say(bottomOf(shape))}. ${this.c.word('Z', bottomOf(shape))} at the lowest.`,
      );
    const isBelow = goesUnder(shape, tool, m);
    const wrong = isBelow ? undercutting(shape, m, tool, this.c.outline(tool), say) : null;
    if (wrong) return named(wrong.rule, wrong.what);
    for (const chord of chordsOf(m)) {
      const tip = Math.min(chord.from[2], chord.to[2]);
      const discs = isBelow
        ? discsAbove(this.c.outline(tool), topOf(shape) - tip)
        : aboveFoot(this.c.discs(tool), shape.floorRadius);
      const hit = space.partAlong(discs, chord.from, chord.to, -BESIDE_WALL);
      if (hit) return this.inPart(m, tool, null, hit);
    }
  }

  private across(m: Known, tool: Tool, hole: MadeHole | null): void {
    const { space } = this.c;
    const lowest = Math.min(m.from[2], m.to[2]);
    if (m.kind !== 'rapid' && toolKind(tool.kind).onlyPlunges && lowest < space.setup.top) {
      this.say(
        m,
        'fed-sideways',
        hole,
        `${toolName(tool)} cuts straight down only and is fed sideways at Z ${this.c.say(lowest)}. Lift it first, or write a cycle.`,
      );
      return;
    }
    // Round a boss its teeth stand in metal as deep as the thread, which is judged by itself.
    const boss = bossAt(this.c.bosses, m, tool);
    const into = boss ? depthInBoss(boss) + MOST_FIT / 2 : 0;
    const discs = this.c
      .discs(tool)
      .map((d) => (into > 0 && d.part === 'cutting' ? { ...d, r: Math.max(0, d.r - into) } : d));
    // A cutter as wide as its slot runs along both walls: touching them is its work.
    const inPart = space.partAlong(discs, m.from, m.to, m.kind === 'rapid' ? 0 : -BESIDE_WALL);
    if (inPart) return this.inPart(m, tool, hole, inPart);
    if (!space.heights && !boss && lowest < space.setup.top - 0.01 && m.cycle === undefined)
      this.low(m, hole, lowest);
    const length = Math.hypot(m.to[0] - m.from[0], m.to[1] - m.from[1]);
    const steps =
      lowest >= space.setup.top ? 1 : Math.min(400, Math.ceil(length / Math.max(1, tool.diameter / 2)));
    for (let i = 1; i <= steps; i++) {
      const t = i / steps;
      const [x, y, z] = [0, 1, 2].map((k) => at(m.from, k) + t * (at(m.to, k) - at(m.from, k))) as [
        number,
        number,
        number,
      ];
      if (this.inMetal(m, tool, hole, x, y, Math.min(z, lowest))) return;
    }
  }

  /** A mill that is fed inside a hole: never wider or deeper than the hole is, and never with more than its flutes in metal. */
  private inHole(m: Known, tool: Tool, inside: InHole): void {
    if (toolKind(tool.kind).onRims) return this.onRim(m, tool, inside);
    const { hole, orbit, isRound } = inside;
    const { view, row } = hole;
    const { space, say, word } = this.c;
    const z = Math.min(m.from[2], m.to[2]);
    const { x, y, entryZ } = view;
    const named = (rule: string, what: string): void =>
      this.say(m, rule, null, `${view.label}: ${what}`, 'error', { tag: row.tag, feature: view.feature.id });
    const discs = this.c.discs(tool);
    const swept = orbit > 0 ? discs.map((d) => ({ ...d, r: d.r + orbit })) : discs;
    const wide = 2 * orbit + tool.diameter;
    // A thread is wider than its hole; how wide, how deep and how steep it is, is judged by itself.
    const thread = toolKind(tool.kind).cutsThreads ? row.thread : null;
    const open = drilledWidth(view, row.thread);
    const isInThread = thread !== null && wide <= thread.majorDiameter + MOST_FIT;
    const isTapered = tool.threadForm?.tapered === true;
    const floor =
      entryZ - wideTo(view.steps, isInThread ? Math.min(wide, drilledWidth(view, null)) : wide, view.through);
    if (z < floor - DEPTH_TOLERANCE)
      return named(
        'milled-too-deep',
        `${toolName(tool)} cuts ⌀${say(wide)} down to Z ${say(z)}; the hole is that wide to Z ${say(floor)} only. ${word('Z', floor)} at the lowest.`,
      );
    this.ramp(m, tool, x, y, orbit, isRound, named);
    const hit = space.partAt(swept, x, y, z, {
      // A tapered cutter is wider above than at its tip, and so is its thread.
      radius:
        Math.max(
          widestStep(view),
          isInThread ? wide : 0,
          isInThread && isTapered ? thread.majorDiameter : 0,
        ) /
          2 +
        0.06,
      below: space.ledFrom(x, y, wide / 2, entryZ) + 0.06,
      ...(view.through ? { open: 0.45 * Math.min(open, wide) } : {}),
    });
    if (hit) return this.inPart(m, tool, null, hit);
    if (isRound) {
      // A ring takes away what is inside it where no core is left standing.
      const inner = orbit - tool.diameter / 2;
      if (inner <= 0 || this.columns.isFree(x, y, inner, z)) this.columns.cut(swept, x, y, z);
    } else if (!isSideways(m) && m.to[2] < m.from[2]) this.columns.cut(discs, m.to[0], m.to[1], z);
    const thick = (isRound ? swept : discs).find(
      (d) => d.part !== 'cutting' && this.isUncut(isRound ? x : m.to[0], isRound ? y : m.to[1], d.r, z + d.z),
    );
    if (thick)
      named(
        'holder-into-metal',
        `the ${partName(thick.part)} of ${toolName(tool)} (⌀${say(2 * (thick.r - (isRound ? orbit : 0)))}) goes into metal at Z ${say(z + thick.z)}. Take a longer one.`,
      );
  }

  /** A cutter that breaks a rim: at no height wider than the hole is there, but for the rims that are wanted. */
  private onRim(m: Known, tool: Tool, { hole: { view, row, wanted }, orbit, isRound }: InHole): void {
    const { space, say } = this.c;
    const z = Math.min(m.from[2], m.to[2]);
    const named = (rule: string, what: string): void =>
      this.say(m, rule, null, `${view.label}: ${what}`, 'error', { tag: row.tag, feature: view.feature.id });
    const over = tooWide(toolProfile(tool, null), orbit, z, view, wanted);
    if (over)
      return named(
        'rim-too-wide',
        `${toolName(tool)} cuts ⌀${say(2 * over.radius)} at Z ${say(over.z)}, where ⌀${say(2 * over.clear)} is wanted at most. Check depth and radius.`,
      );
    const swept = this.c.discs(tool).map((d) => ({ ...d, r: d.r + orbit }));
    const isBehind = wanted.some((r) => r.below);
    const rim = Math.max(widestStep(view), ...wanted.map((r) => r.diameter)) / 2;
    const hit = space.partAt(swept, view.x, view.y, z, {
      // Its head is judged above, at every height; behind an edge the part lies over it.
      radius: (isBehind ? Math.max(rim, orbit + tool.diameter / 2) : rim) + 0.06,
      below: space.ledFrom(view.x, view.y, rim, view.entryZ) + 0.06,
      ...(view.through ? { open: 0.45 * drilledWidth(view, row.thread) } : {}),
    });
    if (hit) return this.inPart(m, tool, null, hit);
    if (isRound && !isBehind) this.columns.cut(swept, view.x, view.y, z);
    const thick = swept.find((d) => d.part !== 'cutting' && this.isUncut(view.x, view.y, d.r, z + d.z));
    if (thick)
      named(
        'holder-into-metal',
        `the ${partName(thick.part)} of ${toolName(tool)} (⌀${say(2 * (thick.r - orbit))}) goes into metal at Z ${say(z + thick.z)}. Take a longer one.`,
      );
  }

  /** A cutter that must not plunge goes into metal on a helix that is no steeper than it can. */
  private ramp(
    m: Known,
    tool: Tool,
    x: number,
    y: number,
    orbit: number,
    isRound: boolean,
    named: (rule: string, what: string) => void,
  ): void {
    const limit = tool.rampAngleDeg ?? 90;
    const fall = m.from[2] - m.to[2];
    if (limit >= 90 || fall <= 1e-6) return;
    if (!isSideways(m)) {
      if (this.isUncut(m.to[0], m.to[1], tool.diameter / 2, m.to[2]))
        named(
          'plunges',
          `${toolName(tool)} must not plunge into metal, and is fed straight down. Go in on a helix.`,
        );
      return;
    }
    if (!isRound || orbit < 1e-6 || !this.isUncut(x, y, orbit + tool.diameter / 2, m.to[2])) return;
    const angle = helixAngleDeg(fall / Math.max(1, m.turns ?? 1), orbit);
    if (angle > limit * STEEP)
      named(
        'ramp-too-steep',
        `the helix falls at ${angle.toFixed(1)}°, and ${toolName(tool)} goes into metal at ${limit}° at most. Take more turns.`,
      );
  }

  private down(m: Known, tool: Tool, hole: MadeHole | null): void {
    const { space } = this.c;
    const [x, y, z] = m.to;
    const discs = this.c.discs(tool);
    const isCutting = m.kind !== 'rapid';
    // Of a cycle's pecks the last one says it all; what the others cut is air for the next.
    if (isCutting && m.cycle !== undefined && hole && z > hole.call.z + 1e-6) {
      this.columns.cut(discs, x, y, z);
      return;
    }
    const inPart = space.partAt(discs, x, y, z, this.allowed(hole, tool));
    if (inPart) this.inPart(m, tool, hole, inPart);
    else if (!isCutting) {
      if (!space.heights && z < space.setup.top - 0.01 && m.cycle === undefined) this.low(m, hole, z);
      if (!this.inMetal(m, tool, hole, x, y, z)) this.perhapsMetal(m, tool, hole, x, y, z);
    } else {
      this.columns.cut(discs, x, y, z);
      const wide = discs.find((d) => d.part !== 'cutting' && this.isUncut(x, y, d.r, z + d.z));
      if (wide)
        this.say(
          m,
          'holder-into-metal',
          hole,
          `the ${partName(wide.part)} of ${toolName(tool)} (⌀${this.c.say(2 * wide.r)}) goes into metal at Z ${this.c.say(z + wide.z)}. Stick the tool out farther, or use a longer one.`,
        );
    }
    if (
      isCutting &&
      m.cycle === undefined &&
      !hole &&
      z < this.metalTop(x, y, 0) - 0.01 &&
      toolKind(tool.kind).onlyPlunges
    )
      this.say(
        m,
        'cuts-where-nothing-is',
        hole,
        `${toolName(tool)} feeds down to Z ${this.c.say(z)} at X ${this.c.say(x)} Y ${this.c.say(y)}, where no hole is planned. Check the position.`,
      );
  }

  /** Where the part's shape is not known, every low rapid outside a cycle may meet it. */
  private low(m: Known, hole: MadeHole | null, z: number): void {
    const { say, space } = this.c;
    this.say(
      m,
      'low-rapid',
      hole,
      `goes at rapid to Z ${say(z)}, below the top of the stock at ${say(space.setup.top)}. Feed there, or stay above.`,
    );
  }

  private holding(m: Known, tool: Tool, hole: MadeHole | null): void {
    // The planner keeps room; only the box itself is a collision.
    if (this.c.space.setup.keepOuts.length === 0) return;
    for (const chord of chordsOf(m)) {
      const hit = this.c.space.holdingAlong(this.c.discs(tool), chord.from, chord.to, 0);
      if (!hit) continue;
      return this.say(
        m,
        'holding',
        hole,
        `the ${partName(hit.part)} of ${toolName(tool)} goes through ${hit.name} at Z ${this.c.say(Math.min(m.from[2], m.to[2]))}; its top is at ${this.c.say(hit.height)}. Move the holding, or leave the hole out.`,
      );
    }
  }

  private inPart(m: Known, tool: Tool, hole: MadeHole | null, hit: Hit): void {
    const { say, word } = this.c;
    const lift = `${word('Z', Math.min(m.from[2], m.to[2]) + hit.depth)} or higher would clear it.`;
    this.say(
      m,
      m.kind === 'rapid' ? 'rapid-into-part' : 'into-part',
      hole,
      `the ${partName(hit.part)} of ${toolName(tool)} (⌀${say(hit.diameter)}) ${m.kind === 'rapid' ? 'goes at rapid' : 'is fed'} into the finished part, ${say(hit.depth)} deep at Z ${say(hit.height)}. ${lift}`,
    );
  }

  /** At rapid into metal that nobody has cut yet. */
  private inMetal(m: Known, tool: Tool, hole: MadeHole | null, x: number, y: number, z: number): boolean {
    if (m.kind !== 'rapid') return false;
    const hit = this.c.discs(tool).find((d) => this.isUncut(x, y, d.r, z + d.z));
    if (!hit) return false;
    const top = this.metalTop(x, y, hit.r);
    this.say(
      m,
      'rapid-into-metal',
      hole,
      `${toolName(tool)} goes at rapid to Z ${this.c.say(z)}, and metal stands to Z ${this.c.say(top)} there. ${this.c.word(m.cycle === undefined ? 'Z' : 'R', top + this.c.setup.setup.retract)} would clear it.`,
    );
    return true;
  }

  /** In a pocket that nothing here makes: prepared stock may have it, or may not. */
  private perhapsMetal(m: Known, tool: Tool, hole: MadeHole | null, x: number, y: number, z: number): void {
    const { space } = this.c;
    const pocket = space.pocketTop(x, y, z);
    if (pocket <= z + 0.05 || this.columns.isFree(x, y, 0.1, z)) return;
    if (space.openingsOver(x, y, 0.1, z).length > 0) return;
    this.say(
      m,
      'perhaps-metal',
      hole,
      `${toolName(tool)} goes at rapid to Z ${this.c.say(z)} in a pocket that this program does not make and that is ${this.c.say(pocket - z)} deep there. If it is not milled yet, ${this.c.word('R', pocket + this.c.setup.setup.retract)} would clear it.`,
      'warning',
    );
  }

  /** Top of metal that stands over a place before anything is cut: proud stock, and cavities that are not made before. */
  private metalTop(x: number, y: number, r: number): number {
    const { space, madeEarlier } = this.c;
    let top = Math.max(space.stockOver(x, y, r), space.heights?.along(x, y, x, y, r, -Infinity) ?? -Infinity);
    for (const o of space.openingsOver(x, y, OVER_AXIS, -Infinity))
      if (!madeEarlier.has(o.feature) && !this.made.has(o.feature)) top = Math.max(top, o.top);
    return top;
  }

  private isUncut(x: number, y: number, r: number, z: number): boolean {
    const { space, madeEarlier } = this.c;
    const stands =
      space.stockOver(x, y, r) > z + 0.02 ||
      space
        .openingsOver(x, y, OVER_AXIS, z)
        .some((o) => !madeEarlier.has(o.feature) && !this.made.has(o.feature));
    return stands && !this.columns.isFree(x, y, r, z);
  }

  /** What of the part this tool is to touch in this hole. */
  private allowed(hole: MadeHole | null, tool: Tool): Allowed | null {
    const view = hole?.view;
    if (!view) return null;
    const thread = hole.row?.thread ?? null;
    const kind = toolKind(tool.kind);
    const touches = kind.touches(tool, view, thread);
    return {
      radius: (kind.cone ? this.rim(hole, tool, touches) : touches) / 2 + 0.06,
      below: this.c.space.ledFrom(view.x, view.y, tool.diameter / 2, view.entryZ) + 0.06,
      // What is drilled through, or threaded through, is air: nothing behind it may be touched.
      ...(view.through && !kind.isCone
        ? { open: 0.45 * Math.min(drilledWidth(view, thread), tool.diameter) }
        : {}),
    };
  }

  /** Diameter that a cone tool is to leave at the entry: the plan's own, else what the hole wants. */
  private rim(hole: MadeHole, tool: Tool, wanted: number): number {
    if (!isAsPlanned(hole) || !hole.view) return wanted;
    const tip = hole.view.entryZ - hole.call.z;
    return Math.max(wanted, Math.min(tool.diameter, rimAt(tool, Math.max(0, tip))));
  }

  private holeAt(m: Known): MadeHole | null {
    const own = this.byLine.get(m.line);
    return (
      own?.find((h) => Math.abs(h.call.x - m.to[0]) < 1e-6 && Math.abs(h.call.y - m.to[1]) < 1e-6) ?? null
    );
  }

  /** One finding a line and rule. */
  private say(
    m: Known,
    rule: string,
    hole: MadeHole | null,
    what: string,
    severity: Finding['severity'] = 'error',
    of: Pick<Finding, 'tag' | 'feature'> = { tag: hole?.tag ?? undefined, feature: hole?.view?.feature.id },
  ): void {
    const key = `${rule}/${m.line}`;
    if (this.told.has(key)) return;
    this.told.add(key);
    this.out.push({
      rule,
      severity,
      message: `${hole?.view ? `${hole.view.label}, line ${m.line}` : `Line ${m.line}`}: ${what}`,
      line: m.line,
      ...of,
    });
  }
}
