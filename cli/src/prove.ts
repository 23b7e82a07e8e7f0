import { z } from 'zod';
import { recognise } from '@yellow-pin/core/features/recognise';
import { metalOf, withMetal, type MetalAsk } from '@yellow-pin/core/job/prove-metal';
import { produceJob, proveText, type ProduceInput } from '@yellow-pin/core/job/produce';
import { librarySchema } from '@yellow-pin/core/plan/library';
import { boxFromPoints } from '@yellow-pin/core/setup/setup-frame';
import { planSchema } from '@yellow-pin/core/plan/plan';
import { withAccepted } from '@yellow-pin/core/proof/accepted';
import { proofSummary } from '@yellow-pin/core/proof/summary';
import { parseArguments, single, UsageError } from './arguments.ts';
import { loadPart, readText } from './part.ts';
import { proofJson } from './proof-json.ts';

const jobFileSchema = z.object({
  format: z.literal('yellow-pin/job@1'),
  name: z.string().default('part'),
  plan: planSchema,
  library: librarySchema,
  programs: z.array(z.object({ file: z.string(), setup: z.string() })),
});

/** `prove`: reads the code itself and checks it against part and job; exit 1 where a check is an error. */
export async function prove(args: string[]): Promise<number> {
  const parsed = parseArguments(args, ['part', 'job'], ['json']);
  const [path] = single(
    parsed,
    1,
    'yellow-pin prove PROGRAM.nc --part PART.step --job DIR/job.json [--json]',
  );
  const [partPath, jobPath] = ['part', 'job'].map((o) => {
    const value = parsed.options.get(o)?.[0];
    if (!value) throw new UsageError(`--${o} is missing`);
    return value;
  }) as [string, string];
  const text = new TextDecoder().decode(await readText(path!));
  const file = jobFileSchema.safeParse(parseJson(jobPath, new TextDecoder().decode(await readText(jobPath))));
  if (!file.success) {
    const issue = file.error.issues[0]!;
    throw new UsageError(
      `${jobPath}: ${issue.path.join('.')}: ${issue.message}; write it again with yellow-pin program`,
    );
  }
  const { plan, library, programs } = file.data;
  const { model, mesh, rays } = await loadPart(partPath);
  const name = path!.replace(/^.*[\\/]/, '');
  const setupId = programs.find((p) => p.file === name)?.setup ?? plan.setups[0]!.id;
  if (!plan.setups.some((s) => s.id === setupId))
    throw new UsageError(
      `${jobPath}: programs: ${name} names setup ${setupId}, which the plan does not have`,
    );
  const asked = {
    features: recognise(model, { rays }).features,
    bounds: model.bounds,
    partBox: boxFromPoints(model.bounds, mesh.positions),
    mesh,
    plan,
    library,
    name: file.data.name,
  };
  const proven = proveText(asked, setupId, text);
  const metal = metalOf(asked, {
    job: proven.job,
    programs: programsUpTo(asked, setupId, proven),
    faces: model.faces,
  });
  const own = { ...metal, places: metal.places.filter((p) => p.setupId === setupId) };
  const found = withAccepted(
    withMetal(
      proven.checks,
      metal.checks.filter((c) => c.setupId === setupId),
    ),
    plan.accepted,
  );
  const checks = found.map((c) => ({
    rule: c.rule,
    severity: c.severity,
    message: c.message,
    tag: c.tag,
    feature: c.feature,
    line: c.line,
    file: c.line === undefined ? undefined : name,
  }));
  const proof = proofJson(proofSummary(own, found), () => name);
  process.stdout.write(`${JSON.stringify({ format: 'yellow-pin/proof@1', checks, proof }, null, 2)}\n`);
  return checks.some((c) => c.severity === 'error') ? 1 : 0;
}

/** The job's programs before a setup as they are posted, and then the text that is asked about: metal goes from one to the next. */
function programsUpTo(
  asked: ProduceInput,
  setupId: string,
  proven: ReturnType<typeof proveText>,
): MetalAsk['programs'] {
  const { programs } = produceJob(asked);
  const { setups } = proven.job;
  const own = setups.findIndex((s) => s.setup.id === setupId);
  const earlier = programs.filter((p) => setups.findIndex((s) => s.setup.id === p.setup.setup.id) < own);
  return [...earlier, { ...proven, setup: setups[own]! }];
}

function parseJson(path: string, text: string): unknown {
  try {
    return JSON.parse(text);
  } catch (error) {
    throw new UsageError(`${path}: not JSON (${(error as Error).message})`);
  }
}
