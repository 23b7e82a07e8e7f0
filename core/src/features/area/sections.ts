import { at } from '../../lists.ts';
import { dot, isParallel } from '../../geometry/vec.ts';
import { isArcAbout } from '../../model/circle-edge.ts';
import { planeNormal, type Patch } from '../../model/patches.ts';
import { once, type RecogniseContext } from '../family.ts';
import { planFrame } from '../strip/sides.ts';
import { takenFaces } from './floors.ts';
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

/** A bore that stands upright between level circles: whatever level it is cut at, the cut is a circle that nothing else is part of. */
const isRoundByItself = ({ model, main }: RecogniseContext, { surface, loops }: Patch): boolean =>
  (surface.kind === 'cylinder' || surface.kind === 'cone') &&
  isParallel(surface.axis, main) &&
  loops.flat().every(({ edge }) => isArcAbout(at(model.edges, edge), surface.origin, surface.axis));

/**
 * Cuts of a solid half-way between its level planes, from the highest down; worked out once for all families. Round bores that are holes
 * already are not in them.
 */
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
    const taken = takenFaces(context);
    const isLeftOut = graph.patches.map(
      (p) => p.reversed && p.faces.every((f) => taken.has(f)) && isRoundByItself(context, p),
    );
    const sections = new Sections(mesh, graph, planFrame(main), isLeftOut);
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
