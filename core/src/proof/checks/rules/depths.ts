import { mainLine } from '../../../code/read/motion.ts';
import { pointLength } from '../../../cutting/depths.ts';
import { reachOf } from '../../../tools/find.ts';
import { USUAL_POINT } from '../../../tools/kinds/drill.ts';
import { toolKind } from '../../../tools/kinds/registry.ts';
import { stockBefore } from '../../areas/stock.ts';
import { at, deepestLines, DEPTH_TOLERANCE, name, type CheckRule, type Finding } from '../check.ts';
import { DEPTH_CHECKS } from '../depths/registry.ts';

/** Every depth in the text against the hole that is to be made. */
export const depths: CheckRule = {
  rule: 'depth',
  run: (c) =>
    deepestLines(c.made).flatMap((m) => {
      const { view, tool } = m;
      return view && tool
        ? DEPTH_CHECKS[tool.kind]({ ...m, view, tool, tip: view.entryZ - m.call.z }, c)
        : [];
    }),
};

/** Flutes shorter than what they are in: below the entry, and through metal that may stand above it. */
export const flute: CheckRule = {
  rule: 'flute-length',
  run: (c) =>
    deepestLines(c.made).flatMap((m): Finding[] => {
      const { tool, view, call } = m;
      if (!tool || !view) return [];
      const above = Math.max(
        view.entryZ,
        m.planned?.hole.metalZ ?? view.entryZ,
        stockBefore(c, call.x, call.y, mainLine(call)),
      );
      const deep =
        above -
        call.z -
        (toolKind(tool.kind).drills ? pointLength(tool.diameter, tool.pointAngleDeg ?? USUAL_POINT) : 0);
      if (deep <= reachOf(tool) + DEPTH_TOLERANCE) return [];
      return [
        {
          rule: 'flute-length',
          severity: 'error',
          message: `${name(m)}: T${call.tool} goes ${c.say(deep)} deep into metal and has ${c.say(reachOf(tool))} of flute. Use one with ${c.say(deep)} or more.`,
          ...at(m),
        },
      ];
    }),
};
