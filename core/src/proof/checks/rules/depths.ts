import { pointLength, rimDiameter, spotDepth } from '../../../cutting/depths.ts';
import { BREAK_THROUGH, startOfThread } from '../../../operations/drill/index.ts';
import {
  drilledStep,
  entryCone,
  rimLevel,
  type HoleView,
  type PlacedStep,
} from '../../../operations/hole-view.ts';
import { wideTo } from '../../milled.ts';
import { toolKind } from '../../../tools/kinds/registry.ts';
import { LEAD_THREADS } from '../../../threads/thread.ts';
import { USUAL_POINT } from '../../../tools/kinds/drill.ts';
import { reachOf } from '../../../tools/find.ts';
import type { Tool } from '../../../tools/schema.ts';
import {
  at,
  deepestLines,
  DEPTH_TOLERANCE,
  isAsPlanned,
  name,
  toolName,
  type CheckContext,
  type CheckRule,
  type Finding,
  type MadeHole,
} from '../check.ts';

/** Farther past an exit than this beyond what is planned, mm, and it is what lies below that is drilled. */
const MUCH_BEYOND = 2;

/** Every depth in the text against the hole that is to be made. */
export const depths: CheckRule = {
  rule: 'depth',
  run: (c) => deepestLines(c.made).flatMap((m) => depthFindings(m, c)),
};

const pointOf = (t: Tool): number => pointLength(t.diameter, t.pointAngleDeg ?? USUAL_POINT);

/** A finding about one line; the plan's own depth is a warning, since somebody typed it, any other an error. */
function finding(m: MadeHole, rule: string, what: string, severity?: Finding['severity']): Finding {
  const isOwn = isAsPlanned(m);
  return {
    rule,
    severity: severity ?? (isOwn ? 'warning' : 'error'),
    message: `${name(m)}: ${what}`,
    ...at(m),
  };
}

function depthFindings(m: MadeHole, c: CheckContext): Finding[] {
  const { view: v, tool } = m;
  if (!v || !tool) return [];
  const tip = v.entryZ - m.call.z;
  if (isPilot(m)) return pilotFindings(m, c);
  if (tool.kind === 'drill') return drillDepth(m, tip, c);
  if (tool.kind === 'tap') return tapDepthFindings(m, c);
  const { onlyPlunges, needsHole, isCone } = toolKind(tool.kind);
  if (!isCone && (!onlyPlunges || needsHole) && tool.kind !== 'counterbore') return boreDepth(m, tip, c);
  if (tool.kind === 'counterbore') {
    const solid = inSolid(m, pointOf, c);
    if (solid.length > 0) return solid;
    const step = v.steps.find((s) => s.shape === 'cylinder' && Math.abs(s.diameter - tool.diameter) < 0.02);
    if (!step) return [];
    const floor = `the counterbore's floor, ${c.say(step.end)} below the entry`;
    return offBy(m, tip - step.end, 'counterbore-depth', floor, step.end, c);
  }
  const cone = entryCone(v);
  const angle = tool.pointAngleDeg ?? 90;
  const rim = rimDiameter(tip - rimLevel(v), angle, tool.tipDiameter);
  if (tool.kind === 'countersink' && cone) {
    const solid = inSolid(m, () => 0, c);
    if (solid.length > 0) return solid;
    const wanted = spotDepth(cone.startDiameter, angle, tool.tipDiameter);
    const what = `the countersink's rim of ⌀${c.say(cone.startDiameter)}`;
    return offBy(m, (rim - cone.startDiameter) / 2, 'countersink-size', what, wanted, c);
  }
  return tool.kind === 'spot-drill' ? spotFindings(m, rim, c) : [];
}

/**
 * A tool that only opens a hole must not go below what the drill of this setup leaves. `above`: how far above that
 * drill's tip the hole is as wide as the tool needs it.
 */
function inSolid(m: MadeHole, above: (drill: Tool) => number, c: CheckContext): Finding[] {
  const drilled = drillsOf(m, c).map((o) => o.call.z + above(o.tool!));
  const deepest = Math.min(...drilled);
  const over = drilled.length > 0 ? deepest - m.call.z : 0;
  if (over <= DEPTH_TOLERANCE) return [];
  return [
    finding(
      m,
      'floor-not-drilled',
      `${toolName(m.tool!)} goes ${c.say(over)} below the drilled hole, into solid metal. Write ${c.word('Z', deepest)} at the lowest, or drill ${c.say(over)} deeper.`,
      'error',
    ),
  ];
}

/** Reamers, boring bars and plunging mills: no deeper than the hole is that wide, nor into what no drill has opened; as deep as planned. */
function boreDepth(m: MadeHole, tip: number, c: CheckContext): Finding[] {
  const v = m.view!;
  const tool = m.tool!;
  const solid = toolKind(tool.kind).needsHole && !v.through ? inSolid(m, pointOf, c) : [];
  if (solid.length > 0) return solid;
  const floor = wideTo(v.steps, tool.diameter, v.through);
  if (tip > floor + DEPTH_TOLERANCE)
    return [
      finding(
        m,
        'too-deep',
        `${toolName(tool)} goes ${c.say(tip - floor)} deeper than the hole is that wide. ${c.word('Z', v.entryZ - floor)} at the lowest.`,
        'error',
      ),
    ];
  const planned = m.planned?.hole.z;
  if (planned !== undefined && m.call.z > planned + DEPTH_TOLERANCE)
    return [
      finding(
        m,
        'too-shallow',
        `${toolName(tool)} stops ${c.say(m.call.z - planned)} above where it is to go. Write ${c.word('Z', planned)}.`,
      ),
    ];
  return v.through && planned !== undefined && planned - m.call.z > MUCH_BEYOND
    ? [
        finding(
          m,
          'too-far-through',
          `${toolName(tool)} goes ${c.say(planned - m.call.z)} farther past the exit than planned. Write ${c.word('Z', planned)}.`,
          'error',
        ),
      ]
    : [];
}

/** The widest that a spot's cone may be at a step's top: there it would leave a mark that nothing takes away. */
function spotMark(
  v: HoleView,
  tip: number,
  tool: Tool,
): { made: number; most: number; below: number } | null {
  const angle = tool.pointAngleDeg ?? 90;
  for (const s of v.steps) {
    const most = s.shape === 'cone' ? s.startDiameter : s.diameter;
    const isFree = s === v.steps[0] && s.shape === 'cylinder' && v.steps.length === 1;
    const made = Math.min(rimDiameter(Math.max(0, tip - s.top), angle, tool.tipDiameter), tool.diameter);
    // A plain hole's edge may be broken as wide as somebody likes.
    if (!isFree && tip > s.top && made > most + 2 * DEPTH_TOLERANCE) return { made, most, below: s.top };
  }
  return null;
}

function spotFindings(m: MadeHole, rim: number, c: CheckContext): Finding[] {
  const v = m.view!;
  const tool = m.tool!;
  if (isAsPlanned(m)) {
    const mark = spotMark(v, v.entryZ - m.call.z, tool);
    if (!mark) return [];
    const where = mark.below > 0 ? `, ${c.say(mark.below)} below the entry,` : '';
    return [
      finding(
        m,
        'spot-too-deep',
        `the spot leaves ⌀${c.say(mark.made)}${where} where the hole is ⌀${c.say(mark.most)}. Type a smaller rim.`,
      ),
    ];
  }
  const mend = m.planned ? ` Write ${c.word('Z', m.planned.hole.z)}.` : '';
  const metal = Math.max(v.entryZ - rimLevel(v), m.planned?.hole.metalZ ?? v.entryZ);
  if (m.call.z >= metal - DEPTH_TOLERANCE)
    return [
      finding(
        m,
        'spot-in-air',
        `the spot stops at Z ${c.say(m.call.z)}, above the metal at ${c.say(metal)}: it cuts nothing.${mend}`,
      ),
    ];
  const wide = entryCone(v)?.startDiameter ?? widestAbove(v.steps) ?? Infinity;
  const typed = m.planned?.operation.parameters.find((p) => p.key === 'rim')?.value;
  const planned = typeof typed === 'number' ? typed : null;
  const most = Math.min(planned ?? Infinity, wide, tool.diameter * 1.001);
  if (rim > most + 2 * DEPTH_TOLERANCE) {
    const than =
      rim > tool.diameter ? `the spot drill (⌀${c.say(tool.diameter)})` : `the ⌀${c.say(most)} wanted`;
    return [
      finding(m, 'spot-too-deep', `the spot leaves a rim of ⌀${c.say(rim)}, wider than ${than}.${mend}`),
    ];
  }
  if (planned !== null && rim < planned - 0.1)
    return [
      finding(
        m,
        'spot-too-shallow',
        `the spot leaves a rim of ⌀${c.say(rim)}; ⌀${c.say(planned)} is planned.${mend}`,
        rim < 0.3 * planned ? 'error' : 'warning',
      ),
    ];
  return [];
}

const widestAbove = (steps: PlacedStep[]): number | null => {
  const d = steps.slice(0, -1).flatMap((s) => (s.shape === 'cylinder' ? [s.diameter] : []));
  return d.length > 0 ? Math.max(...d) : null;
};

function offBy(
  m: MadeHole,
  over: number,
  rule: string,
  what: string,
  depth: number,
  c: CheckContext,
): Finding[] {
  if (Math.abs(over) <= DEPTH_TOLERANCE) return [];
  const typed = isAsPlanned(m) ? ', as typed' : '';
  const right = c.word('Z', m.view!.entryZ - depth);
  return [
    finding(
      m,
      rule,
      `${c.say(Math.abs(over))} ${over > 0 ? 'past' : 'short of'} ${what}${typed}. ${right} would be right.`,
    ),
  ];
}

const isPilot = (m: MadeHole): boolean => m.planned?.operation.kind === 'pilot';

/** The lines of this program that drill the same hole, pilots aside. */
const drillsOf = (m: MadeHole, c: CheckContext): MadeHole[] =>
  c.made.filter((o) => o.view === m.view && o.tool?.kind === 'drill' && !isPilot(o));

/** A pilot leaves no mark below its drill, whatever was planned or typed; its depth is otherwise the plan's. */
function pilotFindings(m: MadeHole, c: CheckContext): Finding[] {
  const tool = m.tool!;
  const after = drillsOf(m, c);
  // What a drill leaves at the pilot's rim lies above its tip by the point of that diameter.
  const highest = Math.min(
    ...after.map((o) =>
      Math.max(
        o.call.z,
        o.call.z + pointLength(tool.diameter, o.tool!.pointAngleDeg ?? USUAL_POINT) - pointOf(tool),
      ),
    ),
  );
  const over = after.length > 0 ? highest - m.call.z : 0;
  if (over > DEPTH_TOLERANCE)
    return [
      finding(
        m,
        'pilot-too-deep',
        `the pilot goes ${c.say(over)} below what the drill after it leaves, and marks the floor. Write ${c.word('Z', highest)} at the lowest.`,
        'error',
      ),
    ];
  return isAsPlanned(m) ? [] : [offPlan(m, c)];
}

function offPlan(m: MadeHole, c: CheckContext): Finding {
  const over = m.planned!.hole.z - m.call.z;
  return finding(
    m,
    'pilot-depth',
    `the pilot goes ${c.say(Math.abs(over))} ${over > 0 ? 'deeper' : 'less deep'} than planned. Write ${c.word('Z', m.planned!.hole.z)}.`,
    over > 0 ? 'error' : 'warning',
  );
}

function drillDepth(m: MadeHole, tip: number, c: CheckContext): Finding[] {
  const v = m.view!;
  const tool = m.tool!;
  const point = pointOf(tool);
  const main = drilledStep(v);
  const own = v.steps.find((s) => s.shape === 'cylinder' && Math.abs(s.diameter - tool.diameter) < 0.02);
  const step = own ?? main;
  const full = tip - point;
  const isMain = step === main;
  const end = isMain ? v.depth : (step?.end ?? v.depth);
  if (v.through && isMain) return throughDepth(m, full - end, end + point, c);
  const pointed = v.bottom.shape === 'cone' && isMain;
  const floor =
    v.bottom.shape === 'cone' && isMain ? v.depth + pointLength(tool.diameter, v.bottom.angle) : end;
  const over = pointed ? Math.max(full - v.depth, 0) : tip - floor;
  const short = pointed ? v.depth - full : floor - tip;
  const right = c.word('Z', v.entryZ - (pointed ? v.depth + point : floor));
  const typed = isAsPlanned(m) ? ', as typed' : '';
  if (over > DEPTH_TOLERANCE)
    return [
      finding(
        m,
        'too-deep',
        `the drill goes ${c.say(over)} deeper than the hole${typed}. ${right} would be right: the ${pointed ? 'full diameter' : 'tip'} then ends ${c.say(pointed ? v.depth : floor)} below the entry.`,
      ),
    ];
  if (short > DEPTH_TOLERANCE && isMain)
    return [
      finding(
        m,
        'too-shallow',
        `the drill stops ${c.say(short)} short of the hole's depth${typed}. ${right} would be right.`,
      ),
    ];
  return [];
}

/** Past an exit by more than is planned, or not through. `past`: how far the full diameter is past it; `least`: the tip's depth to get there. */
function throughDepth(m: MadeHole, past: number, least: number, c: CheckContext): Finding[] {
  const v = m.view!;
  const typed = m.planned?.operation.parameters.find((p) => p.key === 'breakThrough')?.value;
  const planned = typeof typed === 'number' ? typed : BREAK_THROUGH;
  const right = c.word('Z', v.entryZ - least - planned);
  if (past < -DEPTH_TOLERANCE)
    return [
      finding(
        m,
        'not-through',
        `the drill's full diameter ends ${c.say(-past)} above the exit. ${right} goes through with ${c.say(planned)} of break-through.`,
        'error',
      ),
    ];
  const over = past - planned;
  if (over <= 5 * DEPTH_TOLERANCE) return [];
  return [
    finding(
      m,
      'too-far-through',
      `the drill goes ${c.say(past)} past the exit, ${c.say(over)} more than planned, into what lies below. ${right} would do.`,
      over > MUCH_BEYOND ? 'error' : 'warning',
    ),
  ];
}

function tapDepthFindings(m: MadeHole, c: CheckContext): Finding[] {
  const v = m.view!;
  const { pitch, lead } = m.tool!.thread!;
  const out: Finding[] = [];
  const start = startOfThread(v);
  const full = v.entryZ - m.call.z - start - LEAD_THREADS[lead] * pitch;
  const drilled = drillsOf(m, c).map((o) => o.call.z + pointOf(o.tool!));
  const deepest = Math.min(...drilled);
  const over = drilled.length > 0 && !v.through ? deepest + pitch - m.call.z : 0;
  if (over > DEPTH_TOLERANCE)
    out.push(
      finding(
        m,
        'tap-too-deep',
        `the tap ends ${c.say(m.call.z - deepest)} above the drill's full diameter; it needs one pitch (${c.say(pitch)}). Write ${c.word('Z', m.call.z + over)} at the lowest, or drill ${c.say(over)} deeper.`,
        'error',
      ),
    );
  const typed = m.planned?.operation.parameters.find((p) => p.key === 'threadDepth')?.value;
  const printed = m.row?.print.threadDepth;
  const through = v.through ? v.depth - start : undefined;
  const wanted = printed ?? through ?? (typeof typed === 'number' ? typed : undefined);
  if (wanted === undefined || wanted - full <= 2 * DEPTH_TOLERANCE) return out;
  const why =
    printed !== undefined
      ? `the print asks for ${c.say(wanted)}`
      : v.through
        ? `the hole goes through at ${c.say(wanted)}`
        : `${c.say(wanted)} is planned`;
  const right = c.word('Z', v.entryZ - start - wanted - LEAD_THREADS[lead] * pitch);
  out.push(
    finding(
      m,
      v.through && printed === undefined ? 'tap-not-through' : 'thread-short',
      `${toolName(m.tool!)} cuts ${c.say(Math.max(0, full))} of full thread; ${why}. ${right} would be right.`,
    ),
  );
  return out;
}

/** Flutes shorter than what they are in: below the entry, and through metal that may stand above it. */
export const flute: CheckRule = {
  rule: 'flute-length',
  run: ({ made, say, space }) =>
    deepestLines(made).flatMap((m): Finding[] => {
      const { tool, view, call } = m;
      if (!tool || !view) return [];
      const above = Math.max(
        view.entryZ,
        m.planned?.hole.metalZ ?? view.entryZ,
        space.stockOver(call.x, call.y, 0),
      );
      const deep = above - call.z - (tool.kind === 'drill' ? pointOf(tool) : 0);
      if (deep <= reachOf(tool) + DEPTH_TOLERANCE) return [];
      return [
        {
          rule: 'flute-length',
          severity: 'error',
          message: `${name(m)}: T${call.tool} goes ${say(deep)} deep into metal and has ${say(reachOf(tool))} of flute. Use one with ${say(deep)} or more.`,
          ...at(m),
        },
      ];
    }),
};
