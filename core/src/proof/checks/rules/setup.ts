import { operationKind } from '../../../operations/registry.ts';
import { toolKind } from '../../../tools/kinds/registry.ts';
import { at, name, type CheckRule, type Finding } from '../check.ts';

/** Units and work offset of the text against the job's, and R levels that rise without a lift. */
export const unitsAndOffset: CheckRule = {
  rule: 'units-and-offset',
  run: ({ read, units, setup, made }) => {
    const out: Finding[] = [];
    if (read.units !== units)
      out.push({
        rule: 'units',
        severity: 'error',
        message: `The program is in ${read.units === 'mm' ? 'millimetres (G21)' : 'inches (G20)'}, the job in ${units === 'mm' ? 'millimetres' : 'inches'}. Write ${units === 'mm' ? 'G21' : 'G20'}.`,
      });
    const own = setup.setup.workOffset;
    for (const o of read.workOffsets)
      if (o.name !== own)
        out.push({
          rule: 'work-offset',
          severity: 'error',
          message: `Line ${o.line}: ${o.name} is not this setup's work offset. Write ${own}.`,
          line: o.line,
        });
    for (const m of made)
      if (m.call.rises)
        out.push({
          rule: 'r-rises',
          severity: 'warning',
          message: `${name(m)}: R is higher than where the tool stands, and many controls go across before they go up. Write G98 on the hole before, or lift in a line of its own.`,
          ...at(m),
        });
    return out;
  },
};

/** R this much above the plan's feeds through air all the way, mm. */
const HIGH_R = 5;

/** R far above the metal: safe, and slow. */
export const highR: CheckRule = {
  rule: 'high-r',
  run: ({ made, say, word }) =>
    made.flatMap((m): Finding[] => {
      if (!m.planned || m.call.r <= m.planned.hole.r + HIGH_R) return [];
      return [
        {
          rule: 'high-r',
          severity: 'warning',
          message: `${name(m)}: R stands ${say(m.call.r - m.planned.hole.metalZ)} above the metal, and all of it is fed through air. Write ${word('R', m.planned.hole.r)}.`,
          ...at(m),
        },
      ];
    }),
};

/** The way from end to end against the machine's travel. */
export const travel: CheckRule = {
  rule: 'travel',
  run: ({ read, job, say }) => {
    const most = job.machine.travel;
    if (!most) return [];
    return (['x', 'y', 'z'] as const).flatMap((axis, i): Finding[] => {
      let [low, high] = [Infinity, -Infinity];
      for (const m of read.motions) {
        for (const v of [m.from[i], m.to[i]]) {
          if (v === null || v === undefined) continue;
          [low, high] = [Math.min(low, v), Math.max(high, v)];
        }
      }
      if (!(high - low > most[axis])) return [];
      const message = `The program needs ${say(high - low)} along ${axis.toUpperCase()}; the machine has ${say(most[axis])}. Turn the part, or split the setup.`;
      return [{ rule: 'travel', severity: 'error', message }];
    });
  },
};

/** Numbers that the magazine does not have, and tools that are changed in for nothing. */
export const magazine: CheckRule = {
  rule: 'magazine',
  run: ({ setup, job, read, toolOf }) => {
    const out: Finding[] = [];
    for (const o of setup.operations) {
      if (o.tool.number !== null && o.tool.number > job.machine.magazineSize)
        out.push({
          rule: 'magazine-size',
          severity: 'error',
          message: `${o.tag}: T${o.tool.number} is beyond the machine's ${job.machine.magazineSize} places. Give it a lower number.`,
          tag: o.tag,
        });
    }
    read.toolChanges.forEach(({ line, tool, motions }, i) => {
      const own = read.motions.slice(motions, read.toolChanges[i + 1]?.motions);
      if (tool === 0 || !toolOf(tool) || own.some((m) => m.kind !== 'rapid')) return;
      out.push({
        rule: 'idle-tool',
        severity: 'warning',
        message: `Line ${line}: T${tool} is changed in and cuts nothing. Take it out.`,
        line,
      });
    });
    return out;
  },
};

/** A hole where the part has none. */
export const noHole: CheckRule = {
  rule: 'no-hole-there',
  run: ({ made, say, holes, entryHoles }) =>
    made
      .filter((m) => !m.view && !entryHoles.has(m.call.line))
      .map((m) => {
        const { line, cycle, x, y } = m.call;
        let near: { label: string; x: number; y: number } | null = null;
        for (const { view } of holes)
          if (!near || Math.hypot(view.x - x, view.y - y) < Math.hypot(near.x - x, near.y - y)) near = view;
        const mend = near
          ? `The nearest is ${near.label} at X ${say(near.x)} Y ${say(near.y)}.`
          : 'Check the position and the work zero.';
        return {
          rule: 'no-hole-there',
          severity: 'error' as const,
          message: `Line ${line}: ${cycle} at X ${say(x)} Y ${say(y)}, where the part has no hole. ${mend}`,
          ...at(m),
        };
      }),
};

/** Planned and not in the text. */
export const coverage: CheckRule = {
  rule: 'coverage',
  run: ({
    job,
    setup,
    made,
    milled,
    milledBosses,
    milledGrooves,
    entryHoles,
    milledAreas,
    milledEdges,
    milledRises,
  }) => {
    const done = new Set([
      ...made.flatMap((m) => (m.view && m.tool ? [`${m.view.label}/${m.tool.id}`] : [])),
      ...milled.map((m) => `${m.hole.view.label}/${m.tool.id}`),
      ...milledBosses.map((m) => `${m.boss.view.label}/${m.tool.id}`),
      ...[...entryHoles.values()].map((d) => `${d.label}/${d.tool.id}`),
      ...milledGrooves.map((m) => `${m.groove.view.label}/${m.tool.id}`),
      ...milledAreas.map((m) => `${m.area.view.label}/${m.tool.id}`),
      ...milledEdges.map((m) => `${m.work.label}/${m.tool.id}`),
      ...milledRises.map((m) => `${m.work.label}/${m.tool.id}`),
    ]);
    const missing = setup.operations.flatMap((o) =>
      o.work
        .filter((h) => !done.has(`${h.label}/${o.tool.id}`))
        .map((h): Finding => {
          const what = `${operationKind(o.kind).label} with T${o.tool.number} (${toolKind(o.tool.kind).label})`;
          return {
            rule: 'not-in-program',
            severity: 'error',
            message: `${h.label}: planned to ${what}, but the program has no line for it. Add it, or leave it out.`,
            tag: o.tag,
            feature: h.feature,
          };
        }),
    );
    const none: Finding = {
      rule: 'no-features',
      severity: 'note',
      message: 'No hole was found in the part.',
    };
    return job.rows.length === 0 ? [...missing, none] : missing;
  },
};
