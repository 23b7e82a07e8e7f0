import type { ReadProblem } from './motion.ts';

/** Gathers problems so that a flood of one kind is one problem with a count. */
export class Problems {
  private readonly found = new Map<string, { problem: ReadProblem; more: number; last: number }>();

  /** `kind`: what makes two of a rule the same, such as the word that is not known. */
  add(line: number, severity: ReadProblem['severity'], rule: string, text: string, kind = ''): void {
    const key = `${rule}|${severity}|${kind}`;
    const before = this.found.get(key);
    if (!before) {
      this.found.set(key, {
        problem: { line, severity, rule, message: `Line ${line}: ${text}` },
        more: 0,
        last: line,
      });
    } else if (before.last !== line) {
      before.more++;
      before.last = line;
    }
  }

  list(): ReadProblem[] {
    return [...this.found.values()].map(({ problem, more, last }) =>
      more === 0
        ? problem
        : { ...problem, message: `${problem.message} And ${more} more like it, the last in line ${last}.` },
    );
  }
}
