import { spotDepth } from '../../cutting/depths.ts';
import { speedAndFeed } from '../../cutting/material.ts';
import { findTool, type Found } from '../../tools/find.ts';
import { drilledStep, entryCone, type HoleView } from '../hole-view.ts';
import { Parameters, placeHoles, type KindContext, type OperationKind, type PlanResult, type Remark, type Source } from '../kind.ts';

/** How much wider than the thread or hole a spot's rim is made where the model has no chamfer, mm on diameter. */
export const EDGE_BREAK = 0.4;
/** A spot drill is used to this share of its diameter at most. */
const USABLE = 0.97;

/** Spots a hole so that the drill starts true, and leaves the rim that is wanted afterwards. */
export const spotKind: OperationKind = {
  kind: 'spot',
  label: 'spot',
  toolKinds: ['spot-drill'],
  cycles: ['G81', 'G82'],
  rank: 0,
  plan: planSpot,
};

function planSpot(c: KindContext): PlanResult {
  const hole = c.holes[0]!;
  const wanted = wantedRim(c, hole);
  const found = findSpot(c, wanted.angleDeg, wanted.rim);
  if ('missing' in found) return found;
  const { tool } = found;
  const angle = tool.pointAngleDeg ?? 90;
  const parameters = new Parameters(c);
  const remarks: Remark[] = [];
  const largest = USABLE * tool.diameter;
  const rim = parameters.length('rim', 'rim diameter', Math.min(wanted.rim, largest), wanted.source, wanted.relation);
  if (wanted.rim > largest + 1e-6 && wanted.source === 'model') {
    remarks.push({
      rule: 'spot-rim',
      severity: 'warning',
      message: `The chamfer of ${c.say(wanted.rim)} is wider than the spot drill can make (${c.say(largest)}). Use a wider spot drill or a countersink.`,
    });
  }
  if (rim > tool.diameter) {
    remarks.push({ rule: 'spot-rim', severity: 'error', message: `A rim of ${c.say(rim)} needs a spot drill wider than ${c.say(tool.diameter)}.` });
  }
  const depth = spotDepth(rim, angle, tool.tipDiameter);
  parameters.derived('depth', 'depth at tip', depth, `rim ⌀${c.say(rim)} at ${Math.round(angle)}°`);
  const { speed, feed } = speedAndFeed(tool, c.material, c.machine, depth);
  return {
    tool,
    cycle: 'G82',
    speed,
    feed,
    dwellSeconds: parameters.seconds('dwell', 'dwell', 0.2, 'method'),
    holes: placeHoles(c, (h) => h.entryDrop + depth),
    parameters: parameters.list,
    remarks,
  };
}

interface WantedRim {
  rim: number;
  source: Source;
  relation: string;
  angleDeg: number | null;
}

function wantedRim(c: KindContext, hole: HoleView): WantedRim {
  const cone = entryCone(hole);
  const drill = drilledStep(hole)?.diameter ?? hole.steps.reduce((m, s) => Math.min(m, s.shape === 'cone' ? s.endDiameter : s.diameter), Infinity);
  const { role } = hole.feature;
  if (cone && role !== 'countersunk') return { rim: cone.startDiameter, source: 'model', relation: 'chamfer in the model', angleDeg: cone.angle };
  // What is opened wider afterwards needs only a start for the drill, narrower than what follows.
  if (cone || hole.steps.length > 1) return { rim: 0.8 * drill, source: 'method', relation: '0.8 of the drill', angleDeg: null };
  if (c.thread) return { rim: c.thread.majorDiameter + EDGE_BREAK, source: 'method', relation: `thread + ${c.say(EDGE_BREAK)}`, angleDeg: null };
  return { rim: drill + EDGE_BREAK, source: 'method', relation: `hole + ${c.say(EDGE_BREAK)}`, angleDeg: null };
}

/**
 * The angle of the model's chamfer, else the bluntest on the list: with a spot sharper than the drill's point the drill's
 * corners would touch first. The narrowest that makes the rim, else the widest there is.
 */
function findSpot(c: KindContext, angleDeg: number | null, rim: number): Found {
  const angles = angleDeg !== null ? [angleDeg] : [...new Set(c.tools.flatMap((t) => (t.kind === 'spot-drill' ? [t.pointAngleDeg ?? 90] : [])))].sort((a, b) => b - a);
  for (const angle of angles) {
    const wide = findTool(c.tools, { kind: 'spot-drill', angleDeg: angle, minDiameter: rim / USABLE }, c.say);
    if ('tool' in wide) return wide;
  }
  const widest = c.tools
    .filter((t) => t.kind === 'spot-drill' && (angleDeg === null || Math.abs((t.pointAngleDeg ?? 90) - angleDeg) < 0.5))
    .sort((a, b) => b.diameter - a.diameter || (b.pointAngleDeg ?? 90) - (a.pointAngleDeg ?? 90))[0];
  if (widest) return { tool: widest };
  return { missing: angleDeg !== null ? `No spot drill of ${Math.round(angleDeg)}° in the tool list for the chamfer in the model.` : 'No spot drill in the tool list.' };
}
