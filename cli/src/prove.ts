import { z } from 'zod';
import { recognise } from '@yellow-pin/core/features/recognise';
import { deriveJob } from '@yellow-pin/core/job/derive';
import { librarySchema } from '@yellow-pin/core/job/library';
import { boxFromPoints } from '@yellow-pin/core/job/setup-frame';
import { planSchema } from '@yellow-pin/core/job/plan';
import { proveProgram } from '@yellow-pin/core/proof/prove';
import { proofSummary } from '@yellow-pin/core/proof/summary';
import { parseArguments, single, UsageError } from './arguments.ts';
import { loadPart, readText } from './part.ts';

const jobFileSchema = z.object({
  format: z.literal('yellow-pin/job@1'),
  plan: planSchema,
  library: librarySchema,
  programs: z.array(z.object({ file: z.string(), setup: z.string() })),
});

/** `prove`: reads the code itself and checks it against part and job; exit 1 where a check is an error. */
export async function prove(args: string[]): Promise<number> {
  const parsed = parseArguments(args, ['part', 'job'], ['json']);
  const [path] = single(parsed, 1, 'yellow-pin prove PROGRAM.nc --part PART.step --job DIR/job.json [--json]');
  const [partPath, jobPath] = ['part', 'job'].map((o) => {
    const value = parsed.options.get(o)?.[0];
    if (!value) throw new UsageError(`--${o} is missing`);
    return value;
  }) as [string, string];
  const text = new TextDecoder().decode(await readText(path!));
  const file = jobFileSchema.safeParse(parseJson(jobPath, new TextDecoder().decode(await readText(jobPath))));
  if (!file.success) {
    const issue = file.error.issues[0]!;
    throw new UsageError(`${jobPath}: ${issue.path.join('.')}: ${issue.message}; write it again with yellow-pin program`);
  }
  const { plan, library, programs } = file.data;
  const { model, mesh, rays } = await loadPart(partPath);
  const job = deriveJob({ features: recognise(model, { rays }).features, bounds: model.bounds, partBox: boxFromPoints(model.bounds, mesh.positions), plan, library });
  const name = path!.replace(/^.*[\\/]/, '');
  const setupId = programs.find((p) => p.file === name)?.setup ?? plan.setups[0]!.id;
  const setup = job.setups.find((s) => s.setup.id === setupId);
  if (!setup) throw new UsageError(`${jobPath}: programs: ${name} names setup ${setupId}, which the plan does not have`);
  const proven = proveProgram(text, job, setup, library.tools, plan.units);
  const checks = proven.checks.map(({ rule, severity, message, feature, line }) => ({ rule, severity, message, feature, line, file: name }));
  process.stdout.write(`${JSON.stringify({ format: 'yellow-pin/proof@1', checks, proof: proofSummary(job, proven.made, proven.checks) }, null, 2)}\n`);
  return checks.some((c) => c.severity === 'error') ? 1 : 0;
}

function parseJson(path: string, text: string): unknown {
  try {
    return JSON.parse(text);
  } catch (error) {
    throw new UsageError(`${path}: not JSON (${(error as Error).message})`);
  }
}
