import { toolKind } from './kinds/registry.ts';
import type { ShapeFault } from './kinds/kind.ts';
import { OWN_PROPERTIES, propertiesOf } from './properties.ts';
import type { Tool } from './schema.ts';

/**
 * What is wrong with a tool's shape, each with the number to look at: a neck wider than its cutter, flutes longer than the tool, a number
 * that its kind needs and does not have, or one that it cannot have. Empty where it is sound. `say` words a length, given in mm.
 */
export function shapeFaults(t: Tool, say: (mm: number) => string): ShapeFault[] {
  const spec = toolKind(t.kind);
  const out: ShapeFault[] = [];
  const fault = (field: ShapeFault['field'], message: string): void => void out.push({ field, message });
  const labels = new Map(propertiesOf(t.kind).map((p) => [p.field, p.label]));
  for (const field of spec.own.slice(0, spec.needs))
    if (t[field] === undefined) fault(field, `A ${spec.label} has a ${labels.get(field) ?? field}.`);
  for (const { field, label } of OWN_PROPERTIES)
    if (!labels.has(field) && t[field] !== undefined && t[field] !== 0)
      fault(field, `A ${spec.label} has no ${label}.`);
  if (t.fluteLength > t.overallLength)
    fault('fluteLength', `The flutes are longer than the whole tool, ${say(t.overallLength)}.`);
  if (t.stickOut > t.overallLength)
    fault('stickOut', `It cannot stand out farther than it is long, ${say(t.overallLength)}.`);
  const neck = t.neckDiameter;
  if (neck !== undefined && neck > t.diameter - 1e-6)
    fault('neckDiameter', `The neck is as wide as the cutter or wider, ${say(t.diameter)}.`);
  if (neck !== undefined && (t.neckLength ?? 0) < t.fluteLength - 1e-6)
    fault(
      'neckLength',
      `The neck ends behind the cutting part, ${say(t.fluteLength)} above the tip or higher.`,
    );
  if (neck === undefined && t.neckLength !== undefined)
    fault('neckDiameter', 'A usable length beyond the flutes needs a neck: how thick is it?');
  if (t.tipDiameter >= t.diameter - 1e-6 && t.tipDiameter > 0)
    fault('tipDiameter', `The tip is as wide as the tool, ${say(t.diameter)}, or wider.`);
  if (out.length === 0) {
    out.push(...(spec.wrong?.(t, say) ?? []));
    const end = spec.end(t);
    const high = end[end.length - 1]?.z ?? 0;
    if (out.length === 0 && high > Math.max(t.fluteLength, t.neckLength ?? 0) + 0.05)
      fault('fluteLength', `Its point alone is ${say(high)} high.`);
  }
  if (!spec.cycles.includes('tap') && t.thread) fault('thread', `A ${spec.label} has no tap's thread.`);
  if (spec.cycles.includes('tap') && !t.thread) fault('thread', 'A tap has a thread.');
  return out;
}
