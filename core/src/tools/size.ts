import { namedDrill } from '../callout/drill-names.ts';
import { LengthError, parseLength, type LengthUnit } from '../units/length.ts';

/** A size as the shop says it, and its diameter, mm. */
export interface NamedSize {
  diameter: number;
  sizeName: string;
}

/**
 * A tool's size as it is typed: metric or inch (`8.5`, `6.5mm`), a fraction (`1/4`, `27/64in`), a number drill (`#7`, `No. 7`) or a letter
 * drill (`F`). Throws {@link LengthError} for what is none of these.
 */
export function sizeFromText(text: string, unit: LengthUnit): NamedSize {
  const typed = text.trim();
  const name = /^(?:#|no\.?\s*)(\d{1,2})$/i.exec(typed)?.[1] ?? /^[a-z]$/i.exec(typed)?.[0];
  if (name !== undefined) {
    const diameter = namedDrill(name);
    if (diameter === null)
      throw new LengthError(`There is no drill ${typed}: numbers go from 1 to 80, letters from A to Z.`);
    return { diameter, sizeName: /^\d/.test(name) ? `#${Number(name)}` : name.toUpperCase() };
  }
  // A bare fraction is of an inch, whatever the unit is: nobody sells quarters of a millimetre.
  const fraction = /^(\d+\s+)?\d+\/\d+$/.test(typed);
  const diameter = parseLength(fraction ? `${typed}in` : typed, unit);
  if (!(diameter > 0)) throw new LengthError('A tool has a diameter above nought.');
  const bare = typed.replace(/^[⌀∅Øø]\s*/, '').replace(/\s*(mm|in|inch|")$/i, '');
  const isInch = /(in|inch|")$/i.test(typed) || (unit === 'inch' && !/mm$/i.test(typed));
  return { diameter, sizeName: fraction || !isInch ? bare : `${bare}in` };
}
