import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { RIGID_TAP_BUILT_IN as PROFILE } from '../profiles/shipped.ts';
import type { Motion } from './motion.ts';
import { readProgram } from './read.ts';

const START = 'G21 G17 G90 G94 G54\nT1 M6\nS1000 M3\nG0 X-20. Y-20.\nG43 H1 Z25.\nG1 Z-2. F100.\n';
const read = (text: string, radius: number | null = 5) =>
  readProgram(`${START}${text}\nG0 Z25.\nM30`, PROFILE, { radiusOf: (d) => (d === 1 ? radius : null) });
const flat = (motions: readonly Motion[]) =>
  motions.filter((m) => m.compensation).map((m) => m.to.slice(0, 2).map((v) => Math.round(v! * 1e4) / 1e4));
const rules = (text: string, radius: number | null = 5) =>
  read(text, radius).problems.map((p) => `${p.severity} ${p.rule}`);

describe('cutter compensation in the control', () => {
  // A square of 40, clockwise: the cutter goes to its left, outside.
  const square = 'G41 G1 X0. Y-10. D1\nG1 Y40.\nX40.\nY0.\nX-10.\nG40 G1 X-20. Y-20.';

  it('runs a radius beside the contour, round outer corners, and back to it where it ends', () => {
    const { motions, problems } = read(square);
    expect(problems).toEqual([]);
    expect(flat(motions)).toEqual([
      [-5, -10],
      [-5, 40],
      [0, 45],
      [40, 45],
      [45, 40],
      [45, 0],
      [40, -5],
      [-10, -5],
    ]);
    const corner = motions.find((m) => m.kind === 'arc')!;
    expect(corner).toMatchObject({ clockwise: true, turns: 0 });
    expect(corner.centre!.slice(0, 2)).toEqual([0, 40]);
    const off = motions.findIndex((m) => m.from[0] === -10 && m.to[0] === -20);
    expect(motions[off]!.from.slice(0, 2)).toEqual([-10, -5]);
    expect(motions[off]!.to.slice(0, 2)).toEqual([-20, -20]);
  });

  it('cuts inner corners short where the shifted moves meet, lines and arcs alike', () => {
    // Inside the square: to the right of the same way.
    const inside = read('G42 G1 X0. Y20. D1\nG1 Y40.\nX40.\nY0.\nX0.\nY20.\nG40 G1 X20.');
    expect(inside.problems).toEqual([]);
    expect(flat(inside.motions)).toEqual([
      [5, 20],
      [5, 35],
      [35, 35],
      [35, 5],
      [5, 5],
      [5, 20],
    ]);
    // A round pocket, counter-clockwise inside: ⌀40 with ⌀10 is a way of ⌀30.
    const round = read('G41 G1 X20. Y0. D1\nG3 X20. Y0. I-20. J0.\nG40 G1 X0. Y0.');
    const arc = round.motions.find((m) => m.kind === 'arc')!;
    expect(arc.to.slice(0, 2).map((v) => Math.round(v! * 1e6) / 1e6)).toEqual([15, 0]);
    expect(Math.hypot(arc.from[0]! - arc.centre![0], arc.from[1]! - arc.centre![1])).toBeCloseTo(15, 9);
  });

  it('says what cannot be followed, with its line', () => {
    expect(rules('G41 G1 X0. Y0.\nG40 G1 X9.')).toContain('error compensation');
    expect(rules(square, null)).toContain('error compensation');
    expect(rules('G41 G3 X20. Y-20. I20. D1\nG40 G1 X0.')).toContain('error compensation');
    // A groove of 8 between two walls has no room for ⌀10.
    expect(rules('G42 G1 X0. Y20. D1\nG1 Y40.\nX8.\nY0.\nG40 G1 X-20.')).toContain('error compensation');
    expect(rules('G41 G1 X0. Y-10. D1\nG1 Y5.\nG81 X5. Y5. Z-3. R2.\nG80\nG40 G1 X9.')).toContain(
      'error compensation',
    );
    expect(rules('G18 G41 G1 X0. Y-10. D1\nG40 G1 X9.')).toContain('error compensation');
    // Switched on in a move shorter than the radius.
    expect(rules('G41 G1 X-18. Y-20. D1\nG1 Y5.\nG40 G1 X-30.')).toEqual(['warning compensation']);
  });

  it('stays a radius beside where G40 stands alone, until a move in the plane', () => {
    const { motions, problems } = read('G41 G1 X0. Y-10. D1\nG1 Y40.\nG40\nG0 Z5.\nG0 X-30. Y50.');
    expect(problems.filter((p) => p.severity === 'error')).toEqual([]);
    const up = motions.find((m) => m.line === 10)!;
    expect([up.from, up.to]).toEqual([
      [-5, 40, -2],
      [-5, 40, 5],
    ]);
    expect(motions.find((m) => m.line === 11)!.from).toEqual([-5, 40, 5]);
    expect(motions.find((m) => m.line === 11)!.to.slice(0, 2)).toEqual([-30, 50]);
  });

  it('does not change sides without G40 between them', () => {
    expect(rules('G41 G1 X0. Y-10. D1\nG1 Y40.\nG42 G1 X40. D1\nG1 Y0.\nG40 G1 X60.')).toContain(
      'error compensation',
    );
  });

  it('never comes nearer to the contour than the radius, and is as near all along it (property)', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 1, max: 8, noNaN: true }),
        fc.array(fc.double({ min: 0.35, max: 1.1, noNaN: true }), { minLength: 6, maxLength: 12 }),
        (radius, turns) => {
          // A convex outline about (0, 0), clockwise.
          const total = turns.reduce((a, b) => a + b, 0);
          let angle = 0;
          const points = turns.map((t): [number, number] => {
            angle -= (t / total) * 2 * Math.PI;
            return [60 * Math.cos(angle), 60 * Math.sin(angle)];
          });
          const words = [...points, points[0]!].map(([x, y]) => `X${x.toFixed(4)} Y${y.toFixed(4)}`);
          const [dx, dy] = [points[0]![0] - points.at(-1)![0], points[0]![1] - points.at(-1)![1]];
          const l = Math.hypot(dx, dy);
          const lead = `X${(points.at(-1)![0] - (20 * dx) / l).toFixed(4)} Y${(points.at(-1)![1] - (20 * dy) / l).toFixed(4)}`;
          const { motions, problems } = read(
            `G0 X150. Y150.\nG41 G1 ${lead} D1\n${words.map((w) => `G1 ${w}`).join('\n')}\nG40 G1 X150. Y150.`,
            radius,
          );
          expect(problems.filter((p) => p.severity === 'error')).toEqual([]);
          const lines = motions.filter((m) => m.compensation && m.kind === 'feed').slice(2);
          expect(lines.length).toBeGreaterThan(3);
          for (const m of lines) {
            const middle = [(m.from[0]! + m.to[0]!) / 2, (m.from[1]! + m.to[1]!) / 2] as const;
            const away = Math.min(...points.map((p, n) => gap(middle, p, points[(n + 1) % points.length]!)));
            expect(away).toBeCloseTo(radius, 2);
          }
        },
      ),
      { numRuns: 60 },
    );
  });
});

function gap(p: readonly [number, number], a: [number, number], b: [number, number]): number {
  const [dx, dy] = [b[0] - a[0], b[1] - a[1]];
  const t = Math.max(0, Math.min(1, ((p[0] - a[0]) * dx + (p[1] - a[1]) * dy) / (dx * dx + dy * dy)));
  return Math.hypot(p[0] - a[0] - t * dx, p[1] - a[1] - t * dy);
}

describe('arcs in upright planes', () => {
  it('run from Z to X in G18 and from Y to Z in G19, seen from the axis across them', () => {
    // A quarter from straight below its centre to its +X side: from +Y it goes counter-clockwise from Z to X … here clockwise.
    const down = read('G18 G2 X-10. Z8. I0. K10.\nG17 G40');
    expect(down.problems).toEqual([]);
    const pieces = down.motions.filter((m) => m.line === 7);
    expect(pieces.length).toBeGreaterThan(20);
    for (const m of pieces) expect(Math.hypot(m.to[0]! + 20, m.to[2]! - 8)).toBeCloseTo(10, 3);
    const middle = pieces[Math.floor(pieces.length / 2)]!.to;
    const other = read('G18 G3 X-10. Z8. I0. K10.\nG17 G40').motions.filter((m) => m.line === 7);
    // One of the two goes the short way round, a quarter, the other three quarters.
    expect(Math.max(pieces.length, other.length)).toBeGreaterThan(
      2.5 * Math.min(pieces.length, other.length),
    );
    expect(middle[1]).toBe(-20);
    const side = read('G19 G2 Y-10. Z8. J0. K10.\nG17 G40').motions.filter((m) => m.line === 7);
    for (const m of side) expect(Math.hypot(m.to[1]! + 20, m.to[2]! - 8)).toBeCloseTo(10, 3);
  });

  it('turn as the right hand does about the axis across: X to Y, Z to X, Y to Z counter-clockwise', () => {
    // From the first axis a quarter counter-clockwise leads to the second.
    const ends = (text: string) => read(text).motions.filter((m) => m.line === 7).length;
    const quarter = ends('G18 G3 X-10. Z-12. I0. K-10.\nG17');
    const most = ends('G18 G2 X-10. Z-12. I0. K-10.\nG17');
    expect(most).toBeGreaterThan(2.5 * quarter);
    const quarterYZ = ends('G19 G3 Y-30. Z8. J-10. K0.\nG17');
    expect(ends('G19 G2 Y-30. Z8. J-10. K0.\nG17')).toBeGreaterThan(2.5 * quarterYZ);
  });

  it('refuse cycles, which are known in XY alone', () => {
    expect(rules('G18 G81 X0. Y0. Z-5. R2.\nG80 G17')).toContain('error cycle-plane');
  });
});
