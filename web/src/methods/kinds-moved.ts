import type { MethodOperation } from '@yellow-pin/core/methods/schema';

/** Kinds whose operations are not the same ones, in the same order, as before. */
export function kindsMoved(before: readonly MethodOperation[], after: readonly MethodOperation[]): string[] {
  const kinds = [...new Set([...before, ...after].map((o) => o.kind))];
  const parts = (list: readonly MethodOperation[], kind: string): string =>
    list
      .filter((o) => o.kind === kind)
      .map((o) => o.part)
      .join();
  return kinds.filter((k) => parts(before, k) !== parts(after, k));
}
