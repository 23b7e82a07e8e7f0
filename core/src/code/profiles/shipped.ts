import type { z } from 'zod';
import { CYCLE_WORDS } from '../cycles.ts';
import { machineProfileSchema, type MachineProfile } from './schema.ts';

/** What the shipped profiles have in common: a middling vertical mill. */
const MILL = {
  maxSpeed: 8000,
  maxFeed: 8000,
  rapid: 24000,
  acceleration: 3000,
  toolChangeSeconds: 5,
  spindleStartSeconds: 1.5,
  magazineSize: 120,
  travel: { x: 1000, y: 550, z: 550 },
  tapping: 'built-in',
  decimals: { mm: 3, inch: 4 },
  lineNumbers: { on: false, start: 10, step: 10 },
  commentStyle: 'parentheses',
  programNumber: 1001,
  lineEnding: 'lf',
  stageNextTool: true,
  home: 'machine-coordinates',
  coolant: true,
};

/** A profile of that mill with what is its own; whatever neither says has its usual value. */
const profile = (own: Partial<z.input<typeof machineProfileSchema>>): MachineProfile =>
  machineProfileSchema.parse({ ...MILL, ...own });

/** Taps in step with the spindle without being told to first. */
export const RIGID_TAP_BUILT_IN = profile({ id: 'rigid-tap-built-in', name: 'rigid tap built in' });

/** Wants M29 and the speed in a line before each tapping cycle. */
export const RIGID_TAP_ANNOUNCED = profile({
  id: 'rigid-tap-announced',
  name: 'rigid tap announced',
  tapping: 'announced',
  home: 'reference-return',
});

/** As the public definition of RS274/NGC has it: dwells in seconds, P of an arc counts its turns, cycles rise before they go across. */
export const PUBLIC_RS274 = profile({
  id: 'public-rs274-ngc',
  name: 'public RS274/NGC',
  // Its G76 cuts threads on a lathe: what is bored so is written out.
  cycles: CYCLE_WORDS.filter((w) => w !== 'G76'),
  dwellUnit: 'seconds',
  arcTurns: 'counted',
  riseOrder: 'up-first',
  programNumber: null,
});

/** Holes, taps and helices in straight moves and arcs alone: for controls that have no cycles. */
export const NO_CYCLES = profile({
  id: 'no-cycles',
  name: 'no cycles',
  cycles: [],
  helices: false,
  stageNextTool: false,
  home: 'reference-return',
  lineNumbers: { on: true, start: 10, step: 10 },
  twoDigitWords: true,
  oneMPerBlock: true,
});

export const PROFILES: readonly MachineProfile[] = [
  RIGID_TAP_BUILT_IN,
  RIGID_TAP_ANNOUNCED,
  PUBLIC_RS274,
  NO_CYCLES,
];
