import { first } from '../../lists.ts';
import { bottomOf } from '../../features/groove-shape.ts';
import { chooseAmong, shortOf } from '../choose-tool.ts';
import { underWork, whyNotUnder } from '../grooves/under.ts';
import { sideCut } from '../grooves/planned.ts';
import type { GrooveView } from '../groove-view.ts';
import { Parameters, type KindContext, type OperationKind, type PlanResult } from '../kind.ts';
import type { Tool } from '../../tools/schema.ts';

/** Angles of cutter and flank that count as one, degrees. */
const SAME_ANGLE = 0.05;
const FINISH_STOCK = 0.2;
/** Of the cutter: from one way along to the next. */
const STEPOVER = 0.06;
const CUTTING = ['climb', 'conventional'] as const;

/** Cuts the flanks of a dovetail in steps, by a cutter of their own angle, straight in and out by its open ends. */
export const dovetailMillKind: OperationKind = {
  kind: 'dovetail-mill',
  cuts: ['grooves'],
  label: 'dovetail flanks',
  toolKinds: ['dovetail-cutter'],
  rank: 2.5,
  makes: ['head'],
  numbers: { finishStock: 'left on flanks', stepover: 'step sideways', springPasses: 'spring passes' },
  choices: { cutting: CUTTING },
  plan,
};

/** Angle between floor and flank, degrees. */
function flankOf(view: GrooveView): number {
  const { top, bottom, halfTop, halfBottom } = first(view.shape.levels);
  return (Math.atan((top - bottom) / (halfBottom - halfTop)) * 180) / Math.PI;
}

function plan(c: KindContext): PlanResult {
  const view = first(c.grooves);
  const level = first(view.shape.levels);
  if (!(level.halfBottom > level.halfTop))
    return { missing: `${view.label} has no flanks that lean over its floor.` };
  const angle = flankOf(view);
  const parameters = new Parameters(c);
  parameters.derived('width', 'width at the floor', 2 * level.halfBottom, 'in the model', 'model');
  parameters.shown('angle', 'flank', `${+angle.toFixed(2)}\u00b0`);
  const need = {
    kind: 'dovetail-cutter',
    minDiameter: level.halfBottom / 2,
    maxDiameter: 2 * level.halfBottom,
    angleDeg: angle,
    widest: true,
  } as const;
  const offOf = (t: Tool): number => Math.max(0, level.halfBottom - t.diameter / 2);
  const found = chooseAmong(c, need, c.grooves, {
    inMetal: (t, v) => v.metalZ - v.entryZ + Math.min(v.depth, t.fluteLength),
    whyNot: (t, v) => whyNot(c, t, v, offOf(t), angle),
  });
  if ('missing' in found) return found;
  const { tool } = found;
  const off = offOf(tool);
  const stock = Math.max(
    0,
    parameters.length('finishStock', 'left on flanks', Math.min(FINISH_STOCK, off / 2), 'method'),
  );
  const stepover = Math.max(
    0.05,
    parameters.length('stepover', 'step sideways', STEPOVER * tool.diameter, 'method'),
  );
  const spring = Math.max(0, Math.round(parameters.number('springPasses', 'spring passes', 0, 'method')));
  const isClimb = parameters.choice('cutting', 'cutting', CUTTING, 'climb', 'method') === 'climb';
  parameters.derived('depth', 'floor below top', view.entryZ - level.bottom, 'in the model', 'model');
  const work = underWork(
    c,
    tool,
    (v) => {
      const z = bottomOf(v.shape);
      return [
        ...(stock > 0 ? [{ z, off: off - stock, feed: 'cut' as const, rounds: 1 }] : []),
        { z, off, feed: stock > 0 ? ('finish' as const) : ('cut' as const), rounds: 1 + spring },
      ];
    },
    { stepover, isClimb },
  );
  if ('missing' in work) return work;
  return sideCut(c, parameters, { tool, others: [found.tool, ...found.others] }, work);
}

function whyNot(c: KindContext, tool: Tool, view: GrooveView, off: number, angle: number): string | null {
  const own = tool.pointAngleDeg ?? 60;
  if (Math.abs(own - angle) > SAME_ANGLE)
    return `${view.label}: the flanks stand at ${+angle.toFixed(2)}\u00b0, and ${tool.description} cuts ${own}\u00b0: the angle must be the flank's own.`;
  if (tool.fluteLength < view.depth - 0.005)
    return `${view.label}: the teeth of ${tool.description} are ${c.say(tool.fluteLength)} high, and the flank ${c.say(view.depth)}.`;
  const short = shortOf(
    c,
    tool,
    view.label,
    view.metalZ - view.entryZ + view.depth,
    view.metalZ - view.entryZ,
  );
  return short ?? whyNotUnder(c, view, tool, off, [bottomOf(view.shape)]);
}
