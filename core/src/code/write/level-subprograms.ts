import type { MadeBlock } from './cycles.ts';

/** Fewer lines than this are shorter written out than called. */
const WORTH = 4;

/** A stretch of lines that goes down to a level and then stays at it. */
interface Level {
  /** The line that goes there, among the blocks. */
  at: number;
  /** The lines at that level, and the feed with which the first of them begins. */
  lines: string[];
  feed: string;
}

/**
 * Where the same way is gone at several levels, its lines stand once, as a subprogram that each level calls. `put` takes the lines of a
 * subprogram and gives its number. Lines are only taken out where what holds before them is the same each time.
 */
export function calledLevels(
  blocks: readonly MadeBlock[],
  put: (lines: readonly string[]) => number,
): MadeBlock[] {
  const levels = levelsOf(blocks);
  const alike = new Map<string, Level[]>();
  for (const l of levels) {
    if (l.lines.length < WORTH) continue;
    const key = [l.feed, ...l.lines].join('\n');
    alike.set(key, [...(alike.get(key) ?? []), l]);
  }
  const calls = new Map<number, { number: number; length: number }>();
  for (const group of alike.values()) {
    const [first] = group;
    if (!first || group.length < 2) continue;
    const number = put(first.lines);
    for (const l of group) calls.set(l.at, { number, length: l.lines.length });
  }
  if (calls.size === 0) return [...blocks];
  const out: MadeBlock[] = [];
  for (let i = 0; i < blocks.length; i++) {
    const block = blocks[i];
    if (!block) continue;
    out.push(block);
    const call = calls.get(i);
    if (!call) continue;
    out.push({ text: `M98 P${call.number}`, label: block.label });
    i += call.length;
  }
  return out;
}

/** Lines that only go up or down, each with those after it that stay at its level. */
function levelsOf(blocks: readonly MadeBlock[]): Level[] {
  const out: Level[] = [];
  let feed = '';
  let open: Level | null = null;
  blocks.forEach(({ text }, i) => {
    feed = /F[\d.]+/.exec(text)?.[0] ?? feed;
    if (/^(G1 )?Z-?[\d.]+( F[\d.]+)?$/.test(text)) {
      open = { at: i, lines: [], feed };
      out.push(open);
    } else if (open && /^(G1 |G2 |G3 )?[XYIJRF]/.test(text) && !text.includes('Z')) open.lines.push(text);
    else open = null;
  });
  return out;
}
