import type { MachineProfile } from '../profiles/schema.ts';
import { Interpreter } from './interpreter.ts';
import type { ReadProgram } from './motion.ts';
import { ProgramLines } from './program-lines.ts';

/**
 * Reads word-address code (ISO 6983-1, RS-274) with a profile's meaning and opens its cycles into what the machine does.
 * It survives anything: what it does not understand becomes a problem with its line, and a program with a problem that is an error is
 * never called proved. `radiusOf`: the cutter radius that an offset D holds, mm; null where it is not known.
 */
export function readProgram(
  text: string,
  profile: MachineProfile,
  radiusOf: (d: number) => number | null = () => null,
): ReadProgram {
  const interpreter = new Interpreter(profile, radiusOf);
  const lines = new ProgramLines(text, interpreter);
  lines.run();
  return interpreter.finish(lines.count);
}
