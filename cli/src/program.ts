import { mkdir, rename, rm, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { describeTool } from '@yellow-pin/core/code/write/write';
import { parseCallout, CalloutError } from '@yellow-pin/core/callout/callout';
import { isHole, type Feature } from '@yellow-pin/core/features/family';
import { recognise } from '@yellow-pin/core/features/recognise';
import { narrowest } from '@yellow-pin/core/features/hole/recognise';
import { featureSizes } from '@yellow-pin/core/features/sets';
import { chooseDirections, setupsFor } from '@yellow-pin/core/job/choose-setups';
import { newPlan, planSchema, type Plan } from '@yellow-pin/core/job/plan';
import { SIDES, sideDirection, type Zero } from '@yellow-pin/core/job/setup';
import { boxFromPoints } from '@yellow-pin/core/job/setup-frame';
import { produceJob, type ProducedJob } from '@yellow-pin/core/job/produce';
import { proofSummary } from '@yellow-pin/core/proof/summary';
import { SHOP } from '@yellow-pin/demo/shop';
import { oneOf, parseArguments, single, UsageError, type Arguments } from './arguments.ts';
import { loadPart } from './part.ts';

const USAGE = 'yellow-pin program PART.step --out DIR [--up +Z|...|all] [--material NAME] [--machine NAME] [--callout "6.8=M8x1.25 - 6H"]... [--zero-at top-centre] [--json]';

/** `program`: recognise, plan with the shop's methods, write one file a setup into DIR, prove each from its text. */
export async function program(args: string[]): Promise<number> {
  const parsed = parseArguments(args, ['out', 'up', 'material', 'machine', 'callout', 'edge-break', 'zero-at'], ['json']);
  const [path] = single(parsed, 1, USAGE);
  const out = parsed.options.get('out')?.[0];
  if (!out) throw new UsageError(`--out DIR is missing; usage: ${USAGE}`);
  if (parsed.options.has('edge-break')) process.stderr.write('--edge-break: edges are not recognised yet; holes only.\n');
  const up = oneOf(parsed.options.get('up')?.[0] ?? 'all', [...SIDES, 'all'] as const, 'up');
  const material = named(parsed.options.get('material')?.[0] ?? SHOP.materials[0]!.name, SHOP.materials, 'material');
  const machine = named(parsed.options.get('machine')?.[0] ?? SHOP.machines[0]!.name, SHOP.machines, 'machine');
  const zero = zeroAt(parsed.options.get('zero-at')?.[0] ?? 'top-centre');
  const part = await loadPart(path!);
  const { features } = recognise(part.model, { rays: part.rays });
  const plan = newPlan(part.model.sourceUnits, material, machine);
  plan.setups = setupsFor(up === 'all' ? chooseDirections(features) : [sideDirection(up)]).map((s) => ({ ...s, zero }));
  applyCallouts(plan, features, parsed);
  const name = part.model.name || path!.replace(/^.*[\\/]/, '').replace(/\.[^.]*$/, '');
  const produced = produceJob({
    features,
    bounds: part.model.bounds,
    partBox: boxFromPoints(part.model.bounds, part.mesh.positions),
    plan: planSchema.parse(plan),
    library: SHOP,
    name,
    rays: part.rays,
  });
  const files = new Map(produced.programs.map((p) => [p.fileName, p.text]));
  files.set('job.json', `${JSON.stringify(jobFile(name, plan, produced), null, 2)}\n`);
  await writeWhole(out, files);
  process.stdout.write(`${JSON.stringify(answer(plan, produced), null, 2)}\n`);
  return produced.checks.some((c) => c.severity === 'error') ? 1 : 0;
}

function named(name: string, list: readonly { id: string; name: string }[], option: string): string {
  const found = list.find((m) => m.id === name || m.name.toLowerCase() === name.toLowerCase());
  if (!found) throw new UsageError(`--${option} ${name}: use one of ${list.map((m) => m.name).join(', ')}`);
  return found.id;
}

function zeroAt(text: string): Zero {
  const zero: Extract<Zero, { kind: 'box' }> = { kind: 'box', of: 'stock', x: 0, y: 0, z: 1, offset: [0, 0, 0] };
  for (const word of text.toLowerCase().split('-')) {
    if (word === 'top') zero.z = 1;
    else if (word === 'middle') zero.z = 0;
    else if (word === 'bottom') zero.z = -1;
    else if (word === 'left') zero.x = -1;
    else if (word === 'right') zero.x = 1;
    else if (word === 'front') zero.y = -1;
    else if (word === 'back') zero.y = 1;
    else if (word === 'part' || word === 'stock') zero.of = word;
    else if (word !== 'centre' && word !== 'corner' && word !== 'edge')
      throw new UsageError(`--zero-at ${text}: "${word}" is not a place; use such as top-centre, top-left-front, bottom-right-back`);
  }
  return zero;
}

/** `--callout D=TEXT` holds for every size whose narrowest diameter is D within 0.05 mm. */
function applyCallouts(plan: Plan, features: Feature[], parsed: Arguments): void {
  for (const entry of parsed.options.get('callout') ?? []) {
    const m = /^\s*([\d.]+)\s*=\s*(.+)$/.exec(entry);
    if (!m) throw new UsageError(`--callout "${entry}": write it as "6.8=M8x1.25 - 6H"`);
    try {
      const callout = parseCallout(m[2]!, plan.units);
      const sizes = featureSizes(features.filter(isHole)).filter((s) => s.features.filter(isHole).some((f) => Math.abs(narrowest(f) - Number(m[1])) <= 0.05));
      if (sizes.length === 0) throw new UsageError(`--callout "${entry}": no hole of diameter ${m[1]} mm in the part`);
      for (const s of sizes) plan.sizes[s.key] = { callout: m[2]!, thread: callout.thread ?? null, threadDepth: callout.depth, overrides: {} };
    } catch (error) {
      if (error instanceof CalloutError) throw new UsageError(`--callout "${entry}": ${error.message}`);
      throw error;
    }
  }
}

const jobFile = (name: string, plan: Plan, produced: ProducedJob) => ({
  format: 'yellow-pin/job@1',
  name,
  plan,
  library: {
    tools: [...new Map(produced.programs.flatMap((p) => p.setup.operations.map((o) => [o.tool.id, o.tool]))).values()],
    holders: SHOP.holders,
    materials: [produced.job.material],
    machines: [produced.job.machine],
  },
  programs: produced.programs.map((p) => ({ file: p.fileName, setup: p.setup.setup.id, operations: p.operations })),
});

function answer(plan: Plan, { job, programs, checks }: ProducedJob) {
  const made = programs.flatMap((p) => p.made);
  return {
    format: 'yellow-pin/program@1',
    programs: programs.map((p) => ({
      file: p.fileName,
      setup: { up: p.setup.frame.frame.z, origin: p.setup.frame.frame.origin, xDirection: p.setup.frame.frame.x },
      units: plan.units,
      machine: job.machine.name,
      tools: [...new Map(p.setup.operations.map((o) => [o.tool.id, o.tool])).values()].map((t) => ({
        number: t.number,
        kind: t.kind,
        description: describeTool(t, plan.units),
        diameter: t.diameter,
        ...(t.pointAngleDeg !== undefined ? { pointAngle: t.pointAngleDeg } : {}),
        ...(t.thread ? { pitch: t.thread.pitch } : {}),
      })),
      operations: p.operations.map((w) => {
        const o = p.setup.operations.find((x) => x.id === w.id)!;
        return { id: w.id, kind: o.kind, tool: o.tool.number, features: o.holes.map((h) => h.feature), firstLine: w.firstLine, lastLine: w.lastLine };
      }),
      cycleTimeSeconds: Math.round(p.time.total * 10) / 10,
    })),
    uncovered: job.rows.flatMap((r) =>
      r.state === 'planned'
        ? r.blocked.map((b) => ({ feature: b.feature, reason: b.reason }))
        : r.state === 'optional'
          ? []
          : r.size.features.map((f) => ({ feature: f.id, reason: r.reasons.join(' ') || r.state })),
    ),
    checks: checks.map(({ rule, severity, message, feature, line, setupId }) => ({
      rule,
      severity,
      message,
      feature,
      line,
      file: line === undefined ? undefined : programs.find((p) => p.setup.setup.id === setupId)?.fileName,
    })),
    proof: proofSummary(job, made, checks),
  };
}

/** All files or none: each is written under another name first. */
async function writeWhole(folder: string, files: Map<string, string>): Promise<void> {
  await mkdir(folder, { recursive: true }).catch((e: NodeJS.ErrnoException) => {
    throw new UsageError(`${folder}: cannot be made (${e.code}); name another folder with --out`);
  });
  const pending: [string, string][] = [];
  try {
    for (const [name, text] of files) {
      const temporary = join(folder, `.${name}.part`);
      pending.push([temporary, join(folder, name)]);
      await writeFile(temporary, text);
    }
    for (const [from, to] of pending) await rename(from, to);
  } catch (error) {
    await Promise.all(pending.map(([from]) => rm(from, { force: true })));
    throw new UsageError(`${folder}: cannot be written (${(error as NodeJS.ErrnoException).code ?? 'error'})`);
  }
}
