import { z } from 'zod';
import { CYCLE_WORDS } from '../cycles.ts';

/** A line of code as a shop puts it into its programs: ASCII, no tape mark, no program number. */
const ownLine = z
  .string()
  .trim()
  .min(1)
  .max(80)
  .regex(/^[\x20-\x7e]+$/, 'only plain letters, digits and signs can stand in a program')
  .refine((s) => !/^[%O:]/i.test(s), 'tape marks and program numbers have their own fields');

/** Numbers of M words that carry a meaning of the language itself: none of them can be given another. */
const TAKEN_M = new Set([0, 1, 2, 3, 4, 5, 6, 19, 30, 98, 99]);
const ownM = z
  .number()
  .int()
  .min(7)
  .max(999)
  .refine((m) => !TAKEN_M.has(m), 'this M word means something else already');

/**
 * What a machine understands and how its shop likes its programs. Lengths mm, feeds mm/min, times s. Where practice differs a field
 * decides, for writing, reading, proof and time alike.
 */
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
  /** Cycles that the control has; holes that would need another are written out. */
  cycles: z.array(z.enum(CYCLE_WORDS)).default([...CYCLE_WORDS]),
  /** Tapping cycles run in step with the spindle by themselves, or only after an M word has said so. */
  tapping: z.enum(['built-in', 'announced']),
  /** The M word that announces it, with S in a line before the cycle. */
  tapWord: ownM.default(29),
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
    /** Before every block, or only where a tool is changed. */
    where: z.enum(['blocks', 'tool-changes']).default('blocks'),
  }),
  commentStyle: z.enum(['parentheses', 'semicolon', 'none']),
  /** Longest comment that the control shows, letters. */
  commentLength: z.number().int().min(8).max(120).default(72),
  /** Number of the job's first setup; each further one has the next. Null: programs have none. */
  programNumber: z.number().int().min(1).max(99999).nullable(),
  lineEnding: z.enum(['lf', 'crlf']),
  /** Lines of the shop's own after the first, such as a safe start; they are read back like any other. */
  startLines: z.array(ownLine).max(20).default([]),
  /** Lines of the shop's own before the end. */
  endLines: z.array(ownLine).max(20).default([]),
  endWord: z.enum(['M30', 'M2']).default('M30'),
  stageNextTool: z.boolean(),
  /** How a tool is called: `T1 M6`, `M6 T1`, or in two blocks. */
  toolCall: z.enum(['tool-first', 'change-first', 'two-blocks']).default('tool-first'),
  /** Its length is taken by G43 H, or by the change itself. */
  toolLength: z.enum(['called', 'with-change']).default('called'),
  home: z.enum(['machine-coordinates', 'reference-return', 'second-reference']),
  /** Where X and Y go at the end, in machine coordinates, mm; null: they stay. */
  park: z.object({ x: z.number(), y: z.number() }).nullable().default(null),
  coolant: z.boolean(),
  coolantOn: ownM.default(8),
  coolantOff: ownM.default(9),
  percentSigns: z.boolean().default(true),
  /** A space between words, or none. */
  wordSpaces: z.boolean().default(true),
  /** G00 and M03 in place of G0 and M3. */
  twoDigitWords: z.boolean().default(false),
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
  /** Arcs by their centre, from where they begin or from the zero, or by their radius, a quarter at the most. */
  arcs: z.enum(['centre', 'centre-from-zero', 'radius']).default('centre'),
  /** P on an arc adds whole turns, or counts them all (the public RS274/NGC reading). */
  arcTurns: z.enum(['added', 'counted']).default('added'),
  /** Arcs may go up or down on their way; elsewhere they are written as lines, 0.005 mm from them at most. */
  helices: z.boolean().default(true),
  /**
   * Blocks that the control looks at to find where a compensated move ends: of those that follow one another, fewer than this may stand still in
   * the plane.
   */
  lookAhead: z.number().int().min(2).max(1000).default(3),
  /** The same way at several levels is written once, as a subprogram that each level calls (M98, M99). */
  levelSubprograms: z.boolean().default(false),
  /** The places of holes that several tools go to are written once, as a subprogram that each of them calls. */
  holeSubprograms: z.boolean().default(false),
  /** M9 and M5, and other M words, stand in lines of their own. */
  oneMPerBlock: z.boolean().default(false),
  /** M1 after each tool. */
  optionalStop: z.boolean().default(false),
});
export type MachineProfile = z.infer<typeof machineProfileSchema>;
