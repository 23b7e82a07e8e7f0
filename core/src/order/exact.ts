/** Up to so many points all ways are as good as tried: a table of 2^n × n lengths. */
export const MOST_EXACT = 10;

/**
 * The shortest path from the first of a few points through all others (dynamic programming over sets, Held and Karp 1962): time and memory
 * grow as 2^n·n², so that {@link MOST_EXACT} points are the most. `gap` is the way between two of them. Throws a RangeError for more.
 */
export function exactPath(n: number, gap: (a: number, b: number) => number): number[] {
  if (n > MOST_EXACT) throw new RangeError(`${n} points are too many to be tried`);
  if (n <= 1) return n === 1 ? [0] : [];
  const m = n - 1;
  const sets = 1 << m;
  // Length of the shortest way from point 0 through a set of the others, ending at one of them; and what came before it.
  const best = new Float64Array(sets * m).fill(Infinity);
  const from = new Int8Array(sets * m).fill(-1);
  for (let i = 0; i < m; i++) best[(1 << i) * m + i] = gap(0, i + 1);
  for (let set = 1; set < sets; set++)
    for (let i = 0; i < m; i++) {
      const here = best[set * m + i] ?? Infinity;
      if (!(set & (1 << i)) || here === Infinity) continue;
      for (let k = 0; k < m; k++) {
        if (set & (1 << k)) continue;
        const at = (set | (1 << k)) * m + k;
        const length = here + gap(i + 1, k + 1);
        if (length < (best[at] ?? Infinity) - 1e-12) {
          best[at] = length;
          from[at] = i;
        }
      }
    }
  let set = sets - 1;
  let end = 0;
  for (let i = 1; i < m; i++) if ((best[set * m + i] ?? 0) < (best[set * m + end] ?? 0) - 1e-12) end = i;
  const path: number[] = [];
  while (end >= 0) {
    path.push(end + 1);
    const before = from[set * m + end] ?? -1;
    set &= ~(1 << end);
    end = before;
  }
  return [0, ...path.reverse()];
}
