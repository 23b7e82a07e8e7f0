import { evaluate } from 'mathjs/number';

export type LengthUnit = 'mm' | 'inch';
export const MM_PER_INCH = 25.4;

const ALLOWED = /^[\d\s.,+\-*/()]*$/;

export class LengthError extends Error {}

/**
 * A typed length in millimetres: a number, fraction or sum in the job's unit, or with its own (`6.5mm`, `3/8in`, `1/4"`).
 * Throws {@link LengthError} with what is wrong.
 */
export function parseLength(text: string, unit: LengthUnit): number {
  const source = text.trim().replace(/,/g, '.').replace(/[−–]/g, '-');
  if (source === '') throw new LengthError('Type a length, such as 12.7-0.4 or 3/8in.');
  // Each stretch with a unit is worked out and turned into the job's unit; what has none is in the job's unit already.
  const plain = source.replace(/([\d.\s/]*[\d.])\s*(mm|inch|in|")/gi, (_, number: string, u: string) => {
    const mixed = number.trim().replace(/^(\d+)\s+(\d+\/\d+)$/, '($1+$2)');
    const factor = /mm/i.test(u) ? (unit === 'mm' ? 1 : 1 / MM_PER_INCH) : unit === 'mm' ? MM_PER_INCH : 1;
    return `((${mixed})*${factor.toPrecision(17).includes('e') ? factor.toFixed(20) : factor})`;
  });
  const spaced = plain.replace(/(^|[^\d./)])(\d+)\s+(\d+\/\d+)/g, '$1($2+$3)');
  if (!ALLOWED.test(spaced)) throw new LengthError(`"${text}" is not a length. Use numbers, fractions, + - * / and mm or in.`);
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
  const s = v.toFixed(decimals).replace(/\.?0+$/, '');
  return s === '-0' ? '0' : s;
}
