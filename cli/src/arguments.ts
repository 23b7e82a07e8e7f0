/** Bad arguments or a file that cannot be read: one line on stderr, exit 2. */
export class UsageError extends Error {}

export interface Arguments {
  positional: string[];
  options: Map<string, string[]>;
}

/** Splits `--name value` and flags from the rest; refuses options that the command does not have. */
export function parseArguments(
  args: string[],
  withValue: readonly string[],
  flags: readonly string[],
): Arguments {
  const out: Arguments = { positional: [], options: new Map() };
  for (let i = 0; i < args.length; i++) {
    const a = args[i]!;
    if (!a.startsWith('--')) {
      out.positional.push(a);
      continue;
    }
    const [name, inline] = a.slice(2).split(/=(.*)/s) as [string, string | undefined];
    if (flags.includes(name)) out.options.set(name, ['true']);
    else if (withValue.includes(name)) {
      const value = inline ?? args[++i];
      if (value === undefined) throw new UsageError(`--${name} needs a value`);
      out.options.set(name, [...(out.options.get(name) ?? []), value]);
    } else
      throw new UsageError(
        `unknown option --${name}; known here: ${[...withValue, ...flags].map((o) => `--${o}`).join(' ')}`,
      );
  }
  return out;
}

export function oneOf<T extends string>(value: string, allowed: readonly T[], option: string): T {
  const found = allowed.find((a) => a === value);
  if (!found) throw new UsageError(`--${option} ${value}: use one of ${allowed.join(', ')}`);
  return found;
}

export function single(args: Arguments, count: number, usage: string): string[] {
  if (args.positional.length !== count) throw new UsageError(`usage: ${usage}`);
  return args.positional;
}
