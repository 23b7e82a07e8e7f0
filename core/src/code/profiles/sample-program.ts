import type { MotionOperation, MotionProgram, MotionWork } from '../../motion/program.ts';
import type { CycleHow, Move, PathMotion } from '../../motion/work.ts';
import { toolKind } from '../../tools/kinds/registry.ts';
import type { Tool, ToolKind } from '../../tools/schema.ts';

/** Program coordinates, mm. */
const CLEARANCE = 25;
const R = 2;
const PLACES = [
  [10, 10],
  [70, 10],
  [70, 40],
  [40, 40],
  [10, 40],
] as const;

/**
 * A short program of a made-up plate that holds one of everything a profile decides about: cycles with dwell, pecks, a tap, a bore that is
 * shifted off its wall, an arc, a helix, a wall that the control compensates.
 */
export function sampleProgram(units: 'mm' | 'inch' = 'mm'): MotionProgram {
  const drilled = (how: CycleHow, z: number, r = R): MotionWork[] =>
    PLACES.map(([x, y], i) => hole(`A${i + 1}`, x, y, z, how, i === PLACES.length - 1, r));
  return {
    name: 'sample plate',
    units,
    workOffset: 'G54',
    zero: 'corner, top of stock',
    clearanceZ: CLEARANCE,
    head: { index: 0, lines: ['material aluminium, side top up'], notMade: [] },
    visits: [
      visit(
        tool('spot-drill', 1, 10),
        'A spot A1-A5',
        3000,
        240,
        drilled({ how: 'dwell', seconds: 0.1 }, -3),
      ),
      visit(
        tool('drill', 2, 6.8),
        'A drill A1-A5',
        2400,
        380,
        drilled({ how: 'full-retract', peck: 7 }, -26),
      ),
      visit(TAP, 'A tap A1-A5', 500, 625, drilled({ how: 'tap', hand: 'right' }, -18, 5)),
      visit(tool('boring-bar', 4, 20), 'B bore B1', 900, 60, [
        hole('B1', 40, 25, -12, { how: 'shift-out', shift: 0.2 }, true),
      ]),
      {
        ...visit(
          tool('end-mill', 5, 10),
          'C pocket mill C1',
          4800,
          900,
          [path('C1', 25, 25, clearing(25, 25))],
          {
            ramp: 300,
            plunge: 200,
          },
        ),
      },
      visit(tool('end-mill', 6, 8), 'D outline D1', 4800, 700, [path('D1', -14, -14, wall())]),
    ],
  };
}

const TAP: Tool = {
  ...tool('drill', 3, 8),
  id: 'sample-tap',
  kind: 'tap',
  description: 'tap M8x1.25',
  sizeName: 'M8',
  thread: {
    designation: 'M8x1.25',
    pitch: 1.25,
    majorDiameter: 8,
    hand: 'right',
    lead: 'plug',
    style: 'cutting',
  },
};

function tool(kind: ToolKind, number: number, diameter: number): Tool {
  const shape = toolKind(kind).usual({ kind, diameter });
  if (!shape) throw new RangeError(`no usual ${kind}`);
  return {
    ...shape,
    id: `sample-${number}`,
    kind,
    number,
    description: `${toolKind(kind).label} ${diameter}`,
    overallLength: shape.fluteLength + 40,
    stickOut: shape.fluteLength + 10,
    holderId: '',
  };
}

const visit = (
  own: Tool,
  title: string,
  speed: number,
  feed: number,
  work: MotionWork[],
  feeds: MotionOperation['operation']['feeds'] = {},
): MotionProgram['visits'][number] => ({
  tool: own,
  operations: [{ id: title, title, notes: [], operation: { tool: own, speed, feed, feeds }, work }],
});

const hole = (
  label: string,
  x: number,
  y: number,
  z: number,
  how: CycleHow,
  lift: boolean,
  r = R,
): MotionWork => ({
  feature: label,
  label,
  x,
  y,
  r,
  z,
  entryZ: 0,
  metalZ: 0,
  lift,
  motion: { kind: 'cycle', how },
});

const path = (label: string, x: number, y: number, motion: PathMotion): MotionWork => ({
  feature: label,
  label,
  x,
  y,
  r: R,
  z: -4,
  entryZ: 0,
  metalZ: 0,
  lift: true,
  motion,
});

/** Down on a helix, once round, half round, back. */
function clearing(x: number, y: number): PathMotion {
  const arc = (to: readonly [number, number, number], turns: number, feed: 'ramp' | 'cut'): Move => ({
    kind: 'arc',
    to: [...to],
    centre: [x, y],
    clockwise: false,
    turns,
    feed,
  });
  return {
    kind: 'path',
    passes: [
      {
        start: [x + 4, y, 0.5],
        moves: [
          arc([x + 4, y, -4], 2, 'ramp'),
          arc([x + 4, y, -4], 1, 'cut'),
          arc([x - 4, y, -4], 0, 'cut'),
          { kind: 'line', to: [x, y, -4], feed: 'cut' },
        ],
      },
    ],
  };
}

/** Along one side of the plate and round its corner, as a wall that the control keeps the cutter beside. */
function wall(): PathMotion {
  const beside = (x: number, y: number, wx: number, wy: number): Move => ({
    kind: 'line',
    to: [x, y, -4],
    feed: 'cut',
    wall: { to: [wx, wy] },
  });
  return {
    kind: 'path',
    passes: [
      {
        start: [-14, -14, -4],
        control: 'left',
        moves: [
          beside(-4, -4, 0, -4),
          beside(-4, 50, 0, 50),
          { kind: 'line', to: [-14, 60, -4], feed: 'cut' },
        ],
      },
    ],
  };
}
