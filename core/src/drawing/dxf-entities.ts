import { at } from '../lists.ts';
import { distance2, segmentPoint, type Segment, type Vec2 } from '../geometry/path.ts';
import { FARTHEST } from '../model/solid-model.ts';
import { numberOf, numbersOf, textOf, type DxfEntity, type DxfFile } from './dxf-groups.ts';
import { fitArcs } from './fit-arcs.ts';

/** x' = a·x + c·y + e, y' = b·x + d·y + f. */
type Affine = readonly [a: number, b: number, c: number, d: number, e: number, f: number];

const apply = ([a, b, c, d, e, f]: Affine, [x, y]: Vec2): Vec2 => [a * x + c * y + e, b * x + d * y + f];
const after = (m: Affine, n: Affine): Affine => {
  const [e, f] = apply(m, [n[4], n[5]]);
  return [
    m[0] * n[0] + m[2] * n[1],
    m[1] * n[0] + m[3] * n[1],
    m[0] * n[2] + m[2] * n[3],
    m[1] * n[2] + m[3] * n[3],
    e,
    f,
  ];
};

/** What stands on one layer, mm. */
export interface LayerPieces {
  layer: string;
  segments: Segment[];
}

/** How deep blocks may stand in blocks, and how many pieces a drawing may come to. */
const DEEPEST = 8;
const MOST = 400_000;
/** Entities whose points are in the plane of their own extrusion direction (object coordinates). */
const OWN_PLANE = new Set(['CIRCLE', 'ARC', 'LWPOLYLINE', 'POLYLINE', 'INSERT']);
/** Seen from behind, X runs the other way (the arbitrary axis rule of object coordinates for a direction of −Z). */
const MIRROR: Affine = [-1, 0, 0, 1, 0, 0];

/** All outlines of a file's model space with its blocks put in place; `scale`: mm per unit. What is left out is counted by reason. */
export function drawnPieces(
  file: DxfFile,
  scale: number,
): { pieces: LayerPieces[]; left: Map<string, number> } {
  const pieces: LayerPieces[] = [];
  const left = new Map<string, number>();
  const leave = (why: string): void => void left.set(why, (left.get(why) ?? 0) + 1);
  const walk = (list: readonly DxfEntity[], m: Affine, layer: string | null, depth: number): void => {
    for (const e of list) {
      if (pieces.length >= MOST) return leave('drawing too large');
      // Paper space is the sheet round the drawing, not the part.
      if (numberOf(e, 67) === 1) continue;
      const own = textOf(e, 8) ?? '0';
      // What stands on layer 0 of a block takes the layer on which the block is put.
      const on = own === '0' && layer !== null ? layer : own;
      const plane = planeOf(e);
      if (plane === null) {
        leave(`${e.type} on a tilted plane`);
        continue;
      }
      const here = plane === 'behind' && OWN_PLANE.has(e.type) ? after(m, MIRROR) : m;
      if (e.type === 'INSERT') {
        const block = file.blocks.get(textOf(e, 2) ?? '');
        if (!block || depth >= DEEPEST)
          leave(block ? 'block too deep in blocks' : 'INSERT of a missing block');
        else
          for (const place of placesOf(e, block.base))
            walk(block.entities, after(here, place), on, depth + 1);
        continue;
      }
      const segments = segmentsOf(e, plane === 'behind');
      const placed = segments?.flatMap((s) => moved(s, here));
      if (placed && !placed.every(isMeasured)) leave(`out-of-range ${e.type}`);
      else if (placed) pieces.push({ layer: on, segments: placed });
      else if (!QUIET.has(e.type)) leave(e.type);
    }
  };
  walk(file.entities, [scale, 0, 0, scale, 0, 0], null, 0);
  return { pieces, left };
}

/** It has a place and a size that a part can have. */
function isMeasured(s: Segment): boolean {
  const numbers = s.kind === 'arc' ? [...s.from, ...s.to, ...s.centre, s.radius] : [...s.from, ...s.to];
  return numbers.every((v) => Math.abs(v) <= FARTHEST) && (s.kind === 'line' || Number.isFinite(s.turn));
}

/** Entities that nobody expects to be cut. */
const QUIET = new Set(['VIEWPORT', 'ATTDEF', 'ATTRIB', 'SEQEND']);

/** Which way the entity's plane looks: up, down, or neither (null). */
function planeOf(e: DxfEntity): 'front' | 'behind' | null {
  const [x, y, z] = [numberOf(e, 210), numberOf(e, 220), numberOf(e, 230, 1)];
  const l = Math.hypot(x, y, z);
  if (l < 1e-9) return 'front';
  if (Math.hypot(x, y) / l > 1e-3) return null;
  return z > 0 ? 'front' : 'behind';
}

/** Where a block is put: once, or in rows and columns. */
function placesOf(e: DxfEntity, base: Vec2): Affine[] {
  const [sx, sy] = [numberOf(e, 41, 1), numberOf(e, 42, 1)];
  const a = (numberOf(e, 50) * Math.PI) / 180;
  const [cos, sin] = [Math.cos(a), Math.sin(a)];
  const turn: Affine = [cos * sx, sin * sx, -sin * sy, cos * sy, numberOf(e, 10), numberOf(e, 20)];
  const count = (code: number): number => Math.max(1, Math.min(1000, numberOf(e, code, 1)));
  const [columns, rows] = [count(70), count(71)];
  const out: Affine[] = [];
  for (let i = 0; i < columns; i++) {
    for (let k = 0; k < rows; k++) {
      const [dx, dy] = [i * numberOf(e, 44), k * numberOf(e, 45)];
      const shift: Affine = [1, 0, 0, 1, cos * dx - sin * dy, sin * dx + cos * dy];
      out.push(after(shift, after(turn, [1, 0, 0, 1, -base[0], -base[1]])));
    }
  }
  return out;
}

/** A segment carried over; an arc stays one where lengths grow alike in both directions, else it is fitted anew. */
function moved(s: Segment, m: Affine): Segment[] {
  const [from, to] = [apply(m, s.from), apply(m, s.to)];
  if (s.kind === 'line') return distance2(from, to) < 1e-9 ? [] : [{ kind: 'line', from, to }];
  const [x, y] = [Math.hypot(m[0], m[1]), Math.hypot(m[2], m[3])];
  const isAlike = Math.abs(x - y) < 1e-9 * x && Math.abs(m[0] * m[2] + m[1] * m[3]) < 1e-9 * x * y;
  if (!isAlike) return fitArcs((t) => apply(m, segmentPoint(s, t)), 0, 1);
  const isFlipped = m[0] * m[3] - m[1] * m[2] < 0;
  return [
    {
      kind: 'arc',
      from,
      to,
      centre: apply(m, s.centre),
      radius: s.radius * x,
      turn: isFlipped ? -s.turn : s.turn,
    },
  ];
}

/** The segments of one entity in its own coordinates; null for kinds that are not outlines or that cannot be used. */
function segmentsOf(e: DxfEntity, isBehind: boolean): Segment[] | null {
  switch (e.type) {
    case 'LINE':
      return [
        {
          kind: 'line',
          from: [numberOf(e, 10), numberOf(e, 20)],
          to: [numberOf(e, 11), numberOf(e, 21)],
        },
      ];
    case 'CIRCLE':
      return round(e, 0, 2 * Math.PI);
    case 'ARC':
      return round(e, (numberOf(e, 50) * Math.PI) / 180, (numberOf(e, 51) * Math.PI) / 180);
    case 'LWPOLYLINE':
      return polyline(lightVertices(e), (numberOf(e, 70) & 1) === 1);
    case 'POLYLINE':
      return polyline(
        e.vertices.map((v) => ({ at: [numberOf(v, 10), numberOf(v, 20)], bulge: numberOf(v, 42) })),
        (numberOf(e, 70) & 1) === 1,
      );
    case 'ELLIPSE':
      return ellipse(e, isBehind);
    case 'SPLINE':
      return spline(e);
    default:
      return null;
  }
}

const FULL = 2 * Math.PI;

function round(e: DxfEntity, start: number, end: number): Segment[] | null {
  const centre: Vec2 = [numberOf(e, 10), numberOf(e, 20)];
  const radius = numberOf(e, 40);
  if (!(radius > 0)) return null;
  const turn = ahead(end - start);
  const on = (a: number): Vec2 => [centre[0] + radius * Math.cos(a), centre[1] + radius * Math.sin(a)];
  const from = on(start);
  return [{ kind: 'arc', from, to: turn === FULL ? from : on(start + turn), centre, radius, turn }];
}

/** A turn from nought to once round; none at all is a whole one. Any angle is brought round at once. */
const ahead = (turn: number): number => {
  const t = ((turn % FULL) + FULL) % FULL;
  return t < 1e-9 || FULL - t < 1e-9 ? FULL : t;
};

interface Vertex {
  at: Vec2;
  bulge: number;
}

/** An LWPOLYLINE's vertices: each begins with its X, and a bulge belongs to the one before it in the list. */
function lightVertices(e: DxfEntity): Vertex[] {
  const out: Vertex[] = [];
  e.codes.forEach((c, i) => {
    const v = Number(e.values[i]);
    const last = out[out.length - 1];
    if (c === 10) out.push({ at: [v, 0], bulge: 0 });
    else if (c === 20 && last) last.at[1] = v;
    else if (c === 42 && last) last.bulge = v;
  });
  return out;
}

function polyline(vertices: Vertex[], isClosed: boolean): Segment[] {
  const out: Segment[] = [];
  vertices.forEach((v, i) => {
    const next = vertices[i + 1] ?? (isClosed ? vertices[0] : undefined);
    if (!next || distance2(v.at, next.at) < 1e-9) return;
    out.push(v.bulge ? bulged(v.at, next.at, v.bulge) : { kind: 'line', from: v.at, to: next.at });
  });
  return out;
}

/** The arc of a polyline's bulge: the tangent of a quarter of its angle, positive counter-clockwise (group code 42). */
export function bulged(from: Vec2, to: Vec2, bulge: number): Segment {
  const turn = 4 * Math.atan(bulge);
  const chord = distance2(from, to);
  const radius = chord / (2 * Math.abs(Math.sin(turn / 2)));
  // The centre lies to the left of the chord for small positive bulges.
  const away = (chord / 2) * ((1 - bulge * bulge) / (2 * bulge));
  const [ux, uy] = [(to[0] - from[0]) / chord, (to[1] - from[1]) / chord];
  const centre: Vec2 = [(from[0] + to[0]) / 2 - uy * away, (from[1] + to[1]) / 2 + ux * away];
  return { kind: 'arc', from, to, centre, radius, turn };
}

/** Centre, end of the major axis from it, ratio of the axes, and parameters from and to; the minor axis is to the left seen along the plane. */
function ellipse(e: DxfEntity, isBehind: boolean): Segment[] | null {
  const [cx, cy] = [numberOf(e, 10), numberOf(e, 20)];
  const [mx, my] = [numberOf(e, 11), numberOf(e, 21)];
  const ratio = numberOf(e, 40, 1);
  if (!(Math.hypot(mx, my) > 0) || !(ratio > 0)) return null;
  const side = isBehind ? -ratio : ratio;
  const start = numberOf(e, 41);
  const turn = ahead(numberOf(e, 42, FULL) - start);
  return fitArcs(
    (t) => {
      const [c, s] = [Math.cos(start + t * turn), Math.sin(start + t * turn)];
      return [cx + c * mx - side * s * my, cy + c * my + side * s * mx];
    },
    0,
    1,
  );
}

/** A B-spline by de Boor's rule, rational where it has weights; each knot span is fitted on its own. */
function spline(e: DxfEntity): Segment[] | null {
  const degree = numberOf(e, 71, 3);
  const knots = numbersOf(e, 40);
  const [xs, ys, ws] = [numbersOf(e, 10), numbersOf(e, 20), numbersOf(e, 41)];
  const n = xs.length;
  if (n <= degree || ys.length !== n || knots.length < n + degree + 1 || degree < 1 || degree > 20)
    return null;
  if ([...xs, ...ys, ...knots].some((v) => !Number.isFinite(v))) return null;
  const poles = xs.map((x, i) => {
    const w = ws[i] ?? 1;
    return [x * w, at(ys, i) * w, w] as [number, number, number];
  });
  const out: Segment[] = [];
  for (let span = degree; span < n; span++) {
    const [from, to] = [at(knots, span), at(knots, span + 1)];
    if (to - from > 1e-12) out.push(...fitArcs((t) => deBoor(poles, knots, degree, span, t), from, to));
  }
  return out;
}

function deBoor(
  poles: [number, number, number][],
  knots: number[],
  degree: number,
  span: number,
  t: number,
): Vec2 {
  const d = Array.from({ length: degree + 1 }, (_, i) => [...at(poles, i + span - degree)]);
  for (let r = 1; r <= degree; r++) {
    for (let i = degree; i >= r; i--) {
      const low = at(knots, i + span - degree);
      const width = at(knots, i + 1 + span - r) - low;
      const a = width > 0 ? (t - low) / width : 0;
      for (let k = 0; k < 3; k++) at(d, i)[k] = (1 - a) * at(at(d, i - 1), k) + a * at(at(d, i), k);
    }
  }
  const [x, y, w] = d[degree] as [number, number, number];
  return [x / w, y / w];
}
