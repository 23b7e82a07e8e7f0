import { at, first } from '../lists.ts';
import { cross2, distance2, segmentPoint, type Segment, type Vec2 } from '../geometry/path.ts';
import type { ModelNote } from '../model/solid-model.ts';
import { drawnPieces } from './dxf-entities.ts';
import { DxfError, readGroups } from './dxf-groups.ts';

export { bulged } from './dxf-entities.ts';
export { DxfError } from './dxf-groups.ts';

/** A closed outline of a drawing: lines and arcs, counter-clockwise. mm. */
export interface Outline {
  layer: string;
  segments: Segment[];
}

/** What a 2D drawing says: closed outlines by layer. */
export interface Drawing {
  format: 'yellow-pin/drawing@1';
  name: string;
  sourceUnits: 'mm' | 'inch';
  outlines: Outline[];
  notes: ModelNote[];
}

/** By its name, or by how it begins: a group code 0 and a section. */
export const isDxf = (fileName: string, text: string): boolean =>
  /\.dxf$/i.test(fileName) || /^\s*(?:999\r?\n[^\n]*\n\s*)*0\s*\r?\n\s*SECTION/.test(text.slice(0, 2000));

/** Ends this near each other meet, mm. */
const MEET = 0.01;
const MM_PER = { inch: 25.4, mm: 1 };

/**
 * Reads the outlines of an ASCII DXF: lines, arcs, circles, polylines, ellipses and splines, in blocks too, seen from either side of their
 * plane. What cannot be used is said in the notes.
 */
export function readDxf(text: string, name: string): Drawing {
  const file = readGroups(text);
  if (file.entities.length === 0)
    throw new DxfError(
      'The DXF holds no entities. Save it again as an ASCII DXF with its outlines in model space.',
    );
  const sourceUnits = file.units === 1 ? 'inch' : 'mm';
  const notes: ModelNote[] = [];
  if (file.units !== 1 && file.units !== 4)
    notes.push({
      code: 'units-assumed',
      message:
        'The drawing does not say its unit: millimetres are taken. If that is wrong, save it with its unit set.',
    });
  const drawn = drawnPieces(file, MM_PER[sourceUnits]);
  const pieces = new Map<string, Segment[]>();
  const closed: Outline[] = [];
  for (const { layer, segments } of drawn.pieces) {
    const list = pieces.get(layer);
    if (list) list.push(...segments);
    else pieces.set(layer, [...segments]);
  }
  for (const [layer, segments] of pieces) {
    const chained = chain(segments);
    for (const loop of chained.loops) closed.push({ layer, segments: counterClockwise(loop) });
    // Centre lines, borders: nothing on the layer closes, and nobody meant it to.
    if (chained.loops.length === 0 && chained.open.length > 0) {
      notes.push({
        code: 'open-outline',
        message: `Layer "${layer}" has no closed outline and was left out.`,
      });
      continue;
    }
    for (const run of chained.open) {
      const [x, y] = first(run).from;
      notes.push({
        code: 'open-outline',
        message: `An outline on layer "${layer}" does not close: it begins at X ${x.toFixed(2)}, Y ${y.toFixed(2)}. It was left out; close it in the drawing, or ignore the layer.`,
      });
    }
  }
  for (const [type, count] of drawn.left)
    notes.push({
      code: 'entity-left',
      message: `${count} ${type} ${count === 1 ? 'entity was' : 'entities were'} left out: lines, arcs, circles, polylines, ellipses and splines are read.`,
    });
  if (closed.length === 0)
    throw new DxfError(
      'The DXF has no closed outline of lines, arcs, circles or polylines. Draw the outlines closed, or join them, and save it again.',
    );
  return { format: 'yellow-pin/drawing@1', name, sourceUnits, outlines: closed, notes };
}

/** Joins segments end to end into closed loops; equal ones drawn twice count once. */
function chain(segments: Segment[]): { loops: Segment[][]; open: Segment[][] } {
  const loops: Segment[][] = [];
  const rest: Segment[] = [];
  const seen = new Set<string>();
  const name = (p: Vec2): string => `${Math.round(p[0] / MEET)},${Math.round(p[1] / MEET)}`;
  for (const s of segments) {
    if (s.kind === 'arc' && Math.abs(s.turn) > 2 * Math.PI - 1e-6) {
      const key = `o${name(s.centre)}/${Math.round(s.radius / MEET)}`;
      if (!seen.has(key)) loops.push([s]);
      seen.add(key);
      continue;
    }
    const middle = segmentPoint(s, 0.5);
    const key = [...[name(s.from), name(s.to)].sort(), name(middle)].join('/');
    if (!seen.has(key)) rest.push(s);
    seen.add(key);
  }
  // Ends in cells twice as wide as they may be apart; neighbours are looked at too.
  const cell = (p: Vec2): [number, number] => [Math.floor(p[0] / (2 * MEET)), Math.floor(p[1] / (2 * MEET))];
  const ends = new Map<string, number[]>();
  const put = (p: Vec2, i: number): void => {
    const key = cell(p).join();
    const list = ends.get(key);
    if (list) list.push(i);
    else ends.set(key, [i]);
  };
  rest.forEach((s, i) => (put(s.from, i), put(s.to, i)));
  const used = new Array<boolean>(rest.length).fill(false);
  const nextAt = (p: Vec2): { i: number; s: Segment } | null => {
    const [cx, cy] = cell(p);
    for (let a = -1; a <= 1; a++) {
      for (let b = -1; b <= 1; b++) {
        for (const i of ends.get(`${cx + a},${cy + b}`) ?? []) {
          if (used[i]) continue;
          const s = at(rest, i);
          if (distance2(s.from, p) < MEET) return { i, s };
          if (distance2(s.to, p) < MEET) return { i, s: reversed(s) };
        }
      }
    }
    return null;
  };
  const open: Segment[][] = [];
  rest.forEach((s, i) => {
    if (used[i]) return;
    used[i] = true;
    const run = [s];
    for (
      let n = nextAt(s.to);
      n;
      n =
        distance2(at(run, run.length - 1).to, first(run).from) < MEET
          ? null
          : nextAt(at(run, run.length - 1).to)
    ) {
      used[n.i] = true;
      run.push(n.s);
    }
    for (
      let n = distance2(at(run, run.length - 1).to, first(run).from) < MEET ? null : nextAt(first(run).from);
      n;
      n = nextAt(first(run).from)
    ) {
      used[n.i] = true;
      run.unshift(reversed(n.s));
    }
    if (run.length > 1 && distance2(at(run, run.length - 1).to, first(run).from) < MEET) loops.push(run);
    else open.push(run);
  });
  return { loops, open };
}

const reversed = (s: Segment): Segment =>
  s.kind === 'line'
    ? { kind: 'line', from: s.to, to: s.from }
    : { ...s, from: s.to, to: s.from, turn: -s.turn };

/** Points along a loop, arcs every few degrees. */
export function loopPolygon(loop: Segment[]): Vec2[] {
  return loop.flatMap((s) => {
    const n = s.kind === 'line' ? 1 : Math.max(2, Math.ceil(Math.abs(s.turn) / 0.1));
    return Array.from({ length: n }, (_, i) => segmentPoint(s, i / n));
  });
}

/** Signed area of a polygon, counter-clockwise positive. */
export const polygonArea = (points: Vec2[]): number =>
  points.reduce((sum, p, i) => sum + cross2(p, at(points, (i + 1) % points.length)) / 2, 0);

function counterClockwise(loop: Segment[]): Segment[] {
  return polygonArea(loopPolygon(loop)) >= 0 ? loop : loop.map(reversed).reverse();
}
