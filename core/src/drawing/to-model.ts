import { at, first as firstOf, got, known } from '../lists.ts';
import { lineDirection, segmentPoint, type Segment, type Vec2 } from '../geometry/path.ts';
import type { Vec3 } from '../geometry/vec.ts';
import { segmentsPerTurn } from '../model/circle-edge.ts';
import { connect } from '../model/connect.ts';
import { boundsOf, type Loop, type ModelNote, type SolidModel } from '../model/solid-model.ts';
import type { DrawingDepths } from './depths.ts';
import { OutlineIndex } from './outline-index.ts';
import { loopPolygon, polygonArea, type Drawing, type Outline } from './read-dxf.ts';

/** Depth of layers with outlines inside outlines until one is typed, mm: cut through, what lies inside would fall out. */
const ISLAND_DEPTH = 2;

/** What a drawing starts with: the layer of the largest outline is the part's own, the others are cut through where nothing would fall out. */
export function startingDepths(drawing: Drawing): DrawingDepths {
  const areas = new Map(drawing.outlines.map((o) => [o, areaOf(o)]));
  const largest = drawing.outlines.reduce((m, o) => (got(areas, o) > got(areas, m) ? o : m));
  const layers: DrawingDepths['layers'] = {};
  const islands = layersWithIslands(drawing);
  for (const { layer } of drawing.outlines)
    layers[layer] ??=
      layer === largest.layer
        ? { use: 'outline', depth: null }
        : islands.has(layer)
          ? { use: 'cut', depth: ISLAND_DEPTH, assumed: true }
          : { use: 'cut', depth: null };
  return { thickness: 10, layers, sizes: {} };
}

/** Layers on which an outline lies inside another. */
function layersWithIslands(drawing: Drawing): Set<string> {
  const out = new Set<string>();
  const byLayer = new Map<string, Vec2[][]>();
  for (const o of drawing.outlines)
    byLayer.set(o.layer, [...(byLayer.get(o.layer) ?? []), loopPolygon(o.segments)]);
  for (const [layer, polygons] of byLayer) {
    const index = new OutlineIndex(polygons.map((polygon) => ({ polygon })));
    const isIn = (inner: Vec2[]): boolean =>
      index
        .around(firstOf(inner))
        .some(({ polygon }) => polygon !== inner && inner.every((p) => contains(polygon, p)));
    if (polygons.some(isIn)) out.add(layer);
  }
  return out;
}

const areaOf = (o: Outline): number => polygonArea(loopPolygon(o.segments));

/** Key and name of an outline's size, for depths typed per size: circles by diameter, others by their box and area. */
export function sizeOfOutline(o: Outline): { key: string; name: string } {
  const [first] = o.segments;
  if (
    first?.kind === 'arc' &&
    o.segments.every(
      (s) =>
        s.kind === 'arc' && Math.hypot(s.centre[0] - first.centre[0], s.centre[1] - first.centre[1]) < 0.01,
    )
  ) {
    return {
      key: `${o.layer}|circle|${(2 * first.radius).toFixed(2)}`,
      name: `⌀${+(2 * first.radius).toFixed(3)}`,
    };
  }
  const points = loopPolygon(o.segments);
  const [xs, ys] = [points.map((p) => p[0]), points.map((p) => p[1])];
  const [w, h] = [Math.max(...xs) - Math.min(...xs), Math.max(...ys) - Math.min(...ys)];
  return {
    key: `${o.layer}|outline|${w.toFixed(1)}x${h.toFixed(1)}|${areaOf(o).toFixed(0)}`,
    name: `outline ${+w.toFixed(2)} x ${+h.toFixed(2)}`,
  };
}

interface Node {
  outline: Outline;
  polygon: Vec2[];
  area: number;
  parent: Node | null;
  children: Node[];
  role: 'profile' | 'cut' | 'island' | 'none';
  /** Z of the face inside it; -Infinity: nothing is there. */
  level: number;
}

/** The solid that a drawing and its typed depths say: a plate with its top at Z 0, cut by layer. */
export function modelFromDrawing(drawing: Drawing, depths: DrawingDepths): SolidModel {
  const notes: ModelNote[] = [...drawing.notes];
  for (const [layer, { use, depth, assumed }] of Object.entries(depths.layers)) {
    if (use === 'cut' && assumed)
      notes.push({
        code: 'depth-assumed',
        message: `Layer "${layer}" has outlines inside outlines and is taken as ${depth} mm deep: type its depth in the setup.`,
      });
  }
  const roots = nest(drawing, depths, notes);
  const model: SolidModel = {
    format: 'yellow-pin/solid-model@1',
    name: drawing.name,
    sourceUnits: drawing.sourceUnits,
    solids: [],
    faces: [],
    edges: [],
    bounds: { min: [0, 0, 0], max: [0, 0, 0] },
    notes,
  };
  for (const root of roots) {
    model.solids.push({ name: `${drawing.name} ${model.solids.length + 1}`, closed: true });
    new SolidMaker(model, model.solids.length - 1, depths.thickness).make(root);
  }
  if (roots.length === 0)
    notes.push({
      code: 'no-outline',
      message: 'No layer is the part’s own outline. Choose one as "outline" in the setup.',
    });
  else model.bounds = boundsOf(model.edges.flatMap((e) => e.points));
  connect(model);
  return model;
}

/** The tree of outlines, each with the level of the face inside it. */
function nest(drawing: Drawing, depths: DrawingDepths, notes: ModelNote[]): Node[] {
  const used = drawing.outlines.filter((o) => (depths.layers[o.layer]?.use ?? 'cut') !== 'ignore');
  const nodes = used.map((outline): Node => {
    const polygon = loopPolygon(outline.segments);
    return {
      outline,
      polygon,
      area: polygonArea(polygon),
      parent: null,
      children: [],
      role: 'none',
      level: 0,
    };
  });
  nodes.sort((a, b) => b.area - a.area);
  const index = new OutlineIndex(nodes);
  const rank = new Map(nodes.map((n, i) => [n, i]));
  for (const n of nodes) {
    // The smallest of those that are larger: the last before it in order of area.
    const outer = index
      .around(firstOf(n.polygon))
      .filter((o) => got(rank, o) < got(rank, n) && contains(o.polygon, firstOf(n.polygon)))
      .reduce<Node | null>((m, o) => (m === null || got(rank, o) > got(rank, m) ? o : m), null);
    if (!outer) continue;
    if (!n.polygon.every((p) => contains(outer.polygon, p)))
      notes.push({
        code: 'outlines-cross',
        message: `${sizeOfOutline(n.outline).name} on layer "${n.outline.layer}" crosses another outline. It was left out.`,
      });
    else {
      n.parent = outer;
      outer.children.push(n);
    }
  }
  const roots: Node[] = [];
  for (const n of nodes) {
    const { layer } = n.outline;
    const isProfile = depths.layers[layer]?.use === 'outline';
    if (!n.parent) {
      if (isProfile) {
        n.role = 'profile';
        roots.push(n);
      } else
        notes.push({
          code: 'outside-outline',
          message: `${sizeOfOutline(n.outline).name} on layer "${layer}" lies outside the part’s outline. It was left out.`,
        });
      continue;
    }
    if (n.parent.role === 'none') continue;
    const below = n.parent;
    if (below.level === -Infinity) {
      if (below.outline.layer !== layer)
        notes.push({
          code: 'in-opening',
          message: `${sizeOfOutline(n.outline).name} on layer "${layer}" lies in an opening that goes through. It was left out.`,
        });
      continue;
    }
    if (below.role === 'cut' && below.outline.layer === layer) {
      n.role = 'island';
      n.level = known(below.parent, 'the outline round it').level;
      continue;
    }
    const { key, name } = sizeOfOutline(n.outline);
    const typed =
      depths.sizes[key] === undefined
        ? isProfile
          ? null
          : (depths.layers[layer]?.depth ?? null)
        : depths.sizes[key];
    const level = typed === null || typed >= depths.thickness - 1e-6 ? -Infinity : -typed;
    if (level >= below.level) {
      notes.push({
        code: 'not-deeper',
        message: `${name} on layer "${layer}" is no deeper than the cavity it lies in. It was left out.`,
      });
      continue;
    }
    n.role = 'cut';
    n.level = level;
  }
  for (const n of nodes) n.children = n.children.filter((c) => c.role !== 'none');
  return roots;
}

/** Even-odd rule; points on the border count as outside or inside as they come. */
function contains(polygon: Vec2[], [x, y]: Vec2): boolean {
  let inside = false;
  for (let i = 0, k = polygon.length - 1; i < polygon.length; k = i++) {
    const [xi, yi] = at(polygon, i);
    const [xk, yk] = at(polygon, k);
    if (yi > y !== yk > y && x < ((xk - xi) * (y - yi)) / (yk - yi) + xi) inside = !inside;
  }
  return inside;
}

/** Builds faces and edges of one plate; edges are shared by contour, segment and level. */
class SolidMaker {
  private readonly ids = new Map<string, number>();

  constructor(
    private readonly model: SolidModel,
    private readonly solid: number,
    private readonly thickness: number,
  ) {}

  make(root: Node): void {
    const bottom = -this.thickness;
    const all: Node[] = [];
    const gather = (n: Node): void => {
      all.push(n);
      n.children.forEach(gather);
    };
    gather(root);
    const segments = new Map(all.map((n) => [n, halved(n.outline.segments)]));
    const through = all.filter((n) => n.level === -Infinity);
    for (const n of all) {
      if (n.level === -Infinity) continue;
      this.level(
        n.level,
        [0, 0, 1],
        [
          this.ring(n, got(segments, n), n.level, false),
          ...n.children.map((c) => this.ring(c, got(segments, c), n.level, true)),
        ],
      );
    }
    this.level(
      bottom,
      [0, 0, -1],
      [
        this.ring(root, got(segments, root), bottom, true),
        ...through.map((c) => this.ring(c, got(segments, c), bottom, false)),
      ],
    );
    for (const n of all) {
      const inside = n.level === -Infinity ? bottom : n.level;
      const [high, low] =
        n.role === 'profile'
          ? [0, bottom]
          : n.role === 'cut'
            ? [known(n.parent, 'the outline round it').level, inside]
            : [n.level, known(n.parent, 'the outline round it').level];
      got(segments, n).forEach((s, i) => this.wall(n, got(segments, n), i, s, high, low));
    }
  }

  private level(z: number, normal: Vec3, loops: Loop[]): void {
    this.model.faces.push({
      solid: this.solid,
      surface: { kind: 'plane', origin: [0, 0, z], normal },
      reversed: false,
      loops,
    });
  }

  /** The contour at a level, run counter-clockwise or against it. */
  private ring(n: Node, segments: Segment[], z: number, against: boolean): Loop {
    const loop = segments.map((s, i) => ({ edge: this.flat(n, i, s, z), reversed: against }));
    return against ? loop.reverse() : loop;
  }

  private wall(n: Node, segments: Segment[], i: number, s: Segment, high: number, low: number): void {
    // Metal lies inside a profile and an island, outside a cut.
    const metalInside = n.role !== 'cut';
    const next = (i + 1) % segments.length;
    const [bottom, top] = [this.flat(n, i, s, low), this.flat(n, i, s, high)];
    const [here, there] = [
      this.upright(n, i, at(segments, i).from, high, low),
      this.upright(n, next, at(segments, next).from, high, low),
    ];
    const loop: Loop = metalInside
      ? [
          { edge: bottom, reversed: false },
          { edge: there, reversed: false },
          { edge: top, reversed: true },
          { edge: here, reversed: true },
        ]
      : [
          { edge: bottom, reversed: true },
          { edge: here, reversed: false },
          { edge: top, reversed: false },
          { edge: there, reversed: true },
        ];
    const { solid } = this;
    if (s.kind === 'line') {
      const [ux, uy] = lineDirection(s);
      const normal: Vec3 = metalInside ? [uy, -ux, 0] : [-uy, ux, 0];
      this.model.faces.push({
        solid,
        surface: { kind: 'plane', origin: [s.from[0], s.from[1], low], normal },
        reversed: false,
        loops: [loop],
      });
    } else {
      const surface = {
        kind: 'cylinder' as const,
        origin: [s.centre[0], s.centre[1], low] as Vec3,
        axis: [0, 0, 1] as Vec3,
        radius: s.radius,
      };
      this.model.faces.push({ solid, surface, reversed: s.turn > 0 !== metalInside, loops: [loop] });
    }
  }

  private flat(n: Node, i: number, s: Segment, z: number): number {
    return this.edge(`${this.nameOf(n)}/${i}@${z}`, () => {
      const count =
        s.kind === 'line'
          ? 1
          : Math.max(2, Math.ceil((segmentsPerTurn(s.radius) * Math.abs(s.turn)) / (2 * Math.PI)));
      const points = Array.from({ length: count + 1 }, (_, k): Vec3 => {
        const p = k === 0 ? s.from : k === count ? s.to : segmentPoint(s, k / count);
        return [p[0], p[1], z];
      });
      return {
        points,
        curve:
          s.kind === 'line'
            ? { kind: 'line' }
            : { kind: 'circle', centre: [s.centre[0], s.centre[1], z], axis: [0, 0, 1], radius: s.radius },
      };
    });
  }

  /** From the lower level up. */
  private upright(n: Node, i: number, [x, y]: Vec2, high: number, low: number): number {
    return this.edge(`${this.nameOf(n)}|${i}@${high}/${low}`, () => ({
      points: [
        [x, y, low],
        [x, y, high],
      ],
      curve: { kind: 'line' },
    }));
  }

  private edge(key: string, make: () => Pick<SolidModel['edges'][number], 'points' | 'curve'>): number {
    let id = this.ids.get(key);
    if (id === undefined) {
      id = this.model.edges.length;
      this.ids.set(key, id);
      this.model.edges.push({ ...make(), faces: [], convexity: 'open', angle: 0 });
    }
    return id;
  }

  private readonly names = new Map<Node, number>();
  private nameOf(n: Node): number {
    if (!this.names.has(n)) this.names.set(n, this.names.size);
    return got(this.names, n);
  }
}

/** Full circles as two halves, ends brought together exactly: an edge begins and ends at two places. */
function halved(segments: Segment[]): Segment[] {
  const split = segments.flatMap((s): Segment[] => {
    if (s.kind === 'line' || Math.abs(s.turn) < 2 * Math.PI - 1e-6) return [s];
    const middle = segmentPoint(s, 0.5);
    return [
      { ...s, to: middle, turn: s.turn / 2 },
      { ...s, from: middle, turn: s.turn / 2 },
    ];
  });
  // Ends that were a hair apart in the drawing meet at one point.
  return split.map((s, i) => ({ ...s, from: at(split, (i + split.length - 1) % split.length).to }));
}
