import { rationalRound, rationalSphere, rationalTorus } from './rational-round.ts';

const number = (v: number): string => (Number.isInteger(v) ? `${v}.` : v.toPrecision(17));

type Vector = [number, number, number];

/**
 * The same STEP file with its planes, cylinders, cones, spheres and tori stored as B-spline surfaces, as some systems export them. Each surface is
 * made `reach` long about its own origin; edges stay as they are. Cones run to their apex, where a whole side of the surface is one point.
 */
export function asSplines(text: string, reach = 400): string {
  const entities = new Map<number, string>();
  for (const m of text.matchAll(/#(\d+)\s*=\s*([\s\S]*?);/g))
    entities.set(Number(m[1]), m[2]!.replace(/\s+/g, ' '));
  let next = Math.max(...entities.keys()) + 1;
  const added: string[] = [];
  const point = (p: Vector): string => {
    added.push(`#${next}=CARTESIAN_POINT('',(${p.map(number).join(',')}));`);
    return `#${next++}`;
  };
  const numbersOf = (id: number): Vector =>
    [...entities.get(id)!.matchAll(/-?\d+\.?\d*(?:E[-+]?\d+)?/gi)]
      .map((m) => Number(m[0]))
      .slice(-3) as Vector;
  const frameOf = (id: number): { o: Vector; x: Vector; y: Vector; z: Vector } => {
    const [o, z, x] = [...entities.get(id)!.matchAll(/#(\d+)/g)].map((m) => numbersOf(Number(m[1]))) as [
      Vector,
      Vector,
      Vector,
    ];
    return { o, x, z, y: [z[1] * x[2] - z[2] * x[1], z[2] * x[0] - z[0] * x[2], z[0] * x[1] - z[1] * x[0]] };
  };
  const plain = (rows: string[][]): string =>
    `B_SPLINE_SURFACE_WITH_KNOTS('',1,1,(${rows.map((r) => `(${r.join(',')})`).join(',')}),.UNSPECIFIED.,.F.,.F.,.F.,(2,2),(2,2),(0.,1.),(0.,1.),.UNSPECIFIED.)`;
  const round = (frame: number, radiusAt: (h: number) => number, low: number, high: number): string => {
    const f = frameOf(frame);
    const at = (i: number, k: number, h: number): Vector =>
      [0, 1, 2].map((c) => f.o[c]! + radiusAt(h) * (i * f.x[c]! + k * f.y[c]!) + h * f.z[c]!) as Vector;
    return rationalRound((i, k, end) => point(at(i, k, end === 0 ? low : high)));
  };
  const torus = (frame: number, major: number, minor: number): string => {
    const f = frameOf(frame);
    const pole = (i: number, k: number, p: number, q: number): string =>
      point(
        [0, 1, 2].map(
          (c) => f.o[c]! + (major + minor * p) * (i * f.x[c]! + k * f.y[c]!) + minor * q * f.z[c]!,
        ) as Vector,
      );
    return rationalTorus(pole);
  };
  const sphere = (frame: number, radius: number): string => {
    const f = frameOf(frame);
    return rationalSphere((i, k, out, up) =>
      point(
        [0, 1, 2].map((c) => f.o[c]! + radius * (out * (i * f.x[c]! + k * f.y[c]!) + up * f.z[c]!)) as Vector,
      ),
    );
  };
  const changed = new Map<number, string>();
  for (const [id, entity] of entities) {
    const m =
      /^(PLANE|CYLINDRICAL_SURFACE|CONICAL_SURFACE|TOROIDAL_SURFACE|SPHERICAL_SURFACE)\s*\(\s*'[^']*'\s*,\s*#(\d+)(?:\s*,\s*([^,)]+))?(?:\s*,\s*([^,)]+))?\s*\)/.exec(
        entity,
      );
    if (!m) continue;
    const frame = Number(m[2]);
    if (m[1] === 'PLANE') {
      const f = frameOf(frame);
      const corner = (i: number, k: number): string =>
        point([0, 1, 2].map((c) => f.o[c]! + reach * (i * f.x[c]! + k * f.y[c]!)) as Vector);
      changed.set(
        id,
        plain([
          [corner(-1, -1), corner(-1, 1)],
          [corner(1, -1), corner(1, 1)],
        ]),
      );
    } else if (m[1] === 'TOROIDAL_SURFACE') changed.set(id, torus(frame, Number(m[3]), Number(m[4])));
    else if (m[1] === 'SPHERICAL_SURFACE') changed.set(id, sphere(frame, Number(m[3])));
    else if (m[1] === 'CYLINDRICAL_SURFACE')
      changed.set(
        id,
        round(frame, () => Number(m[3]), -reach, reach),
      );
    else {
      const [radius, slope] = [Number(m[3]), Math.tan(Number(m[4]))];
      changed.set(
        id,
        round(frame, (h) => radius + h * slope, Math.max(-reach, -radius / slope), reach),
      );
    }
  }
  const rewritten = text.replace(/#(\d+)\s*=\s*([\s\S]*?);/g, (whole, id: string) =>
    changed.has(Number(id)) ? `#${id}=${changed.get(Number(id))!};` : whole,
  );
  return rewritten.replace(/ENDSEC;\s*END-ISO/, `${added.join('\n')}\nENDSEC;\nEND-ISO`);
}
