/**
 * Reads the kernel's own text form of a shape (its open "CASCADE Topology" format). One call into the kernel and one pass
 * here replace tens of thousands of small calls, and give all surface kinds, also those the bindings leave out.
 */
export type Numbers3 = [number, number, number];

export interface Placement {
  origin: Numbers3;
  z: Numbers3;
  x: Numbers3;
  y: Numbers3;
}

export interface Nurbs<P> {
  degree: number;
  poles: P[];
  weights: number[] | null;
  /** Flat knot vector with multiplicities written out. */
  knots: number[];
}

export type BrepCurve =
  | { kind: 'line'; origin: Numbers3; direction: Numbers3 }
  | { kind: 'circle'; at: Placement; radius: number }
  | { kind: 'ellipse'; at: Placement; major: number; minor: number }
  | { kind: 'parabola'; at: Placement; focal: number }
  | { kind: 'hyperbola'; at: Placement; major: number; minor: number }
  | { kind: 'nurbs'; nurbs: Nurbs<Numbers3> }
  | { kind: 'offset'; distance: number; direction: Numbers3; basis: BrepCurve };

export interface NurbsSurface {
  degreeU: number;
  degreeV: number;
  /** Rows along U, each a list along V. */
  poles: Numbers3[][];
  weights: number[][] | null;
  knotsU: number[];
  knotsV: number[];
}

export type BrepSurface =
  | { kind: 'plane'; at: Placement }
  | { kind: 'cylinder'; at: Placement; radius: number }
  | { kind: 'cone'; at: Placement; radius: number; semiAngle: number }
  | { kind: 'sphere'; at: Placement; radius: number }
  | { kind: 'torus'; at: Placement; major: number; minor: number }
  | { kind: 'extrusion'; direction: Numbers3; basis: BrepCurve }
  | { kind: 'revolution'; origin: Numbers3; axis: Numbers3; basis: BrepCurve }
  | { kind: 'nurbs'; nurbs: NurbsSurface }
  | { kind: 'offset'; distance: number; basis: BrepSurface };

/** Row-major 3×4 placement matrix. */
export type Matrix34 = number[];

export interface ShapeRef {
  shape: number;
  reversed: boolean;
  location: Matrix34 | null;
}

export type BrepShape =
  | { type: 'vertex'; point: Numbers3; children: ShapeRef[] }
  | {
      type: 'edge';
      curve: BrepCurve | null;
      location: Matrix34 | null;
      first: number;
      last: number;
      degenerate: boolean;
      children: ShapeRef[];
    }
  | { type: 'face'; surface: BrepSurface; location: Matrix34 | null; children: ShapeRef[] }
  | { type: 'wire' | 'shell' | 'solid' | 'compound'; closed: boolean; children: ShapeRef[] };

export interface BrepDocument {
  shapes: BrepShape[];
  root: ShapeRef;
}

const ORIENTATION = /^[+\-ie]/;

class Tokens {
  private position = 0;
  private readonly list: string[];
  constructor(text: string) {
    this.list = text.split(/\s+/);
  }
  next(): string {
    const t = this.list[this.position++];
    if (t === undefined) throw new Error('shape text ends early');
    return t;
  }
  peek(): string {
    return this.list[this.position] ?? '';
  }
  number(): number {
    return Number(this.next());
  }
  vec(): Numbers3 {
    return [this.number(), this.number(), this.number()];
  }
  seek(word: string): void {
    const at = this.list.indexOf(word, this.position);
    if (at < 0) throw new Error(`shape text lacks ${word}`);
    this.position = at + 1;
  }
}

/** Parses the text; throws an Error when it does not follow the format. */
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

/** a·b, where null stands for the identity. */
export function multiply34(a: Matrix34 | null, b: Matrix34 | null): Matrix34 | null {
  if (!a) return b;
  if (!b) return a;
  const out: Matrix34 = [];
  for (let r = 0; r < 3; r++) {
    for (let c = 0; c < 4; c++) {
      out.push(
        a[4 * r]! * b[c]! +
          a[4 * r + 1]! * b[4 + c]! +
          a[4 * r + 2]! * b[8 + c]! +
          (c === 3 ? a[4 * r + 3]! : 0),
      );
    }
  }
  return out;
}

/** Inverse of a rigid placement. */
function invert34(m: Matrix34): Matrix34 {
  const out: Matrix34 = [];
  for (let r = 0; r < 3; r++) {
    const row = [m[r]!, m[4 + r]!, m[8 + r]!];
    out.push(...row, -(row[0]! * m[3]! + row[1]! * m[7]! + row[2]! * m[11]!));
  }
  return out;
}

function readPlacement(t: Tokens): Placement {
  return { origin: t.vec(), z: t.vec(), x: t.vec(), y: t.vec() };
}

function readKnots(t: Tokens, count: number): number[] {
  const out: number[] = [];
  for (let i = 0; i < count; i++) {
    const value = t.number();
    for (let m = t.number(); m > 0; m--) out.push(value);
  }
  return out;
}

/** A periodic spline as a clamped-domain one: the poles wrap round and the knots are continued by whole periods. */
function unwrapPeriodic(
  poles: number,
  degree: number,
  knots: number[],
): { indices: number[]; knots: number[] } {
  const period = knots[knots.length - 1]! - knots[0]!;
  const lastMultiplicity = knots.filter((k) => k === knots[knots.length - 1]).length;
  const base = knots.slice(0, knots.length - lastMultiplicity);
  const at = (i: number): number => {
    const turn = Math.floor(i / base.length);
    return base[i - turn * base.length]! + turn * period;
  };
  const firstMultiplicity = knots.filter((k) => k === knots[0]).length;
  // Pole 0 of the periodic form belongs to the span whose knots end at the last copy of the first knot.
  const offset = firstMultiplicity - 1 - degree;
  const flat = Array.from({ length: poles + 2 * degree + 1 }, (_, i) => at(i + offset));
  return { indices: Array.from({ length: poles + degree }, (_, i) => i % poles), knots: flat };
}

function readCurve(t: Tokens): BrepCurve {
  const type = t.number();
  switch (type) {
    case 1:
      return { kind: 'line', origin: t.vec(), direction: t.vec() };
    case 2:
      return { kind: 'circle', at: readPlacement(t), radius: t.number() };
    case 3:
      return { kind: 'ellipse', at: readPlacement(t), major: t.number(), minor: t.number() };
    case 4:
      return { kind: 'parabola', at: readPlacement(t), focal: t.number() };
    case 5:
      return { kind: 'hyperbola', at: readPlacement(t), major: t.number(), minor: t.number() };
    case 6: {
      const rational = t.number() === 1;
      const degree = t.number();
      const poles: Numbers3[] = [];
      const weights: number[] = [];
      for (let i = 0; i <= degree; i++) {
        poles.push(t.vec());
        if (rational) weights.push(t.number());
      }
      const knots = [...Array<number>(degree + 1).fill(0), ...Array<number>(degree + 1).fill(1)];
      return { kind: 'nurbs', nurbs: { degree, poles, weights: rational ? weights : null, knots } };
    }
    case 7: {
      const rational = t.number() === 1;
      const periodic = t.number() === 1;
      const degree = t.number();
      const poleCount = t.number();
      const knotCount = t.number();
      const poles: Numbers3[] = [];
      const weights: number[] = [];
      for (let i = 0; i < poleCount; i++) {
        poles.push(t.vec());
        if (rational) weights.push(t.number());
      }
      const knots = readKnots(t, knotCount);
      if (!periodic)
        return { kind: 'nurbs', nurbs: { degree, poles, weights: rational ? weights : null, knots } };
      const open = unwrapPeriodic(poleCount, degree, knots);
      return {
        kind: 'nurbs',
        nurbs: {
          degree,
          poles: open.indices.map((i) => poles[i]!),
          weights: rational ? open.indices.map((i) => weights[i]!) : null,
          knots: open.knots,
        },
      };
    }
    case 8:
      t.number();
      t.number();
      return readCurve(t);
    case 9: {
      const distance = t.number();
      const direction = t.vec();
      return { kind: 'offset', distance, direction, basis: readCurve(t) };
    }
    default:
      throw new Error(`unknown curve type ${type}`);
  }
}

function readSurface(t: Tokens): BrepSurface {
  const type = t.number();
  switch (type) {
    case 1:
      return { kind: 'plane', at: readPlacement(t) };
    case 2:
      return { kind: 'cylinder', at: readPlacement(t), radius: t.number() };
    case 3:
      return { kind: 'cone', at: readPlacement(t), radius: t.number(), semiAngle: t.number() };
    case 4:
      return { kind: 'sphere', at: readPlacement(t), radius: t.number() };
    case 5:
      return { kind: 'torus', at: readPlacement(t), major: t.number(), minor: t.number() };
    case 6:
      return { kind: 'extrusion', direction: t.vec(), basis: readCurve(t) };
    case 7:
      return { kind: 'revolution', origin: t.vec(), axis: t.vec(), basis: readCurve(t) };
    case 8: {
      const [ru, rv] = [t.number(), t.number()];
      const [degreeU, degreeV] = [t.number(), t.number()];
      const grid = readPoleGrid(t, degreeU + 1, degreeV + 1, ru + rv > 0);
      const clamp = (d: number) => [...Array<number>(d + 1).fill(0), ...Array<number>(d + 1).fill(1)];
      return {
        kind: 'nurbs',
        nurbs: { degreeU, degreeV, ...grid, knotsU: clamp(degreeU), knotsV: clamp(degreeV) },
      };
    }
    case 9: {
      const [ru, rv, pu, pv] = [t.number(), t.number(), t.number(), t.number()];
      const [degreeU, degreeV, nu, nv, ku, kv] = [
        t.number(),
        t.number(),
        t.number(),
        t.number(),
        t.number(),
        t.number(),
      ];
      let { poles, weights } = readPoleGrid(t, nu, nv, ru + rv > 0);
      let knotsU = readKnots(t, ku);
      let knotsV = readKnots(t, kv);
      if (pu === 1) {
        const open = unwrapPeriodic(nu, degreeU, knotsU);
        poles = open.indices.map((i) => poles[i]!);
        weights = weights && open.indices.map((i) => weights![i]!);
        knotsU = open.knots;
      }
      if (pv === 1) {
        const open = unwrapPeriodic(nv, degreeV, knotsV);
        poles = poles.map((row) => open.indices.map((i) => row[i]!));
        weights = weights && weights.map((row) => open.indices.map((i) => row[i]!));
        knotsV = open.knots;
      }
      return { kind: 'nurbs', nurbs: { degreeU, degreeV, poles, weights, knotsU, knotsV } };
    }
    case 10:
      for (let i = 0; i < 4; i++) t.number();
      return readSurface(t);
    case 11: {
      const distance = t.number();
      return { kind: 'offset', distance, basis: readSurface(t) };
    }
    default:
      throw new Error(`unknown surface type ${type}`);
  }
}

function readPoleGrid(
  t: Tokens,
  nu: number,
  nv: number,
  rational: boolean,
): { poles: Numbers3[][]; weights: number[][] | null } {
  const poles: Numbers3[][] = [];
  const weights: number[][] = [];
  for (let i = 0; i < nu; i++) {
    const row: Numbers3[] = [];
    const w: number[] = [];
    for (let j = 0; j < nv; j++) {
      row.push(t.vec());
      if (rational) w.push(t.number());
    }
    poles.push(row);
    weights.push(w);
  }
  return { poles, weights: rational ? weights : null };
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
