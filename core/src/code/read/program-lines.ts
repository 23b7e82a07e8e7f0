import { at as entryAt, known } from '../../lists.ts';
import { Block } from './blocks.ts';
import type { Interpreter } from './interpreter.ts';

/** Subprograms may call subprograms this deep. */
const DEEPEST = 8;
/** Lines that subprograms run in all: beyond it they call each other for ever, or nearly. */
const MOST_RUNS = 300_000;

/**
 * Runs a program's lines through an interpreter: from the first `%` to M30, M2 or the second `%`, with the subprograms of the same file
 * that it calls. Says what was not run.
 */
export class ProgramLines {
  private readonly starts: number[] = [];
  private readonly block = new Block();
  private readonly wasRun: Uint8Array;
  private labels: Map<number, number> | null = null;
  private runs = 0;
  private readonly first: number;
  /** The line of the `%` that ends the program, or past the last. */
  private readonly last: number;

  constructor(
    private readonly text: string,
    private readonly interpreter: Interpreter,
  ) {
    for (let at = 0; at < text.length;) {
      this.starts.push(at);
      const end = text.indexOf('\n', at);
      at = end < 0 ? text.length : end + 1;
    }
    this.wasRun = new Uint8Array(this.starts.length);
    let i = 0;
    while (i < this.count && this.isBlank(i)) i++;
    this.first = this.isPercent(i) ? i + 1 : 0;
    let k = this.first;
    while (k < this.count && !this.isPercent(k)) k++;
    this.last = k;
  }

  get count(): number {
    return this.starts.length;
  }

  run(): void {
    const ended = this.stretch(this.first, 0);
    if (ended === 'returned')
      this.interpreter.problem(
        this.interpreter.line,
        'error',
        'endless',
        'M99 in the main program starts it again, for ever. End it with M30.',
      );
    this.sayWhatWasNotRun();
  }

  /** Runs from a line on; says how it ended. */
  private stretch(from: number, depth: number): 'ended' | 'returned' | 'ran out' {
    for (let i = from; i < this.last; i++) {
      this.wasRun[i] = 1;
      if (depth > 0) this.runs++;
      if (this.runs > MOST_RUNS || this.interpreter.isFull()) {
        this.interpreter.problem(
          i + 1,
          'error',
          'too-long',
          'the program makes more motion than can be looked at; reading stops here and nothing after is proved.',
        );
        return 'ended';
      }
      if (!this.block.read(this.text, entryAt(this.starts, i), this.end(i))) continue;
      const next = this.interpreter.run(i + 1, this.block);
      if (next === 'end') return 'ended';
      if (next === 'return') return 'returned';
      if (next === null) continue;
      if (this.call(i + 1, next.subprogram, next.times, depth) === 'ended') return 'ended';
    }
    return 'ran out';
  }

  private call(line: number, number: number, times: number, depth: number): 'ended' | 'done' {
    const at = this.label(number);
    const wrong =
      at === undefined
        ? `subprogram O${number} is not in this file; add it after M30, or write its lines here`
        : depth >= DEEPEST
          ? `subprograms call each other more than ${DEEPEST} deep`
          : null;
    if (wrong !== null) {
      this.interpreter.problem(line, 'error', 'subprogram', `${wrong}.`);
      return 'done';
    }
    if (depth === 0) this.interpreter.caller = line;
    for (let n = 0; n < times; n++) {
      this.wasRun[known(at, 'the subprogram')] = 1;
      const ended = this.stretch(known(at, 'the subprogram') + 1, depth + 1);
      if (ended === 'ended') return 'ended';
      if (ended === 'ran out') {
        this.interpreter.problem(line, 'error', 'subprogram', `subprogram O${number} has no M99 at its end.`);
        return 'ended';
      }
    }
    if (depth === 0) this.interpreter.caller = null;
    return 'done';
  }

  private label(number: number): number | undefined {
    if (!this.labels) {
      this.labels = new Map();
      const block = new Block();
      for (let i = this.first; i < this.last; i++) {
        if (block.read(this.text, entryAt(this.starts, i), this.end(i)) && !Number.isNaN(block.label))
          this.labels.set(block.label, i);
      }
    }
    return this.labels.get(number);
  }

  private sayWhatWasNotRun(): void {
    const block = new Block();
    const isCode = (i: number): boolean => block.read(this.text, entryAt(this.starts, i), this.end(i));
    let [line, count] = [0, 0];
    for (let i = this.first; i < this.last; i++) {
      if (this.wasRun[i] || !isCode(i)) continue;
      if (count++ === 0) line = i + 1;
    }
    if (count > 0)
      this.interpreter.problem(
        line,
        'error',
        'after-end',
        `${count === 1 ? 'this line stands' : `${count} lines from here stand`} after the program's end and will not be run. Take the M30 or M2 before them out, or take them out.`,
      );
    for (let i = this.last + 1; i < this.count; i++) {
      if (this.isBlank(i)) continue;
      this.interpreter.problem(
        i + 1,
        'warning',
        'after-percent',
        'what stands after the second % is not read.',
      );
      return;
    }
  }

  private end(i: number): number {
    return i + 1 < this.count ? entryAt(this.starts, i + 1) - 1 : this.text.length;
  }

  private isBlank(i: number): boolean {
    return this.text.slice(this.starts[i], this.end(i)).trim() === '';
  }

  private isPercent(i: number): boolean {
    if (i >= this.count) return false;
    let at = entryAt(this.starts, i);
    while (at < this.text.length && (this.text[at] === ' ' || this.text[at] === '\t')) at++;
    return this.text.charCodeAt(at) === 37;
  }
}
