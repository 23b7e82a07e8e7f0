import type { Vec3 } from '@yellow-pin/core/geometry/vec';

/** The words of a shape's text, one after the other; throws an Error where they end early. */
export class Tokens {
  private position = 0;
  private readonly list: string[];
  constructor(text: string) {
    this.list = text.split(/\s+/);
  }
  next(): string {
    const t = this.list[this.position++];
    if (t === undefined) throw new Error('shape text ends early');
    return t;
  }
  peek(): string {
    return this.list[this.position] ?? '';
  }
  number(): number {
    return Number(this.next());
  }
  vec(): Vec3 {
    return [this.number(), this.number(), this.number()];
  }
  seek(word: string): void {
    const at = this.list.indexOf(word, this.position);
    if (at < 0) throw new Error(`shape text lacks ${word}`);
    this.position = at + 1;
  }
}
