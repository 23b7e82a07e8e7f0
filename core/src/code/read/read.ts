import type { MachineProfile } from '../profiles/schema.ts';
import { Interpreter, type ToolsSaid } from './interpreter.ts';
import type { ReadProgram } from './motion.ts';
import { ProgramLines } from './program-lines.ts';

export type { ToolsSaid } from './interpreter.ts';

/**
 * Reads word-address code (ISO 6983-1, RS-274) with a profile's meaning and opens its cycles into what the machine does.
 * It survives anything: what it does not understand becomes a problem with its line, and a program with a problem that is an error is
 * never called proved.
 */
export function readProgram(
  text: string,
  profile: MachineProfile,
  tools: Partial<ToolsSaid> = {},
): ReadProgram {
  const interpreter = new Interpreter(profile, { radiusOf: () => null, makesHoles: () => true, ...tools });
  const lines = new ProgramLines(text, interpreter);
  lines.run();
  return interpreter.finish(lines.count);
}
