import { rationalRound } from './rational-round.ts';

/**
 * Writes a STEP (AP214) file of a plate with a square grid of holes, as text and without the kernel:
 * every second hole is blind with a flat floor, the others go through. Benches and tests use it for parts of any size.
 */
export interface PlateOptions {
  holes: number;
  /** Distance between neighbouring holes, mm. */
  pitch?: number;
  diameter?: number;
  thickness?: number;
  /** How a hole's wall is stored: one face with a seam, two halves, or a rational B-spline surface. */
  wall?: 'seam' | 'halves' | 'spline';
}

class StepText {
  private readonly lines: string[] = [];
  add(entity: string): number {
    this.lines.push(entity);
    return this.lines.length;
  }
  point(x: number, y: number, z: number): number {
    return this.add(`CARTESIAN_POINT('',(${num(x)},${num(y)},${num(z)}))`);
  }
  direction(x: number, y: number, z: number): number {
    return this.add(`DIRECTION('',(${num(x)},${num(y)},${num(z)}))`);
  }
  frame(o: readonly number[], z: readonly number[], x: readonly number[]): number {
    const p = this.point(o[0]!, o[1]!, o[2]!);
    const dz = this.direction(z[0]!, z[1]!, z[2]!);
    const dx = this.direction(x[0]!, x[1]!, x[2]!);
    return this.add(`AXIS2_PLACEMENT_3D('',#${p},#${dz},#${dx})`);
  }
  vertex(x: number, y: number, z: number): number {
    return this.add(`VERTEX_POINT('',#${this.point(x, y, z)})`);
  }
  body(): string {
    return this.lines.map((e, i) => `#${i + 1}=${e};`).join('\n');
  }
}

const num = (v: number): string => (Number.isInteger(v) ? `${v}.` : String(v));

/** A whole cylinder wall as a rational B-spline surface: nine poles round, two along. Its dU×dV points outward, as a cylinder's does. */
function splineCylinder(s: StepText, x: number, y: number, r: number, zb: number): number {
  return s.add(rationalRound((i, k, end) => `#${s.point(x + i * r, y + k * r, end === 0 ? zb : 0)}`));
}

/** STEP text of the plate, top face at Z 0, mm. */
export function plateStep({
  holes,
  pitch = 10,
  diameter = 5,
  thickness = 20,
  wall: wallKind = 'seam',
}: PlateOptions): string {
  const s = new StepText();
  const columns = Math.ceil(Math.sqrt(holes));
  const rows = Math.ceil(holes / columns);
  const [w, d, t, r] = [columns * pitch, rows * pitch, thickness, diameter / 2];
  const faces: number[] = [];
  const oriented = (e: number, forward: boolean) =>
    s.add(`ORIENTED_EDGE('',*,*,#${e},.${forward ? 'T' : 'F'}.)`);
  const loop = (edges: number[]) => s.add(`EDGE_LOOP('',(${edges.map((e) => `#${e}`).join(',')}))`);
  const bound = (l: number, outer: boolean) => s.add(`FACE_${outer ? 'OUTER_' : ''}BOUND('',#${l},.T.)`);
  const face = (bounds: number[], surface: number, same: boolean) =>
    faces.push(
      s.add(`ADVANCED_FACE('',(${bounds.map((b) => `#${b}`).join(',')}),#${surface},.${same ? 'T' : 'F'}.)`),
    );
  const line = (p: number[], q: number[], a: number, b: number) => {
    const dir = q.map((v, i) => v - p[i]!);
    const len = Math.hypot(dir[0]!, dir[1]!, dir[2]!);
    const vector = s.add(`VECTOR('',#${s.direction(dir[0]! / len, dir[1]! / len, dir[2]! / len)},1.)`);
    const l = s.add(`LINE('',#${s.point(p[0]!, p[1]!, p[2]!)},#${vector})`);
    return s.add(`EDGE_CURVE('',#${a},#${b},#${l},.T.)`);
  };
  const circle = (x: number, y: number, z: number, v: number) => {
    const c = s.add(`CIRCLE('',#${s.frame([x, y, z], [0, 0, 1], [1, 0, 0])},${num(r)})`);
    return s.add(`EDGE_CURVE('',#${v},#${v},#${c},.T.)`);
  };
  const corners = [0, -t].map((z) => [
    [0, 0, z],
    [w, 0, z],
    [w, d, z],
    [0, d, z],
  ]);
  const vertices = corners.map((ring) => ring.map((p) => s.vertex(p[0]!, p[1]!, p[2]!)));
  const ring = corners.map((c, k) =>
    c.map((p, i) => line(p, c[(i + 1) % 4]!, vertices[k]![i]!, vertices[k]![(i + 1) % 4]!)),
  );
  const posts = corners[0]!.map((p, i) => line(p, corners[1]![i]!, vertices[0]![i]!, vertices[1]![i]!));
  for (let i = 0; i < 4; i++) {
    const j = (i + 1) % 4;
    const normal = [
      [0, -1, 0],
      [1, 0, 0],
      [0, 1, 0],
      [-1, 0, 0],
    ][i]!;
    const l = loop([
      oriented(posts[i]!, true),
      oriented(ring[1]![i]!, true),
      oriented(posts[j]!, false),
      oriented(ring[0]![i]!, false),
    ]);
    face([bound(l, true)], s.add(`PLANE('',#${s.frame(corners[0]![i]!, normal, [0, 0, 1])})`), true);
  }
  const topLoops = [bound(loop(ring[0]!.map((e) => oriented(e, true))), true)];
  const bottomLoops = [bound(loop([...ring[1]!].reverse().map((e) => oriented(e, false))), true)];
  for (let k = 0; k < holes; k++) {
    const x = (k % columns) * pitch + pitch / 2;
    const y = Math.floor(k / columns) * pitch + pitch / 2;
    const blind = k % 2 === 1;
    const zb = blind ? -t / 2 : -t;
    const rimOut = (l: number[]) => topLoops.push(bound(loop(l), false));
    const closeBelow = (edges: number[]) => {
      if (blind)
        face(
          [bound(loop(edges), true)],
          s.add(`PLANE('',#${s.frame([x, y, zb], [0, 0, 1], [1, 0, 0])})`),
          true,
        );
      else bottomLoops.push(bound(loop(edges), false));
    };
    if (wallKind === 'halves') {
      const ends = [1, -1].map((k) => [s.vertex(x + k * r, y, 0), s.vertex(x + k * r, y, zb)] as const);
      const half = (z: number, a: number, b: number) => {
        const c = s.add(`CIRCLE('',#${s.frame([x, y, z], [0, 0, 1], [1, 0, 0])},${num(r)})`);
        return s.add(`EDGE_CURVE('',#${a},#${b},#${c},.T.)`);
      };
      const upper = [half(0, ends[0]![0], ends[1]![0]), half(0, ends[1]![0], ends[0]![0])];
      const lower = [half(zb, ends[0]![1], ends[1]![1]), half(zb, ends[1]![1], ends[0]![1])];
      const sides = [1, -1].map((k, i) =>
        line([x + k * r, y, 0], [x + k * r, y, zb], ends[i]![0], ends[i]![1]),
      );
      rimOut([oriented(upper[1]!, false), oriented(upper[0]!, false)]);
      for (const i of [0, 1]) {
        const l = loop([
          oriented(upper[i]!, true),
          oriented(sides[1 - i]!, true),
          oriented(lower[i]!, false),
          oriented(sides[i]!, false),
        ]);
        face(
          [bound(l, true)],
          s.add(`CYLINDRICAL_SURFACE('',#${s.frame([x, y, 0], [0, 0, 1], [1, 0, 0])},${num(r)})`),
          false,
        );
      }
      closeBelow([oriented(lower[0]!, true), oriented(lower[1]!, true)]);
      continue;
    }
    const v0 = s.vertex(x + r, y, 0);
    const v1 = s.vertex(x + r, y, zb);
    const top = circle(x, y, 0, v0);
    const low = circle(x, y, zb, v1);
    const seam = line([x + r, y, 0], [x + r, y, zb], v0, v1);
    rimOut([oriented(top, false)]);
    const wall = loop([
      oriented(top, true),
      oriented(seam, true),
      oriented(low, false),
      oriented(seam, false),
    ]);
    const surface =
      wallKind === 'spline'
        ? splineCylinder(s, x, y, r, zb)
        : s.add(`CYLINDRICAL_SURFACE('',#${s.frame([x, y, 0], [0, 0, 1], [1, 0, 0])},${num(r)})`);
    face([bound(wall, true)], surface, false);
    closeBelow([oriented(low, true)]);
  }
  face(topLoops, s.add(`PLANE('',#${s.frame([0, 0, 0], [0, 0, 1], [1, 0, 0])})`), true);
  face(bottomLoops, s.add(`PLANE('',#${s.frame([0, 0, -t], [0, 0, -1], [1, 0, 0])})`), true);
  const shell = s.add(`CLOSED_SHELL('',(${faces.map((f) => `#${f}`).join(',')}))`);
  const solid = s.add(`MANIFOLD_SOLID_BREP('',#${shell})`);
  const length = s.add('(LENGTH_UNIT()NAMED_UNIT(*)SI_UNIT(.MILLI.,.METRE.))');
  const angle = s.add('(NAMED_UNIT(*)PLANE_ANGLE_UNIT()SI_UNIT($,.RADIAN.))');
  const steradian = s.add('(NAMED_UNIT(*)SI_UNIT($,.STERADIAN.)SOLID_ANGLE_UNIT())');
  const precision = s.add(`UNCERTAINTY_MEASURE_WITH_UNIT(LENGTH_MEASURE(1.E-6),#${length},'','')`);
  const context = s.add(
    `(GEOMETRIC_REPRESENTATION_CONTEXT(3)GLOBAL_UNCERTAINTY_ASSIGNED_CONTEXT((#${precision}))GLOBAL_UNIT_ASSIGNED_CONTEXT((#${length},#${angle},#${steradian}))REPRESENTATION_CONTEXT('',''))`,
  );
  const shape = s.add(
    `ADVANCED_BREP_SHAPE_REPRESENTATION('',(#${solid},#${s.frame([0, 0, 0], [0, 0, 1], [1, 0, 0])}),#${context})`,
  );
  const application = s.add("APPLICATION_CONTEXT('automotive_design')");
  const productContext = s.add(`PRODUCT_CONTEXT('',#${application},'mechanical')`);
  const product = s.add(`PRODUCT('plate ${holes}','plate ${holes}','',(#${productContext}))`);
  const formation = s.add(`PRODUCT_DEFINITION_FORMATION('','',#${product})`);
  const definitionContext = s.add(`PRODUCT_DEFINITION_CONTEXT('part definition',#${application},'design')`);
  const definition = s.add(`PRODUCT_DEFINITION('design','',#${formation},#${definitionContext})`);
  const definitionShape = s.add(`PRODUCT_DEFINITION_SHAPE('','',#${definition})`);
  s.add(`SHAPE_DEFINITION_REPRESENTATION(#${definitionShape},#${shape})`);
  return `ISO-10303-21;
HEADER;
FILE_DESCRIPTION((''),'2;1');
FILE_NAME('plate.step','2026-01-01T00:00:00',(''),(''),'','','');
FILE_SCHEMA(('AUTOMOTIVE_DESIGN'));
ENDSEC;
DATA;
${s.body()}
ENDSEC;
END-ISO-10303-21;
`;
}
