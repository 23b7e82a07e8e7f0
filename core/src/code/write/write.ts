import { first as firstOf } from '../../lists.ts';
import { formatLength } from '../../units/length.ts';
import type { MotionOperation, MotionProgram, MotionWork } from '../../motion/program.ts';
import type { FeedRole } from '../../motion/work.ts';
import { toolKind } from '../../tools/kinds/registry.ts';
import type { Tool } from '../../tools/schema.ts';
import type { MachineProfile } from '../profiles/schema.ts';
import { cycleBlocks, type MadeBlock } from './cycles.ts';
import { calledLevels } from './level-subprograms.ts';
import { textOf } from './numbering.ts';
import { pathBlocks } from './path.ts';
import { calledPlaces } from './place-subprograms.ts';
import { runsOf, type Run } from './runs.ts';
import { Words } from './words.ts';
import { writtenOut } from './written-out.ts';

export interface WrittenOperation {
  id: string;
  firstLine: number;
  lastLine: number;
  /** Line number → label of the hole made there. */
  holeLines: [number, string][];
}

export interface WrittenProgram {
  text: string;
  /** Its lines without block numbers. */
  lines: string[];
  operations: WrittenOperation[];
  /** Where each visit of a tool begins, and where its last ends: the line after it. */
  visits: number[];
  end: number;
  /** The lines with which the machine goes home. */
  home: string[];
}

/** Writes a motion program as word-address code (ISO 6983-1) with canned cycles. Line numbers in the result count from 1. */
export function writeProgram(program: MotionProgram, profile: MachineProfile): WrittenProgram {
  const writer = new Writer(program, profile);
  return writer.run();
}

/** Well away from the numbers of programs. */
const FIRST_SUBPROGRAM = 7001;

class Writer {
  private readonly lines: string[] = [];
  private readonly operations: WrittenOperation[] = [];
  private readonly visits: number[] = [];
  /** Subprograms that stand after the end: number and lines. */
  private readonly subprograms: { number: number; lines: readonly string[] }[] = [];
  private readonly words: Words;
  /** How each operation is said: by cycles, written out, as paths; and the blocks of its cycles. */
  private readonly runs = new Map<MotionOperation, Run[]>();
  private readonly cycles = new Map<Run, MadeBlock[]>();

  constructor(
    private readonly program: MotionProgram,
    private readonly profile: MachineProfile,
  ) {
    this.words = new Words(profile, program.units);
  }

  run(): WrittenProgram {
    const { program, profile } = this;
    this.prepare();
    if (profile.percentSigns) this.lines.push('%');
    // Each setup has its own number: a second program of the same one would take the first's place in the control.
    if (profile.programNumber !== null)
      this.lines.push(
        `O${String(profile.programNumber + (program.head.apart ?? program.head.index)).padStart(4, '0')}`,
      );
    this.comment(program.name);
    this.comment(
      `${program.units === 'mm' ? 'millimetres' : 'inches'}, ${program.workOffset} at ${program.zero}`,
    );
    for (const line of program.head.lines) this.comment(line);
    for (const line of program.head.notMade) this.comment(`not made here: ${line}`);
    for (const { tool } of uniqueTools(program))
      this.comment(`T${tool.number} ${describeTool(tool, program.units)}`);
    this.block(`${program.units === 'mm' ? 'G21' : 'G20'} G17 G90 G94`);
    this.block(profile.cycles.length > 0 ? 'G40 G49 G80' : 'G40 G49');
    for (const line of profile.startLines) this.lines.push(line);
    program.visits.forEach((visit, i) => {
      // The last tool stages the first, so that the next part begins without waiting.
      const next = program.visits[(i + 1) % program.visits.length]?.tool;
      this.visit(visit.tool, visit.operations, next, i === 0);
    });
    const end = this.lines.length + 1;
    if (profile.park)
      this.block(
        `G53 G0 X${this.words.coordinate(profile.park.x)} Y${this.words.coordinate(profile.park.y)}`,
      );
    for (const line of profile.endLines) this.lines.push(line);
    this.block(profile.endWord);
    for (const { number, lines } of this.subprograms) {
      this.lines.push(`O${number}`);
      for (const line of lines) this.block(line);
      this.block('M99');
    }
    if (profile.percentSigns) this.lines.push('%');
    const { lines, operations, visits } = this;
    return { text: textOf(lines, profile), lines, operations, visits, end, home: this.homeLines() };
  }

  /** Says how each operation is written, and the cycles of all of them, since several may go to the same places. */
  private prepare(): void {
    const all: Run[] = [];
    for (const { operations } of this.program.visits)
      for (const op of operations) {
        const runs = runsOf(op.work, this.profile.cycles);
        this.runs.set(op, runs);
        const { feed, tool } = op.operation;
        for (const run of runs) {
          if (run.kind !== 'cycle') continue;
          all.push(run);
          this.cycles.set(
            run,
            cycleBlocks(run.works, { feed, exact: tool.thread !== undefined }, this.words),
          );
        }
      }
    if (!this.profile.holeSubprograms) return;
    const called = calledPlaces(
      all.map((r) => this.cycles.get(r) ?? []),
      (lines) => this.subprogram(lines),
    );
    all.forEach((r, i) => this.cycles.set(r, called[i] ?? []));
  }

  private visit(tool: Tool, operations: MotionOperation[], next: Tool | undefined, first: boolean): void {
    const { profile, program, words } = this;
    if (tool.number === null) throw new RangeError(`${tool.description} has no magazine number`);
    this.visits.push(this.lines.length + 1);
    this.lines.push('');
    this.comment(`T${tool.number} ${describeTool(tool, program.units)}`);
    if (first) this.goHome();
    this.callTool(tool.number);
    if (profile.stageNextTool && next && next.number !== tool.number) this.block(`T${next.number}`);
    let speed = 0;
    for (const [i, op] of operations.entries()) {
      const from = this.lines.length + 1;
      this.comment(op.title);
      for (const note of op.notes) this.comment(note);
      if (op.operation.speed !== speed) this.block(`S${op.operation.speed} ${spindleWord(tool)}`);
      speed = op.operation.speed;
      const start = firstOf(op.work);
      if (i === 0) {
        this.block(`${program.workOffset} G0 X${words.coordinate(start.x)} Y${words.coordinate(start.y)}`);
        const length = profile.toolLength === 'called' ? `G43 H${tool.number}` : 'G0';
        this.block(
          `${length} Z${words.coordinate(program.clearanceZ)}${profile.coolant ? ` M${profile.coolantOn}` : ''}`,
        );
      }
      const holeLines = this.works(op, i === 0 ? start : null);
      this.operations.push({ id: op.id, firstLine: from, lastLine: this.lines.length, holeLines });
    }
    const off = `M${profile.coolantOff}`;
    if (profile.coolant && profile.oneMPerBlock) this.block(off);
    this.block(profile.coolant && !profile.oneMPerBlock ? `${off} M5` : 'M5');
    this.goHome();
    if (profile.optionalStop) this.block('M1');
  }

  private callTool(number: number): void {
    const { toolCall } = this.profile;
    if (toolCall === 'two-blocks') this.block(`T${number}`);
    this.block(
      toolCall === 'tool-first' ? `T${number} M6` : toolCall === 'change-first' ? `M6 T${number}` : 'M6',
    );
  }

  /** The works of an operation: neighbours that are made by cycles share their words. */
  private works(op: MotionOperation, at: MotionWork | null): [number, string][] {
    const lines: [number, string][] = [];
    for (const run of this.runs.get(op) ?? []) {
      if (run.kind === 'written') {
        this.comment(`written out: this control has no ${run.word}`);
        if (run.works[0]?.motion.how.how === 'tap')
          this.comment('tap in a holder that gives way along its axis');
      }
      if (run.kind === 'cycle') this.announce(op, run.works[0]?.motion.how.how === 'tap');
      for (const { text, label } of this.blocksOf(op, run, at)) {
        this.block(text);
        lines.push([this.lines.length, label]);
      }
      if (run.kind === 'cycle') this.block('G80');
    }
    return lines;
  }

  /** Where the control must be told before it taps in step with the spindle. */
  private announce(op: MotionOperation, taps: boolean): void {
    const { tapping, tapWord } = this.profile;
    if (taps && tapping === 'announced') this.block(`M${tapWord} S${op.operation.speed}`);
  }

  private blocksOf(op: MotionOperation, run: Run, at: MotionWork | null): readonly MadeBlock[] {
    const { words, program, profile } = this;
    const { feed, feeds, tool, speed } = op.operation;
    if (run.kind === 'cycle') return this.cycles.get(run) ?? [];
    if (run.kind === 'written')
      return writtenOut(run.works, {
        feed,
        exact: tool.thread !== undefined,
        words,
        profile,
        clearance: program.clearanceZ,
        spindle: spindleWord(tool),
        speed,
        at: run.works[0]?.label === at?.label ? at : null,
      });
    const style = {
      feedOf: (role: FeedRole): number => feeds?.[role] ?? feed,
      clearance: program.clearanceZ,
      words,
      helices: profile.helices,
      arcs: profile.arcs,
      d: tool.number,
    };
    const blocks = pathBlocks(run.works, style, run.works[0]?.label === at?.label ? at : null);
    return profile.levelSubprograms ? calledLevels(blocks, (own) => this.subprogram(own)) : blocks;
  }

  /** Takes the lines of a subprogram and gives its number: each setup has a hundred of its own. */
  private subprogram(lines: readonly string[]): number {
    const known = this.subprograms.find((s) => s.lines.join('\n') === lines.join('\n'));
    if (known) return known.number;
    const number = FIRST_SUBPROGRAM + 100 * this.program.head.index + this.subprograms.length;
    this.subprograms.push({ number, lines });
    return number;
  }

  private goHome(): void {
    this.lines.push(...this.homeLines());
  }

  private homeLines(): string[] {
    const { home } = this.profile;
    const words =
      home === 'machine-coordinates'
        ? ['G53 G0 Z0.']
        : [home === 'reference-return' ? 'G91 G28 Z0.' : 'G91 G30 Z0.', 'G90'];
    return words.map((w) => this.words.spelled(w));
  }

  private comment(text: string): void {
    this.lines.push(...this.words.comment(text));
  }

  private block(words: string): void {
    this.lines.push(this.words.spelled(words));
  }
}

const spindleWord = (tool: Tool): 'M3' | 'M4' => (tool.thread?.hand === 'left' ? 'M4' : 'M3');

const uniqueTools = (program: MotionProgram): { tool: Tool }[] => [
  ...new Map(program.visits.map((v) => [v.tool.id, v])).values(),
];

/** A tool in a line: `SPOT DRILL D10 120 DEG`. Sizes are named as the shop says them; a long one says so. */
export function describeTool(tool: Tool, units: 'mm' | 'inch'): string {
  if (tool.thread)
    return `tap ${tool.thread.designation} ${tool.thread.hand === 'left' ? 'left ' : ''}${tool.thread.lead.replace('-', ' ')}${tool.thread.style === 'forming' ? ' forming' : ''}`;
  const angle = tool.pointAngleDeg !== undefined ? ` ${tool.pointAngleDeg}°` : '';
  const long = /\blong\b/i.test(tool.description) ? ' long' : '';
  return `${toolKind(tool.kind).label} ${sizeInWords(tool, units)}${angle}${long}`;
}

/** `⌀8.5`; for a size that is named otherwise (`#7`, `F`, `1/4`) the name and the measure. */
function sizeInWords(tool: Tool, units: 'mm' | 'inch'): string {
  const measure = `⌀${formatLength(tool.diameter, units)}`;
  const name = tool.sizeName.replace(/in$/i, '').trim();
  const isPlain = /^[\d.,]+(\s*H\d+)?$/i.test(name);
  return isPlain || name === '' ? measure : `${name} ${measure}`;
}
