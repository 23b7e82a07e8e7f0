import { at, known } from '../lists.ts';
import { planeNormal, isWall } from '../model/patches.ts';
import type { ModelNote } from '../model/solid-model.ts';
import type { RecogniseContext } from './family.ts';
import { isInPreparedStock, isOptional } from './registry.ts';
import { planFrame } from './strip/sides.ts';
import { outerLoop } from './strip/find.ts';
import { isParallel } from '../geometry/vec.ts';

/** Names what no family took and a programmer would ask about: pockets, bosses, fillets and other rounds, free-form faces. */
export function seenAndLeft(context: RecogniseContext): ModelNote[] {
  const { graph, patches, claimed } = context;
  const isFree = (p: number): boolean => at(graph.patches, p).faces.every((f) => !claimed.has(f));
  const said = new Set<number>();
  const notes: ModelNote[] = [];
  const note = (code: string, list: number[], text: string): void => {
    for (const p of list) said.add(p);
    const faces = [...new Set(list.flatMap((p) => at(graph.patches, p).faces))].sort((a, b) => a - b);
    if (faces.length > 0)
      notes.push({
        code,
        message: `${text}: faces ${faces.slice(0, 24).join(', ')}${faces.length > 24 ? ` and ${faces.length - 24} more` : ''}.`,
      });
  };
  // Sharp edges name the faces beside them, which are nobody's feature.
  const shaped = new Set(
    context.found.filter((f) => !isOptional(f) || isInPreparedStock(f)).flatMap((f) => f.faces),
  );
  const isLeft = (p: number): boolean => at(graph.patches, p).faces.every((f) => !shaped.has(f));
  note(
    'pocket',
    patches.filter((p) => isLeft(p) && isPocketFloor(context, p)).flatMap((p) => [p, ...wallsOf(context, p)]),
    'Pockets whose walls do not stand upright were seen and left',
  );
  note(
    'boss',
    patches.filter((p) => isLeft(p) && !said.has(p) && isBoss(context, p)),
    'Bosses were seen: round ones take a thread by callout, all else of them is left',
  );
  const rounds = patches.filter((p) => {
    const { surface, reversed } = at(graph.patches, p);
    return (
      isLeft(p) &&
      !said.has(p) &&
      reversed &&
      (surface.kind === 'cylinder' ||
        surface.kind === 'torus' ||
        surface.kind === 'sphere' ||
        surface.kind === 'cone')
    );
  });
  const flows = (p: number): boolean =>
    at(graph.patches, p)
      .loops.flat()
      .some((b) => b.convexity === 'smooth');
  note('fillet', rounds.filter(flows), 'Fillets and corner radii were seen and left');
  note(
    'notch',
    rounds.filter((p) => !flows(p)),
    'Hollow rounds that do not close round their axis (notches, cut-up walls) were seen and left',
  );
  const upright = patches.filter(
    (p) =>
      isLeft(p) &&
      !said.has(p) &&
      !at(graph.patches, p).reversed &&
      at(graph.patches, p).surface.kind === 'cylinder',
  );
  note(
    'outside-round',
    upright,
    'Outside corner radii and other convex rounds were seen and left: they belong to the outline',
  );
  note(
    'free-form',
    patches.filter((p) => isFree(p) && at(graph.patches, p).surface.kind === 'freeform'),
    'Free-form faces were seen and left',
  );
  return notes;
}

/** A flat floor with a wall all round it. */
function isPocketFloor(context: RecogniseContext, p: number): boolean {
  const patch = at(context.graph.patches, p);
  const d = planeNormal(patch);
  if (!d) return false;
  const outline = patch.loops[outerLoop(context, patch.loops, planFrame(d))];
  return (
    outline !== undefined &&
    outline.every(
      (b) =>
        b.convexity === 'concave' ||
        (b.convexity === 'smooth' && b.other >= 0 && at(context.graph.patches, b.other).reversed),
    )
  );
}

const wallsOf = ({ graph }: RecogniseContext, floor: number): number[] => {
  const d = known(planeNormal(at(graph.patches, floor)), 'the normal of a plane');
  return at(graph.patches, floor)
    .loops.flat()
    .flatMap((b) => (b.other >= 0 && isWall(at(graph.patches, b.other), d) ? [b.other] : []));
};

/** A round that stands up out of a face: a full convex cylinder with a foot. */
function isBoss({ graph }: RecogniseContext, p: number): boolean {
  const { surface, reversed, loops } = at(graph.patches, p);
  if (surface.kind !== 'cylinder' || reversed) return false;
  return loops.flat().some((b) => {
    if (b.other < 0 || b.convexity === 'convex') return false;
    const n = planeNormal(at(graph.patches, b.other));
    return n !== null && b.convexity === 'concave' && isParallel(n, surface.axis);
  });
}
