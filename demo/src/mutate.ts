/** A source of chance that gives the same again for the same seed (mulberry32): what failed can be tried again. */
export function chance(seed: number): () => number {
  let a = seed >>> 0;
  return () => {
    a = (a + 0x6d2b79f5) >>> 0;
    let t = Math.imul(a ^ (a >>> 15), 1 | a);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

type Random = () => number;
const below = (random: Random, n: number): number => Math.floor(random() * n);
const pick = <T>(random: Random, list: readonly T[]): T => list[below(random, list.length)]!;

const NUMBERS = [
  '0.',
  '-0.',
  '-1.',
  '1E-30',
  '1E20',
  '1E12',
  '-1E10',
  '1E308',
  'NaN',
  '1.7E-7',
  '999999999.',
  '',
];
const JUNK = ['\0', '\uffff', "'", '(', ')', ';', '#', '/*', '\n', '$', '*', 'é', '%', '9'.repeat(40)];

/** Swaps two stretches of text for one another. */
function swap(text: string, random: Random): string {
  const lines = text.split('\n');
  const [i, j] = [below(random, lines.length), below(random, lines.length)];
  [lines[i], lines[j]] = [lines[j]!, lines[i]!];
  return lines.join('\n');
}

function changeLine(text: string, random: Random, change: (line: string) => string | null): string {
  const lines = text.split('\n');
  const i = below(random, lines.length);
  const line = change(lines[i]!);
  if (line === null) lines.splice(i, 1);
  else lines[i] = line;
  return lines.join('\n');
}

const cut = (text: string, random: Random): string => {
  const from = below(random, text.length);
  return text.slice(0, from) + text.slice(from + 1 + below(random, 400));
};

/** What happens to files: on the way, by other programs, by hand, on purpose. */
const MUTATIONS: ((text: string, random: Random) => string)[] = [
  cut,
  swap,
  (t, r) => changeLine(t, r, () => null),
  (t, r) => changeLine(t, r, (line) => `${line}\n${line}`),
  (t, r) => t.slice(0, below(r, t.length)),
  (t, r) => {
    const at = below(r, t.length);
    return t.slice(0, at) + pick(r, JUNK) + t.slice(at + below(r, 2));
  },
  (t, r) =>
    changeLine(t, r, (line) => {
      const numbers = [...line.matchAll(/-?\d+\.\d*(?:E[-+]?\d+)?|(?<=[A-Z])-?\d+\.?\d*/g)];
      if (numbers.length === 0) return line;
      const m = pick(r, numbers);
      return line.slice(0, m.index) + pick(r, NUMBERS) + line.slice(m.index + m[0].length);
    }),
  // Another entity in the place of the right one: whole, and wrong.
  (t, r) => changeLine(t, r, (line) => line.replace(/(?<!^)#\d+/, `#${1 + below(r, t.split('\n').length)}`)),
  (t, r) => changeLine(t, r, (line) => line.replace(/=\s*[A-Z_]+/, `=${pick(r, KEYWORDS)}`)),
  (t, r) => changeLine(t, r, (line) => line.replace(/\.[TF]\./, (b) => (b === '.T.' ? '.F.' : '.T.'))),
  (t, r) => changeLine(t, r, (line) => line.replace(/\([^()]*\)/, '()')),
];
const KEYWORDS = ['PLANE', 'CIRCLE', 'LINE', 'ADVANCED_FACE', 'EDGE_LOOP', 'CARTESIAN_POINT', 'X'];

/** The text after one to four mishaps. */
export function mutate(text: string, random: Random): string {
  let out = text;
  for (let n = 1 + below(random, 4); n > 0; n--) out = pick(random, MUTATIONS)(out, random);
  return out;
}
