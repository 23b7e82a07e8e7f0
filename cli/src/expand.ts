import { readProgram } from '@yellow-pin/core/code/read/read';
import { parseArguments, single } from './arguments.ts';
import { machineNamed } from './machine.ts';
import { readText } from './part.ts';

/** `expand`: one JSON line a motion, cycles opened. Problems go to stderr; exit 1 where one is an error. */
export async function expand(args: string[]): Promise<number> {
  const parsed = parseArguments(args, ['machine'], []);
  const [path] = single(parsed, 1, 'yellow-pin expand PROGRAM.nc [--machine NAME|FILE.json]');
  const profile = await machineNamed(parsed.options.get('machine')?.[0]);
  const { motions, problems } = readProgram(new TextDecoder().decode(await readText(path!)), profile);
  const lines: string[] = [];
  for (const m of motions) {
    const { line, kind, tool, from, to, centre, turns, clockwise, feed, speed, cycle, seconds } = m;
    lines.push(
      JSON.stringify({ line, kind, tool, from, to, centre, turns, clockwise, feed, speed, cycle, seconds }),
    );
    if (lines.length >= 4096) process.stdout.write(`${lines.splice(0).join('\n')}\n`);
  }
  if (lines.length > 0) process.stdout.write(`${lines.join('\n')}\n`);
  for (const p of problems) process.stderr.write(`${path}:${p.line}: ${p.message}\n`);
  return problems.some((p) => p.severity === 'error') ? 1 : 0;
}
