import { at as entryAt, first, known } from '../../lists.ts';
import {
  add,
  along,
  cross,
  distance,
  dot,
  normalize,
  scale,
  sub,
  type Vec3,
  isParallel,
  isSquare,
} from '../../geometry/vec.ts';
import { isClosedEdge } from '../../model/circle-edge.ts';
import { borderPoints, planeNormal, type Border } from '../../model/patches.ts';
import type { Bounds } from '../../model/solid-model.ts';
import { isHole, once, type RecogniseContext } from '../family.ts';
import { outerLoop } from '../strip/find.ts';
import { planFrame } from '../strip/sides.ts';
import { isSameForm, stripAt, type EdgeForm } from './form.ts';

/** A run of upper edges of one form along the outline of a face that looks up. */
export interface EdgeRun {
  form: EdgeForm;
  axis: Vec3;
  /** The face above, a patch. */
  top: number;
  /** Strips (chamfers, rounds) or the walls that fall away, patches. */
  strips: number[];
  borders: Border[];
  closed: boolean;
  side: 'outside' | 'inside';
  length: number;
  at: Vec3;
  roomBeside: number | null;
  roomBelow: number | null;
}

/** Every edge of the solid that can be seen from above its upper face, once: read first from the direction that is up. */
export const edgeRuns = (context: RecogniseContext): EdgeRun[] =>
  once(context, 'edge runs', () => findRuns(context));

function findRuns(context: RecogniseContext): EdgeRun[] {
  const { graph, patches } = context;
  const usedEdges = new Set<number>();
  const usedStrips = new Set<number>();
  const holes = holeFaces(context);
  const out: EdgeRun[] = [];
  const tops = patches.flatMap((p) => {
    const d = planeNormal(entryAt(graph.patches, p));
    return d ? [{ patch: p, d, rank: rankOf(d, context.main) }] : [];
  });
  tops.sort((a, b) => a.rank - b.rank || a.patch - b.patch);
  // A strip belongs to the face that is read first: its other edge is not sharp for the face beside it.
  const strips = new Set<number>();
  for (const { patch, d } of tops) {
    const { loops } = entryAt(graph.patches, patch);
    const outline = outerLoop(context, loops, planFrame(d));
    loops.forEach((loop, i) => {
      const forms = loop.map((b): EdgeForm | null => {
        if (usedEdges.has(b.edge) || b.other < 0) return null;
        if (usedStrips.has(b.other) || strips.has(patch)) return null;
        const form = stripAt(context, b, patch, d, holes);
        if (form && form.kind !== 'sharp' && isUpright(context, b, d)) return null;
        return form && !isCovered(context, b, d) ? form : null;
      });
      for (const run of group(forms)) {
        const borders = run.at.map((k) => entryAt(loop, k));
        const form = known(forms[first(run.at)], 'its form');
        for (const b of borders) {
          usedEdges.add(b.edge);
          if (form.kind !== 'sharp') {
            usedStrips.add(b.other);
            strips.add(b.other);
          }
        }
        out.push(
          describe(context, patch, d, form, borders, run.closed, i === outline ? 'outside' : 'inside'),
        );
      }
    });
  }
  // A sharp edge of a strip that was read as a strip later on is none.
  return out.filter(
    (r) => r.form.kind !== 'sharp' || !(strips.has(r.top) || r.strips.some((s) => strips.has(s))),
  );
}

/** A strip that runs along the direction that is up belongs to the part's outline: it is milled with it, not broken as an edge. */
function isUpright({ model, main }: RecogniseContext, b: Border, d: Vec3): boolean {
  if (!isSquare(d, main)) return false;
  const { points } = entryAt(model.edges, b.edge);
  return isParallel(normalize(sub(entryAt(points, points.length - 1), first(points))), main);
}

/** Hole of each face that belongs to one. */
function holeFaces({ found }: RecogniseContext): Map<number, string> {
  const out = new Map<number, string>();
  for (const f of found) if (isHole(f)) for (const face of f.faces) out.set(face, f.id);
  return out;
}

/** The way that is up first, then its opposite, then the rest, each sense of one line together. */
function rankOf(d: Vec3, main: Vec3): number {
  const share = dot(d, main);
  if (share > 0.9999) return 0;
  if (share < -0.9999) return 1;
  // Any order that does not depend on the file's: by direction.
  const lead = d.map((v) => Math.round(v * 1000));
  return (
    10 + (2000 - first(lead)) * 1e-3 + (2000 - entryAt(lead, 1)) * 1e-6 + (2000 - entryAt(lead, 2)) * 1e-9
  );
}

/** Neighbours of one form along a loop, going round its end. */
function group(forms: (EdgeForm | null)[]): { at: number[]; closed: boolean }[] {
  const n = forms.length;
  const like = (a: number, b: number): boolean =>
    forms[a] !== null &&
    forms[b] !== null &&
    isSameForm(known(forms[a], 'its form'), known(forms[b], 'its form'));
  let start = forms.findIndex((_, i) => !like((i + n - 1) % n, i));
  const closed = start < 0;
  if (closed) start = 0;
  const out: { at: number[]; closed: boolean }[] = [];
  for (let i = 0; i < n; i++) {
    const k = (start + i) % n;
    if (forms[k] === null) continue;
    const last = out[out.length - 1];
    if (last && i > 0 && like((k + n - 1) % n, k)) last.at.push(k);
    else out.push({ at: [k], closed });
  }
  return out;
}

interface Sample {
  point: Vec3;
  /** Level direction away from the face above. */
  outward: Vec3;
}

/** Places along a curved edge, as shares of its length. */
const SHARES = [0.12, 0.37, 0.62, 0.87];

/** Places on an edge: the middle of a straight one, four along a curved one, or the first few of them. */
function samplesOn({ model }: RecogniseContext, b: Border, d: Vec3, most = SHARES.length): Sample[] {
  const { points } = entryAt(model.edges, b.edge);
  const n = points.length;
  const pointAt = (i: number): Vec3 => entryAt(points, b.reversed ? n - 1 - i : i);
  const outward = (p: Vec3, q: Vec3): Vec3 => normalize(cross(sub(q, p), d));
  if (n <= 2) {
    const [p, q] = [pointAt(0), pointAt(n - 1)];
    return [{ point: scale(add(p, q), 0.5), outward: outward(p, q) }];
  }
  const out: Sample[] = [];
  let before = -1;
  for (const share of SHARES.slice(0, most)) {
    const i = Math.min(n - 2, Math.floor(share * (n - 1)));
    if (i !== before) out.push({ point: pointAt(i), outward: outward(pointAt(i), pointAt(i + 1)) });
    before = i;
  }
  return out;
}

/** True where something of the part stands above the edge: no straight tool gets at it from `d`. */
function isCovered(context: RecogniseContext, b: Border, d: Vec3): boolean {
  const { point } = first(samplesOn(context, b, d, 1));
  if (dot(point, d) + 2e-3 >= farthestAlong(context.model.bounds, d)) return false;
  return samplesOn(context, b, d).some(({ point: p, outward }) =>
    [0.05, -0.05].some((k) => context.rays.firstHit(along(along(p, outward, k), d, 1e-3), d) !== null),
  );
}

const farthestAlong = ({ min, max }: Bounds, d: Vec3): number =>
  d.reduce((sum, v, i) => sum + v * (v > 0 ? entryAt(max, i) : entryAt(min, i)), 0);

function describe(
  context: RecogniseContext,
  top: number,
  d: Vec3,
  form: EdgeForm,
  borders: Border[],
  closed: boolean,
  side: EdgeRun['side'],
): EdgeRun {
  const { model, rays } = context;
  let [beside, below] = [Infinity, Infinity];
  const drop = form.kind === 'sharp' ? 0 : form.drop;
  const reach = form.kind === 'sharp' ? 0 : form.width;
  const rim = side === 'inside' ? roundRim(context, borders) : null;
  if (rim !== null) beside = 2 * (rim - reach);
  const isHighest =
    dot(first(entryAt(model.edges, first(borders).edge).points), d) + 2e-3 >= farthestAlong(model.bounds, d);
  for (const b of borders) {
    for (const { point, outward } of samplesOn(context, b, d, rim === null ? SHARES.length : 1)) {
      const foot = along(along(point, outward, reach + 0.02), d, -drop);
      // In a hole its own opposite wall is the nearest; above the highest level there is nothing.
      for (const lift of rim !== null ? [] : isHighest ? [-0.1] : [drop + 0.02, -0.1]) {
        const hit = rays.firstHit(along(foot, d, lift), outward, beside);
        if (hit !== null && hit > 0.02) beside = Math.min(beside, hit + 0.02);
      }
      const hit = rays.firstHit(along(foot, d, -1e-3), scale(d, -1), below);
      if (hit !== null) below = Math.min(below, hit + 1e-3 + drop);
    }
  }
  const middle = borderPoints(model, entryAt(borders, Math.floor(borders.length / 2)));
  const k = Math.floor(middle.length / 2);
  const at: Vec3 =
    middle.length === 2 ? scale(add(first(middle), entryAt(middle, 1)), 0.5) : entryAt(middle, k);
  return {
    form,
    axis: d,
    top,
    strips: [...new Set(borders.map((b) => b.other))],
    borders,
    closed,
    side,
    length: borders.reduce((sum, b) => sum + exactLength(context, b), 0),
    at,
    roomBeside: Number.isFinite(beside) ? beside : null,
    roomBelow: Number.isFinite(below) ? below : null,
  };
}

/** Radius of a rim that is one whole circle, or null. */
function roundRim({ model }: RecogniseContext, borders: Border[]): number | null {
  if (borders.length !== 1) return null;
  const edge = entryAt(model.edges, first(borders).edge);
  return edge.curve.kind === 'circle' && isClosedEdge(edge) ? edge.curve.radius : null;
}

/** Length of an edge; arcs by radius and the angle that their points span. */
function exactLength({ model }: RecogniseContext, b: Border): number {
  const edge = entryAt(model.edges, b.edge);
  const { curve, points } = edge;
  if (curve.kind === 'circle' && isClosedEdge(edge)) return 2 * Math.PI * curve.radius;
  let [sum, turn] = [0, 0];
  for (let i = 1; i < points.length; i++) {
    const chord = distance(entryAt(points, i), entryAt(points, i - 1));
    sum += chord;
    // Chords are shorter than the arc they stand for.
    if (curve.kind === 'circle') turn += 2 * Math.asin(Math.min(1, chord / (2 * curve.radius)));
  }
  return curve.kind === 'circle' ? curve.radius * turn : sum;
}
