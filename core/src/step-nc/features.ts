import { fromFrame, type Frame } from '../geometry/frame.ts';
import type { Segment, Vec2 } from '../geometry/path.ts';
import { first, last } from '../lists.ts';
import type { AreaView } from '../operations/area-view.ts';
import type { GrooveView } from '../operations/groove-view.ts';
import type { HoleView, PlacedStep } from '../operations/hole-view.ts';
import type { AreaShape } from '../features/area/shape.ts';
import { bottomOf, topOf, type GrooveShape } from '../features/groove-shape.ts';
import type { HoleBottom } from '../features/hole/schema.ts';
import { minorDiameter, pitchDiameter, type Thread } from '../threads/thread.ts';
import { TRUE, type Ref } from '../part21/value.ts';
import type { GeometryWriter } from './geometry.ts';

/** What all features of a setup share: the workpiece, and where its program coordinates lie in it. */
export interface FeatureContext {
  w: GeometryWriter;
  workpiece: Ref;
  frame: Frame;
}

/** One feature of ISO 14649-10 with the operations on it, which are known when it is written. */
export type WriteFeature = (operations: Ref[]) => Ref;

/** Where a place in program coordinates lies on the workpiece, axes along the setup's. */
function placeAt({ w, frame }: FeatureContext, name: string, x: number, y: number, z: number): Ref {
  return w.placement(name, { ...frame, origin: fromFrame(frame, [x, y, z]) });
}

/** A hole: one ROUND_HOLE, or a COMPOUND_FEATURE of those that make it up from its entry down; its thread last. */
export function holeFeature(c: FeatureContext, hole: HoleView, thread: Thread | null): WriteFeature {
  const { w, workpiece } = c;
  return (operations) => {
    const steps = [...hole.steps, ...hole.farSteps].filter((s) => s.length > 0);
    const deepest = last(steps);
    const parts = steps.map((s, i) =>
      w.add(
        'ROUND_HOLE',
        steps.length === 1 && !thread ? hole.label : `${hole.label}.${i + 1}`,
        workpiece,
        steps.length === 1 && !thread ? operations : [],
        placeAt(c, hole.label, hole.x, hole.y, hole.entryZ - s.top),
        w.levelPlane('bottom', -s.length),
        w.length(widthAtTop(s)),
        s.shape === 'cone' ? w.add('DIAMETER_TAPER', w.length(s.endDiameter)) : null,
        s === deepest ? holeBottom(w, hole.bottom) : w.add('THROUGH_BOTTOM_CONDITION'),
      ),
    );
    if (thread) parts.push(threadFeature(c, hole, thread));
    if (parts.length === 1) return first(parts);
    return w.add(
      'COMPOUND_FEATURE',
      hole.label,
      workpiece,
      operations,
      placeAt(c, hole.label, hole.x, hole.y, hole.entryZ),
      parts,
    );
  };
}

const widthAtTop = (s: PlacedStep): number => (s.shape === 'cone' ? s.startDiameter : s.diameter);

function holeBottom(w: GeometryWriter, bottom: HoleBottom): Ref {
  const by: { [K in HoleBottom['shape']]: () => Ref } = {
    open: () => w.add('THROUGH_BOTTOM_CONDITION'),
    flat: () => w.add('FLAT_HOLE_BOTTOM'),
    cone: () => w.add('CONICAL_HOLE_BOTTOM', (('angle' in bottom ? bottom.angle : 0) * Math.PI) / 180, null),
    ball: () => w.add('SPHERICAL_HOLE_BOTTOM'),
    // The standard has no word for what is not understood: no form is claimed.
    unknown: () => w.add('HOLE_BOTTOM_CONDITION'),
  };
  return by[bottom.shape]();
}

function threadFeature(c: FeatureContext, hole: HoleView, t: Thread): Ref {
  const { w, workpiece } = c;
  return w.add(
    'DEFINED_THREAD',
    `${hole.label} ${t.designation}`,
    workpiece,
    [],
    placeAt(c, t.designation, hole.x, hole.y, hole.entryZ),
    w.levelPlane('bottom', -hole.depth),
    w.add('PARTIAL_AREA_DEFINITION', hole.depth, w.placement('', { ...c.frame, origin: [0, 0, 0] }), null),
    [],
    TRUE,
    null,
    w.add('DESCRIPTIVE_PARAMETER', 'fit class', t.toleranceClass ?? 'not stated'),
    w.add('DESCRIPTIVE_PARAMETER', 'form', t.form),
    t.majorDiameter,
    w.add('NUMERIC_PARAMETER', 'threads per mm', 1 / t.pitch, '1/mm'),
    w.add('DESCRIPTIVE_PARAMETER', 'hand', t.hand),
    w.length(pitchDiameter(t.majorDiameter, t.pitch)),
    w.length(minorDiameter(t.majorDiameter, t.pitch)),
    null,
  );
}

/** A slot or groove: its section swept along its middle line. */
export function grooveFeature(c: FeatureContext, groove: GrooveView): WriteFeature {
  const { w, workpiece } = c;
  const { shape } = groove;
  return (operations) => {
    const top = topOf(shape);
    return w.add(
      'SLOT',
      groove.label,
      workpiece,
      operations,
      placeAt(c, groove.label, 0, 0, top),
      w.levelPlane('floor', bottomOf(shape) - top),
      w.add('GENERAL_PATH', null, w.path(shape.path, 0)),
      section(w, shape),
      shape.closed
        ? []
        : shape.ends.map((e) => w.add(e.open ? 'OPEN_SLOT_END_TYPE' : 'RADIUSED_SLOT_END_TYPE')),
    );
  };
}

/** A plain section by its width, any other by its corners from the upper left to the upper right. */
function section(w: GeometryWriter, shape: GrooveShape): Ref {
  const top = topOf(shape);
  const [level] = shape.levels;
  if (shape.levels.length === 1 && level && level.halfTop === level.halfBottom && !shape.isOneSided)
    return w.add(
      'SQUARE_U_PROFILE',
      null,
      w.length(2 * level.halfTop),
      corner(w, shape),
      0,
      corner(w, shape),
      0,
    );
  const right = shape.levels.flatMap((l): Vec2[] => [
    [l.halfTop, l.top - top],
    [l.halfBottom, l.bottom - top],
  ]);
  const left = right.map(([x, z]): Vec2 => [shape.isOneSided ? 0 : -x, z]);
  return w.add(
    'GENERAL_PROFILE',
    null,
    w.add(
      'POLYLINE',
      '',
      [...left, ...right.reverse()].map(([x, z]) => w.point([x, 0, z])),
    ),
  );
}

const corner = (w: GeometryWriter, { floorRadius }: { floorRadius: number }): Ref | null =>
  floorRadius > 0 ? w.length(floorRadius) : null;

/** A pocket, step, outline or face, by where its walls stand. */
export function areaFeature(c: FeatureContext, area: AreaView): WriteFeature {
  return (operations) => AREAS[area.shape.side](c, area, operations);
}

const ringOf = (shape: AreaShape): Segment[] => (shape.rings[0] ?? []).map((e) => e.segment);

type WriteArea = (c: FeatureContext, area: AreaView, operations: Ref[]) => Ref;
const AREAS: { readonly [S in AreaShape['side']]: WriteArea } = {
  closed: (c, area, operations) => {
    const { w } = c;
    return w.add(
      'CLOSED_POCKET',
      ...pocketHead(c, area, operations),
      w.add('GENERAL_CLOSED_PROFILE', null, w.path(ringOf(area.shape), 0)),
    );
  },
  open: (c, area, operations) => {
    const { w } = c;
    const walls = (area.shape.rings[0] ?? []).filter((e) => e.isWall).map((e) => e.segment);
    return w.add(
      'OPEN_POCKET',
      ...pocketHead(c, area, operations),
      w.add('GENERAL_PROFILE', null, w.path(ringOf(area.shape), 0)),
      walls.length > 0 ? w.add('GENERAL_PROFILE', null, w.path(walls, 0)) : null,
    );
  },
  outside: (c, area, operations) => {
    const { w } = c;
    const height = area.shape.top - area.shape.floor;
    return w.add(
      'GENERAL_OUTSIDE_PROFILE',
      ...areaHead(c, area, operations),
      w.add('LINEAR_PATH', null, w.length(height), w.direction([0, 0, -1])),
      w.add('GENERAL_CLOSED_PROFILE', null, w.path(ringOf(area.shape), 0)),
    );
  },
  top: (c, area, operations) => {
    const { w } = c;
    const points = ringOf(area.shape).map((s) => s.from);
    const [from, to] = [0, 1].map((k): [number, number] => {
      const all = points.map((p) => (k === 0 ? p[0] : p[1]));
      return [Math.min(...all), Math.max(...all)];
    }) as [[number, number], [number, number]];
    return w.add(
      'PLANAR_FACE',
      ...areaHead(c, area, operations),
      w.add('LINEAR_PATH', null, w.length(from[1] - from[0]), w.direction([1, 0, 0])),
      w.add('LINEAR_PROFILE', null, w.length(to[1] - to[0])),
      w.add('GENERAL_CLOSED_PROFILE', null, w.path(ringOf(area.shape), 0)),
      [],
    );
  },
};

/** Name, workpiece, operations, placement at its top, and the plane of its floor. */
function areaHead(c: FeatureContext, { label, shape }: AreaView, operations: Ref[]) {
  return [
    label,
    c.workpiece,
    operations,
    placeAt(c, label, 0, 0, shape.top),
    c.w.levelPlane('floor', shape.floor - shape.top),
  ] as const;
}

/** The same of a pocket, with its islands, bottom and corner at the foot of its walls; none of its walls leans. */
const pocketHead = (c: FeatureContext, area: AreaView, operations: Ref[]) =>
  [
    ...areaHead(c, area, operations),
    islands(c, area),
    null,
    c.w.add(area.shape.through ? 'THROUGH_POCKET_BOTTOM_CONDITION' : 'PLANAR_POCKET_BOTTOM_CONDITION'),
    corner(c.w, area.shape),
    null,
  ] as const;

function islands(c: FeatureContext, { label, shape }: AreaView): Ref[] {
  const { w, workpiece } = c;
  return shape.rings.slice(1).map((ring, i) =>
    w.add(
      'BOSS',
      `${label} island ${i + 1}`,
      workpiece,
      [],
      placeAt(c, label, 0, 0, shape.top),
      w.levelPlane('floor', shape.floor - shape.top),
      w.add(
        'GENERAL_CLOSED_PROFILE',
        null,
        w.path(
          ring.map((e) => e.segment),
          0,
        ),
      ),
      null,
    ),
  );
}

/** What the standard has no form for that a single feature can say (edges want two faces by name, bosses a body): its place alone. */
export function placeFeature(
  c: FeatureContext,
  label: string,
  at: { x: number; y: number; top: number; depth: number },
): WriteFeature {
  const { w, workpiece } = c;
  return (operations) =>
    w.add(
      'TOOLPATH_FEATURE',
      label,
      workpiece,
      operations,
      placeAt(c, label, at.x, at.y, at.top),
      w.levelPlane('floor', -at.depth),
    );
}
