import { PROFILES } from '@yellow-pin/core/code/profiles/shipped';
import { machineProfileSchema, type MachineProfile } from '@yellow-pin/core/code/profiles/schema';
import { UsageError } from './arguments.ts';
import { readText } from './part.ts';

/**
 * A machine's profile by its name or id among those that ship, or from a JSON file that the machines' screen has saved: one profile, a list of
 * them, or a whole shop, of which the first is taken.
 */
export async function machineNamed(wanted: string | undefined): Promise<MachineProfile> {
  if (wanted === undefined) return PROFILES[0]!;
  if (/\.json$/i.test(wanted)) return machineFromFile(wanted);
  const found = PROFILES.find((p) => p.id === wanted || p.name === wanted);
  if (found) return found;
  throw new UsageError(
    `--machine ${wanted}: use one of ${PROFILES.map((p) => p.name).join(', ')}, or a .json file that holds one`,
  );
}

async function machineFromFile(path: string): Promise<MachineProfile> {
  let document: unknown;
  try {
    document = JSON.parse(new TextDecoder().decode(await readText(path)));
  } catch (error) {
    if (error instanceof UsageError) throw error;
    throw new UsageError(`${path}: not JSON (${(error as Error).message})`);
  }
  const list = Array.isArray(document) ? document : (document as { machines?: unknown } | null)?.machines;
  const one: unknown = Array.isArray(list) ? list[0] : document;
  const read = machineProfileSchema.safeParse(one);
  if (read.success) return read.data;
  const issue = read.error.issues[0]!;
  throw new UsageError(`${path}: ${issue.path.join('.') || 'machine'}: ${issue.message}; correct it there`);
}
