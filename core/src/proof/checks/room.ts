import { boxOnTheWay } from '../../job/keep-out.ts';
import type { Check, CheckRule } from './check.ts';

type Finding = Omit<Check, 'setupId'>;

/** Motion through a jaw, a clamp or a keep-out box, as seen from above along the tool's lowest point. */
export const holding: CheckRule = {
  rule: 'holding',
  run: ({ read, setup, say }) => {
    const { keepOuts } = setup.frame;
    const radius = new Map(setup.operations.map((o) => [o.tool.number, Math.max(o.tool.diameter, o.tool.shankDiameter) / 2]));
    const told = new Set<number>();
    const out: Finding[] = [];
    for (const m of keepOuts.length > 0 ? read.motions : []) {
      if (m.kind === 'dwell' || told.has(m.line) || [...m.from, ...m.to].some((v) => v === null)) continue;
      // Room is what the planner keeps; only the box itself is a collision.
      const box = boxOnTheWay(keepOuts, m.from as [number, number, number], m.to as [number, number, number], radius.get(m.tool) ?? 0, 0);
      if (!box) continue;
      told.add(m.line);
      out.push({
        rule: 'holding',
        severity: 'error',
        message: `Line ${m.line}: T${m.tool} goes through ${box.name} at Z ${say(Math.min(m.from[2]!, m.to[2]!))}; its top is at ${say(box.max[2])}. Move the holding or leave the hole out.`,
        line: m.line,
      });
    }
    return out;
  },
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
