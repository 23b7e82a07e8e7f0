/** Poles round a full turn of a rational quadratic B-spline, as shares of the radius along X and Y; every second one weighs √½. */
export const RING = [
  [1, 0],
  [1, 1],
  [0, 1],
  [-1, 1],
  [-1, 0],
  [-1, -1],
  [0, -1],
  [1, -1],
  [1, 0],
] as const;

/** STEP entity of a surface of revolution as a rational B-spline: nine poles round, two along. `poleAt` gives the reference of one. */
export function rationalRound(poleAt: (i: number, k: number, end: 0 | 1) => string): string {
  const poles = RING.map(([i, k]) => `(${([0, 1] as const).map((end) => poleAt(i, k, end)).join(',')})`).join(
    ',',
  );
  const weights = RING.map((_, k) => (k % 2 ? `(${Math.SQRT1_2},${Math.SQRT1_2})` : '(1.,1.)')).join(',');
  return `(BOUNDED_SURFACE()B_SPLINE_SURFACE(2,1,(${poles}),.UNSPECIFIED.,.T.,.F.,.F.)B_SPLINE_SURFACE_WITH_KNOTS((3,2,2,2,3),(2,2),(0.,0.25,0.5,0.75,1.),(0.,1.),.UNSPECIFIED.)GEOMETRIC_REPRESENTATION_ITEM()RATIONAL_B_SPLINE_SURFACE((${weights}))REPRESENTATION_ITEM('')SURFACE())`;
}

/** STEP entity of a whole torus: nine poles round the axis by nine round the tube, `(i, k)` and `(p, q)` as shares of both radii. */
export function rationalTorus(poleAt: (i: number, k: number, p: number, q: number) => string): string {
  const poles = RING.map(([i, k]) => `(${RING.map(([p, q]) => poleAt(i, k, p, q)).join(',')})`).join(',');
  const weight = (n: number): number => (n % 2 ? Math.SQRT1_2 : 1);
  const weights = RING.map(
    (_, u) => `(${RING.map((__, v) => (weight(u) * weight(v)).toFixed(17)).join(',')})`,
  ).join(',');
  const knots = '(3,2,2,2,3),(3,2,2,2,3),(0.,0.25,0.5,0.75,1.),(0.,0.25,0.5,0.75,1.),.UNSPECIFIED.';
  return `(BOUNDED_SURFACE()B_SPLINE_SURFACE(2,2,(${poles}),.UNSPECIFIED.,.T.,.T.,.F.)B_SPLINE_SURFACE_WITH_KNOTS(${knots})GEOMETRIC_REPRESENTATION_ITEM()RATIONAL_B_SPLINE_SURFACE((${weights}))REPRESENTATION_ITEM('')SURFACE())`;
}

/** From the lower pole of a sphere by its equator to the upper one, as shares of the radius outward and up. */
const MERIDIAN = [
  [0, -1],
  [1, -1],
  [1, 0],
  [1, 1],
  [0, 1],
] as const;

/** STEP entity of a whole sphere: nine poles round the axis by five from pole to pole, whose sides are one point each. */
export function rationalSphere(poleAt: (i: number, k: number, out: number, up: number) => string): string {
  const poles = RING.map(([i, k]) => `(${MERIDIAN.map(([out, up]) => poleAt(i, k, out, up)).join(',')})`);
  const weight = (n: number): number => (n % 2 ? Math.SQRT1_2 : 1);
  const weights = RING.map(
    (_, u) => `(${MERIDIAN.map((__, v) => (weight(u) * weight(v)).toFixed(17)).join(',')})`,
  );
  const knots = '(3,2,2,2,3),(3,2,3),(0.,0.25,0.5,0.75,1.),(0.,0.5,1.),.UNSPECIFIED.';
  return `(BOUNDED_SURFACE()B_SPLINE_SURFACE(2,2,(${poles.join(',')}),.UNSPECIFIED.,.T.,.F.,.F.)B_SPLINE_SURFACE_WITH_KNOTS(${knots})GEOMETRIC_REPRESENTATION_ITEM()RATIONAL_B_SPLINE_SURFACE((${weights.join(',')}))REPRESENTATION_ITEM('')SURFACE())`;
}
