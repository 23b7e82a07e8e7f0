import { first as firstOf } from '../../lists.ts';
import { formatLength } from '../../units/length.ts';
import type { MotionOperation, MotionProgram, MotionWork } from '../../motion/program.ts';
import type { FeedRole } from '../../motion/work.ts';
import { toolKind } from '../../tools/kinds/registry.ts';
import type { Tool } from '../../tools/schema.ts';
import type { MachineProfile } from '../profiles/schema.ts';
import { calledLevels } from './level-subprograms.ts';
import { cycleBlocks, type CycleWork, type MadeBlock } from './cycles.ts';
import { textOf } from './numbering.ts';
import { pathBlocks, type PathWork } from './path.ts';
import { Words } from './words.ts';

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
  /** Subprograms that stand after the end: number and lines. */
  private readonly subprograms: { number: number; lines: readonly string[] }[] = [];
  private readonly words: Words;

  constructor(
    private readonly program: MotionProgram,
    private readonly profile: MachineProfile,
  ) {
    this.words = new Words(profile, program.units);
  }

  run(): WrittenProgram {
    const { program, profile } = this;
    if (profile.percentSigns) this.lines.push('%');
    // Each setup has its own number: a second program of the same one would take the first's place in the control.
    if (profile.programNumber !== null)
      this.lines.push(`O${String(profile.programNumber + program.head.index).padStart(4, '0')}`);
    this.comment(program.name);
    this.comment(
      `${program.units === 'mm' ? 'millimetres' : 'inches'}, ${program.workOffset} at ${program.zero}`,
    );
    for (const line of program.head.lines) this.comment(line);
    for (const line of program.head.notMade) this.comment(`not made here: ${line}`);
    for (const { tool } of uniqueTools(program))
      this.comment(`T${tool.number} ${describeTool(tool, program.units)}`);
    this.block(`${program.units === 'mm' ? 'G21' : 'G20'} G17 G90 G94`);
    this.block('G40 G49 G80');
    program.visits.forEach((visit, i) => {
      // The last tool stages the first, so that the next part begins without waiting.
      const next = program.visits[(i + 1) % program.visits.length]?.tool;
      this.visit(visit.tool, visit.operations, next, i === 0);
    });
    this.block('M30');
    for (const { number, lines } of this.subprograms) {
      this.lines.push(`O${number}`);
      for (const line of lines) this.block(line);
      this.block('M99');
    }
    if (profile.percentSigns) this.lines.push('%');
    return { text: textOf(this.lines, profile), lines: this.lines, operations: this.operations };
  }

  private visit(tool: Tool, operations: MotionOperation[], next: Tool | undefined, first: boolean): void {
    const { profile, program, words } = this;
    if (tool.number === null) throw new RangeError(`${tool.description} has no magazine number`);
    this.lines.push('');
    this.comment(`T${tool.number} ${describeTool(tool, program.units)}`);
    if (first) this.goHome();
    this.block(`T${tool.number} M6`);
    if (profile.stageNextTool && next && next.number !== tool.number) this.block(`T${next.number}`);
    let speed = 0;
    let coolant = false;
    for (const [i, op] of operations.entries()) {
      const from = this.lines.length + 1;
      this.comment(op.title);
      for (const note of op.notes) this.comment(note);
      const spindle = isLeftHand(tool) ? 'M4' : 'M3';
      if (op.operation.speed !== speed) this.block(`S${op.operation.speed} ${spindle}`);
      speed = op.operation.speed;
      const start = firstOf(op.work);
      if (i === 0) {
        this.block(`${program.workOffset} G0 X${words.coordinate(start.x)} Y${words.coordinate(start.y)}`);
        this.block(
          `G43 H${tool.number} Z${words.coordinate(program.clearanceZ)}${profile.coolant ? ' M8' : ''}`,
        );
        coolant = profile.coolant;
      }
      const holeLines = this.works(op, i === 0 ? start : null);
      this.operations.push({ id: op.id, firstLine: from, lastLine: this.lines.length, holeLines });
    }
    if (coolant && profile.oneMPerBlock) this.block('M9');
    this.block(coolant && !profile.oneMPerBlock ? 'M9 M5' : 'M5');
    this.goHome();
    if (profile.optionalStop) this.block('M1');
  }

  /** The works of an operation: neighbours that are made by cycles share their words. */
  private works(op: MotionOperation, at: MotionWork | null): [number, string][] {
    const { words, program } = this;
    const { feed, feeds, tool } = op.operation;
    const lines: [number, string][] = [];
    const write = (blocks: readonly MadeBlock[]): void => {
      for (const { text, label } of blocks) {
        this.block(text);
        lines.push([this.lines.length, label]);
      }
    };
    for (const run of runsOf(op.work)) {
      if (run.kind === 'cycle') {
        write(cycleBlocks(run.works, { feed, exact: tool.thread !== undefined }, words));
        this.block('G80');
      } else {
        const style = {
          feedOf: (role: FeedRole): number => feeds?.[role] ?? feed,
          clearance: program.clearanceZ,
          words,
          helices: this.profile.helices,
          d: tool.number,
        };
        const blocks = pathBlocks(run.works, style, run.works[0]?.label === at?.label ? at : null);
        write(this.profile.levelSubprograms ? calledLevels(blocks, (own) => this.subprogram(own)) : blocks);
      }
    }
    return lines;
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
    if (this.profile.home === 'machine-coordinates') this.block('G53 G0 Z0.');
    else {
      this.block('G91 G28 Z0.');
      this.block('G90');
    }
  }

  private comment(text: string): void {
    this.lines.push(this.words.comment(text));
  }

  private block(words: string): void {
    this.lines.push(words);
  }
}

const isLeftHand = (tool: Tool): boolean => tool.thread?.hand === 'left';

type Run = { kind: 'cycle'; works: CycleWork[] } | { kind: 'path'; works: PathWork[] };

/** Neighbours that are made by cycles, and those that are made by paths. */
function runsOf(works: readonly MotionWork[]): Run[] {
  const out: Run[] = [];
  for (const w of works) {
    const { motion } = w;
    const last = out.at(-1);
    if (motion.kind === 'cycle') {
      const cycle = { ...w, motion };
      if (last?.kind === 'cycle') last.works.push(cycle);
      else out.push({ kind: 'cycle', works: [cycle] });
    } else {
      const path = { ...w, motion };
      if (last?.kind === 'path') last.works.push(path);
      else out.push({ kind: 'path', works: [path] });
    }
  }
  return out;
}

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
