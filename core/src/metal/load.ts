import { length2 } from '../geometry/path.ts';
import type { Motion } from '../code/read/motion.ts';
import { fullWidthCut, type Material } from '../cutting/material.ts';
import { arcSweep } from '../geometry/arc.ts';
import type { Check } from '../proof/checks/check.ts';
import { toolKind } from '../tools/kinds/registry.ts';
import type { Tool } from '../tools/schema.ts';
import type { Telling } from './findings.ts';

/** A way straight down that takes more than its whole face to this depth is a plunge, mm; less is what rounding left. */
const PLUNGE_DEPTH = 0.2;
/** Of a full-width ramp's wedge: less metal than this on a falling way is none to speak of. */
const RAMP_SHARE = 0.25;
/** Cross-section of what is taken, of the square of the cutter's diameter. */
const LITTLE = 0.02;
/** Rounding of the code may make a ramp this much steeper, and a short one fall so much more, mm. */
const STEEP = 1.05;
const ROUNDED = 0.0011;
/** Times the usual depth of a full-width cut beyond which it is looked at, and is a slip. */
const DEEP = { look: 1.3, slip: 2 };
/** Shorter ways, of the cutter, say nothing of how much is cut at once. */
const LEAST_WAY = 0.25;

/** What a motion asks of its cutter beyond what that can do. */
export interface Overload {
  rule: 'plunges' | 'ramp-too-steep' | 'full-width-too-deep';
  severity: Check['severity'];
  /** What it does, and the mend, without line and tool. */
  what: string;
}

/**
 * What is too much for a mill in one motion that took `took` mm³: straight down into the solid, down a ramp that is steeper than it can, or
 * through more at once than a cut as wide as itself of twice the usual depth. Null where nothing is.
 */
export function overload(
  m: Motion,
  took: number,
  tool: Tool,
  material: Material,
  say: (mm: number) => string,
): Overload | null {
  const kind = toolKind(tool.kind);
  const [x0, y0, z0] = m.from;
  const [x1, y1, z1] = m.to;
  if ((m.kind !== 'feed' && m.kind !== 'arc') || m.how !== undefined || kind.onlyPlunges || kind.onEdges)
    return null;
  if (x0 === null || y0 === null || z0 === null || x1 === null || y1 === null || z1 === null) return null;
  const fall = z0 - z1;
  const way = wayInPlan(m, [x0, y0], [x1, y1]);
  const { diameter } = tool;
  // What only cuts on its side cannot go down into metal at all.
  const limit = kind.needsHole ? 0 : (tool.rampAngleDeg ?? 90);
  if (way < 1e-6) {
    const face = (Math.PI * diameter * diameter) / 4;
    if (limit >= 90 || fall <= 0 || took < PLUNGE_DEPTH * face) return null;
    return {
      rule: 'plunges',
      severity: 'error',
      what: 'is fed straight down into metal, and must not plunge. Go in down a ramp, on a helix, or into a hole drilled before.',
    };
  }
  if (fall > 1e-4) {
    // So little is taken by a side that goes along an edge, not by a face that goes into metal.
    if (took < LITTLE * diameter * diameter * way) return null;
    const angle = (Math.atan(fall / way) * 180) / Math.PI;
    const least = (Math.atan(Math.max(0, fall - ROUNDED) / way) * 180) / Math.PI;
    if (least <= limit * STEEP || took < (RAMP_SHARE * diameter * way * fall) / 2 || kind.cutsThreads)
      return null;
    return {
      rule: 'ramp-too-steep',
      severity: 'error',
      what: `falls at ${angle.toFixed(1)}\u00b0 into metal, and goes in at ${limit}\u00b0 at most. Take less a pass: ${say(way * Math.tan((limit * Math.PI) / 180))} on this way.`,
    };
  }
  if (Math.abs(fall) > 1e-4 || way < LEAST_WAY * diameter || kind.cutsThreads) return null;
  const usual = fullWidthCut(material, tool).depth;
  const share = took / way / (diameter * usual);
  if (share <= DEEP.look) return null;
  return {
    rule: 'full-width-too-deep',
    severity: share > DEEP.slip ? 'error' : 'warning',
    what: `takes ${(took / way).toFixed(1)} mm\u00b2 at once, as much as a cut of its whole width ${say(share * usual)} deep; ${say(usual)} is usual in ${material.name}. Take less a pass.`,
  };
}

/** How long a motion is, seen from above, mm; of several turns at one level once round. */
function wayInPlan(m: Motion, from: readonly [number, number], to: readonly [number, number]): number {
  if (m.kind !== 'arc' || !m.centre) return length2(to[0] - from[0], to[1] - from[1]);
  const [cx, cy] = m.centre;
  const r = length2(from[0] - cx, from[1] - cy);
  const isLevel = m.from[2] === m.to[2];
  const turns = isLevel ? Math.min(1, m.turns ?? 0) : (m.turns ?? 0);
  return (
    r *
    Math.abs(
      arcSweep(
        Math.atan2(from[1] - cy, from[0] - cx),
        Math.atan2(to[1] - cy, to[0] - cx),
        m.clockwise === true,
        turns,
      ),
    )
  );
}

/** Gathers what motions ask too much of their cutters: one finding for each tool and rule, at its first line. */
export class Loads {
  private readonly first = new Map<string, { line: number; count: number; tool: Tool; load: Overload }>();

  constructor(
    private readonly input: Telling,
    private readonly setupId: string,
  ) {}

  add(m: Motion, took: number): void {
    if (took <= 0) return;
    const { job, tools, say } = this.input;
    const tool = tools.find((t) => t.number === m.tool);
    const load = tool && overload(m, took, tool, job.material, say);
    if (!load) return;
    const key = `${m.tool}/${load.rule}/${load.severity}`;
    const known = this.first.get(key);
    if (known) known.count++;
    else this.first.set(key, { line: m.line, count: 1, tool, load });
  }

  checks(): Check[] {
    return [...this.first.values()].map(({ line, count, tool, load }) => ({
      rule: load.rule,
      severity: load.severity,
      message: `line ${line}${count > 1 ? ` and ${count - 1} more` : ''}: T${tool.number} ${tool.description} ${load.what}`,
      setupId: this.setupId,
      line,
    }));
  }
}
