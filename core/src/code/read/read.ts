import type { MachineProfile } from '../profiles/schema.ts';
import { readBlock, type Block } from './blocks.ts';
import { runCycle, type CycleWords } from './cycles.ts';
import { readArc } from './arc.ts';
import type { Coordinate, CycleCall, Motion, Place, ReadProblem, ReadProgram } from './motion.ts';

const IN = 25.4;
const DRILL_CYCLES = new Set([73, 74, 76, 81, 82, 83, 84, 85, 86, 89]);
/** G words without motion of their own that may stand in any block. */
const SETTINGS = new Set([17, 20, 21, 40, 43, 49, 53, 54, 55, 56, 57, 58, 59, 80, 90, 91, 94, 95, 98, 99, 28, 4]);
const M_WORDS = new Set([0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 19, 29, 30]);
const KNOWN_LETTERS = 'GMTSFXYZRQPIJKHDL';

/**
 * Reads word-address code with a profile's meaning and opens its cycles into what the machine does.
 * It survives anything: what it does not understand becomes a problem with its line, and that block does nothing.
 */
export function readProgram(text: string, profile: MachineProfile): ReadProgram {
  const interpreter = new Interpreter(profile);
  let line = 0;
  let start = 0;
  while (start < text.length) {
    let end = text.indexOf('\n', start);
    if (end < 0) end = text.length;
    line++;
    const block = readBlock(text.slice(start, end), line);
    if (block) interpreter.run(block);
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

  constructor(private readonly profile: MachineProfile) {}

  finish(lineCount: number): ReadProgram {
    if (!this.ended && this.motions.length > 0) this.problem(lineCount, 'warning', 'no-end', 'The program has no M30 or M2 at its end.');
    return { motions: this.motions, calls: this.calls, problems: this.problems, units: this.units, lineCount };
  }

  run(block: Block): void {
    const { line } = block;
    if (block.fault) {
      this.problem(line, 'error', 'unreadable', `Line ${line}: ${block.fault}; the block is left out.`);
      return;
    }
    const words: Partial<Record<string, number>> = {};
    const g: number[] = [];
    const m: number[] = [];
    let dwellInSeconds = this.profile.dwellUnit === 'seconds';
    for (let i = 0; i < block.letters.length; i++) {
      const letter = block.letters[i]!;
      const value = block.values[i]!;
      if (letter === 'G') g.push(value);
      else if (letter === 'M') m.push(value);
      else if (!KNOWN_LETTERS.includes(letter)) return this.problem(line, 'error', 'unknown-word', `Line ${line}: the word ${letter}${value} is not known; the block is left out.`);
      else if (words[letter] !== undefined) return this.problem(line, 'error', 'word-twice', `Line ${line}: ${letter} stands twice; the block is left out.`);
      else {
        words[letter] = value;
        if (letter === 'P' && block.decimal[i]) dwellInSeconds = true;
      }
    }
    const moving = g.filter((v) => v <= 3 || DRILL_CYCLES.has(v));
    if (moving.length > 1) return this.problem(line, 'error', 'two-motions', `Line ${line}: G${moving[0]} and G${moving[1]} are two motions in one block; the block is left out.`);
    const unknown = g.find((v) => v > 3 && !SETTINGS.has(v) && !DRILL_CYCLES.has(v));
    if (unknown !== undefined)
      return this.problem(line, 'error', 'unknown-word', `Line ${line}: G${unknown} is not known to the profile "${this.profile.name}"; the block is left out.`);
    const unknownM = m.find((v) => !M_WORDS.has(v));
    if (unknownM !== undefined) this.problem(line, 'warning', 'unknown-word', `Line ${line}: M${unknownM} is not known to the profile "${this.profile.name}".`);
    this.settings(g, words);
    this.misc(m, words);
    if (g.includes(4)) return this.dwell(line, words, dwellInSeconds);
    if (g.includes(28)) return this.goToReference(line, words);
    if (g.includes(53)) return this.goInMachine(line, words);
    this.move(line, moving[0], words, dwellInSeconds);
  }

  private settings(g: number[], words: Partial<Record<string, number>>): void {
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
    if (words['F'] !== undefined) this.feed = words['F'] * this.factor;
    if (words['S'] !== undefined) this.speed = words['S'];
    if (words['T'] !== undefined) this.staged = words['T'];
  }

  private misc(m: number[], words: Partial<Record<string, number>>): void {
    for (const v of m) {
      if (v === 3) this.spindle = 'clockwise';
      else if (v === 4) this.spindle = 'counter-clockwise';
      else if (v === 5) this.spindle = 'off';
      else if (v === 6) {
        this.tool = words['T'] ?? this.staged;
        this.lengthOffset = false;
        this.at[2] = null;
      } else if (v === 30 || v === 2) this.ended = true;
    }
  }

  private endCycle(): void {
    if (this.mode !== null && DRILL_CYCLES.has(this.mode)) this.mode = null;
    this.sticky = {};
    this.initialZ = null;
  }

  private dwell(line: number, words: Partial<Record<string, number>>, inSeconds: boolean): void {
    const p = words['P'] ?? 0;
    this.motions.push({ ...this.base(line, 'dwell', this.place()), seconds: inSeconds ? p : p / 1000 });
  }

  private goToReference(line: number, words: Partial<Record<string, number>>): void {
    const to = this.target(words);
    const via = this.place(to);
    if (['X', 'Y', 'Z'].some((l, i) => words[l] !== undefined && via[i] !== this.at[i])) this.push('rapid', line, via);
    const home: [Coordinate, Coordinate, Coordinate] = [...this.at];
    ['X', 'Y', 'Z'].forEach((l, i) => words[l] !== undefined && (home[i] = null));
    this.push('rapid', line, home);
  }

  private goInMachine(line: number, words: Partial<Record<string, number>>): void {
    const to: [Coordinate, Coordinate, Coordinate] = [...this.at];
    ['X', 'Y', 'Z'].forEach((l, i) => words[l] !== undefined && (to[i] = null));
    this.push('rapid', line, to);
  }

  private move(line: number, given: number | undefined, words: Partial<Record<string, number>>, dwellInSeconds: boolean): void {
    const hasPlace = words['X'] !== undefined || words['Y'] !== undefined || words['Z'] !== undefined;
    if (given !== undefined) {
      if (!DRILL_CYCLES.has(given)) this.endCycle();
      else if (this.mode === null || !DRILL_CYCLES.has(this.mode)) this.initialZ = this.at[2];
      else if (given !== this.mode) this.sticky = {};
      this.mode = given;
    }
    if (this.mode !== null && DRILL_CYCLES.has(this.mode)) return this.cycleLine(line, words, dwellInSeconds);
    if (!hasPlace && words['I'] === undefined && words['J'] === undefined) return;
    if (this.mode === null) return this.problem(line, 'error', 'no-motion-word', `Line ${line}: coordinates without a motion word; the block is left out.`);
    const to = this.place(this.target(words));
    if (this.mode === 0) return this.push('rapid', line, to);
    this.needFeedAndSpindle(line);
    if (this.mode === 1) return this.push('feed', line, to);
    const arc = readArc(this.at, to, words, this.factor, this.mode === 2);
    if ('fault' in arc) return this.problem(line, 'error', 'broken-arc', `Line ${line}: ${arc.fault}; the block is left out.`);
    this.motions.push({ ...this.base(line, 'arc', to), ...arc });
    this.at = [...to];
  }

  private cycleLine(line: number, words: Partial<Record<string, number>>, dwellInSeconds: boolean): void {
    const cycle = this.mode!;
    const s = this.sticky;
    if (words['Q'] !== undefined) s.q = words['Q'] * this.factor;
    if (words['P'] !== undefined) s.p = dwellInSeconds ? words['P'] : words['P'] / 1000;
    if (words['R'] !== undefined) s.r = this.absolute ? words['R'] * this.factor : (this.initialZ ?? 0) + words['R'] * this.factor;
    if (words['Z'] !== undefined) s.z = this.absolute ? words['Z'] * this.factor : (s.r ?? 0) + words['Z'] * this.factor;
    if (words['X'] === undefined && words['Y'] === undefined) return;
    const fail = (rule: string, text: string): void => this.problem(line, 'error', rule, `Line ${line}: ${text}; the hole is left out.`);
    if (s.r === undefined) return fail('missing-r', `G${cycle} has no R level`);
    if (s.z === undefined) return fail('missing-z', `G${cycle} has no depth Z`);
    if ((cycle === 83 || cycle === 73) && !(s.q !== undefined && s.q > 0)) return fail('missing-peck', `G${cycle} pecks and has no peck depth Q`);
    if (s.z > s.r) return fail('depth-above-r', `the depth Z lies above the R level`);
    const [x, y] = this.target(words);
    if (x === null || y === null) return fail('unknown-position', 'X or Y is not known yet');
    if (this.at[2] === null || this.initialZ === null)
      return fail('unknown-position', 'the height before the cycle is not known: move Z to the clearance level with the length offset first');
    this.needFeedAndSpindle(line);
    const feed = this.feedPerTurn ? this.feed * this.speed : this.feed;
    const call: CycleCall = {
      line,
      cycle: `G${cycle}`,
      tool: this.tool,
      x,
      y,
      r: s.r,
      z: s.z,
      initial: this.initialZ,
      q: s.q,
      dwellSeconds: s.p,
      feed,
      feedPerTurn: this.feedPerTurn,
      speed: this.speed,
      spindle: this.spindle,
    };
    this.calls.push(call);
    const given: CycleWords = { ...call, from: [this.at[0], this.at[1], this.at[2]], toInitial: this.toInitial, shift: [words['I'], words['J']].map((v) => v && v * this.factor) };
    for (const motion of runCycle(given, this.profile)) {
      this.motions.push(motion);
      this.at = [...motion.to];
    }
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

  private target(words: Partial<Record<string, number>>): [Coordinate, Coordinate, Coordinate] {
    return ['X', 'Y', 'Z'].map((l, i) => {
      const v = words[l];
      if (v === undefined) return this.at[i]!;
      if (this.absolute) return v * this.factor;
      return this.at[i] === null ? null : this.at[i]! + v * this.factor;
    }) as [Coordinate, Coordinate, Coordinate];
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
