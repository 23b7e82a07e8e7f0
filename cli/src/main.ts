import { UsageError } from './arguments.ts';
import { expand } from './expand.ts';
import { features } from './features.ts';
import { order } from './order.ts';
import { program } from './program.ts';
import { prove } from './prove.ts';

const COMMANDS: Record<string, (args: string[]) => Promise<number>> = {
  features,
  program,
  prove,
  expand,
  order,
};

/** Runs a command and gives its exit code: 0 done, 1 something is wrong with part or program, 2 bad arguments or file. */
export async function main(args: string[]): Promise<number> {
  const [name = '', ...rest] = args;
  const command = COMMANDS[name];
  try {
    if (!command)
      throw new UsageError(
        `${name ? `unknown command "${name}"` : 'no command'}; use one of: ${Object.keys(COMMANDS).join(', ')}`,
      );
    return await command(rest);
  } catch (error) {
    if (!(error instanceof UsageError)) throw error;
    process.stderr.write(`yellow-pin: ${error.message.replace(/\s*\n\s*/g, ' ')}\n`);
    return 2;
  }
}
