import { known } from '../lists.ts';
import { evaluate } from 'mathjs/number';

export type LengthUnit = 'mm' | 'inch';
export const MM_PER_INCH = 25.4;

const ALLOWED = /^[\d\s.+\-*/()]*$/;
const UNITS: Record<string, number> = {
  mm: 1,
  in: MM_PER_INCH,
  inch: MM_PER_INCH,
  '"': MM_PER_INCH,
  thou: MM_PER_INCH / 1000,
};
/** Fractions that have a sign of their own. */
export const FRACTIONS: Readonly<Record<string, string>> = {
  '½': '1/2',
  '¼': '1/4',
  '¾': '3/4',
  '⅛': '1/8',
  '⅜': '3/8',
  '⅝': '5/8',
  '⅞': '7/8',
};

export class LengthError extends Error {}

/** Signs as they are typed or pasted become plain ones; a sign of diameter before it is no part of a length. */
const plain = (text: string): string =>
  text
    .trim()
    .replace(/^[⌀∅Øø]\s*/, '')
    .replace(
      /(\d)?\s*([½¼¾⅛⅜⅝⅞])/g,
      (_, d: string | undefined, f: string) => `${d ? `${d} ` : ''}${known(FRACTIONS[f], f)}`,
    )
    .replace(/[−–]/g, '-')
    .replace(/[”“″]|''/g, '"');

/** What may mean two things is asked about, never taken for either. */
function refuseUnclear(source: string, text: string): void {
  // 0,125 and 12,5 are decimals; 1,000 may be one or a thousand.
  const thousands = /(?<![\d.,])[1-9]\d{0,2}(?:,\d{3})+(?![\d,])/.exec(source)?.[0];
  if (thousands) {
    const [whole, part] = [thousands.replace(/,/g, ''), thousands.replace(',', '.')];
    throw new LengthError(`"${thousands}" may be ${whole} or ${part}. Write it without the comma.`);
  }
  const mixed = /(?<![\d./])(\d+)-(\d+\/\d+)(?![\d./])/.exec(source);
  if (mixed)
    throw new LengthError(
      `"${mixed[0]}" may be ${mixed[1]} ${mixed[2]} or ${mixed[1]} less ${mixed[2]}. Write "${mixed[1]} ${mixed[2]}" or "${mixed[1]} - ${mixed[2]}".`,
    );
  const behind = /(?:mm|inch|in|thou|")\s*[\d.]/i.exec(source);
  if (behind)
    throw new LengthError(
      `"${text}" has a number right behind a unit. Write the unit last, as in 1 1/2in, or a sign between two lengths.`,
    );
}

/**
 * A typed length in millimetres: a number, fraction or sum in the job's unit, or with its own (`6.5mm`, `3/8in`, `1/4"`, `5 thou`, `½in`).
 * What could mean two things (`1,000`, `1-1/2`) is refused with both. Throws {@link LengthError} with what is wrong.
 */
export function parseLength(text: string, unit: LengthUnit): number {
  const written = plain(text);
  if (written === '') throw new LengthError('Type a length, such as 12.7-0.4 or 3/8in.');
  refuseUnclear(written, text);
  const source = written.replace(/,/g, '.');
  // Each stretch with a unit is worked out and turned into the job's unit; what has none is in the job's unit already.
  const own = known(UNITS[unit], unit);
  const inUnit = source.replace(
    /([\d.\s/]*[\d.])\s*(mm|inch|in|thou|")/gi,
    (_, number: string, u: string) => {
      const mixed = number.trim().replace(/^(\d+)\s+(\d+\/\d+)$/, '($1+$2)');
      const factor = known(UNITS[u.toLowerCase()], u) / own;
      return `((${mixed})*${factor.toPrecision(17).includes('e') ? factor.toFixed(20) : factor})`;
    },
  );
  const spaced = inUnit.replace(/(^|[^\d./)])(\d+)\s+(\d+\/\d+)/g, '$1($2+$3)');
  if (!ALLOWED.test(spaced))
    throw new LengthError(`"${text}" is not a length. Use numbers, fractions, + - * / and mm, in or thou.`);
  let value: unknown;
  try {
    value = evaluate(spaced);
  } catch {
    throw new LengthError(`"${text}" cannot be worked out. Check the signs and brackets.`);
  }
  if (typeof value !== 'number' || !Number.isFinite(value)) throw new LengthError(`"${text}" has no value.`);
  // Below a billionth only the arithmetic's own noise is left.
  return Math.round((unit === 'mm' ? value : value * MM_PER_INCH) * 1e9) / 1e9;
}

/** A length for reading, in the job's unit and without it: 3 decimals in mm, 4 in inches, no trailing zeros. */
export function formatLength(mm: number, unit: LengthUnit, decimals = unit === 'mm' ? 3 : 4): string {
  const v = unit === 'mm' ? mm : mm / MM_PER_INCH;
  // Only noughts behind the point are dropped: those before it are digits.
  const s = decimals > 0 ? v.toFixed(decimals).replace(/\.?0+$/, '') : v.toFixed(0);
  return s === '-0' ? '0' : s;
}
