import { FALSE, Item, type Ref } from '../part21/value.ts';
import { Whole } from '../part21/write.ts';
import type { Tool, ToolKind } from '../tools/schema.ts';
import type { GeometryWriter } from './geometry.ts';

/** The tool body of ISO 14649-111 for a kind of tool, and what it says beyond what all bodies say. */
const BODIES: { readonly [K in ToolKind]: (t: Tool) => [type: string, ...own: (number | null)[]] } = {
  'spot-drill': () => ['CENTER_DRILL'],
  'centre-drill': () => ['CENTER_DRILL'],
  drill: () => ['TWIST_DRILL'],
  'core-drill': () => ['TWIST_DRILL'],
  reamer: () => ['REAMER'],
  countersink: () => ['COUNTERSINK'],
  counterbore: () => ['COUNTERBORE'],
  tap: (t) => (t.thread?.lead === 'taper' ? ['TAPERED_TAP', Math.atan(1 / 32)] : ['TAP']),
  'end-mill': (t) => {
    const corner = t.cornerRadius ?? 0;
    if (corner <= 0) return ['ENDMILL'];
    return [corner >= t.diameter / 2 - 1e-6 ? 'BALLNOSE_ENDMILL' : 'BULLNOSE_ENDMILL'];
  },
  'boring-bar': () => ['BORING_TOOL'],
  'thread-mill': () => ['THREADMILL'],
  't-cutter': (t) => ['T_SLOT_MILL', t.fluteLength],
  'dovetail-cutter': (t) => ['DOVETAIL_MILL', ((t.pointAngleDeg ?? 90) * Math.PI) / 180],
  'chamfer-mill': (t) => ['TAPERED_ENDMILL', ((t.pointAngleDeg ?? 90) * Math.PI) / 360],
  'back-chamfer-cutter': () => ['USER_DEFINED_MILLING_TOOL'],
  'corner-rounding-cutter': () => ['USER_DEFINED_MILLING_TOOL'],
  lollipop: () => ['USER_DEFINED_MILLING_TOOL'],
};

/** A tool as MILLING_CUTTING_TOOL with its body and its cutting component. Lengths in mm, angles in radians. */
export function writeTool(w: GeometryWriter, t: Tool): Ref {
  const [type, ...own] = BODIES[t.kind](t);
  const dimension = w.add(
    'MILLING_TOOL_DIMENSION',
    t.diameter,
    t.pointAngleDeg === undefined ? null : (t.pointAngleDeg * Math.PI) / 180,
    null,
    t.fluteLength,
    t.cornerRadius ?? null,
    null,
    null,
  );
  const body = w.add(
    type,
    dimension,
    t.teeth === undefined ? null : new Whole(t.teeth),
    new Item(t.thread?.hand === 'left' ? 'LEFT' : 'RIGHT'),
    FALSE,
    null,
    ...own,
  );
  const edge = w.add('CUTTING_COMPONENT', t.stickOut, null, null, null, null);
  const name = [t.number === null ? '' : `T${t.number}`, t.description].filter(Boolean).join(' ');
  return w.add('MILLING_CUTTING_TOOL', name, body, [edge], t.stickOut, null, null);
}
