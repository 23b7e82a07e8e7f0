import { at } from '../../lists.ts';
/** Words of which a block may hold one at most (modal groups of ISO 6983-1 and RS-274). */
const G_GROUPS: readonly { name: string; words: readonly number[] }[] = [
  { name: 'motion', words: [0, 1, 2, 3, 73, 74, 76, 81, 82, 83, 84, 85, 86, 89] },
  { name: 'cycle', words: [73, 74, 76, 80, 81, 82, 83, 84, 85, 86, 89] },
  { name: 'plane', words: [17, 18, 19] },
  { name: 'compensation', words: [40, 41, 42] },
  { name: 'distance', words: [90, 91] },
  { name: 'feed', words: [94, 95] },
  { name: 'unit', words: [20, 21] },
  { name: 'length offset', words: [43, 49] },
  { name: 'return level', words: [98, 99] },
  { name: 'work offset', words: [54, 55, 56, 57, 58, 59] },
  { name: 'arc centre', words: [90.1, 91.1] },
  { name: 'one-block', words: [4, 28, 30, 53] },
];
const M_GROUPS: readonly { name: string; words: readonly number[] }[] = [
  { name: 'spindle', words: [3, 4, 5] },
  { name: 'coolant', words: [8, 9] },
  { name: 'coolant', words: [7, 9] },
  { name: 'stop', words: [0, 1, 2, 30, 98, 99] },
];

const byWord = (groups: typeof G_GROUPS): Map<number, number[]> => {
  const out = new Map<number, number[]>();
  groups.forEach((g, i) => g.words.forEach((w) => out.set(w, [...(out.get(w) ?? []), i])));
  return out;
};
const G_OF = byWord(G_GROUPS);
const M_OF = byWord(M_GROUPS);

/** Two words of one group in a block, in words; null where there are none. */
export function contradiction(g: readonly number[], m: readonly number[]): string | null {
  return clash('G', g, G_OF, G_GROUPS) ?? clash('M', m, M_OF, M_GROUPS);
}

function clash(
  letter: string,
  words: readonly number[],
  of: Map<number, number[]>,
  groups: typeof G_GROUPS,
): string | null {
  for (let i = 1; i < words.length; i++) {
    for (let k = 0; k < i; k++) {
      const shared = of.get(at(words, i))?.find((n) => of.get(at(words, k))?.includes(n));
      if (shared !== undefined)
        return `${letter}${words[k]} and ${letter}${words[i]} are two ${at(groups, shared).name} words in one block`;
    }
  }
  return null;
}
