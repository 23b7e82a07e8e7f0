/** Row-major 3×4 placement matrix. */
export type Matrix34 = number[];

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
export function invert34(m: Matrix34): Matrix34 {
  const out: Matrix34 = [];
  for (let r = 0; r < 3; r++) {
    const row = [m[r]!, m[4 + r]!, m[8 + r]!];
    out.push(...row, -(row[0]! * m[3]! + row[1]! * m[7]! + row[2]! * m[11]!));
  }
  return out;
}
