import { Part21File } from '@yellow-pin/core/part21/file';
import { Ref } from '@yellow-pin/core/part21/value';
import { encode } from './model-of.ts';

/** What a file is made to say of some of its faces, by their place among the model's faces. */
export interface Said {
  faces: readonly number[];
  /** A text of a property. */
  text?: string;
  /** The name of what it is said of. */
  name?: string;
  /** A diameter in the file's unit, with a fit or with limits. */
  diameter?: { size: number; fit?: [form: string, grade: string]; lower?: number; upper?: number };
  /** A tolerance of place, with the letters of its datums. */
  position?: { size: number; datums: readonly string[] };
  /** A datum's letter. */
  datum?: string;
}

/**
 * A part's text with dimensions, tolerances, datums and texts attached to its faces as AP242 has them (ISO 10303-47, -59). Of parts of one
 * solid, whose lengths are in the unit that is declared first.
 */
export function withSaid(text: string, list: readonly Said[]): string {
  const file = new Part21File(encode(text));
  const [shell = 0] = file.ofType('CLOSED_SHELL');
  const faces = file.entity(shell).parts[0]!.args[1] as Ref[];
  const [unit = 0] = file.ofType('LENGTH_UNIT');
  const [definition = 0] = file.ofType('PRODUCT_DEFINITION_SHAPE');
  const [representation = 0] = file.ofType('ADVANCED_BREP_SHAPE_REPRESENTATION');
  const [context = 0] = file.ofType('GEOMETRIC_REPRESENTATION_CONTEXT');
  let next = Math.max(...[...file.entities()].map((e) => e.id)) + 1;
  const lines: string[] = [];
  const add = (entity: string): string => {
    lines.push(`#${next}=${entity};`);
    return `#${next++}`;
  };
  const real = (x: number): string => (Number.isInteger(x) ? `${x}.` : String(x));
  const measure = (x: number, name: string): string =>
    add(
      `(LENGTH_MEASURE_WITH_UNIT()MEASURE_REPRESENTATION_ITEM()MEASURE_WITH_UNIT(LENGTH_MEASURE(${real(x)}),#${unit})REPRESENTATION_ITEM('${name}'))`,
    );
  const datums = new Map<string, string>();
  const datumOf = (letter: string): string => {
    const known = datums.get(letter) ?? add(`DATUM('','',#${definition},.F.,'${letter}')`);
    datums.set(letter, known);
    return known;
  };
  for (const { faces: of, text: said, name = '', diameter, position, datum } of list) {
    const aspect = add(`SHAPE_ASPECT('${name}','',#${definition},.T.)`);
    for (const f of of)
      add(`GEOMETRIC_ITEM_SPECIFIC_USAGE('','',${aspect},#${representation},#${faces[f]!.id})`);
    if (said !== undefined) {
      const property = add(`PROPERTY_DEFINITION('note','',${aspect})`);
      const item = add(`DESCRIPTIVE_REPRESENTATION_ITEM('note','${said}')`);
      add(
        `PROPERTY_DEFINITION_REPRESENTATION(${property},${add(`REPRESENTATION('',(${item}),#${context})`)})`,
      );
    }
    if (diameter) {
      const { size, fit, lower, upper } = diameter;
      const dimension = add(`DIMENSIONAL_SIZE(${aspect},'diameter')`);
      const items = `(${measure(size, 'nominal value')},${add(`DESCRIPTIVE_REPRESENTATION_ITEM('dimensional note','theoretical')`)})`;
      add(
        `DIMENSIONAL_CHARACTERISTIC_REPRESENTATION(${dimension},${add(`SHAPE_DIMENSION_REPRESENTATION('',${items},#${context})`)})`,
      );
      const range = fit
        ? add(`LIMITS_AND_FITS('${fit[0]}','','${fit[1]}','')`)
        : lower !== undefined && upper !== undefined
          ? add(`TOLERANCE_VALUE(${measure(lower, '')},${measure(upper, '')})`)
          : null;
      if (range) add(`PLUS_MINUS_TOLERANCE(${range},${dimension})`);
    }
    if (position) {
      const compartments = position.datums.map((d) =>
        add(`DATUM_REFERENCE_COMPARTMENT('','',#${definition},.F.,${datumOf(d)},$)`),
      );
      const system = add(`DATUM_SYSTEM('','',#${definition},.F.,(${compartments.join()}))`);
      add(
        `(GEOMETRIC_TOLERANCE('','',${measure(position.size, '')},${aspect})GEOMETRIC_TOLERANCE_WITH_DATUM_REFERENCE((${system}))POSITION_TOLERANCE())`,
      );
    }
    if (datum !== undefined) add(`SHAPE_ASPECT_RELATIONSHIP('','',${aspect},${datumOf(datum)})`);
  }
  return text.replace(/ENDSEC;\s*END-ISO/, () => `${lines.join('\n')}\nENDSEC;\nEND-ISO`);
}
