import { z } from 'zod';

/** What a machine understands and how its shop likes its programs. Lengths mm, feeds mm/min, times s. */
export const machineProfileSchema = z.object({
  id: z.string().min(1),
  name: z.string().min(1).max(80),
  maxSpeed: z.number().positive(),
  maxFeed: z.number().positive(),
  rapid: z.number().positive(),
  /** mm/s². */
  acceleration: z.number().positive(),
  toolChangeSeconds: z.number().nonnegative(),
  spindleStartSeconds: z.number().nonnegative(),
  magazineSize: z.number().int().positive(),
  /** How far its axes go, mm; null: not known. */
  travel: z
    .object({ x: z.number().positive(), y: z.number().positive(), z: z.number().positive() })
    .nullable()
    .default(null),
  tapping: z.enum(['built-in']),
  /** Retract of G73 and clearance of G83 above the last depth, mm. */
  chipBreakBackOff: z.number().positive().default(0.25),
  peckClearance: z.number().positive().default(0.5),
  /** Q on a tapping cycle: in step out to R after each peck. Elsewhere taps go down in one go. */
  pecksTaps: z.boolean().default(false),
  dwellUnit: z.enum(['milliseconds', 'seconds']).default('milliseconds'),
  decimals: z.object({ mm: z.number().int().min(1).max(6), inch: z.number().int().min(1).max(6) }),
  lineNumbers: z.object({
    on: z.boolean(),
    start: z.number().int().positive(),
    step: z.number().int().positive(),
  }),
  commentStyle: z.enum(['parentheses', 'semicolon']),
  programNumber: z.number().int().min(1).max(99999).nullable(),
  lineEnding: z.enum(['lf', 'crlf']),
  stageNextTool: z.boolean(),
  home: z.enum(['machine-coordinates', 'reference-return']),
  coolant: z.boolean(),
  percentSigns: z.boolean().default(true),
  /** G words for accuracy or smoothing that may stand in a start line and change nothing here. */
  harmless: z.array(z.number()).default([61, 61.1, 64]),
  /** G43 may take another tool's H. */
  otherLengthOffsets: z.boolean().default(false),
  /** A length without a decimal point is read in whole units; elsewhere it may be thousandths. */
  wholeUnitsWithoutPoint: z.boolean().default(false),
  /**
   * What a cycle does first when its R lies above the tool. `unknown`: proof takes the worse, which is across first.
   */
  riseOrder: z.enum(['up-first', 'across-first', 'unknown']).default('unknown'),
  /** P on an arc adds whole turns, or counts them all (the public RS274/NGC reading). */
  arcTurns: z.enum(['added', 'counted']).default('added'),
  /** Arcs may go up or down on their way; elsewhere they are written as lines, 0.005 mm from them at most. */
  helices: z.boolean().default(true),
  /** The same way at several levels is written once, as a subprogram that each level calls (M98, M99). */
  levelSubprograms: z.boolean().default(false),
  /** M9 and M5, and other M words, stand in lines of their own. */
  oneMPerBlock: z.boolean().default(false),
  /** M1 after each tool. */
  optionalStop: z.boolean().default(false),
});
export type MachineProfile = z.infer<typeof machineProfileSchema>;

/** What a profile says where it does not say otherwise; stored profiles of before read by the same. */
const USUAL = {
  harmless: [61, 61.1, 64],
  otherLengthOffsets: false,
  wholeUnitsWithoutPoint: false,
  riseOrder: 'unknown',
  arcTurns: 'added',
  helices: true,
  levelSubprograms: false,
  oneMPerBlock: false,
  optionalStop: false,
} as const satisfies Partial<MachineProfile>;

/** The profile that ships: taps in step with the spindle without being told to first. */
export const RIGID_TAP_BUILT_IN: MachineProfile = {
  ...USUAL,
  harmless: [...USUAL.harmless],
  id: 'rigid-tap-built-in',
  name: 'rigid tap built in',
  maxSpeed: 8000,
  maxFeed: 8000,
  rapid: 24000,
  acceleration: 3000,
  toolChangeSeconds: 5,
  spindleStartSeconds: 1.5,
  magazineSize: 120,
  travel: { x: 1000, y: 550, z: 550 },
  tapping: 'built-in',
  chipBreakBackOff: 0.25,
  peckClearance: 0.5,
  pecksTaps: false,
  dwellUnit: 'milliseconds',
  decimals: { mm: 3, inch: 4 },
  lineNumbers: { on: false, start: 10, step: 10 },
  commentStyle: 'parentheses',
  programNumber: 1001,
  lineEnding: 'lf',
  stageNextTool: true,
  home: 'machine-coordinates',
  coolant: true,
  percentSigns: true,
};

export const PROFILES: readonly MachineProfile[] = [RIGID_TAP_BUILT_IN];
