import { at, first } from '../../lists.ts';
import {
  distance2,
  isSameCarrier,
  joinSegments,
  pathLength,
  reverseSegment,
  type Segment,
} from '../../geometry/path.ts';
import { scale } from '../../geometry/vec.ts';
import { extentAlong } from '../../model/patches.ts';
import type { ModelNote } from '../../model/solid-model.ts';
import type { FeatureFamily, Found, Recognised, RecogniseContext } from '../family.ts';
import { pieceAt, takenFaces } from '../area/floors.ts';
import { cornerRadius, reachAlong } from '../area/rings.ts';
import type { CutLoop } from '../../model/section.ts';
import { cutsThrough } from '../area/sections.ts';
import { areaShape } from '../area/shape.ts';
import { borderCurves, IN_PREPARED_STOCK } from '../area/words.ts';
import { round, roundVec } from '../round.ts';
import { directionPart, sizePart } from '../sizes.ts';
import { fromPlan, planFrame } from '../strip/sides.ts';
import type { OutlineFeature } from './schema.ts';

/** An outline that is narrower than the part by more is not the whole of it, mm. */
const WHOLE = 0.02;

export const outlineFamily: FeatureFamily<'outline'> = {
  family: 'outline',
  prefix: 'O',
  optional: IN_PREPARED_STOCK,
  isInPreparedStock: true,
  recognise: recogniseOutline,
  place: (f) => f.at,
  group: () => 'Outlines',
  sizeKey: (f) => ['outline', directionPart(f.axis), sizePart(f.length), sizePart(f.height)].join('|'),
  describe: (f, say) =>
    `${say(f.length)} round, ${say(f.height)} high${f.cornerRadius === null ? '' : `, R${say(f.cornerRadius)}`}`,
  sortBy: (f) => f.length,
  isOpenBelow: () => true,
  curves: borderCurves,
  area: (f, frame) => areaShape(f, frame, { side: 'outside', depth: f.height, isTopAt: true, through: true }),
};

interface Wall {
  segment: Segment;
  patch: number;
}

/** The widest cut through the part, where all of it is upright. */
function recogniseOutline(context: RecogniseContext): Recognised<OutlineFeature> {
  const cuts = cutsThrough(context);
  const outside = cuts.flatMap(({ loops }) => loops.filter((l) => l.area > 0));
  if (outside.length === 0) return { features: [], notes: [] };
  const widest = outside.reduce((a, b) => (b.area > a.area + 1e-6 ? b : a));
  const why = whyNone(context, widest, outside);
  if (why !== null) {
    const note: ModelNote = {
      code: 'outline',
      message: `The part's outline was seen and left: ${why}.`,
    };
    return { features: [], notes: [note] };
  }
  const walls = wholeWalls(context, widest);
  return { features: walls.length > 0 ? [outlineOf(context, walls)] : [], notes: [] };
}

function whyNone(context: RecogniseContext, loop: CutLoop, all: readonly CutLoop[]): string | null {
  const { graph } = context;
  const slanted = loop.pieces.filter((p) => !p.segment && !isTaken(context, p.patch));
  if (slanted.length > 0)
    return `faces ${slanted
      .flatMap((p) => at(graph.patches, p.patch).faces)
      .slice(0, 24)
      .join(', ')} of its walls do not stand upright`;
  const box = boxOf([loop]);
  const whole = boxOf(all);
  return whole.some((v, i) => Math.abs(v - at(box, i)) > WHOLE)
    ? 'no one level of it is as wide as the whole part'
    : null;
}

function boxOf(loops: readonly CutLoop[]): number[] {
  const pieces = loops.flatMap((l) =>
    l.pieces.map((p): Segment => p.segment ?? { kind: 'line', from: p.from, to: p.to }),
  );
  const [x, y] = [reachAlong(pieces, [1, 0]), reachAlong(pieces, [0, 1])];
  return [x[0], y[0], x[1], y[1]];
}

/** Another family's: a mouth in the outline that is no part of it. */
const isTaken = (context: RecogniseContext, patch: number): boolean =>
  at(context.graph.patches, patch).faces.every((f) => takenFaces(context).has(f));

/** The walls of a cut without the mouths of slots and grooves, which are bridged, with the air on their left. */
function wholeWalls(context: RecogniseContext, loop: CutLoop): Wall[] {
  const walls = [...loop.pieces]
    .reverse()
    .flatMap((p): Wall[] =>
      p.segment && !isTaken(context, p.patch) ? [{ segment: reverseSegment(p.segment), patch: p.patch }] : [],
    );
  const out: Wall[] = [];
  const add = (w: Wall): void => {
    const before = out[out.length - 1];
    if (before && isSameCarrier(before.segment, w.segment)) {
      before.segment = joinSegments(before.segment, w.segment);
      return;
    }
    if (before && distance2(before.segment.to, w.segment.from) > WHOLE) out.push(bridge(before, w));
    out.push(w);
  };
  for (const w of walls) add(w);
  const [a, b] = [out[0], out[out.length - 1]];
  if (a && b && a !== b) {
    if (isSameCarrier(b.segment, a.segment)) {
      a.segment = joinSegments(b.segment, a.segment);
      out.pop();
    } else if (distance2(b.segment.to, a.segment.from) > WHOLE) out.push(bridge(b, a));
  }
  return out;
}

const bridge = (a: Wall, b: Wall): Wall => ({
  segment: { kind: 'line', from: a.segment.to, to: b.segment.from },
  patch: a.patch,
});

function outlineOf(
  { model, graph, solid, main }: RecogniseContext,
  walls: readonly Wall[],
): Found<OutlineFeature> {
  const frame = planFrame(main);
  const patches = [...new Set(walls.map((w) => w.patch))];
  const extents = patches.map((p) => extentAlong(model, at(graph.patches, p), main));
  const [bottom, top] = [Math.min(...extents.map((e) => e[0])), Math.max(...extents.map((e) => e[1]))];
  const path = walls.map((w) => w.segment);
  const corner = cornerRadius([{ walls: path, closed: true }]);
  const start = first(path);
  return {
    family: 'outline',
    solid,
    faces: patches.flatMap((p) => at(graph.patches, p).faces).sort((a, b) => a - b),
    // Nothing of a part stands beside the widest of it.
    reachableFrom: [roundVec(main), roundVec(scale(main, -1))],
    axis: roundVec(main),
    at: roundVec(fromPlan(frame, start.from, top)),
    borders: [path.map((segment) => ({ piece: pieceAt(frame, segment, bottom), isWall: true }))],
    length: round(pathLength(path)),
    height: round(top - bottom),
    cornerRadius: corner === null ? null : round(corner),
  };
}
