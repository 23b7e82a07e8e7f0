import { Ref, type Value } from '../part21/value.ts';
import type { Entities } from './fields.ts';

/** What one unit of a representation is: mm for a length, radians for an angle. */
export interface Units {
  mm: number;
  radians: number;
}

/** Powers of ten of the prefixes of ISO 1000 as ISO 10303-41 names them. */
const PREFIXES: Readonly<Record<string, number>> = {
  EXA: 18,
  PETA: 15,
  TERA: 12,
  GIGA: 9,
  MEGA: 6,
  KILO: 3,
  HECTO: 2,
  DECA: 1,
  DECI: -1,
  CENTI: -2,
  MILLI: -3,
  MICRO: -6,
  NANO: -9,
  PICO: -12,
  FEMTO: -15,
  ATTO: -18,
};
/** Units that are made from others go back no farther. */
const LONGEST_CHAIN = 20;

/** The unit that a context gives a length or an angle; null where it gives none. */
export function unitsOf(entities: Entities, context: number): Units {
  const assigned = entities.part(context, 'GLOBAL_UNIT_ASSIGNED_CONTEXT');
  const units = assigned?.refs(0) ?? [];
  const of = (type: string, si: number): number => {
    const unit = units.find((u) => entities.part(u, type) !== null);
    return unit === undefined ? 1 : unitSize(entities, unit, LONGEST_CHAIN) * si;
  };
  // Where nothing is said a length is a millimetre and an angle a radian, as kernels take it.
  return {
    mm: units.some((u) => entities.part(u, 'LENGTH_UNIT')) ? of('LENGTH_UNIT', 1000) : 1,
    radians: of('PLANE_ANGLE_UNIT', 1),
  };
}

/** What a programmer calls lengths in units of these names: a foot is inches too. */
export const unitSystem = (names: readonly string[]): 'mm' | 'inch' =>
  names.some((name) => /^(inch|in|foot|feet|ft)$/i.test(name)) ? 'inch' : 'mm';

/** The name of the unit that a context gives a length, as the file has it: `INCH`, `METRE` with its prefix. */
export function lengthUnitName(entities: Entities, context: number): string {
  const units = entities.part(context, 'GLOBAL_UNIT_ASSIGNED_CONTEXT')?.refs(0) ?? [];
  const unit = units.find((u) => entities.part(u, 'LENGTH_UNIT') !== null);
  if (unit === undefined) return '';
  return entities.part(unit, 'CONVERSION_BASED_UNIT')?.text(0) ?? '';
}

/** How many metres, or radians, a unit is (ISO 10303-41: SI units with a prefix, and units made from others). */
function unitSize(entities: Entities, unit: number, left: number): number {
  if (left === 0) throw entities.error(unit, 'this unit is made from itself');
  const si = entities.part(unit, 'SI_UNIT');
  if (si) {
    const prefix = si.count > 0 ? prefixOf(entities, unit) : null;
    if (prefix === null) return 1;
    const power = PREFIXES[prefix];
    if (power === undefined) throw entities.error(unit, `${prefix} is no prefix of a unit`);
    return 10 ** power;
  }
  const made = entities.part(unit, 'CONVERSION_BASED_UNIT');
  if (!made) throw entities.error(unit, 'neither an SI unit nor one that is made from another');
  const measure = measureOf(entities, made.ref(made.count - 1));
  if (!(measure.value > 0)) throw entities.error(unit, `a unit of ${measure.value} is none`);
  return measure.value * unitSize(entities, measure.unit, left - 1);
}

/** SI_UNIT(prefix, name) as a part of a complex entity, SI_UNIT(dimensions, prefix, name) where it stands alone. */
function prefixOf(entities: Entities, unit: number): string | null {
  const part = entities.file.entity(unit).parts.find((p) => p.type === 'SI_UNIT');
  const prefix: Value = part ? part.args[part.args.length - 2] : null;
  return prefix !== null && typeof prefix === 'object' && 'name' in prefix ? prefix.name : null;
}

/** A length with its unit, mm: what is below nought stays so. */
export function lengthIn(entities: Entities, id: number): number {
  const { value, unit } = measureOf(entities, id);
  return value * unitSize(entities, unit, LONGEST_CHAIN) * 1000;
}

/** A number with its unit: (LENGTH_)MEASURE_WITH_UNIT. */
function measureOf(entities: Entities, id: number): { value: number; unit: number } {
  for (const { type, args } of entities.file.entity(id).parts) {
    const unit = args[1];
    if (type.endsWith('MEASURE_WITH_UNIT') && unit instanceof Ref)
      return { value: entities.need(id, type).number(0), unit: unit.id };
  }
  throw entities.error(id, 'a measure with its unit was expected here');
}
