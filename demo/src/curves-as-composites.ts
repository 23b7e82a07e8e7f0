import { Part21File } from '@yellow-pin/core/part21/file';
import { encode } from './model-of.ts';

/**
 * The same STEP text with its straight and round edges on composite curves: each line and circle in two trimmed segments, the second of which
 * stands in the file run backwards.
 */
export function curvesAsComposites(text: string): string {
  const file = new Part21File(encode(text));
  let next = Math.max(...[...file.entities()].map((e) => e.id)) + 1;
  const added: string[] = [];
  const add = (entity: string): number => {
    added.push(`#${next}=${entity};`);
    return next++;
  };
  const composites = new Map<number, number>();
  const trimmed = (basis: number, from: number, to: number, sense: 'T' | 'F'): number => {
    const at = (u: number) => `(PARAMETER_VALUE(${u.toFixed(15)}))`;
    const curve = add(`TRIMMED_CURVE('',#${basis},${at(from)},${at(to)},.${sense}.,.PARAMETER.)`);
    return add(`COMPOSITE_CURVE_SEGMENT(.CONTINUOUS.,.${sense}.,#${curve})`);
  };
  const split = (basis: number, from: number, middle: number, to: number): void => {
    const segments = [trimmed(basis, from, middle, 'T'), trimmed(basis, to, middle, 'F')];
    composites.set(basis, add(`COMPOSITE_CURVE('',(${segments.map((s) => `#${s}`).join(',')}),.F.)`));
  };
  for (const id of file.ofType('CIRCLE')) split(id, 0, Math.PI, 2 * Math.PI);
  // Long enough for any edge of the parts that are tested.
  for (const id of file.ofType('LINE')) split(id, -500, 0, 500);
  const body = text.replace(
    /(EDGE_CURVE\s*\('[^']*',#\d+,#\d+,|(?:SURFACE|SEAM)_CURVE\s*\('[^']*',)#(\d+)/g,
    (all, before: string, curve: string) => {
      const now = composites.get(Number(curve));
      return now === undefined ? all : `${before}#${now}`;
    },
  );
  return body.replace(/ENDSEC;\s*END-ISO/, () => `${added.join('\n')}\nENDSEC;\nEND-ISO`);
}
