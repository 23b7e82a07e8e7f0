import type { Fields } from './fields.ts';

/** Knots with their multiplicities written out; throws where they do not fit degree and points (n + degree + 1). */
export function flatKnots(
  f: Fields,
  multiplicities: readonly number[],
  values: readonly number[],
  degree: number,
  poles: number,
): number[] {
  if (multiplicities.length !== values.length)
    throw f.error(`${values.length} knots with ${multiplicities.length} multiplicities`);
  const out: number[] = [];
  let before = -Infinity;
  values.forEach((value, i) => {
    const times = multiplicities[i] ?? 0;
    if (value < before || times < 1 || times > degree + 1)
      throw f.error('its knots do not rise, or stand too often');
    before = value;
    for (let k = 0; k < times; k++) out.push(value);
  });
  if (out.length !== poles + degree + 1)
    throw f.error(
      `${out.length} knots for ${poles} points of degree ${degree}: ${poles + degree + 1} were expected`,
    );
  return out;
}

/** Whole numbers from −degree on: a UNIFORM_CURVE. */
export const uniformKnots = (degree: number, poles: number): number[] =>
  Array.from({ length: poles + degree + 1 }, (_, i) => i - degree);

/** Whole numbers with full ends: a QUASI_UNIFORM_CURVE. */
export const quasiUniformKnots = (degree: number, poles: number): number[] =>
  Array.from({ length: poles + degree + 1 }, (_, i) => Math.min(Math.max(i - degree, 0), poles - degree));

/** Bézier pieces one after the other: a BEZIER_CURVE. */
export function bezierKnots(f: Fields, degree: number, poles: number): number[] {
  const pieces = (poles - 1) / degree;
  if (!Number.isInteger(pieces)) throw f.error(`${poles} points make no Bézier pieces of degree ${degree}`);
  return [
    0,
    ...Array.from({ length: pieces * degree + degree }, (_, i) => Math.min(Math.floor(i / degree), pieces)),
    pieces,
  ];
}
