/** A reference to another entity of the same file, `#12`. */
export class Ref {
  constructor(readonly id: number) {}
}

/** An enumeration's item, `.T.`, without its dots. */
export class Item {
  constructor(readonly name: string) {}
}

/** A value with the name of its type, `LENGTH_MEASURE(2.5)`. */
export class Typed {
  constructor(
    readonly type: string,
    readonly args: Value[],
  ) {}
}

/** A parameter as it is written: `null` stands for `$` (left out), `undefined` for `*` (worked out by a subtype). */
export type Value = number | string | null | undefined | Ref | Item | Typed | Value[];

/** One entity: a type with its parameters, or several of them where it is a complex one (external mapping). */
export interface Entity {
  id: number;
  parts: { type: string; args: Value[] }[];
}

export const TRUE = new Item('T');
export const FALSE = new Item('F');
