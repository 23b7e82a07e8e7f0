import { Part21File } from '@yellow-pin/core/part21/file';
import { Ref, TRUE, type Value } from '@yellow-pin/core/part21/value';
import { encode } from './model-of.ts';

/**
 * A part's text as programs write it whose faces need no seam: what goes round a cylinder has two bounds, and a cone's tip or a sphere's pole is
 * a loop of one vertex.
 */
export function withoutSeams(text: string): string {
  const file = new Part21File(encode(text));
  const args = (id: number): Value[] => file.entity(id).parts[0]!.args;
  const idOf = (v: Value): number => (v instanceof Ref ? v.id : 0);
  let next = Math.max(...[...file.entities()].map((e) => e.id)) + 1;
  const added: string[] = [];
  const changed = new Map<number, string>();
  const add = (entity: string): number => {
    added.push(`#${next}=${entity};`);
    return next++;
  };
  const listed = (ids: readonly number[]) => `(${ids.map((id) => `#${id}`).join(',')})`;
  for (const face of file.ofType('ADVANCED_FACE')) {
    const [, bounds, surface, sense] = args(face) as [Value, Value[], Value, { name: string }];
    const out: number[] = [];
    for (const bound of bounds.map(idOf)) {
      const [, loop, way] = args(bound) as [Value, Value, { name: string }];
      const edges =
        file.entity(idOf(loop)).parts[0]!.type === 'EDGE_LOOP'
          ? (args(idOf(loop))[1] as Value[]).map(idOf)
          : [];
      const edgeOf = (e: number) => idOf(args(e)[3]);
      const seams = edges.flatMap((e, i) =>
        edges.some((o, k) => k !== i && edgeOf(o) === edgeOf(e)) ? [i] : [],
      );
      if (seams.length !== 2) {
        out.push(bound);
        continue;
      }
      const [a, b] = seams as [number, number];
      const runs = [edges.slice(a + 1, b), [...edges.slice(b + 1), ...edges.slice(0, a)]];
      runs.forEach((run, i) => {
        // An edge's end that it comes back from at once is a pole.
        const turnedAt = edges[i === 0 ? a : b]!;
        const isForward = (args(turnedAt)[4] as { name: string }).name === TRUE.name;
        const made =
          run.length > 0
            ? add(`EDGE_LOOP('',${listed(run)})`)
            : add(`VERTEX_LOOP('',#${idOf(args(edgeOf(turnedAt))[isForward ? 2 : 1])})`);
        out.push(add(`FACE_BOUND('',#${made},.${way.name}.)`));
      });
    }
    changed.set(face, `ADVANCED_FACE('',${listed(out)},#${idOf(surface)},.${sense.name}.)`);
  }
  const body = text.replace(
    /^#(\d+)\s*=\s*ADVANCED_FACE\([^;]*;/gm,
    (_, id: string) => `#${id}=${changed.get(Number(id))!};`,
  );
  return body.replace(/ENDSEC;\s*END-ISO/, () => `${added.join('\n')}\nENDSEC;\nEND-ISO`);
}
