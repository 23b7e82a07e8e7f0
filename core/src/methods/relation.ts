import { evaluate } from 'mathjs/number';

/** What a relation may speak of, mm. */
export type RelationSizes = Readonly<
  Record<'diameter' | 'depth' | 'pitch' | 'major' | 'width', number | null>
>;

export class RelationError extends Error {}

const SIGNS = /^[\d\s.+\-*/()]*$/;

/**
 * A number of a method for a hole of those sizes: itself, or a sum of them such as `0.3 * diameter` or `depth - 1`, mm. Throws
 * {@link RelationError} for a word that is no size, a size that the hole does not have, or a sum without a value.
 */
export function relation(text: number | string, sizes: RelationSizes): number {
  if (typeof text === 'number') return text;
  const plain = text.replace(/[a-z]+/gi, (word) => {
    const v = (sizes as Record<string, number | null | undefined>)[word];
    if (v === undefined)
      throw new RelationError(`"${word}" in "${text}" is no size. Use ${Object.keys(sizes).join(', ')}.`);
    if (v === null) throw new RelationError(`"${text}": there is no ${word} here.`);
    return `(${v.toFixed(9)})`;
  });
  if (!SIGNS.test(plain)) throw new RelationError(`"${text}" is no sum. Use sizes, numbers and + - * / ( ).`);
  let value: unknown;
  try {
    value = evaluate(plain);
  } catch {
    throw new RelationError(`"${text}" cannot be worked out. Check the signs and brackets.`);
  }
  if (typeof value !== 'number' || !Number.isFinite(value))
    throw new RelationError(`"${text}" has no value.`);
  return value;
}
