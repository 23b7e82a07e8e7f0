import { first, got } from '../lists.ts';
import { partName, type Allowed, type Hit } from '../space/space.ts';
import { reachOf, sizedTools, tooShort, type ToolNeed } from '../tools/find.ts';
import type { Tool } from '../tools/schema.ts';
import type { HoleView } from './hole-view.ts';
import type { KindContext, Missing } from './kind.ts';

/** How a tool would stand at the bottom of one hole. */
export interface Cut {
  /** Depth of its tip below the entry, mm. */
  tip: number;
  /** Depth below the entry that flutes or cutting edges must cover, mm; the tip's where it is not said. */
  flutes?: number;
  /** How far its axis is led round the hole's, mm: a path sweeps that much more than the tool is wide. */
  orbit?: number;
  /** What keeps it from there beside its reach, in words. */
  fault?: string | null;
  /** What of the part it is to touch there. */
  allowed: Omit<Allowed, 'below'>;
}

export type Chosen = { tool: Tool; others: Tool[] } | Missing;

/**
 * The shop's tool for a need that gets to every hole with its whole outline: flutes through all metal that may stand above, and neither
 * point, shank nor holder in the part. Where one gets to some holes only, the best is said, with the holes that it does not reach.
 */
export function chooseTool(
  c: KindContext,
  need: ToolNeed,
  cut: (tool: Tool, hole: HoleView) => Cut,
  holes: readonly HoleView[] = c.holes,
): Chosen {
  return chooseAmong(c, need, holes, {
    inMetal: (t, h) => h.metalZ - h.entryZ + (cut(t, h).flutes ?? cut(t, h).tip),
    whyNot: (t, h) => whyNot(c, t, h, cut(t, h)),
  });
}

/** What is asked of a tool at each feature. */
export interface Asked<V> {
  /** How deep flutes or cutting edges go into metal there, mm. */
  inMetal(tool: Tool, view: V): number;
  /** Why it does not do there, in words that name the feature; null where it does. */
  whyNot(tool: Tool, view: V): string | null;
}

/** The shop's tool for a need that does at every feature; where one does at some only, the best is said, with those where it does not. */
export function chooseAmong<V extends { label: string }>(
  c: KindContext,
  need: ToolNeed,
  views: readonly V[],
  asked: Asked<V>,
): Chosen {
  const sized = sizedTools(c.tools, need, c.say, c.favour, c.chosen);
  if ('missing' in sized) return sized;
  const good: Tool[] = [];
  let best: { failing: Map<string, string>; tool: Tool } | null = null;
  for (const tool of sized.tools) {
    const failing = new Map<string, string>();
    for (const h of views) {
      const why = asked.whyNot(tool, h);
      if (why) failing.set(h.label, why);
    }
    if (failing.size === 0) good.push(tool);
    else if (!best || failing.size < best.failing.size) best = { failing, tool };
  }
  const [tool, ...others] = good;
  if (tool) {
    c.fits?.(good);
    return { tool, others };
  }
  if (!best) throw new RangeError('no tool was looked at');
  return refusal(c, need, sized.tools, best, asked, views);
}

function refusal<V extends { label: string }>(
  c: KindContext,
  need: ToolNeed,
  tools: readonly Tool[],
  best: { failing: Map<string, string>; tool: Tool },
  { inMetal }: Asked<V>,
  views: readonly V[],
): Chosen {
  const labels = [...best.failing.keys()];
  const deepest = Math.max(...views.map((h) => inMetal(best.tool, h)));
  const allShort = tools.every((t) => views.some((h) => inMetal(t, h) > reachOf(t) + 1e-6));
  const reason = allShort
    ? tooShort(tools, { ...need, reach: deepest }, c.say)
    : `${got(best.failing, first(labels))}${labels.length > 1 ? ` (${labels.length} of them)` : ''}`;
  return {
    missing: reason,
    ...(labels.length < views.length ? { holes: labels } : {}),
    ...(allShort ? { need: { ...need, reach: deepest } } : {}),
  };
}

/** Why a tool does not get to the bottom of a hole; null where it does. */
function whyNot(c: KindContext, tool: Tool, h: HoleView, cut: Cut): string | null {
  if (cut.fault) return `${h.label}: ${cut.fault}`;
  const above = h.metalZ - h.entryZ;
  const short = shortOf(c, tool, h.label, above + (cut.flutes ?? cut.tip), above);
  if (short) return short;
  const orbit = cut.orbit ?? 0;
  const discs = orbit > 0 ? c.discs(tool).map((d) => ({ ...d, r: d.r + orbit })) : c.discs(tool);
  const hit = c.space.partAt(discs, h.x, h.y, h.entryZ - cut.tip, {
    ...cut.allowed,
    below: c.space.ledFrom(h.x, h.y, tool.diameter / 2 + orbit, h.entryZ) + 0.05,
  });
  return hit && `${h.label}: ${hitInWords(c, tool, hit)}`;
}

/** Why a tool's flutes, or the neck behind them, do not reach; null where they do. `above`: how much of it stands above the entry, mm. */
export function shortOf(
  c: KindContext,
  tool: Tool,
  label: string,
  deep: number,
  above: number,
): string | null {
  if (deep <= reachOf(tool) + 1e-6) return null;
  return `${label}: ${tool.description} has ${c.say(reachOf(tool))} of flute, and ${c.say(deep)} are in metal${above > 0.01 ? `, ${c.say(above)} of it above the entry` : ''}. Add a longer one.`;
}

/** Less across than this is a tool's tip, mm: no narrower one has another. */
const TIP = 0.01;

/** What of a tool would stand in the part, where, and the mend where another tool is one. */
export function hitInWords({ say }: Pick<KindContext, 'say'>, tool: Tool, hit: Hit): string {
  const place = `would stand in the part, ${say(hit.depth)} deep at Z ${say(hit.height)}`;
  if (hit.part === 'cutting' && hit.diameter < TIP)
    return `the tip of ${tool.description} ${place}. Look at what the part has in its way there.`;
  const mend = hit.part === 'cutting' ? 'narrower' : 'longer or slimmer';
  return `the ${partName(hit.part)} of ${tool.description} (⌀${say(hit.diameter)}) ${place}. Add a ${mend} one.`;
}
