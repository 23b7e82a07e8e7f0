import type { BrepCurve, BrepSurface } from '@yellow-pin/core/brep/geometry';
import { invert34, multiply34, type Matrix34 } from '@yellow-pin/core/brep/matrix34';
import type { BrepDocument, BrepShape, ShapeRef } from '@yellow-pin/core/brep/shapes';
import { readCurve, readSurface } from './brep-geometry.ts';
import { Tokens } from './brep-tokens.ts';

const ORIENTATION = /^[+\-ie]/;

/**
 * Reads the kernel's own text form of a shape (its open "CASCADE Topology" format). One call into the kernel and one pass
 * here replace tens of thousands of small calls, and give all surface kinds, also those the bindings leave out. Throws an Error where the text does not follow the format.
 */
export function parseBrep(text: string): BrepDocument {
  const t = new Tokens(text);
  t.seek('Locations');
  const locations: (Matrix34 | null)[] = [null];
  for (let n = t.number(); n > 0; n--) locations.push(readLocation(t, locations));
  // The curves in parameter space are not needed: their section is passed over whole.
  t.seek('Curves');
  const curves: BrepCurve[] = [];
  for (let n = t.number(); n > 0; n--) curves.push(readCurve(t));
  t.seek('Surfaces');
  const surfaces: BrepSurface[] = [];
  for (let n = t.number(); n > 0; n--) surfaces.push(readSurface(t));
  t.seek('TShapes');
  const count = t.number();
  const shapes: BrepShape[] = [];
  const children = (): ShapeRef[] => {
    const out: ShapeRef[] = [];
    while (t.peek() !== '*') out.push(readRef(t, count, locations));
    t.next();
    return out;
  };
  for (let i = 0; i < count; i++) {
    const code = t.next();
    if (code === 'Ve') {
      t.number();
      const point = t.vec();
      // Parameter representations of the vertex end in the first "0 0" that is followed by the seven flags.
      let flags = t.next();
      while (!isFlags(flags, t.peek())) flags = t.next();
      shapes.push({ type: 'vertex', point, children: children() });
    } else if (code === 'Ed') {
      shapes.push(readEdge(t, curves, locations, children));
    } else if (code === 'Fa') {
      t.next();
      t.next();
      const surface = surfaces[t.number() - 1];
      const location = locations[t.number()] ?? null;
      let flags = t.next();
      while (!isFlags(flags, t.peek())) flags = t.next();
      if (!surface) throw new Error('a face without a surface');
      shapes.push({ type: 'face', surface, location, children: children() });
    } else {
      const flags = t.next();
      const type = ({ Wi: 'wire', Sh: 'shell', So: 'solid', CS: 'compound', Co: 'compound' } as const)[
        code as 'Wi'
      ];
      if (!type) throw new Error(`unknown shape ${code.slice(0, 20)}`);
      shapes.push({ type, closed: flags[4] === '1', children: children() });
    }
  }
  return { shapes, root: readRef(t, count, locations) };
}

const isFlags = (token: string, following: string): boolean =>
  /^[01]{7}$/.test(token) && (ORIENTATION.test(following) || following === '*');

function readRef(t: Tokens, count: number, locations: (Matrix34 | null)[]): ShapeRef {
  const token = t.next();
  const location = locations[t.number()] ?? null;
  return { shape: count - Number(token.slice(1)), reversed: token[0] === '-', location };
}

function readLocation(t: Tokens, known: (Matrix34 | null)[]): Matrix34 {
  if (t.number() === 1) return Array.from({ length: 12 }, () => t.number());
  let product: Matrix34 | null = null;
  for (let index = t.number(); index !== 0; index = t.number()) {
    const base = known[index] ?? null;
    const power = t.number();
    const factor = base && (power < 0 ? invert34(base) : base);
    for (let k = 0; k < Math.abs(power); k++) product = multiply34(product, factor);
  }
  return product ?? [1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0];
}

function readEdge(
  t: Tokens,
  curves: BrepCurve[],
  locations: (Matrix34 | null)[],
  children: () => ShapeRef[],
): BrepShape {
  t.number();
  t.next();
  t.next();
  const degenerate = t.next() === '1';
  let curve: BrepCurve | null = null;
  let location: Matrix34 | null = null;
  let [first, last] = [0, 0];
  for (let kind = t.number(); kind !== 0; kind = t.number()) {
    // Kind 3 writes its second curve number and the continuity as one word ("12CN").
    const words = { 1: 4, 2: 5, 3: 6, 4: 5, 5: 2, 6: 3, 7: 4 }[kind];
    if (words === undefined) throw new Error(`unknown edge representation ${kind}`);
    const values = Array.from({ length: words }, () => t.next());
    if (kind === 1) {
      curve = curves[Number(values[0]) - 1] ?? null;
      location = locations[Number(values[1])] ?? null;
      [first, last] = [Number(values[2]), Number(values[3])];
    }
  }
  t.next();
  return { type: 'edge', curve, location, first, last, degenerate, children: children() };
}
