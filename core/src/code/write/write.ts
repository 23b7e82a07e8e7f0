import { formatLength } from '../../units/length.ts';
import type { MotionOperation, MotionProgram } from '../../motion/program.ts';
import type { Tool } from '../../tools/schema.ts';
import type { MachineProfile } from '../profiles/schema.ts';
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
  operations: WrittenOperation[];
}

/** Writes a motion program as word-address code (ISO 6983-1) with canned cycles. Line numbers in the result count from 1. */
export function writeProgram(program: MotionProgram, profile: MachineProfile): WrittenProgram {
  const writer = new Writer(program, profile);
  return writer.run();
}

class Writer {
  private readonly lines: string[] = [];
  private readonly operations: WrittenOperation[] = [];
  private readonly words: Words;
  private blockNumber: number;

  constructor(
    private readonly program: MotionProgram,
    private readonly profile: MachineProfile,
  ) {
    this.words = new Words(profile, program.units);
    this.blockNumber = profile.lineNumbers.start;
  }

  run(): WrittenProgram {
    const { program, profile } = this;
    if (profile.percentSigns) this.lines.push('%');
    if (profile.programNumber !== null) this.lines.push(`O${String(profile.programNumber).padStart(4, '0')}`);
    this.comment(program.name);
    this.comment(`${program.units === 'mm' ? 'millimetres' : 'inches'}, ${program.workOffset} at ${program.zero}`);
    for (const { tool } of uniqueTools(program)) this.comment(`T${tool.number} ${describeTool(tool, program.units)}`);
    this.block(`${program.units === 'mm' ? 'G21' : 'G20'} G17 G90 G94`);
    this.block('G40 G49 G80');
    program.visits.forEach((visit, i) => this.visit(visit.tool, visit.operations, program.visits[i + 1]?.tool, i === 0));
    this.block('M30');
    if (profile.percentSigns) this.lines.push('%');
    const end = profile.lineEnding === 'crlf' ? '\r\n' : '\n';
    return { text: this.lines.join(end) + end, operations: this.operations };
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
      if (op.operation.speed !== speed) this.block(`S${op.operation.speed} M3`);
      speed = op.operation.speed;
      const start = op.holes[0]!;
      if (i === 0) {
        this.block(`${program.workOffset} G0 X${words.coordinate(start.x)} Y${words.coordinate(start.y)}`);
        this.block(`G43 H${tool.number} Z${words.coordinate(program.clearanceZ)}${profile.coolant ? ' M8' : ''}`);
        coolant = profile.coolant;
      }
      const holeLines = this.cycle(op);
      this.operations.push({ id: op.id, firstLine: from, lastLine: this.lines.length, holeLines });
    }
    this.block(coolant ? 'M9 M5' : 'M5');
    this.goHome();
  }

  private cycle(op: MotionOperation): [number, string][] {
    const { words } = this;
    const o = op.operation;
    const holeLines: [number, string][] = [];
    let [r, z, lift] = ['', '', false];
    op.holes.forEach((h, i) => {
      const [nextR, nextZ] = [words.coordinate(h.r), words.coordinate(h.z)];
      const parts: string[] = [];
      if (i === 0 || h.lift !== lift) parts.push(h.lift ? 'G98' : 'G99');
      if (i === 0) parts.push(o.cycle);
      parts.push(`X${words.coordinate(h.x)} Y${words.coordinate(h.y)}`);
      if (i === 0 || nextZ !== z || nextR !== r) parts.push(`Z${nextZ} R${nextR}`);
      if (i === 0) {
        if (o.dwellSeconds !== undefined && o.cycle === 'G82') parts.push(words.dwell(o.dwellSeconds));
        if (o.peck !== undefined) parts.push(`Q${words.coordinate(o.peck)}`);
        parts.push(`F${words.feed(o.feed, o.tool.kind === 'tap')}`);
      }
      [r, z, lift] = [nextR, nextZ, h.lift];
      this.block(parts.join(' '));
      holeLines.push([this.lines.length, h.label]);
    });
    this.block('G80');
    return holeLines;
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
    const { on, step } = this.profile.lineNumbers;
    if (!on) {
      this.lines.push(words);
      return;
    }
    this.lines.push(`N${this.blockNumber} ${words}`);
    this.blockNumber += step;
  }
}

const uniqueTools = (program: MotionProgram): { tool: Tool }[] => [...new Map(program.visits.map((v) => [v.tool.id, v])).values()];

/** A tool in a line: `SPOT DRILL D10 120 DEG`. */
export function describeTool(tool: Tool, units: 'mm' | 'inch'): string {
  const angle = tool.pointAngleDeg !== undefined && tool.kind !== 'tap' ? ` ${tool.pointAngleDeg}°` : '';
  if (tool.thread)
    return `tap ${tool.thread.designation} ${tool.thread.hand === 'left' ? 'left ' : ''}${tool.thread.lead.replace('-', ' ')}${tool.thread.style === 'forming' ? ' forming' : ''}`;
  return `${tool.kind.replace('-', ' ')} ⌀${formatLength(tool.diameter, units)}${angle}`;
}
