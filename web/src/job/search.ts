/** Something that can be found and done. */
export interface Findable {
  kind: string;
  /** Tag, number or key. */
  name: string;
  text: string;
  act(): void;
}

const MOST = 40;

const plain = (text: string): string =>
  text
    .toLowerCase()
    .replace(/[×x]/g, 'x')
    .replace(/[⌀↧⌴⌵]/g, '');

/**
 * What has every word that is typed in it; those whose name is the text first, then those whose words begin with it, in their own order
 * otherwise. Everything, to a bound, where nothing is typed.
 */
export function search<T extends Pick<Findable, 'kind' | 'name' | 'text'>>(
  things: readonly T[],
  text: string,
): T[] {
  const words = plain(text).split(/\s+/).filter(Boolean);
  const whole = plain(text).trim();
  return things
    .flatMap((thing, i) => {
      const full = ` ${plain(`${thing.kind} ${thing.name} ${thing.text}`)}`;
      if (!words.every((w) => full.includes(w))) return [];
      const rank =
        whole !== '' && plain(thing.name) === whole ? 0 : words.every((w) => full.includes(` ${w}`)) ? 1 : 2;
      return [{ thing, rank, i }];
    })
    .sort((a, b) => a.rank - b.rank || a.i - b.i)
    .slice(0, MOST)
    .map((f) => f.thing);
}
