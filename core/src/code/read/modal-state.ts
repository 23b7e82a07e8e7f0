import { at, first } from '../../lists.ts';
import { CYCLE_NUMBERS } from '../cycles.ts';
import type { MachineProfile } from '../profiles/schema.ts';
import type { CycleCall, Coordinate, ReadProgram } from './motion.ts';
import type { Problems } from './problems.ts';
import type { Compensation } from './compensation.ts';
import type { Standing } from './strokes.ts';
import { PLANES, type Plane } from './planes.ts';
import { D, F, H, has, S, T } from './words.ts';

const IN = 25.4;

/** What words leave in force from line to line: units, distances, feed, spindle, tool, offsets, the running cycle. */
export class ModalState {
  factor = 1;
  units: 'mm' | 'inch' = 'mm';
  absolute = true;
  /** I, J and K count from the zero rather than from where the arc begins. */
  centresFromZero: boolean;
  /** A word has said that the next tapping cycle runs in step with the spindle. */
  isTapAnnounced = false;
  feedPerTurn = false;
  mode: number | null = null;
  /** The plane of arcs; compensation and cycles are known in XY alone. */
  plane: Plane = first(PLANES);
  compensation: Compensation | null = null;
  /** D that was said last: it holds until another is. */
  private d: number | null = null;
  toInitial = true;
  feed = 0;
  speed = 0;
  spindle: CycleCall['spindle'] = 'off';
  coolant = false;
  tool = 0;
  staged = 0;
  lengthOffset = false;
  workOffset: string | null = null;
  ended = false;
  initialZ: Coordinate = null;
  sticky: { z?: number; r?: number; q?: number; p?: number } = {};
  /** The line that made distances incremental. */
  incrementalSince = 0;
  readonly workOffsets: ReadProgram['workOffsets'] = [];
  readonly toolChanges: ReadProgram['toolChanges'] = [];
  /** What held when, for what motions do not carry themselves. */
  readonly standing: Standing[] = [];
  /** What the start line must say before anything moves. */
  private readonly unsaid = new Map([
    ['the unit (G21 or G20)', [20, 21]],
    ['the plane (G17)', [17, 18, 19]],
    ['the kind of distance (G90)', [90, 91]],
  ]);

  constructor(
    private readonly profile: MachineProfile,
    private readonly problems: Problems,
    private readonly motions: readonly unknown[],
  ) {
    this.centresFromZero = profile.arcs === 'centre-from-zero';
  }

  /** G words without motion, and F, S and T. */
  settings(line: number, g: readonly number[], words: Float64Array): void {
    for (const v of g) {
      for (const [what, said] of this.unsaid) if (said.includes(v)) this.unsaid.delete(what);
      if (v === 20) [this.factor, this.units] = [IN, 'inch'];
      else if (v === 21) [this.factor, this.units] = [1, 'mm'];
      else if (v === 90) this.absolute = true;
      else if (v === 91) [this.absolute, this.incrementalSince] = [false, line];
      else if (v === 90.1) this.centresFromZero = true;
      else if (v === 91.1) this.centresFromZero = false;
      else if (v === 94) this.feedPerTurn = false;
      else if (v === 95) this.feedPerTurn = true;
      else if (v >= 17 && v <= 19) this.plane = PLANES.find((p) => p.word === v) ?? this.plane;
      else if (v >= 40 && v <= 42) this.compensate(line, v, words);
      else if (v === 98) this.toInitial = true;
      else if (v === 99) this.toInitial = false;
      else if (v === 43) this.lengthOffset = true;
      else if (v === 49) this.lengthOffset = false;
      else if (v >= 54 && v <= 59) {
        this.workOffset = `G${v}`;
        this.workOffsets.push({ line, name: this.workOffset });
      } else if (v === 80) this.endCycle();
    }
    if (has(words, F)) this.feed = at(words, F) * this.factor;
    if (has(words, S)) this.speed = at(words, S);
    if (has(words, T)) this.staged = at(words, T);
  }

  /** G40 off, G41 left, G42 right of the contour, with a D that names the radius. */
  private compensate(line: number, word: number, words: Float64Array): void {
    if (word === 40) {
      this.compensation = null;
      return;
    }
    if (has(words, D)) this.d = at(words, D);
    if (this.d === null || this.d === 0)
      this.problems.add(
        line,
        'error',
        'compensation',
        `G${word} has no D that holds a radius. Write D${this.tool}.`,
      );
    else if (this.plane.word !== 17)
      this.problems.add(
        line,
        'error',
        'compensation',
        `G${word} outside the XY plane is not known. Write G17 before it.`,
      );
    else this.compensation = { side: word === 41 ? 'left' : 'right', d: this.d };
  }

  /** M words, in the order in which a control obeys them: the tool change before the spindle. */
  misc(line: number, m: readonly number[], words: Float64Array): void {
    if (m.includes(6)) this.changeTool(line, words);
    const { coolantOn, coolantOff, tapping, tapWord } = this.profile;
    for (const v of m) {
      if (v === coolantOn) this.coolant = true;
      else if (v === coolantOff) this.coolant = false;
      else if (v === tapWord && tapping === 'announced') this.isTapAnnounced = true;
      else if (v === 3) this.spindle = 'clockwise';
      else if (v === 4) this.spindle = 'counter-clockwise';
      else if (v === 5 || v === 19) this.spindle = 'off';
      else if (v === 7 || v === 8) this.coolant = true;
      else if (v === 9) this.coolant = false;
      else if (v === 30 || v === 2) this.ended = true;
    }
  }

  /** G43 and its H: none, nought or another tool's is a length that nobody measured for this tool. */
  lengthWord(line: number, g: readonly number[], words: Float64Array): void {
    const isOn = g.includes(43);
    if (!isOn && !(has(words, H) && this.lengthOffset)) return;
    const h = has(words, H) ? at(words, H) : null;
    const wrong =
      h === null
        ? `G43 has no H. Write H${this.tool}, the tool's own`
        : h === 0
          ? `H0 takes no length at all. Write H${this.tool}`
          : h !== this.tool && !this.profile.otherLengthOffsets
            ? `H${h} is not the length of T${this.tool}. Write H${this.tool}`
            : null;
    if (wrong !== null) this.problems.add(line, 'error', 'length-offset', `${wrong}.`, String(this.tool));
  }

  endCycle(): void {
    if (this.mode !== null && CYCLE_NUMBERS.has(this.mode)) this.mode = null;
    this.sticky = {};
    this.initialZ = null;
    this.isTapAnnounced = false;
  }

  /** Remembers what holds from the next motion on, where it is another than before. */
  mark(): void {
    const { spindle, coolant, workOffset, feedPerTurn } = this;
    const last = this.standing.at(-1);
    if (
      last?.spindle === spindle &&
      last.coolant === coolant &&
      last.workOffset === workOffset &&
      last.feedPerTurn === feedPerTurn
    )
      return;
    this.standing.push({ motions: this.motions.length, spindle, coolant, workOffset, feedPerTurn });
  }

  /** Said once, before the first motion. */
  needStart(line: number): void {
    if (this.unsaid.size === 0) return;
    const what = [...this.unsaid.keys()].join(', ');
    const words = [...this.unsaid.values()].map(
      ([w, other]) => `G${this.units === 'mm' && other === 21 ? 21 : w}`,
    );
    this.unsaid.clear();
    this.problems.add(
      line,
      'error',
      'start-line',
      `the program moves before it says ${what}: what the machine was left in would decide. Begin it with ${words.join(' ')}.`,
    );
  }

  /** Feed, spindle, length and work offset, before anything is cut. */
  needToCut(line: number): void {
    const { problems } = this;
    if (this.feed <= 0) problems.add(line, 'error', 'no-feed', 'cutting without a feed. Add F.');
    if (this.spindle === 'off' || this.speed <= 0)
      problems.add(
        line,
        'error',
        'spindle-off',
        'cutting with the spindle off. Add S and M3.',
        String(this.tool),
      );
    if (!this.lengthOffset)
      problems.add(
        line,
        'error',
        'no-length-offset',
        `cutting without the tool's length offset. Add G43 H${this.tool}.`,
        String(this.tool),
      );
    if (this.workOffset === null)
      problems.add(line, 'error', 'no-work-offset', 'no work offset G54 to G59 was chosen before cutting.');
  }

  private changeTool(line: number, words: Float64Array): void {
    this.tool = has(words, T) ? at(words, T) : this.staged;
    if (this.tool === 0)
      this.problems.add(line, 'error', 'no-tool', 'M6 without a T word before it: no tool is named.');
    this.toolChanges.push({ line, tool: this.tool, motions: this.motions.length });
    this.spindle = 'off';
    this.lengthOffset = this.profile.toolLength === 'with-change';
    this.isTapAnnounced = false;
    if (this.compensation)
      this.problems.add(
        line,
        'error',
        'compensation',
        'the tool is changed while G41 or G42 is in force. Write G40 before it.',
      );
    this.compensation = null;
  }
}
