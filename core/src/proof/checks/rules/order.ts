import { mainLine } from '../../../code/read/motion.ts';
import { toolKind } from '../../../tools/kinds/registry.ts';
import {
  at,
  name,
  toolName,
  type CheckContext,
  type CheckRule,
  type Finding,
  type MadeHole,
} from '../check.ts';

/** What needs a hole before the hole is there, and spots after it. */
export const order: CheckRule = {
  rule: 'order',
  run: (c) => {
    // The line in which a hole is first opened: drilled, or milled on a helix.
    const drilled = new Map<string, number>();
    const opens = (feature: string, line: number): void =>
      void drilled.set(feature, Math.min(line, drilled.get(feature) ?? Infinity));
    for (const m of c.made)
      if (m.view && m.tool && toolKind(m.tool.kind).drills) opens(m.view.feature.id, mainLine(m.call));
    for (const { hole, rounds, tool } of c.milled)
      if (!toolKind(tool.kind).needsHole) for (const r of rounds) opens(hole.view.feature.id, r.line);
    const told = new Set<string>();
    const tooSoon = c.milled.flatMap(({ hole: { view, row }, rounds, tool }): Finding[] => {
      const line = Math.min(...rounds.map((r) => r.line));
      const opened = drilled.get(view.feature.id);
      if (!toolKind(tool.kind).needsHole || opened === undefined || opened < line) return [];
      return [
        {
          rule: 'before-its-hole',
          severity: 'error',
          message: `${view.label}, line ${line}: ${toolName(tool)} comes before the hole is opened in line ${opened}. Put it after.`,
          line,
          tag: row.tag,
          feature: view.feature.id,
        },
      ];
    });
    const plunged = c.made.flatMap((m): Finding[] => {
      const key = `${m.view?.feature.id}/${m.tool?.id}`;
      if (!m.view || told.has(key)) return [];
      const found = outOfOrder(m, drilled.get(m.view.feature.id), c);
      if (found) told.add(key);
      return found ? [found] : [];
    });
    return [...tooSoon, ...plunged];
  },
};

function outOfOrder(m: MadeHole, opened: number | undefined, c: CheckContext): Finding | null {
  const { view, tool, row } = m;
  if (!view || !tool) return null;
  const isAfter = opened !== undefined && opened < mainLine(m.call);
  const error = (rule: string, what: string): Finding => ({
    rule,
    severity: 'error',
    message: `${name(m)}: ${toolName(tool)} ${what}`,
    ...at(m),
  });
  if (toolKind(tool.kind).spots && isAfter)
    return error(
      'spot-after-drill',
      `comes after the hole is opened in line ${opened}: there is nothing left to spot. Put it before, or take it out.`,
    );
  if (!toolKind(tool.kind).needsHole || isAfter) return null;
  if (opened !== undefined)
    return error('before-its-hole', `comes before the hole is opened in line ${opened}. Put it after.`);
  const own = c.job.setups.findIndex((s) => s.setup.id === c.setup.setup.id);
  const earlier = new Set(c.job.setups.slice(0, own).map((s) => s.setup.id));
  const isOpen =
    c.madeEarlier.has(view.feature.id) ||
    row?.operations.some((o) => earlier.has(o.setupId) && o.opens !== undefined);
  return isOpen
    ? null
    : error(`${tool.kind}-without-hole`, 'goes into a hole that is not drilled before. Add the drill.');
}

/** One tool in one hole twice, without going deeper the second time. */
export const twice: CheckRule = {
  rule: 'done-twice',
  run: ({ made }) => {
    const seen = new Map<string, MadeHole>();
    return made.flatMap((m): Finding[] => {
      if (!m.view || !m.tool) return [];
      const key = `${m.view.feature.id}/${m.tool.id}`;
      const before = seen.get(key);
      seen.set(key, m);
      if (!before || before.call.z > m.call.z + 0.05) return [];
      return [
        {
          rule: 'done-twice',
          severity: 'error',
          message: `${name(m)}: the ${toolKind(m.tool.kind).label} comes here a second time (first in line ${before.call.line}). Take one out.`,
          ...at(m),
        },
      ];
    });
  },
};
