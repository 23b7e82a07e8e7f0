import { cornerRadius } from '../../features/area/rings.ts';
import { first } from '../../lists.ts';
import type { Tool } from '../../tools/schema.ts';
import { Parameters, type KindContext, type PlanResult, type Remark } from '../kind.ts';
import { clearArea, type AreaAsked, type Cleared } from './clear-area.ts';
import { askDeep, chooseCutter } from './cutter.ts';
import { CORNERS, ENTRIES, ROUGHING, sharpCorner } from './numbers.ts';
import { planFirst, planPasses, type Found } from './planned.ts';
import { wallsOf } from './walls.ts';
import { widerThan } from './wider.ts';

const allOf = ({ tool, others }: Found): Tool[] => [tool, ...others];

/** How a closed area is gone into; by the hole that is drilled before there is nothing to choose. */
function askEntry(c: KindContext, parameters: Parameters): (typeof ENTRIES)[number] {
  if (c.opened === 0) return parameters.choice('entry', 'goes down', ENTRIES, first(ENTRIES), 'method');
  parameters.shown('entry', 'goes down', `in the hole of ⌀${c.say(c.opened)}`);
  return first(ENTRIES);
}

/** Plans the clearing of pockets and steps, layer by layer, and the finish of their walls. */
export function planArea(c: KindContext): PlanResult {
  const view = first(c.areas);
  const corner = cornerRadius(wallsOf(view.shape));
  const isClosed = view.shape.side === 'closed';
  const ask = (): { parameters: Parameters; asked: AreaAsked; isAll: boolean } => {
    const parameters = new Parameters(c);
    const deep = askDeep(view, parameters);
    const isNarrow =
      isClosed &&
      parameters.choice('rough', 'roughing', ROUGHING, first(ROUGHING), 'method') !== first(ROUGHING);
    const isHelix = isNarrow || (isClosed && askEntry(c, parameters) === 'helix');
    const asked = { ...deep, corner, isHelix, isNarrow };
    if (corner === null) return { parameters, asked, isAll: true };
    parameters.derived('corner', 'smallest corner', corner, 'in the model', 'model');
    const by = parameters.choice('corners', 'corners', CORNERS, first(CORNERS), 'method');
    return { parameters, asked, isAll: by !== first(CORNERS) };
  };
  const { asked, isAll } = ask();
  const found = chooseCutter(c, asked);
  if ('missing' in found) return found;
  const isChosen = found.tool.id === c.chosen;
  const wider = isAll || isChosen ? null : widerThan(c, found.tool, asked);
  const withTools = (tools: Found, isWide: boolean): PlanResult => {
    const remarks: Remark[] = corner === 0 && !isWide ? [sharpCorner(c, view.label, tools.tool)] : [];
    const done: Cleared[] = [];
    const made = planPasses(
      c,
      ask().parameters,
      tools,
      (v, way) => clearArea(c, v, tools.tool, asked, way, done),
      { remarks, isNarrow: asked.isNarrow },
    );
    // All of it stands open down to where this went, whatever hole there was before.
    return 'tool' in made ? { ...made, opens: Math.max(tools.tool.diameter, c.opened) } : made;
  };
  if (wider) {
    const made = planFirst(c, wider, (tools) => withTools(tools, true));
    if ('tool' in made) {
      // Whoever wants the narrow one for all of it may choose it.
      c.fits?.([...allOf(wider), ...allOf(found)]);
      return made;
    }
  }
  return planFirst(c, found, (tools) => withTools(tools, false));
}
