import { pointLength } from '../cutting/depths.ts';
import { isHole } from '../features/family.ts';
import { narrowest } from '../features/hole/recognise.ts';
import type { DerivedJob } from '../job/derive.ts';
import type { MadeHole } from './checks/check.ts';
import type { Check } from './checks/check.ts';

export interface ProofSummary {
  /** mm³ and mm, worked out hole by hole from the drilled depths read back; walls are exact by the tool's size. */
  overcutVolume: number;
  leftoverVolume: number;
  largestOvercut: number;
  collisions: { line?: number; message: string }[];
}

/** How the drilled holes compare with the model: metal taken beyond a floor, and metal left where a hole is short or not made. */
export function proofSummary(job: DerivedJob, made: MadeHole[], checks: Check[]): ProofSummary {
  let [overcut, leftover, largest] = [0, 0, 0];
  const drilled = new Map<string, { over: number; area: number }>();
  for (const m of made) {
    if (m.tool?.kind !== 'drill' || !m.view) continue;
    const tip = m.view.entryZ - m.call.z;
    const full = tip - pointLength(m.tool.diameter, m.tool.pointAngleDeg ?? 118);
    const over = m.view.through ? Math.min(0, full - m.view.depth) : m.view.bottom.shape === 'cone' ? full - m.view.depth : tip - m.view.depth;
    const area = (Math.PI / 4) * m.tool.diameter ** 2;
    const before = drilled.get(m.view.feature.id);
    if (!before || over > before.over) drilled.set(m.view.feature.id, { over, area });
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
  const collisions = checks.filter((c) => c.rule === 'low-rapid').map((c) => ({ line: c.line, message: c.message }));
  return { overcutVolume: overcut, leftoverVolume: leftover, largestOvercut: largest, collisions };
}
