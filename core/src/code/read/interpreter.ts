import { at, known } from '../../lists.ts';
import type { MachineProfile } from '../profiles/schema.ts';
import { CYCLE_NUMBERS, cycleMeaning } from '../cycles.ts';
import { readArc } from './arc.ts';
import type { Block } from './blocks.ts';
import { missingWord, repeatsOf } from './cycle-words.ts';
import { CycleRunner } from './cycles.ts';
import { Meaning } from './meaning.ts';
import { contradiction } from './modal-groups.ts';
import { ModalState } from './modal-state.ts';
import { mainLine } from './motion.ts';
import type { Coordinate, CycleCall, Motion, Place, ReadProblem, ReadProgram } from './motion.ts';
import { compensated } from './compensation.ts';
import { arcPoints } from './planes.ts';
import { LookAhead } from './look-ahead.ts';
import { Problems } from './problems.ts';
import { markRounds } from './rounds.ts';
import { strokes } from './strokes.ts';
import { AXES, has, I, J, K, L, MOVING, P, Q, R, U, X, Y, Z } from './words.ts';

/** More repeats of a subprogram than this are a slip. */
const MOST_REPEATS = 5000;
/** A program that moves more often than this is not looked at to its end. */
const MOST_MOTIONS = 2_000_000;

/** What reading must know of tools, which no text says. */
export interface ToolsSaid {
  /** The cutter radius that an offset D holds, mm; null where it is not known. */
  radiusOf(d: number): number | null;
  /** Whether a tool that is fed straight down makes a hole so: others are led aside, and judged by where they cut. */
  makesHoles(tool: number): boolean;
}

/** What the line that was run asks for next; null: the line after it. */
export type Next = null | 'end' | 'return' | { subprogram: number; times: number };

/**
 * Carries out one line after another with a profile's meaning and opens cycles into what the machine does.
 * What it does not understand becomes a problem with its line that says what of the line was taken.
 */
export class Interpreter {
  /** The line that runs, from 1. */
  line = 0;
  /** While a subprogram runs: the line of the main program that called it. */
  caller: number | null = null;
  private readonly motions: Motion[] = [];
  private readonly calls: CycleCall[] = [];
  private readonly problems = new Problems();
  private readonly state: ModalState;
  private readonly cycles: CycleRunner;
  private readonly meaning: Meaning;
  private readonly lookAhead: LookAhead;
  private at: [Coordinate, Coordinate, Coordinate] = [null, null, null];

  constructor(
    private readonly profile: MachineProfile,
    private readonly tools: ToolsSaid,
  ) {
    this.cycles = new CycleRunner(profile, this.motions);
    this.meaning = new Meaning(profile, this.problems);
    this.lookAhead = new LookAhead(profile.lookAhead, this.problems);
    this.state = new ModalState(profile, this.problems, this.motions);
  }

  isFull(): boolean {
    return this.motions.length > MOST_MOTIONS;
  }

  problem(line: number, severity: ReadProblem['severity'], rule: string, text: string, kind = ''): void {
    this.problems.add(line, severity, rule, text, kind);
  }

  finish(lineCount: number): ReadProgram {
    const { state } = this;
    if (!state.ended && this.motions.length > 0)
      this.problem(lineCount, 'warning', 'no-end', 'the program has no M30 or M2 at its end.');
    markRounds(this.motions);
    // Before compensation, which no stroke has, so that its motions carry what they are part of.
    const written = strokes(this.motions, state.standing, this.tools.makesHoles);
    const calls =
      written.length === 0
        ? this.calls
        : [...this.calls, ...written].sort((a, b) => mainLine(a) - mainLine(b));
    return {
      motions: compensated(this.motions, this.tools.radiusOf, this.problems),
      calls,
      problems: this.problems.list(),
      units: state.units,
      lineCount,
      workOffsets: state.workOffsets,
      toolChanges: state.toolChanges,
    };
  }

  run(line: number, block: Block): Next {
    this.line = line;
    const { g, m, words } = block;
    const { state } = this;
    const fault = block.fault ?? (g.length + m.length > 1 ? asFault(contradiction(g, m)) : null);
    if (fault) {
      this.problem(line, 'error', fault.rule, `${fault.text}; nothing of the line was taken.`, fault.text);
      return null;
    }
    this.meaning.sayOddities(line, block);
    const known = this.meaning.isKnown(line, block);
    state.settings(line, g, words);
    state.misc(line, m, words);
    state.lengthWord(line, g, words);
    state.mark();
    // P and L of a call are the call's own: no cycle that is in force takes them.
    const call = m.includes(98) ? this.subprogram(line, words) : null;
    if (m.includes(98)) words[P] = words[L] = NaN;
    if (known) this.act(line, block);
    this.lookAhead.block(line, this.motions, state.compensation !== null);
    return call ?? (state.ended ? 'end' : m.includes(99) ? 'return' : null);
  }

  private act(line: number, { g, words, decimalP }: Block): void {
    const dwellInSeconds = this.profile.dwellUnit === 'seconds' || decimalP;
    const moving = g.find((v) => MOVING.has(v));
    if (g.includes(4)) return this.dwell(line, words, dwellInSeconds);
    if (has(words, U)) return this.problem(line, 'error', 'unknown-word', 'U is only known with G4.', 'U');
    if (g.includes(28) || g.includes(30)) return this.goToReference(line, words);
    if (g.includes(53)) {
      this.state.endCycle();
      if (moving !== undefined && !CYCLE_NUMBERS.has(moving)) this.state.mode = moving;
      return this.goInMachine(line, words);
    }
    this.move(line, moving, words, dwellInSeconds);
  }

  private subprogram(line: number, words: Float64Array): Next {
    if (!has(words, P)) {
      this.problem(line, 'error', 'subprogram', 'M98 has no P that names the subprogram.');
      return null;
    }
    return { subprogram: at(words, P), times: Math.min(MOST_REPEATS, has(words, L) ? at(words, L) : 1) };
  }

  private dwell(line: number, words: Float64Array, inSeconds: boolean): void {
    const seconds = has(words, X)
      ? at(words, X)
      : has(words, U)
        ? at(words, U)
        : has(words, P)
          ? at(words, P) / (inSeconds ? 1 : 1000)
          : null;
    if (seconds === null || seconds < 0)
      return this.problem(line, 'error', 'dwell', 'G4 has no time. Write P, X or U.');
    this.motions.push({ ...this.base(line, 'dwell', this.place()), seconds });
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
    const { state } = this;
    if (given !== undefined) {
      if (!CYCLE_NUMBERS.has(given)) state.endCycle();
      else if (state.mode === null || !CYCLE_NUMBERS.has(state.mode)) state.initialZ = this.at[2];
      else if (given !== state.mode) state.sticky = {};
      state.mode = given;
    }
    if (state.mode !== null && CYCLE_NUMBERS.has(state.mode))
      return this.cycleLine(line, words, dwellInSeconds);
    const hasPlace = has(words, X) || has(words, Y) || has(words, Z);
    if (!hasPlace && !has(words, I) && !has(words, J) && !has(words, K)) return;
    if (state.mode === null)
      return this.problem(
        line,
        'error',
        'no-motion-word',
        'coordinates without a motion word; nothing moves. Write G0 or G1.',
      );
    this.sayIncremental(line);
    const to = this.place(this.target(words));
    if (state.mode === 0) return this.push('rapid', line, to);
    state.needStart(line);
    state.needToCut(line);
    if (state.mode === 1) return this.push('feed', line, to);
    const said = (l: number): number | undefined => (has(words, l) ? words[l] : undefined);
    const arc = readArc(
      this.at,
      to,
      { ...this.centreWords(words), R: said(R), P: said(P) },
      state.factor,
      state.mode === 2,
      this.profile.arcTurns,
      state.plane,
    );
    if ('fault' in arc)
      return this.problem(line, 'error', 'broken-arc', `${arc.fault}; nothing moves.`, arc.fault);
    if (state.plane.word === 17) {
      this.motions.push({ ...this.base(line, 'arc', to), ...arc });
      this.at = [...to];
    } else this.uprightArc(line, to, arc);
  }

  /** I, J and K from where the arc begins, whatever they count from. */
  private centreWords(words: Float64Array): Partial<Record<'I' | 'J' | 'K', number>> {
    const { centresFromZero, factor } = this.state;
    const from = (l: number, axis: 0 | 1 | 2): number | undefined => {
      if (!has(words, l)) return undefined;
      return at(words, l) - (centresFromZero ? (this.at[axis] ?? 0) / factor : 0);
    };
    return { I: from(I, 0), J: from(J, 1), K: from(K, 2) };
  }

  /** An arc in an upright plane, as straight pieces: whoever looks at motions knows arcs in XY. */
  private uprightArc(line: number, to: Place, arc: Pick<Motion, 'centre' | 'clockwise' | 'turns'>): void {
    const ends = (p: Place): [number, number, number] => [
      known(p[0], 'X'),
      known(p[1], 'Y'),
      known(p[2], 'Z'),
    ];
    const [a, b] = known(arc.centre, 'the centre');
    const points = arcPoints(
      this.state.plane,
      ends(this.at),
      ends(to),
      [a, b],
      arc.clockwise === true,
      arc.turns ?? 0,
    );
    for (const p of points) this.push('feed', line, p);
  }

  private sayIncremental(line: number): void {
    const { absolute, incrementalSince } = this.state;
    if (!absolute)
      this.problem(
        line,
        'warning',
        'incremental',
        `moves are incremental: G91 is in force since line ${incrementalSince}. Add G90 if that is not meant.`,
      );
  }

  private cycleLine(line: number, words: Float64Array, dwellInSeconds: boolean): void {
    const { state } = this;
    const cycle = known(state.mode, 'the cycle');
    const { factor, sticky: s } = state;
    if (has(words, Q)) s.q = at(words, Q) * factor;
    if (has(words, Q) && cycleMeaning(`G${cycle}`)?.how === 'tap' && !this.profile.pecksTaps)
      this.problem(
        line,
        'warning',
        'tap-peck',
        `G${cycle} has a Q, and this machine's profile does not peck its taps: it is read as one go. Take the Q out, or say in the profile that it pecks.`,
      );
    if (has(words, P)) s.p = dwellInSeconds ? at(words, P) : at(words, P) / 1000;
    if (has(words, R)) s.r = (state.absolute ? 0 : (state.initialZ ?? 0)) + at(words, R) * factor;
    if (has(words, Z)) s.z = (state.absolute ? 0 : (s.r ?? 0)) + at(words, Z) * factor;
    // By the settled reading a line drills where it has X, Y, Z or R; with none of these, or with K0 or L0, it only stores.
    if (!has(words, X) && !has(words, Y) && !has(words, Z) && !has(words, R)) return;
    if (state.compensation)
      this.problem(
        line,
        'error',
        'compensation',
        'a cycle runs while G41 or G42 is in force. Write G40 before it.',
      );
    if (state.plane.word !== 17)
      return this.noHole(
        line,
        'cycle-plane',
        'a cycle outside the XY plane is not known: write G17 before it',
      );
    if (
      cycleMeaning(`G${cycle}`)?.how === 'tap' &&
      this.profile.tapping === 'announced' &&
      !state.isTapAnnounced
    )
      this.problem(
        line,
        'error',
        'tap-not-announced',
        `G${cycle} without M${this.profile.tapWord} before it: the tap would run out of step with the spindle. Write M${this.profile.tapWord} S${state.speed} in a line before it.`,
      );
    const repeats = repeatsOf(words);
    if (typeof repeats === 'string') return this.noHole(line, 'too-many-repeats', repeats);
    if (repeats === 0) return;
    const missing = missingWord(cycle, s);
    if (missing) return this.noHole(line, missing.rule, missing.text);
    this.sayIncremental(line);
    state.needStart(line);
    for (let n = 0; n < repeats; n++) if (!this.hole(line, words, cycle)) return;
  }

  private hole(line: number, words: Float64Array, cycle: number): boolean {
    const { state } = this;
    const { factor, sticky: s } = state;
    const x = this.coordinate(words, 0);
    const y = this.coordinate(words, 1);
    if (x === null || y === null) return this.unknownPlace(line, 'X or Y is not known yet');
    if (this.at[2] === null || state.initialZ === null)
      return this.unknownPlace(
        line,
        'the height before the cycle is not known: move Z to the clearance level with the length offset first',
      );
    state.needToCut(line);
    const word = `G${cycle}`;
    const call: CycleCall = {
      line,
      ...this.called(),
      cycle: word,
      ...known(cycleMeaning(word), word),
      tool: state.tool,
      x,
      y,
      r: known(s.r, 'R'),
      z: known(s.z, 'Z'),
      initial: state.initialZ,
      q: s.q,
      dwellSeconds: s.p,
      feed: state.feedPerTurn ? state.feed * state.speed : state.feed,
      feedPerTurn: state.feedPerTurn,
      speed: state.speed,
      spindle: state.spindle,
      coolant: state.coolant,
      workOffset: state.workOffset,
      rises: this.at[2] < known(s.r, 'R') - 1e-6 && (x !== this.at[0] || y !== this.at[1]),
    };
    this.calls.push(call);
    const from: Place = [this.at[0], this.at[1], this.at[2]];
    const end = this.cycles.run(call, from, state.toInitial, at(words, I) * factor, at(words, J) * factor);
    this.at[0] = end[0];
    this.at[1] = end[1];
    this.at[2] = end[2];
    return !this.isFull();
  }

  private unknownPlace(line: number, text: string): false {
    this.noHole(line, 'unknown-position', text);
    return false;
  }

  private noHole(line: number, rule: string, text: string): void {
    this.problem(line, 'error', rule, `${text}; the hole is left out.`, text);
  }

  private target(words: Float64Array): [Coordinate, Coordinate, Coordinate] {
    return [this.coordinate(words, 0), this.coordinate(words, 1), this.coordinate(words, 2)];
  }

  private coordinate(words: Float64Array, axis: 0 | 1 | 2): Coordinate {
    const v = at(words, AXES[axis]);
    const now = this.at[axis];
    if (Number.isNaN(v)) return now;
    if (this.state.absolute) return v * this.state.factor;
    return now === null ? null : now + v * this.state.factor;
  }

  private place(p: Place = this.at): Place {
    return [p[0], p[1], p[2]];
  }

  private base(line: number, kind: Motion['kind'], to: Place): Motion {
    const { tool, feedPerTurn, feed, speed } = this.state;
    const { compensation } = this.state;
    return {
      line,
      ...this.called(),
      kind,
      tool,
      from: this.place(),
      to,
      feed: feedPerTurn ? feed * speed : feed,
      speed,
      ...(compensation ? { compensation } : {}),
    };
  }

  private called(): { caller?: number } {
    return this.caller === null ? {} : { caller: this.caller };
  }

  private push(kind: Motion['kind'], line: number, to: Place): void {
    this.motions.push(this.base(line, kind, to));
    this.at = [...to];
  }
}

const asFault = (text: string | null): { rule: string; text: string } | null =>
  text === null ? null : { rule: 'two-of-a-group', text };
