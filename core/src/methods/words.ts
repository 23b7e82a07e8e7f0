import { operationKind } from '../operations/registry.ts';
import { FAMILY_WORDS, isGrooveFamily, type END_KINDS, type Method } from './schema.ts';

type Say = (mm: number) => string;

/** How many ends are open, in words. */
export const END_WORDS: Record<(typeof END_KINDS)[number], string> = {
  closed: 'closed',
  one: 'open at one end',
  both: 'open at both',
};

const range = (r: { from?: number; to?: number }, say: (v: number) => string): string =>
  [r.from !== undefined ? `from ${say(r.from)}` : '', r.to !== undefined ? `to ${say(r.to)}` : '']
    .filter((t) => t !== '')
    .join(' ');

/** When a method applies, as a line: `holes without a thread, \u2300 from 12`. */
export function whenInWords({ when, family }: Method, say: Say): string {
  const { threaded, stepped, through } = when;
  return [
    threaded === undefined ? FAMILY_WORDS[family] : threaded ? 'threaded holes' : 'holes without a thread',
    stepped === undefined ? '' : stepped ? 'stepped or countersunk' : 'without steps',
    when.flatFloor === undefined ? '' : when.flatFloor ? 'with a flat floor' : 'without a flat floor',
    through === undefined ? '' : through ? 'through' : 'blind',
    when.fit && !when.fit.includes('drilled') ? `to be ${when.fit.join(' or ')}` : '',
    when.diameter ? `\u2300 ${range(when.diameter, say)}` : '',
    when.major ? `thread ${range(when.major, say)}` : '',
    when.width ? `${range(when.width, say)} wide` : '',
    when.ends ? `ends ${when.ends.map((e) => END_WORDS[e]).join(' or ')}` : '',
    when.ratio
      ? `depth ${range(when.ratio, String)} \u00d7 ${isGrooveFamily(family) ? 'width' : '\u2300'}`
      : '',
    when.materials ? `in ${when.materials.join(', ')}` : '',
  ]
    .filter((t) => t !== '')
    .join(', ');
}

/** Its operations as a line: `spot \u2192 drill \u2192 counterbore (flat steps)`. */
export const operationsInWords = ({ operations }: Method): string =>
  operations
    .map(
      ({ kind, or = [], part }) =>
        `${[kind, ...or].map((k) => operationKind(k).label).join(' or ')}${part === 'hole' ? '' : ` (${part})`}`,
    )
    .join(' \u2192 ');
