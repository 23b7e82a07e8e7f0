import type { MachineProfile } from '../profiles/schema.ts';
import { readArc } from './arc.ts';
import { Block, letter } from './blocks.ts';
import { CycleRunner } from './cycles.ts';
import type { Coordinate, CycleCall, Motion, Place, ReadProblem, ReadProgram } from './motion.ts';

const IN = 25.4;
/** G words of the cycles, and how messages and motions name them. */
const CYCLES = new Map([73, 74, 76, 81, 82, 83, 84, 85, 86, 89].map((n) => [n, `G${n}`]));
/** More pecks than this in one hole are a slip of the decimal point. */
const MOST_PECKS = 5000;
/** G words without motion of their own that may stand in any block. */
const SETTINGS = new Set([17, 20, 21, 40, 43, 49, 53, 54, 55, 56, 57, 58, 59, 80, 90, 91, 94, 95, 98, 99, 28, 4]);
const M_WORDS = new Set([0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 19, 29, 30]);
const [X, Y, Z, F, I, J, P, Q, R, S, T] = [...'XYZFIJPQRST'].map(letter) as [number, number, number, number, number, number, number, number, number, number, number];
const AXES = [X, Y, Z] as const;

/**
 * Reads word-address code with a profile's meaning and opens its cycles into what the machine does.
 * It survives anything: what it does not understand becomes a problem with its line, and that block does nothing.
 */
export function readProgram(text: string, profile: MachineProfile): ReadProgram {
  const interpreter = new Interpreter(profile);
  const block = new Block();
  let line = 0;
  let start = 0;
  while (start < text.length) {
    let end = text.indexOf('\n', start);
    if (end < 0) end = text.length;
    line++;
    if (block.read(text, start, end)) interpreter.run(line, block);
    start = end + 1;
  }
  return interpreter.finish(line);
}

class Interpreter {
  private readonly motions: Motion[] = [];
  private readonly calls: CycleCall[] = [];
  private readonly problems: ReadProblem[] = [];
  private factor = 1;
  private units: 'mm' | 'inch' = 'mm';
  private absolute = true;
  private feedPerTurn = false;
  private mode: number | null = null;
  private toInitial = true;
  private feed = 0;
  private speed = 0;
  private spindle: CycleCall['spindle'] = 'off';
  private tool = 0;
  private staged = 0;
  private lengthOffset = false;
  private workOffset = false;
  private ended = false;
  private at: [Coordinate, Coordinate, Coordinate] = [null, null, null];
  private initialZ: Coordinate = null;
  private sticky: { z?: number; r?: number; q?: number; p?: number } = {};

  private readonly cycles: CycleRunner;

  constructor(private readonly profile: MachineProfile) {
    this.cycles = new CycleRunner(profile, this.motions);
  }

  finish(lineCount: number): ReadProgram {
    if (!this.ended && this.motions.length > 0) this.problem(lineCount, 'warning', 'no-end', 'The program has no M30 or M2 at its end.');
    return { motions: this.motions, calls: this.calls, problems: this.problems, units: this.units, lineCount };
  }

  run(line: number, block: Block): void {
    const { g, m, words, fault } = block;
    if (fault) return this.problem(line, 'error', fault.rule, `Line ${line}: ${fault.text}; the block is left out.`);
    let moving: number | undefined;
    for (const v of g) {
      const isMotion = v <= 3 || CYCLES.has(v);
      if (isMotion && moving !== undefined)
        return this.problem(line, 'error', 'two-motions', `Line ${line}: G${moving} and G${v} are two motions in one block; the block is left out.`);
      if (isMotion && Number.isInteger(v) && v >= 0) moving = v;
      else if (!SETTINGS.has(v))
        return this.problem(line, 'error', 'unknown-word', `Line ${line}: G${v} is not known to the profile "${this.profile.name}"; the block is left out.`);
    }
    for (const v of m) if (!M_WORDS.has(v)) this.problem(line, 'warning', 'unknown-word', `Line ${line}: M${v} is not known to the profile "${this.profile.name}".`);
    this.settings(g, words);
    this.misc(m, words);
    const dwellInSeconds = this.profile.dwellUnit === 'seconds' || block.decimalP;
    if (g.includes(4)) return this.dwell(line, words, dwellInSeconds);
    if (g.includes(28)) return this.goToReference(line, words);
    if (g.includes(53)) return this.goInMachine(line, words);
    this.move(line, moving, words, dwellInSeconds);
  }

  private settings(g: number[], words: Float64Array): void {
    for (const v of g) {
      if (v === 20) [this.factor, this.units] = [IN, 'inch'];
      else if (v === 21) [this.factor, this.units] = [1, 'mm'];
      else if (v === 90) this.absolute = true;
      else if (v === 91) this.absolute = false;
      else if (v === 94) this.feedPerTurn = false;
      else if (v === 95) this.feedPerTurn = true;
      else if (v === 98) this.toInitial = true;
      else if (v === 99) this.toInitial = false;
      else if (v === 43) this.lengthOffset = true;
      else if (v === 49) this.lengthOffset = false;
      else if (v >= 54 && v <= 59) this.workOffset = true;
      else if (v === 80) this.endCycle();
    }
    if (has(words, F)) this.feed = words[F]! * this.factor;
    if (has(words, S)) this.speed = words[S]!;
    if (has(words, T)) this.staged = words[T]!;
  }

  private misc(m: number[], words: Float64Array): void {
    for (const v of m) {
      if (v === 3) this.spindle = 'clockwise';
      else if (v === 4) this.spindle = 'counter-clockwise';
      else if (v === 5) this.spindle = 'off';
      else if (v === 6) {
        this.tool = has(words, T) ? words[T]! : this.staged;
        this.lengthOffset = false;
        this.at[2] = null;
      } else if (v === 30 || v === 2) this.ended = true;
    }
  }

  private endCycle(): void {
    if (this.mode !== null && CYCLES.has(this.mode)) this.mode = null;
    this.sticky = {};
    this.initialZ = null;
  }

  private dwell(line: number, words: Float64Array, inSeconds: boolean): void {
    const p = has(words, P) ? words[P]! : 0;
    this.motions.push({ ...this.base(line, 'dwell', this.place()), seconds: inSeconds ? p : p / 1000 });
  }

  private goToReference(line: number, words: Float64Array): void {
    const via = this.place(this.target(words));
    if (AXES.some((l, i) => has(words, l) && via[i] !== this.at[i])) this.push('rapid', line, via);
    this.goInMachine(line, words);
  }

  /** To a place in machine coordinates: in the program's own it is not known. */
  private goInMachine(line: number, words: Float64Array): void {
    const to: [Coordinate, Coordinate, Coordinate] = [...this.at];
    AXES.forEach((l, i) => {
      if (has(words, l)) to[i] = null;
    });
    this.push('rapid', line, to);
  }

  private move(line: number, given: number | undefined, words: Float64Array, dwellInSeconds: boolean): void {
    if (given !== undefined) {
      if (!CYCLES.has(given)) this.endCycle();
      else if (this.mode === null || !CYCLES.has(this.mode)) this.initialZ = this.at[2];
      else if (given !== this.mode) this.sticky = {};
      this.mode = given;
    }
    if (this.mode !== null && CYCLES.has(this.mode)) return this.cycleLine(line, words, dwellInSeconds);
    const hasPlace = has(words, X) || has(words, Y) || has(words, Z);
    if (!hasPlace && !has(words, I) && !has(words, J)) return;
    if (this.mode === null) return this.problem(line, 'error', 'no-motion-word', `Line ${line}: coordinates without a motion word; the block is left out.`);
    const to = this.place(this.target(words));
    if (this.mode === 0) return this.push('rapid', line, to);
    this.needFeedAndSpindle(line);
    if (this.mode === 1) return this.push('feed', line, to);
    const said = (l: number): number | undefined => (has(words, l) ? words[l] : undefined);
    const arc = readArc(this.at, to, { I: said(I), J: said(J), R: said(R) }, this.factor, this.mode === 2);
    if ('fault' in arc) return this.problem(line, 'error', 'broken-arc', `Line ${line}: ${arc.fault}; the block is left out.`);
    this.motions.push({ ...this.base(line, 'arc', to), ...arc });
    this.at = [...to];
  }

  private cycleLine(line: number, words: Float64Array, dwellInSeconds: boolean): void {
    const cycle = this.mode!;
    const { factor, sticky: s } = this;
    if (has(words, Q)) s.q = words[Q]! * factor;
    if (has(words, P)) s.p = dwellInSeconds ? words[P]! : words[P]! / 1000;
    if (has(words, R)) s.r = (this.absolute ? 0 : (this.initialZ ?? 0)) + words[R]! * factor;
    if (has(words, Z)) s.z = (this.absolute ? 0 : (s.r ?? 0)) + words[Z]! * factor;
    if (!has(words, X) && !has(words, Y)) return;
    if (s.r === undefined) return this.noHole(line, 'missing-r', `G${cycle} has no R level`);
    if (s.z === undefined) return this.noHole(line, 'missing-z', `G${cycle} has no depth Z`);
    if ((cycle === 83 || cycle === 73) && !(s.q !== undefined && s.q > 0)) return this.noHole(line, 'missing-peck', `G${cycle} pecks and has no peck depth Q`);
    if ((cycle === 83 || cycle === 73) && (s.r - s.z) / s.q! > MOST_PECKS)
      return this.noHole(line, 'too-many-pecks', `G${cycle} with Q ${s.q} would take more than ${MOST_PECKS} pecks`);
    if (s.z > s.r) return this.noHole(line, 'depth-above-r', 'the depth Z lies above the R level');
    const x = this.coordinate(words, 0);
    const y = this.coordinate(words, 1);
    if (x === null || y === null) return this.noHole(line, 'unknown-position', 'X or Y is not known yet');
    if (this.at[2] === null || this.initialZ === null)
      return this.noHole(line, 'unknown-position', 'the height before the cycle is not known: move Z to the clearance level with the length offset first');
    this.needFeedAndSpindle(line);
    const call: CycleCall = {
      line,
      cycle: CYCLES.get(cycle)!,
      tool: this.tool,
      x,
      y,
      r: s.r,
      z: s.z,
      initial: this.initialZ,
      q: s.q,
      dwellSeconds: s.p,
      feed: this.feedPerTurn ? this.feed * this.speed : this.feed,
      feedPerTurn: this.feedPerTurn,
      speed: this.speed,
      spindle: this.spindle,
    };
    this.calls.push(call);
    const end = this.cycles.run(call, [this.at[0], this.at[1], this.at[2]], this.toInitial, words[I]! * factor, words[J]! * factor);
    this.at[0] = end[0];
    this.at[1] = end[1];
    this.at[2] = end[2];
  }

  private noHole(line: number, rule: string, text: string): void {
    this.problem(line, 'error', rule, `Line ${line}: ${text}; the hole is left out.`);
  }

  private needFeedAndSpindle(line: number): void {
    if (this.feed <= 0) this.problem(line, 'error', 'no-feed', `Line ${line}: cutting without a feed F.`);
    if (this.spindle === 'off' || this.speed <= 0) this.problem(line, 'error', 'spindle-off', `Line ${line}: cutting with the spindle off. Add S and M3.`);
    if (!this.lengthOffset) this.problem(line, 'error', 'no-length-offset', `Line ${line}: cutting without the tool's length offset. Add G43 with its H.`);
    if (!this.workOffset) {
      this.problem(line, 'warning', 'no-work-offset', `Line ${line}: no work offset G54 to G59 was chosen before cutting.`);
      this.workOffset = true;
    }
  }

  private target(words: Float64Array): [Coordinate, Coordinate, Coordinate] {
    return [this.coordinate(words, 0), this.coordinate(words, 1), this.coordinate(words, 2)];
  }

  private coordinate(words: Float64Array, axis: 0 | 1 | 2): Coordinate {
    const v = words[AXES[axis]]!;
    const now = this.at[axis];
    if (Number.isNaN(v)) return now;
    if (this.absolute) return v * this.factor;
    return now === null ? null : now + v * this.factor;
  }

  private place(p: Place = this.at): Place {
    return [p[0], p[1], p[2]];
  }

  private base(line: number, kind: Motion['kind'], to: Place): Motion {
    return { line, kind, tool: this.tool, from: this.place(), to, feed: this.feedPerTurn ? this.feed * this.speed : this.feed, speed: this.speed };
  }

  private push(kind: Motion['kind'], line: number, to: Place): void {
    this.motions.push(this.base(line, kind, to));
    this.at = [...to];
  }

  private problem(line: number, severity: ReadProblem['severity'], rule: string, message: string): void {
    this.problems.push({ line, severity, rule, message });
  }
}

const has = (words: Float64Array, l: number): boolean => !Number.isNaN(words[l]!);
