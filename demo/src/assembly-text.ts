import type { Vec3 } from '@yellow-pin/core/geometry/vec';
import { Part21File } from '@yellow-pin/core/part21/file';
import { Ref } from '@yellow-pin/core/part21/value';
import { encode } from './model-of.ts';

/** Origin, Z and X of a placement. */
export type Placed = [origin: Vec3, z: Vec3, x: Vec3];

/** How an assembly's text puts its part into place. */
export const PUTTINGS = ['relationship', 'relationship turned round', 'mapped item'] as const;
export type Putting = (typeof PUTTINGS)[number];

/**
 * A part's text as an assembly that holds it once for each pair: what lies at the first placement in the part lies at the second in the
 * assembly (ISO 10303-43). With `nested`, all that stands once more in an assembly above it, moved by it.
 */
export function assemblyText(
  text: string,
  uses: readonly { from: Placed; to: Placed }[],
  putting: Putting,
  nested: Placed | null = null,
): string {
  const file = new Part21File(encode(text));
  let next = Math.max(...[...file.entities()].map((e) => e.id)) + 1;
  const added: string[] = [];
  const add = (entity: string): string => {
    added.push(`#${next}=${entity};`);
    return `#${next++}`;
  };
  const idOf = (id: number, k: number): string => {
    const v = file.entity(id).parts[0]!.args[k];
    return v instanceof Ref ? `#${v.id}` : '';
  };
  const real = (v: Vec3): string => v.map((x) => (Number.isInteger(x) ? `${x}.` : `${x}`)).join(',');
  const placement = ([o, z, x]: Placed): string =>
    add(
      `AXIS2_PLACEMENT_3D('',${add(`CARTESIAN_POINT('',(${real(o)}))`)},${add(`DIRECTION('',(${real(z)}))`)},${add(`DIRECTION('',(${real(x)}))`)})`,
    );
  const definition = file.ofType('SHAPE_DEFINITION_REPRESENTATION')[0]!;
  const part = { shape: idOf(definition, 1), product: idOf(Number(idOf(definition, 0).slice(1)), 2) };
  const context = idOf(Number(part.shape.slice(1)), 2);

  /** An assembly of one component, as often as there are pairs. */
  const assembly = (
    of: { shape: string; product: string },
    pairs: readonly { from: Placed; to: Placed }[],
  ) => {
    const placed = pairs.map(({ from, to }) => ({ from: placement(from), to: placement(to) }));
    const mapped =
      putting === 'mapped item'
        ? placed.map(({ from, to }) =>
            add(`MAPPED_ITEM('',${add(`REPRESENTATION_MAP(${from},${of.shape})`)},${to})`),
          )
        : [];
    const items = [...placed.map((p) => p.to), ...mapped].join(',');
    const shape = add(`SHAPE_REPRESENTATION('',(${items}),${context})`);
    const product = add(`PRODUCT_DEFINITION('','',$,$)`);
    const pds = add(`PRODUCT_DEFINITION_SHAPE('','',${product})`);
    add(`SHAPE_DEFINITION_REPRESENTATION(${pds},${shape})`);
    if (putting !== 'mapped item')
      placed.forEach(({ from, to }, i) => {
        const isTurned = putting === 'relationship turned round';
        const [one, two] = isTurned ? [shape, of.shape] : [of.shape, shape];
        const [a, b] = isTurned ? [to, from] : [from, to];
        const relation = add(
          `(REPRESENTATION_RELATIONSHIP('','',${one},${two})REPRESENTATION_RELATIONSHIP_WITH_TRANSFORMATION(${add(`ITEM_DEFINED_TRANSFORMATION('','',${a},${b})`)})SHAPE_REPRESENTATION_RELATIONSHIP())`,
        );
        const use = add(`NEXT_ASSEMBLY_USAGE_OCCURRENCE('${i}','','',${product},${of.product},$)`);
        add(
          `CONTEXT_DEPENDENT_SHAPE_REPRESENTATION(${relation},${add(`PRODUCT_DEFINITION_SHAPE('','',${use})`)})`,
        );
      });
    return { shape, product };
  };
  const first = assembly(part, uses);
  if (nested)
    assembly(first, [
      {
        from: [
          [0, 0, 0],
          [0, 0, 1],
          [1, 0, 0],
        ],
        to: nested,
      },
    ]);
  return text.replace(/ENDSEC;\s*END-ISO/, () => `${added.join('\n')}\nENDSEC;\nEND-ISO`);
}
