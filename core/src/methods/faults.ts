import { OPERATION_KINDS } from '../operations/registry.ts';
import { RelationError, relation } from './relation.ts';
import { FAMILY_WORDS, sortOf, type Method } from './schema.ts';

/** Sizes by which a relation is tried: every word stands for something. */
const TRIED = { diameter: 8, depth: 20, pitch: 1.25, major: 10, width: 12 };

/** What is wrong with a method, each with its place: a kind that there is not, a number that its kind does not read, a sum that says nothing. */
export function methodFaults({ operations, when, family }: Method): string[] {
  const out: string[] = [];
  operations.forEach(({ kind, or = [], set }, i) => {
    for (const other of or)
      if (!OPERATION_KINDS.some((k) => k.kind === other))
        out.push(`Operation ${i + 1}: there is no "${other}" to be taken in its place.`);
    const spec = OPERATION_KINDS.find((k) => k.kind === kind);
    if (!spec) {
      out.push(
        `Operation ${i + 1}: there is no "${kind}". Use one of ${OPERATION_KINDS.map((k) => k.kind).join(', ')}.`,
      );
      return;
    }
    if (!spec.cuts.includes(sortOf(family)))
      out.push(`Operation ${i + 1}: ${spec.label} is not for ${FAMILY_WORDS[family]}.`);
    for (const [key, value] of Object.entries(set)) {
      const choices = spec.choices?.[key];
      if (choices) {
        if (!choices.includes(String(value)))
          out.push(`Operation ${i + 1}, ${spec.label}, ${key}: use one of ${choices.join(', ')}.`);
        continue;
      }
      const known = Object.keys(spec.numbers);
      if (!known.includes(key))
        out.push(
          `Operation ${i + 1}, ${spec.label}: "${key}" is no number of it. It has ${known.join(', ') || 'none'}.`,
        );
      try {
        relation(value, TRIED);
      } catch (e) {
        if (!(e instanceof RelationError)) throw e;
        out.push(`Operation ${i + 1}, ${spec.label}, ${key}: ${e.message}`);
      }
    }
  });
  for (const [name, range] of [
    ['diameter', when.diameter],
    ['thread', when.major],
    ['depth ratio', when.ratio],
  ] as const)
    if (range?.from !== undefined && range.to !== undefined && range.from > range.to)
      out.push(`The ${name} goes from ${range.from} to ${range.to}: nothing lies between.`);
  return out;
}
