/** Steps of a size key's numbers, within which two count as equal: see sizes.ts. A hair more than one step for each kind of number. */
const NEAR = [
  { decimals: 3, step: 0.0051 },
  { decimals: 2, step: 0.0501 },
  { decimals: 1, step: 0.1001 },
];
const NUMBER = /-?\d+\.\d+/g;

/** A key without its numbers: equal for sizes of one shape. */
const shapeOf = (key: string): string => key.replace(NUMBER, '#');
const numbersOf = (key: string): string[] => key.match(NUMBER) ?? [];

/** Whether two keys say the same size, were it not that a number fell on either side of a rounding border. */
export function isSameSize(a: string, b: string): boolean {
  if (a === b) return true;
  if (shapeOf(a) !== shapeOf(b)) return false;
  const others = numbersOf(b);
  return numbersOf(a).every((text, i) => {
    const decimals = text.length - text.indexOf('.') - 1;
    const step = NEAR.find((n) => n.decimals === decimals)?.step ?? 0;
    return Math.abs(Number(text) - Number(others[i])) <= step;
  });
}

/** Keys by shape, to find one of the same size. */
export class SizeKeys {
  private readonly byShape = new Map<string, string[]>();

  constructor(keys: Iterable<string>) {
    for (const k of keys) this.add(k);
  }

  add(key: string): void {
    const shape = shapeOf(key);
    const list = this.byShape.get(shape);
    if (list) list.push(key);
    else this.byShape.set(shape, [key]);
  }

  /** The key itself where it is known, else one of the same size; undefined where there is none. */
  find(key: string): string | undefined {
    const list = this.byShape.get(shapeOf(key)) ?? [];
    return list.includes(key) ? key : list.find((k) => isSameSize(k, key));
  }
}
