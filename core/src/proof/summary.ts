import { pointLength } from '../cutting/depths.ts';
import { toolKind } from '../tools/kinds/registry.ts';
import { isHole } from '../features/family.ts';
import { narrowest } from '../features/hole/recognise.ts';
import type { DerivedJob } from '../job/derive.ts';
import type { MadeHole } from './checks/check.ts';
import type { Check } from './checks/check.ts';
import type { MilledHole } from './milled.ts';

/** Rules whose findings are a tool in something that it is not to cut. */
const COLLISIONS = new Set([
  'low-rapid',
  'rapid-into-part',
  'into-part',
  'rapid-into-metal',
  'holder-into-metal',
  'holding',
]);

export interface ProofSummary {
  /** mm³ and mm, worked out hole by hole from the drilled depths read back; walls are exact by the tool's size. */
  overcutVolume: number;
  /** Of holes that are short or not drilled; null where something else is left that nobody can count yet. */
  leftoverVolume: number | null;
  /** What the volumes do not count, in words: metal is not simulated yet. */
  notCounted: string[];
  largestOvercut: number;
  collisions: { line?: number; message: string }[];
}

/** How the drilled holes compare with the model: metal taken beyond a floor, and metal left where a hole is short or not made. */
export function proofSummary(
  job: DerivedJob,
  programs: readonly { made: readonly MadeHole[]; milled: readonly MilledHole[] }[],
  checks: readonly Check[],
): ProofSummary {
  const made = programs.flatMap((p) => p.made);
  let [overcut, leftover, largest] = [0, 0, 0];
  const drilled = new Map<string, { over: number; area: number }>();
  for (const m of made) {
    if (!m.tool || !toolKind(m.tool.kind).drills || !m.view) continue;
    const tip = m.view.entryZ - m.call.z;
    const full = tip - pointLength(m.tool.diameter, m.tool.pointAngleDeg ?? 118);
    const over = m.view.through
      ? Math.min(0, full - m.view.depth)
      : m.view.bottom.shape === 'cone'
        ? full - m.view.depth
        : tip - m.view.depth;
    const area = (Math.PI / 4) * m.tool.diameter ** 2;
    const before = drilled.get(m.view.feature.id);
    if (!before || over > before.over) drilled.set(m.view.feature.id, { over, area });
  }
  for (const { hole, rounds, tool } of programs.flatMap((p) => p.milled)) {
    if (toolKind(tool.kind).needsHole) continue;
    const { view } = hole;
    const narrow = narrowest(view.feature);
    // Opened on a helix; a wider step alone does not make the hole.
    const own = rounds.find((r) => Math.abs(r.diameter - narrow) <= 0.05);
    if (!own || drilled.has(view.feature.id)) continue;
    const depth = view.entryZ - own.z;
    const over = view.through ? Math.min(0, depth - view.depth) : depth - view.depth;
    drilled.set(view.feature.id, { over, area: (Math.PI / 4) * own.diameter ** 2 });
  }
  for (const { over, area } of drilled.values()) {
    if (over > 1e-3) {
      overcut += over * area;
      largest = Math.max(largest, over);
    } else if (over < -1e-3) leftover -= over * area;
  }
  for (const f of job.rows.flatMap((r) => r.size.features.filter(isHole))) {
    if (!drilled.has(f.id)) leftover += (Math.PI / 4) * narrowest(f) ** 2 * f.depth;
  }
  const collisions = checks
    .filter((c) => COLLISIONS.has(c.rule))
    .map((c) => ({ line: c.line, message: c.message }));
  const notCounted = uncounted(job, made);
  return {
    overcutVolume: overcut,
    leftoverVolume: notCounted.length > 0 ? null : leftover,
    notCounted,
    largestOvercut: largest,
    collisions,
  };
}

function uncounted(job: DerivedJob, made: readonly MadeHole[]): string[] {
  const out: string[] = [];
  const rows = job.rows.filter((r) => r.notMade === 'no method yet');
  if (rows.length > 0)
    out.push(
      `metal in ${rows.map((r) => `${r.tag} (${r.size.features.length})`).join(', ')}, which no method makes yet`,
    );
  const flat = [
    ...new Set(
      made.flatMap((m) => (m.tag && m.view?.bottom.shape === 'flat' && !m.view.through ? [m.tag] : [])),
    ),
  ];
  if (flat.length > 0) out.push(`the cone that a drill leaves on a flat floor: ${flat.join(', ')}`);
  if (job.setups.some((s) => s.frame.body.standsProud)) out.push('stock that stands above the part');
  return out;
}
