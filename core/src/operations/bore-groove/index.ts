import { first } from '../../lists.ts';
import { bottomOf, topOf } from '../../features/groove-shape.ts';
import type { Segment, Vec2 } from '../../geometry/path.ts';
import { insideShare } from '../../motion/circles.ts';
import type { Vec3 } from '../../geometry/vec.ts';
import type { Move, Work } from '../../motion/work.ts';
import type { Tool } from '../../tools/schema.ts';
import { chooseAmong } from '../choose-tool.ts';
import { whyUnder } from '../grooves/fit.ts';
import { levelTips } from '../grooves/levels.ts';
import { ringsOut } from '../../motion/grooves/loops.ts';
import { levelParameters, tallest, SIDE_CHOICES, SIDE_NUMBERS } from '../grooves/side.ts';
import { grooveWork, sideCut } from '../grooves/planned.ts';
import type { GrooveView } from '../groove-view.ts';
import { Parameters, type KindContext, type OperationKind, type PlanResult } from '../kind.ts';

/** Room round the cutter on its way down the bore, and between its neck and the bore at the wall, mm. */
const WAY_DOWN = 0.5;
const NECK_ROOM = 0.2;
/** How much higher than the groove a cutter may be measured to be, mm. */
const HIGHER = 0.005;
/** A lead of less radius is no lead, mm. */
const LEAST_LEAD = 0.15;

/** Cuts a ring into the wall of a bore: down its middle, on by a half circle, round, and back to the middle (handbook, N73). */
export const boreGrooveKind: OperationKind = {
  kind: 'bore-groove',
  cuts: ['grooves'],
  label: 'bore groove',
  toolKinds: ['t-cutter'],
  rank: 5.5,
  makes: ['side groove'],
  numbers: SIDE_NUMBERS,
  choices: SIDE_CHOICES,
  plan,
};

function plan(c: KindContext): PlanResult {
  const view = first(c.grooves);
  const { shape } = view;
  const bore = shape.bore;
  const level = first(shape.levels);
  if (bore === undefined) return { missing: `${view.label} is in no bore.` };
  const height = level.top - level.bottom;
  const parameters = new Parameters(c);
  parameters.derived('diameter', 'groove', 2 * level.halfTop, 'in the model', 'model');
  parameters.derived('width', 'width', height, 'in the model', 'model');
  const offOf = (t: Tool): number => level.halfTop - t.diameter / 2;
  const found = chooseAmong(
    c,
    { kind: 't-cutter', minDiameter: bore / 2, maxDiameter: 2 * (bore - WAY_DOWN), widest: true },
    c.grooves,
    { inMetal: () => 0, whyNot: (t, v) => whyNot(c, t, v, bore, offOf(t)) },
  );
  if ('missing' in found) return found;
  const tool = tallest(c, found, height);
  const off = offOf(tool);
  const how = levelParameters(parameters, view, tool, { inWall: level.halfTop - bore, height });
  const share = insideShare(2 * level.halfTop, tool.diameter);
  const touch = Math.max(0, bore - tool.diameter / 2);
  const rings = [
    ...ringsOut(off - how.stock - touch, how.stepover).map((r) => ({
      radius: touch + r,
      rounds: 1,
      feed: 'cut' as const,
    })),
    ...(how.rounds > 0 ? [{ radius: off, rounds: how.rounds, feed: 'finish' as const }] : []),
  ];
  const work = c.grooves.map((v): Work => {
    const own = first(v.shape.levels);
    const [x, y] = first(v.shape.path).from;
    const r = c.space.setup.top + c.setup.retract;
    const tips = levelTips(own.top, own.bottom, tool.fluteLength, how.overlap, how.order);
    const moves = tips.flatMap((z): Move[] => [
      { kind: 'line', to: [x, y, z], feed: 'lead' },
      ...rings.flatMap((ring) => onAndRound([x, y], z, { ...ring, share }, how.isClimb)),
    ]);
    return grooveWork(v, [{ start: [x, y, r], moves }], r, Math.min(...tips));
  });
  return sideCut(c, parameters, { tool, others: [found.tool, ...found.others] }, work);
}

/** From the axis onto a ring by a half circle, round it, and back by another; straight where there is no room for one. */
function onAndRound(
  [x, y]: Vec2,
  z: number,
  { radius, rounds, feed, share }: { radius: number; rounds: number; feed: 'cut' | 'finish'; share: number },
  isClimb: boolean,
): Move[] {
  const round: Move = {
    kind: 'arc',
    to: [x + radius, y, z],
    centre: [x, y],
    clockwise: !isClimb,
    turns: rounds,
    feed,
    share,
  };
  if (radius < 2 * LEAST_LEAD)
    return [
      { kind: 'line', to: [x + radius, y, z], feed },
      round,
      { kind: 'line', to: [x, y, z], feed: 'lead' },
    ];
  const half = (to: Vec3): Move => ({
    kind: 'arc',
    to,
    centre: [x + radius / 2, y],
    clockwise: !isClimb,
    turns: 0,
    feed,
    share,
  });
  return [half([x + radius, y, z]), round, half([x, y, z])];
}

function whyNot(c: KindContext, tool: Tool, view: GrooveView, bore: number, off: number): string | null {
  const { shape } = view;
  const height = topOf(shape) - bottomOf(shape);
  if (view.metalFrom !== null)
    return `${view.label}: its bore is not open (${view.metalFrom}). Make that first.`;
  if (tool.fluteLength > height + HIGHER)
    return `${view.label}: ${tool.description} is ${c.say(tool.fluteLength)} high, and the groove ${c.say(height)}.`;
  const neck = (tool.neckDiameter ?? tool.shankDiameter) / 2;
  if (off + neck > bore - NECK_ROOM)
    return `${view.label}: at the wall the neck of ${tool.description} (\u2300${c.say(2 * neck)}) would touch the bore. Take a wider cutter or a slimmer neck.`;
  const [x, y] = first(shape.path).from;
  const ring: Segment[] = [
    {
      kind: 'arc',
      from: [x + off, y],
      to: [x + off, y],
      centre: [x, y],
      radius: Math.max(off, 1e-3),
      turn: 2 * Math.PI,
    },
  ];
  return whyUnder(c, tool, view.label, shape, [ring], bottomOf(shape));
}
