import type { MadeBlock } from './cycles.ts';

/** Fewer places than this are shorter written out than called. */
const WORTH = 4;
/** A place, and perhaps to where the tool comes out there. */
const PLACE = /^(G9[89] )?X\S+ Y\S+$/;

/**
 * Where cycles of several operations go to the same places one after the other, those stand once, as a subprogram that each calls. Only lines
 * that say nothing but a place are taken out: what holds for them was said before. `put` takes the lines of a subprogram and gives its
 * number. One list of blocks for each run of cycles, in the order of the program.
 */
export function calledPlaces(
  runs: readonly (readonly MadeBlock[])[],
  put: (lines: readonly string[]) => number,
): MadeBlock[][] {
  const seen = new Map<string, number>();
  const stretches = runs.map(placesOf);
  for (const own of stretches) for (const { key } of own) seen.set(key, (seen.get(key) ?? 0) + 1);
  return runs.map((blocks, i) => {
    const out: MadeBlock[] = [];
    let next = 0;
    for (const { from, to, key } of stretches[i] ?? []) {
      const [first] = blocks.slice(from, to);
      if (!first || (seen.get(key) ?? 0) < 2) continue;
      out.push(...blocks.slice(next, from), {
        text: `M98 P${put(key.split('\n').slice(1))}`,
        label: first.label,
      });
      next = to;
    }
    return [...out, ...blocks.slice(next)];
  });
}

/** Stretches of blocks that are nothing but places, long enough to be worth a call. */
function placesOf(blocks: readonly MadeBlock[]): { from: number; to: number; key: string }[] {
  const out: { from: number; to: number; key: string }[] = [];
  // What holds before a stretch must be the same wherever it is called.
  let level = '';
  for (let from = 0; from < blocks.length; from++) {
    level = /^G9[89]/.exec(blocks[from - 1]?.text ?? '')?.[0] ?? level;
    let to = from;
    while (to < blocks.length && PLACE.test(blocks[to]?.text ?? '')) to++;
    if (to - from >= WORTH)
      out.push({
        from,
        to,
        key: [level, ...blocks.slice(from, to).map((b) => b.text)].join('\n'),
      });
    for (; from < to; from++) level = /^G9[89]/.exec(blocks[from]?.text ?? '')?.[0] ?? level;
  }
  return out;
}
