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
  travel: z.object({ x: z.number().positive(), y: z.number().positive(), z: z.number().positive() }).nullable().default(null),
  tapping: z.enum(['built-in']),
  /** Retract of G73 and clearance of G83 above the last depth, mm. */
  chipBreakBackOff: z.number().positive().default(0.25),
  peckClearance: z.number().positive().default(0.5),
  dwellUnit: z.enum(['milliseconds', 'seconds']).default('milliseconds'),
  decimals: z.object({ mm: z.number().int().min(1).max(6), inch: z.number().int().min(1).max(6) }),
  lineNumbers: z.object({ on: z.boolean(), start: z.number().int().positive(), step: z.number().int().positive() }),
  commentStyle: z.enum(['parentheses', 'semicolon']),
  programNumber: z.number().int().min(1).max(99999).nullable(),
  lineEnding: z.enum(['lf', 'crlf']),
  stageNextTool: z.boolean(),
  home: z.enum(['machine-coordinates', 'reference-return']),
  coolant: z.boolean(),
  percentSigns: z.boolean().default(true),
});
export type MachineProfile = z.infer<typeof machineProfileSchema>;

/** The profile that ships: taps in step with the spindle without being told to first. */
export const RIGID_TAP_BUILT_IN: MachineProfile = {
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
