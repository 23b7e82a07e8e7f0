import { at } from '../../lists.ts';
import { dot, isParallel } from '../../geometry/vec.ts';
import { planeNormal } from '../../model/patches.ts';
import { once, type RecogniseContext } from '../family.ts';
import { planFrame } from '../strip/sides.ts';
import { Sections, type CutLoop } from '../../model/section.ts';

/** Levels of planes that are one, and the least height between two that is looked at, mm. */
const SAME_LEVEL = 0.02;
/** Cuts that are made of one solid: of more levels the highest stretches count. */
const MOST = 40;

/** A cut through a solid square to the direction that is up. */
export interface LevelCut {
  level: number;
  loops: CutLoop[];
}

/** Cuts of a solid half-way between its level planes, from the highest down; worked out once for all families. */
export const cutsThrough = (context: RecogniseContext): LevelCut[] =>
  once(context, 'cuts', () => {
    const { model, graph, patches, main, mesh } = context;
    const levels = new Set<number>();
    for (const p of patches) {
      const { loops } = at(graph.patches, p);
      const n = planeNormal(at(graph.patches, p));
      const edge = loops[0]?.[0]?.edge;
      if (!n || !isParallel(n, main) || edge === undefined) continue;
      levels.add(Math.round(dot(at(at(model.edges, edge).points, 0), main) / SAME_LEVEL) * SAME_LEVEL);
    }
    const sorted = [...levels].sort((a, b) => b - a);
    const sections = new Sections(mesh, graph, planFrame(main));
    return sorted
      .slice(1)
      .map((low, i) => ({ low, high: at(sorted, i) }))
      .sort((a, b) => b.high - b.low - (a.high - a.low))
      .slice(0, MOST)
      .sort((a, b) => b.high - a.high)
      .map(({ low, high }) => {
        // Off the middle, where no corner of the mesh is likely to lie.
        const level = low + 0.5137 * (high - low);
        return { level, loops: sections.at(level) };
      });
  });
