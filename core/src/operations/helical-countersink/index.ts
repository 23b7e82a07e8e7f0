import { helixDown, insideShare, roundAt } from '../../motion/circles.ts';
import { coneOf } from '../../tools/cone.ts';
import { coneHeight } from '../../tools/kinds/kind.ts';
import type { Tool } from '../../tools/schema.ts';
import { chooseTool, type Cut } from '../choose-tool.ts';
import { cuttingNumbers } from '../cutting-numbers.ts';
import { entryCone, type PlacedStep } from '../hole-view.ts';
import { Parameters, placeWork, type KindContext, type OperationKind, type PlanResult } from '../kind.ts';
import { coneBands, type Band, type ConeCut } from './bands.ts';

/** How far the tip goes below the cone, what is left for the last round, mm. */
const CLEAR = 0.3;
const FINISH = 0.1;
/** Share of the cutter's cone that is used, and how much of its diameter a step takes sideways. */
const USABLE = 0.95;
const SIDE_STEP = 0.15;
/** Least radius on which the centre runs, mm. */
const LEAST_ORBIT = 0.5;
/** Down a turn, as a share of the cutter. */
const PER_TURN = 0.06;
/** Above the entry, where the helix begins, mm. */
const ABOVE = 0.5;

/** Opens a countersink with a cone cutter smaller than the head: down a helix, out in steps, and once more along the cone. */
export const helicalCountersinkKind: OperationKind = {
  kind: 'helical-countersink',
  cuts: ['holes'],
  label: 'helical countersink',
  toolKinds: ['chamfer-mill'],
  rank: 3,
  numbers: { deeper: 'head deeper by', perTurn: 'down a turn', finishStock: 'left for finishing' },
  plan: planCountersink,
};

type Cone = Extract<PlacedStep, { shape: 'cone' }>;

function planCountersink(c: KindContext): PlanResult {
  const [hole] = c.holes;
  const cone: Cone | null = c.step?.shape === 'cone' ? c.step : hole ? entryCone(hole) : null;
  if (!hole || !cone) return { missing: 'The hole has no countersink in the model.' };
  const parameters = new Parameters(c);
  const slope = Math.tan((cone.angle * Math.PI) / 360);
  const deeper = parameters.length('deeper', 'head deeper by', 0, 'method', 'along the axis');
  const rim = cone.startDiameter + 2 * deeper * slope;
  const cut: ConeCut = { top: cone.top, wide: rim, narrow: cone.endDiameter, slope };
  const bandsOf = (t: Tool, stock = 0): Band[] => {
    const { diameter: tip, angleDeg } = coneOf(t);
    const flank = USABLE * coneHeight(t.diameter, tip, angleDeg);
    return coneBands(cut, tip, flank, CLEAR, SIDE_STEP * t.diameter).map((b) => ({
      ...b,
      radius: Math.max(LEAST_ORBIT / 2, b.radius - stock),
    }));
  };
  const usable = c.tools.filter((t) => {
    if (t.kind !== 'chamfer-mill' || Math.abs(coneOf(t).angleDeg - cone.angle) > 0.5) return false;
    const [lowest] = bandsOf(t);
    return lowest !== undefined && lowest.radius >= LEAST_ORBIT;
  });
  const need = {
    kind: 'chamfer-mill',
    angleDeg: cone.angle,
    maxDiameter: cone.startDiameter,
    widest: true,
  } as const;
  if (usable.length === 0)
    return {
      missing: `No chamfer mill of ${Math.round(cone.angle)}° fits into the ⌀${c.say(cone.endDiameter)} below the countersink.`,
      need,
    };
  const found = chooseTool({ ...c, tools: usable }, { kind: 'chamfer-mill', widest: true }, (t): Cut => {
    const [lowest] = bandsOf(t);
    return {
      tip: lowest?.tip ?? 0,
      orbit: lowest?.radius ?? 0,
      allowed: { radius: rim / 2 + 0.05 },
    };
  });
  if ('missing' in found) return found;
  const { tool } = found;
  const perTurn = parameters.length(
    'perTurn',
    'down a turn',
    Math.max(0.02, Math.floor(100 * PER_TURN * tool.diameter) / 100),
    'method',
  );
  const stock = Math.max(0, parameters.length('finishStock', 'left for finishing', FINISH, 'method'));
  const finish = bandsOf(tool);
  const lowest = finish[0]?.tip ?? 0;
  parameters.derived('rim', 'rim ⌀', rim, deeper === 0 ? 'countersink in the model' : 'model, and deeper');
  parameters.derived('depth', 'tip below entry', lowest, `below the cone by ${c.say(CLEAR)}`);
  parameters.shown('steps', 'steps', String(finish.length));
  const numbers = cuttingNumbers(c, parameters, tool, lowest);
  const { speed, feed } = numbers;
  const share = (b: Band): number => insideShare(2 * b.radius + tool.diameter, tool.diameter);
  return {
    tool,
    speed,
    feed,
    feeds: { cut: feed, finish: feed, lead: Math.min(c.machine.maxFeed, 2 * feed) },
    work: placeWork(
      c,
      () => lowest,
      (h, r) => {
        const ring = (b: Band) => ({ x: h.x, y: h.y, radius: b.radius, to: h.entryZ - b.tip });
        const from = Math.min(r, Math.max(h.metalZ, h.entryZ) + ABOVE);
        const rough = bandsOf(tool, stock).map((b, i) =>
          i === 0
            ? helixDown({ ...ring(b), from }, Math.max(0.01, perTurn), r, 'cut', share(b))
            : roundAt({ ...ring(b), from }, r, 1, 'cut', share(b)),
        );
        const last =
          stock > 0 ? finish.map((b) => roundAt({ ...ring(b), from }, r, 1, 'finish', share(b))) : [];
        return { kind: 'path', passes: [...rough, ...last] };
      },
    ).map((w) => ({
      ...w,
      wanted: [{ z: w.entryZ - cone.top, diameter: rim, angleDeg: cone.angle, below: false }],
    })),
    parameters: parameters.list,
    remarks: numbers.remarks,
    alternatives: [tool, ...found.others].map((t) => t.id),
  };
}
