import type { BrepCurve, BrepSurface, Placement, Swept } from '@yellow-pin/core/brep/geometry';
import type { Vec3 } from '@yellow-pin/core/geometry/vec';
import { Tokens } from './brep-tokens.ts';

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

/** The curve that comes next in the text. */
export const readCurve = (t: Tokens): BrepCurve => curveOf(t.number(), t);

const TRIMMED = 8;

/** What a surface is swept from. */
function readSwept(t: Tokens): Swept {
  const type = t.number();
  if (type !== TRIMMED) return { basis: curveOf(type, t) };
  const range: [number, number] = [t.number(), t.number()];
  return { range, basis: readCurve(t) };
}

function curveOf(type: number, t: Tokens): BrepCurve {
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
      const poles: Vec3[] = [];
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
      const poles: Vec3[] = [];
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
    case TRIMMED:
      // Where an edge ends on it is said beside it.
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

/** The surface that comes next in the text. */
export function readSurface(t: Tokens): BrepSurface {
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
      return { kind: 'extrusion', direction: t.vec(), ...readSwept(t) };
    case 7:
      return { kind: 'revolution', origin: t.vec(), axis: t.vec(), ...readSwept(t) };
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
): { poles: Vec3[][]; weights: number[][] | null } {
  const poles: Vec3[][] = [];
  const weights: number[][] = [];
  for (let i = 0; i < nu; i++) {
    const row: Vec3[] = [];
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
