import { known } from '../lists.ts';
import type { CycleHow, CycleName } from '../motion/work.ts';

/** All words of cycles, in the order of the table. */
export const CYCLE_WORDS = ['G81', 'G82', 'G73', 'G83', 'G84', 'G74', 'G85', 'G89', 'G86', 'G76'] as const;
export type CycleWord = (typeof CYCLE_WORDS)[number];

/** What each canned cycle's word does. The one table between words and meanings, for writing, reading and messages. */
const TABLE = [
  { word: 'G81', how: 'straight' },
  { word: 'G82', how: 'dwell' },
  { word: 'G73', how: 'chip-break' },
  { word: 'G83', how: 'full-retract' },
  { word: 'G84', how: 'tap', hand: 'right' },
  { word: 'G74', how: 'tap', hand: 'left' },
  { word: 'G85', how: 'feed-out' },
  { word: 'G89', how: 'feed-out', dwells: true },
  { word: 'G86', how: 'stop-out' },
  { word: 'G76', how: 'shift-out' },
] as const satisfies readonly {
  word: CycleWord;
  how: CycleName;
  hand?: 'right' | 'left';
  dwells?: boolean;
}[];

/** The word for a way to make a hole. */
export function cycleWord(how: CycleHow): CycleWord {
  const dwells = how.how === 'feed-out' && how.seconds !== undefined;
  const row = TABLE.find(
    (r) =>
      r.how === how.how &&
      (how.how !== 'tap' || ('hand' in r && r.hand === how.hand)) &&
      (how.how !== 'feed-out' || 'dwells' in r === dwells),
  );
  return known(row, 'a word for the cycle').word;
}

/** Numbers of the G words that are cycles. */
export const CYCLE_NUMBERS: ReadonlySet<number> = new Set(TABLE.map((r) => Number(r.word.slice(1))));

/** What a cycle's word does; null for a word that is none. */
export function cycleMeaning(word: string): { how: CycleName; hand?: 'right' | 'left' } | null {
  const row = TABLE.find((r) => r.word === word);
  return row ? { how: row.how, ...('hand' in row ? { hand: row.hand } : {}) } : null;
}

/** Words for one of several ways, as a sentence lists them: `G81, G82 or G83`. */
export function wordsFor(hows: readonly CycleName[], hand: 'right' | 'left' = 'right'): string {
  const words = TABLE.filter(
    (r) => hows.includes(r.how) && !('hand' in r && r.hand !== hand) && !('dwells' in r),
  ).map((r) => r.word);
  return words.length < 2 ? words.join('') : `${words.slice(0, -1).join(', ')} or ${words.at(-1)}`;
}
