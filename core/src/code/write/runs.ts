import type { MotionWork } from '../../motion/program.ts';
import { cycleWord, type CycleWord } from '../cycles.ts';
import type { CycleWork } from './cycles.ts';
import type { PathWork } from './path.ts';

/** Neighbours among the works of an operation that are said in one way. */
export type Run =
  | { kind: 'cycle'; works: CycleWork[] }
  /** Holes whose cycle the control does not have. */
  | { kind: 'written'; word: CycleWord; works: CycleWork[] }
  | { kind: 'path'; works: PathWork[] };

/** An operation's works as they are said to a control that has these cycles. */
export function runsOf(works: readonly MotionWork[], cycles: readonly CycleWord[]): Run[] {
  const out: Run[] = [];
  for (const w of works) {
    const { motion } = w;
    const last = out.at(-1);
    if (motion.kind === 'path') {
      const path = { ...w, motion };
      if (last?.kind === 'path') last.works.push(path);
      else out.push({ kind: 'path', works: [path] });
      continue;
    }
    const cycle = { ...w, motion };
    const word = cycleWord(motion.how);
    if (cycles.includes(word)) {
      if (last?.kind === 'cycle') last.works.push(cycle);
      else out.push({ kind: 'cycle', works: [cycle] });
    } else if (last?.kind === 'written' && last.word === word) last.works.push(cycle);
    else out.push({ kind: 'written', word, works: [cycle] });
  }
  return out;
}
