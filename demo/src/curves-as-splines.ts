import { Part21File } from '@yellow-pin/core/part21/file';
import { Ref, type Value } from '@yellow-pin/core/part21/value';
import { encode } from './model-of.ts';
import { RING } from './rational-round.ts';

/** The same STEP text with its straight and round edges stored as splines: circles whole, so that edges run over their seams. */
export function curvesAsSplines(text: string): string {
  const file = new Part21File(encode(text));
  const args = (id: number): Value[] => file.entity(id).parts[0]!.args;
  const idOf = (v: Value): number => (v instanceof Ref ? v.id : 0);
  const numbers = (id: number): number[] => args(id)[1] as number[];
  let next = Math.max(...[...file.entities()].map((e) => e.id)) + 1;
  const added: string[] = [];
  const real = (x: number): string => (Number.isInteger(x) ? `${x}.` : x.toPrecision(17));
  const add = (entity: string): string => {
    added.push(`#${next}=${entity};`);
    return `#${next++}`;
  };
  const point = (p: number[]): string => add(`CARTESIAN_POINT('',(${p.map(real).join(',')}))`);
  const changed = new Map<number, string>();
  for (const id of file.ofType('CIRCLE')) {
    const [, place, radius] = args(id);
    const [, o, z, x] = args(idOf(place)).map((v) => (v instanceof Ref ? numbers(v.id) : []));
    if (o?.length !== 3 || !z || !x) continue;
    const y = [z[1]! * x[2]! - z[2]! * x[1]!, z[2]! * x[0]! - z[0]! * x[2]!, z[0]! * x[1]! - z[1]! * x[0]!];
    const poles = RING.map(([i, k]) =>
      point([0, 1, 2].map((c) => o[c]! + (radius as number) * (i * x[c]! + k * y[c]!))),
    );
    const weights = RING.map((_, k) => (k % 2 ? `${Math.SQRT1_2}` : '1.'));
    changed.set(
      id,
      `(BOUNDED_CURVE()B_SPLINE_CURVE(2,(${poles.join(',')}),.CIRCULAR_ARC.,.T.,.F.)B_SPLINE_CURVE_WITH_KNOTS((3,2,2,2,3),(0.,0.25,0.5,0.75,1.),.UNSPECIFIED.)CURVE()GEOMETRIC_REPRESENTATION_ITEM()RATIONAL_B_SPLINE_CURVE((${weights.join(',')}))REPRESENTATION_ITEM(''))`,
    );
  }
  for (const id of file.ofType('LINE')) {
    const [, at, vector] = args(id);
    const [p, d] = [numbers(idOf(at)), numbers(idOf(args(idOf(vector))[1]))];
    if (p.length !== 3) continue;
    // Long enough for any edge of the parts that are tested.
    const poles = [-500, 0, 500].map((t) => point([0, 1, 2].map((c) => p[c]! + t * d[c]!)));
    changed.set(
      id,
      `B_SPLINE_CURVE_WITH_KNOTS('',2,(${poles.join(',')}),.UNSPECIFIED.,.F.,.F.,(3,3),(0.,1.),.UNSPECIFIED.)`,
    );
  }
  const body = text.replace(/^#(\d+)\s*=\s*(CIRCLE|LINE)\s*\([^;]*;/gm, (all, id: string) => {
    const now = changed.get(Number(id));
    return now === undefined ? all : `#${id}=${now};`;
  });
  return body.replace(/ENDSEC;\s*END-ISO/, () => `${added.join('\n')}\nENDSEC;\nEND-ISO`);
}
