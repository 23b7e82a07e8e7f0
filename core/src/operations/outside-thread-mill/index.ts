import { first } from '../../lists.ts';
import { threadSizes } from '../../threads/shape.ts';
import type { Thread } from '../../threads/thread.ts';
import { sizedTools } from '../../tools/find.ts';
import type { Tool } from '../../tools/schema.ts';
import { straightBefore } from '../../motion/thread-helix.ts';
import type { Work } from '../../motion/work.ts';
import type { BossView } from '../boss-view.ts';
import { cuttingNumbers } from '../cutting-numbers.ts';
import { Parameters, type KindContext, type OperationKind, type PlanResult } from '../kind.ts';
import { millPasses, underGroove, wallRadius, type Mill } from '../thread-mill/mill.ts';
import {
  askedThread,
  compensationRemarks,
  depthOf,
  formNeed,
  isLessThanOnePitch,
  isTimed,
  shownNumbers,
  THREAD_CHOICES,
  THREAD_NUMBERS,
  threadFeeds,
  typedPasses,
  typedWay,
} from '../thread-mill/numbers.ts';

/** Room between the cutter's tip and a shoulder, between its neck and the boss, and beside it where it comes down, mm. */
const BELOW = 0.2;
const BESIDE_NECK = 0.2;
const BESIDE = 1;
/** A boss is at most so much narrower than its thread's major diameter, in pitches, or wider, mm (ISO 965-1, ASME B1.1: below nominal). */
const NARROWER = 0.3;
const WIDER = 0.05;
/** Places round the boss at which it is looked whether the tool has room. */
const PLACES = 24;

/** Mills a thread on a boss: the cutter goes round it, in and out beside it. */
export const outsideThreadMillKind: OperationKind = {
  kind: 'outside-thread-mill',
  cuts: ['bosses'],
  label: 'outside thread mill',
  toolKinds: ['thread-mill'],
  rank: 5,
  millsThreads: true,
  numbers: THREAD_NUMBERS,
  choices: THREAD_CHOICES,
  plan: planOutside,
};

function planOutside(c: KindContext): PlanResult {
  const asked = askedThread(c);
  if ('missing' in asked) return asked;
  const { thread, usualLength, said } = asked;
  const boss = first(c.bosses);
  const unfit = whyUnfit(c, thread, boss);
  if (unfit !== null) return { missing: unfit };
  const { major, minor } = threadSizes(thread, 'outside');
  const parameters = new Parameters(c);
  const before = boss.feature.diameter;
  const aside = (Math.max(before, major) - minor) / 2 + BESIDE;
  const way = {
    ...typedWay(parameters, 'outside', c.machine),
    side: 'outside',
    thread,
    before,
    aside,
  } as const;
  const room = (t: Tool, b: BossView): number =>
    b.height - b.chamfered + (b.isOpen ? thread.pitch / 2 : -BELOW - underGroove({ ...way, tool: t }));
  const full = (t: Tool, b: BossView): number => said ?? Math.min(room(t, b), usualLength);
  const tipOf = (t: Tool, b: BossView): number => b.chamfered + full(t, b) + underGroove({ ...way, tool: t });
  const need = { kind: 'thread-mill', threadForm: formNeed(thread), widest: true } as const;
  const sized = sizedTools(c.tools, need, c.say, c.favour, c.chosen);
  if ('missing' in sized) return sized;
  const faults = sized.tools.map((t) =>
    c.bosses.map((b) => whyNot(c, { ...way, tool: t }, b, tipOf(t, b))).find((why) => why !== null),
  );
  const fits = sized.tools.filter((_, i) => faults[i] === undefined);
  const [tool] = fits;
  if (!tool) return { missing: first(faults) ?? 'No thread mill has room here.' };
  c.fits?.(fits);
  const short = c.bosses.find((b) => full(tool, b) > room(tool, b) + 1e-6);
  if (short)
    return {
      missing: `${thread.designation} with ${c.say(full(tool, short))} of full thread and ${tool.description} goes ${c.say(tipOf(tool, short) + BELOW)} down; ${short.label} is ${c.say(short.height)} high. Thread ${c.say(Math.max(0, room(tool, short)))} deep.`,
    };
  const none = c.bosses.find((b) => isLessThanOnePitch(thread, full(tool, b)));
  if (none)
    return {
      missing: `${thread.designation} would have ${c.say(Math.max(0, full(tool, none)))} of full thread on ${none.label}, less than one pitch.`,
    };
  const depth = depthOf(parameters, full(tool, boss), asked, 'as far as the boss allows');
  const mill: Mill = { ...way, tool, ...typedPasses(parameters, way, depth, isTimed(c)) };
  shownNumbers(parameters, mill, full(tool, boss), tipOf(tool, boss));
  const numbers = cuttingNumbers(c, parameters, tool, depth);
  const { speed, feed } = numbers;
  return {
    tool,
    speed,
    feed,
    feeds: threadFeeds(parameters, feed, c.machine),
    work: c.bosses.map((b): Work => {
      const r = b.entryZ + c.setup.retract;
      const startZ = b.entryZ - b.chamfered;
      return {
        feature: b.feature.id,
        label: b.label,
        x: b.x,
        y: b.y,
        r,
        z: b.entryZ - tipOf(tool, b),
        entryZ: b.entryZ,
        metalZ: b.entryZ,
        motion: {
          kind: 'path',
          passes: millPasses(mill, { x: b.x, y: b.y, startZ, full: full(tool, b), r }),
        },
      };
    }),
    parameters: parameters.list,
    remarks: [...numbers.remarks, ...compensationRemarks(mill, c.say)],
    alternatives: fits.map((t) => t.id),
  };
}

/** Why that thread does not go on the boss as it is, or as it stands in the stock; null where it does. */
function whyUnfit(c: KindContext, thread: Thread, { feature, label }: BossView): string | null {
  if (c.space.setup.body.standsProud)
    return `${label}: the stock stands round it. Mill the boss free first, or say that the stock is prepared.`;
  const { diameter } = feature;
  const { major, minor } = threadSizes(thread, 'outside');
  const widest = Math.max(major, thread.majorDiameter) + WIDER;
  const narrowest = thread.form === 'pipe-tapered' ? minor : major - NARROWER * thread.pitch;
  return diameter > widest || diameter < narrowest
    ? `${thread.designation} does not go on a boss drawn at \u2300${c.say(diameter)}: its major diameter is ${c.say(thread.majorDiameter)}. Check the callout.`
    : null;
}

/** How far from the boss's axis a cutter begins and ends: a quarter has a straight way before it, where the control takes the radius up. */
function farthest(
  m: Pick<Mill, 'thread' | 'side' | 'fit' | 'tool' | 'aside' | 'leads' | 'byControl'>,
): number {
  const orbit = wallRadius(m);
  if (m.leads === 'half circle') return orbit + m.aside;
  const straight = straightBefore(m.aside, m.byControl ? m.tool.diameter / 2 : null);
  return Math.hypot(orbit + m.aside / 2 + straight, m.aside / 2);
}

/** Why a cutter cannot be led round a boss; null where it can. Its teeth stand in the boss as deep as the thread, nothing else does. */
function whyNot(
  c: KindContext,
  m: Pick<Mill, 'thread' | 'side' | 'fit' | 'tool' | 'aside' | 'before' | 'leads' | 'byControl'>,
  { x, y, entryZ, label }: BossView,
  tip: number,
): string | null {
  const { tool } = m;
  const orbit = wallRadius(m);
  const neck = tool.neckDiameter ?? tool.shankDiameter;
  if (tip > tool.fluteLength + 1e-6 && orbit - neck / 2 < m.before / 2 + BESIDE_NECK)
    return `${label}: ${tool.description} has teeth up to ${c.say(tool.fluteLength)} and is \u2300${c.say(neck)} above them: it would rub on the boss. Add one with a longer or slimmer neck.`;
  const into = (m.before + m.tool.diameter) / 2 - orbit + 0.05;
  const discs = c.discs(tool);
  const shrunk = discs.map((d) => (d.part === 'cutting' ? { ...d, r: Math.max(0, d.r - into) } : d));
  for (let i = 0; i < PLACES; i++) {
    const a = (2 * Math.PI * i) / PLACES;
    for (const [radius, outline] of [
      [orbit, shrunk],
      [farthest(m), discs],
    ] as const) {
      const [px, py] = [x + radius * Math.cos(a), y + radius * Math.sin(a)];
      const hit = c.space.partAt(outline, px, py, entryZ - tip, null);
      if (hit)
        return `${label}: ${tool.description} would stand in the part beside it, ${c.say(hit.depth)} deep at Z ${c.say(hit.height)}. Add a narrower or longer one.`;
    }
  }
  return null;
}
