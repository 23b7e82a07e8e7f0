import { mkdir, rename, rm, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { describeTool } from '@yellow-pin/core/code/write/write';
import { CalloutError } from '@yellow-pin/core/callout/callout';
import { isBoss, isHole, type Feature } from '@yellow-pin/core/features/family';
import { recognise } from '@yellow-pin/core/features/recognise';
import { narrowest } from '@yellow-pin/core/features/hole/recognise';
import { featureSizes, type FeatureSize } from '@yellow-pin/core/features/sets';
import { chooseDirections, setupsFor } from '@yellow-pin/core/setup/choose-setups';
import { MOST_EDGE_BREAK, newPlan, planSchema, type Plan } from '@yellow-pin/core/plan/plan';
import { librarySchema, withJobTools, type Library } from '@yellow-pin/core/plan/library';
import type { PlannedOperation, Row } from '@yellow-pin/core/job/row';
import { decisionFromCallout } from '@yellow-pin/core/job/print';
import { SIDES, sideDirection, type Setup, type Zero } from '@yellow-pin/core/setup/setup';
import { boxFromPoints } from '@yellow-pin/core/setup/setup-frame';
import { withDrawerLoaded } from '@yellow-pin/core/job/magazine';
import { metalOf, withMetal } from '@yellow-pin/core/job/prove-metal';
import type { MetalProof } from '@yellow-pin/core/metal/prove-metal';
import { produceJob, type ProducedJob } from '@yellow-pin/core/job/produce';
import { FAMILY_WORDS, isGrooveFamily } from '@yellow-pin/core/methods/schema';
import { SHIPPED_METHODS } from '@yellow-pin/core/methods/shipped';
import { withAccepted } from '@yellow-pin/core/proof/accepted';
import { proofSummary } from '@yellow-pin/core/proof/summary';
import { toolProfile } from '@yellow-pin/core/tools/profile';
import type { Tool } from '@yellow-pin/core/tools/schema';
import { LengthError } from '@yellow-pin/core/units/length';
import { demoShopPath } from '@yellow-pin/demo/jobs';
import { oneOf, parseArguments, single, UsageError, type Arguments } from './arguments.ts';
import { loadPart, readText } from './part.ts';
import { proofJson } from './proof-json.ts';
import { machineNamed } from './machine.ts';

const USAGE =
  'yellow-pin program PART.step --out DIR [--up +Z|...|all] [--material NAME] [--machine NAME|FILE.json] [--callout "6.8=M8x1.25 - 6H"]... [--method "24=mill and bore"]... [--zero-at top-centre] [--edge-break 0.2] [--stock prepared|block:3] [--shop SHOP.json] [--json]';

/** `program`: recognise, plan with the shop's methods, write one file a setup into DIR, prove each from its text. */
export async function program(args: string[]): Promise<number> {
  const parsed = parseArguments(
    args,
    ['out', 'up', 'material', 'machine', 'callout', 'method', 'edge-break', 'zero-at', 'stock', 'shop'],
    ['json'],
  );
  const [path] = single(parsed, 1, USAGE);
  const out = parsed.options.get('out')?.[0];
  if (!out) throw new UsageError(`--out DIR is missing; usage: ${USAGE}`);
  const edgeBreak = edgeBreakOf(parsed.options.get('edge-break')?.[0]);
  const up = oneOf(parsed.options.get('up')?.[0] ?? 'all', [...SIDES, 'all'] as const, 'up');
  const { library, machine } = await withMachine(
    await shopLibrary(parsed),
    parsed.options.get('machine')?.[0],
  );
  const material = named(
    parsed.options.get('material')?.[0] ?? library.materials[0]!.name,
    library.materials,
    'material',
  );
  const zero = zeroAt(parsed.options.get('zero-at')?.[0] ?? 'top-centre');
  const part = await loadPart(path!);
  const { features } = recognise(part.model, { rays: part.rays });
  const plan = newPlan(part.model.sourceUnits, material, machine);
  plan.edgeBreak = edgeBreak;
  const hasStock = (parsed.options.get('stock')?.[0] ?? 'prepared') !== 'prepared';
  const directions = up === 'all' ? chooseDirections(features, hasStock) : [sideDirection(up)];
  plan.setups = withStock(
    setupsFor(directions).map((s) => ({ ...s, zero })),
    parsed.options.get('stock')?.[0],
  );
  applyCallouts(plan, features, parsed);
  applyMethods(plan, features, library, parsed);
  const name = part.model.name || path!.replace(/^.*[\\/]/, '').replace(/\.[^.]*$/, '');
  const input = withDrawerLoaded({
    features,
    bounds: part.model.bounds,
    partBox: boxFromPoints(part.model.bounds, part.mesh.positions),
    plan: planSchema.parse(plan),
    library,
    name,
    mesh: part.mesh,
  });
  const produced = produceJob(input);
  const { job, programs } = produced;
  const metal = metalOf(input, { job, programs, faces: part.model.faces });
  produced.checks = withAccepted(withMetal(produced.checks, metal.checks), input.plan.accepted);
  const files = new Map(produced.programs.map((p) => [p.fileName, p.text]));
  files.set(
    'job.json',
    `${JSON.stringify(jobFile(name, input.plan, withJobTools(library, input.plan), produced), null, 2)}\n`,
  );
  await writeWhole(out, files);
  process.stdout.write(`${JSON.stringify(answer(input.plan, library, produced, metal), null, 2)}\n`);
  if (produced.programs.length === 0) {
    const why = produced.job.rows.flatMap((r) => r.reasons.slice(0, 1).map((x) => `${r.tag}: ${x}`));
    process.stderr.write(
      `No program was written: ${why.slice(0, 8).join(' ') || 'the part has nothing to make'}\n`,
    );
    return 1;
  }
  return produced.checks.some((c) => c.severity === 'error') ? 1 : 0;
}

/** The machine that is asked for: of the shop by its name, or one that a file holds, which the shop then has as well. */
async function withMachine(
  library: Library,
  wanted: string | undefined,
): Promise<{ library: Library; machine: string }> {
  if (wanted === undefined || !/\.json$/i.test(wanted))
    return { library, machine: named(wanted ?? library.machines[0]!.name, library.machines, 'machine') };
  const own = await machineNamed(wanted);
  const others = library.machines.filter((m) => m.id !== own.id);
  return { library: { ...library, machines: [own, ...others] }, machine: own.id };
}

/** The shop's own lists from a file, the same as the screens export; else the sample shop's. */
async function shopLibrary(parsed: Arguments): Promise<Library> {
  const path = parsed.options.get('shop')?.[0] ?? demoShopPath();
  const text = new TextDecoder().decode(await readText(path));
  let document: unknown;
  try {
    document = JSON.parse(text);
  } catch (error) {
    throw new UsageError(`${path}: not JSON (${(error as Error).message})`);
  }
  const read = librarySchema.safeParse(document);
  if (read.success && read.data.machines.length > 0 && read.data.materials.length > 0) return read.data;
  const issue = read.success ? null : read.error.issues[0]!;
  throw new UsageError(
    issue
      ? `${path}: ${issue.path.join('.')}: ${issue.message}; correct it there`
      : `${path}: it needs at least one machine and one material`,
  );
}

/** One of a list by its id, its name, or a beginning of the name that no other shares. */
function named(name: string, list: readonly { id: string; name: string }[], option: string): string {
  const wanted = name.toLowerCase();
  const exact = list.find((m) => m.id === name || m.name.toLowerCase() === wanted);
  const begins = list.filter((m) => m.name.toLowerCase().startsWith(wanted));
  const found = exact ?? (begins.length === 1 ? begins[0] : undefined);
  if (found) return found.id;
  const choice = begins.length > 1 ? begins : list;
  throw new UsageError(`--${option} ${name}: use one of ${choice.map((m) => m.name).join(', ')}`);
}

/** `prepared`, or `block:W`: a block W larger on each of the six sides of the part's box. */
function withStock(setups: Setup[], text: string | undefined): Setup[] {
  if (text === undefined || text === 'prepared') return setups;
  const m = /^block:(\d+(?:\.\d+)?)$/.exec(text);
  const w = Number(m?.[1]);
  if (!m || w > 500)
    throw new UsageError(`--stock ${text}: use prepared, or block:W with W mm from 0 to 500`);
  const sides = { xLow: w, xHigh: w, yLow: w, yHigh: w, zLow: w, zHigh: w };
  return setups.map((s, i) => ({
    ...s,
    stock: { ...s.stock, ...sides, kind: i === 0 ? 'block' : 'left-over' },
  }));
}

/** Width of all broken edges across the top, mm; null: they stay sharp. */
function edgeBreakOf(text: string | undefined): number | null {
  if (text === undefined) return null;
  const w = /^\d*\.?\d+$/.test(text) ? Number(text) : NaN;
  if (!(w > 0) || w > MOST_EDGE_BREAK)
    throw new UsageError(
      `--edge-break ${text}: say the width across the top in mm, above 0 and up to ${MOST_EDGE_BREAK}, such as 0.2`,
    );
  return w;
}

function zeroAt(text: string): Zero {
  const zero: Extract<Zero, { kind: 'box' }> = {
    kind: 'box',
    of: 'stock',
    x: 0,
    y: 0,
    z: 1,
    offset: [0, 0, 0],
  };
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
      throw new UsageError(
        `--zero-at ${text}: "${word}" is not a place; use such as top-centre, top-left-front, bottom-right-back`,
      );
  }
  return zero;
}

/**
 * Sizes that an option means: by the tag's letters, or by diameter, mm (within 0.05): holes by their narrowest, and where there is none of
 * that diameter, bosses, then what is as wide.
 */
function sizesMeant(
  what: string,
  features: Feature[],
  option: string,
  isMeant: (f: Feature) => boolean,
): FeatureSize[] {
  const all = featureSizes(features).filter((s) => s.features.every(isMeant));
  const near = (d: number): boolean => Math.abs(d - Number(what)) <= 0.05;
  const holes = all.filter((s) => s.features.filter(isHole).some((f) => near(narrowest(f))));
  const byWidth = (): FeatureSize[] => all.filter((s) => s.features.some((f) => near(grooveWidth(f) ?? NaN)));
  const bosses = all.filter((s) => s.features.filter(isBoss).some((f) => near(f.diameter)));
  const found = /^[A-Z]{1,3}$/i.test(what)
    ? all.filter((s) => s.tag === what.toUpperCase())
    : holes.length > 0
      ? holes
      : bosses.length > 0
        ? bosses
        : byWidth();
  if (found.length === 0) {
    const there = all.map((s) => s.tag).join(', ');
    throw new UsageError(
      /^[A-Z]/i.test(what)
        ? `${option}: nothing that it could hold for is tagged ${what.toUpperCase()}; there are ${there || 'none'}`
        : `${option}: no hole of diameter ${what} mm in the part, and no boss${isMeant === canBeMade ? ' or slot' : ''}`,
    );
  }
  return found;
}

function applyCallouts(plan: Plan, features: Feature[], parsed: Arguments): void {
  for (const entry of parsed.options.get('callout') ?? []) {
    const option = `--callout "${entry}"`;
    const m = /^\s*([\d.]+|[A-Za-z]{1,3})\s*=\s*(.+)$/.exec(entry);
    if (!m) throw new UsageError(`${option}: write it as "6.8=M8x1.25 - 6H"`);
    try {
      const decided = decisionFromCallout(m[2]!, plan.units);
      for (const s of sizesMeant(m[1]!, features, option, (f) => isHole(f) || isBoss(f)))
        plan.sizes[s.key] = { ...decided, overrides: {} };
    } catch (error) {
      if (error instanceof CalloutError || error instanceof LengthError)
        throw new UsageError(`${option}: ${error.message}`);
      throw error;
    }
  }
}

/** What a method may be chosen for: holes, slots, grooves, channels and areas. */
const canBeMade = (f: Feature): boolean => f.family in FAMILY_WORDS;

/** How wide a slot, groove or channel is, mm; null for anything else. */
const grooveWidth = (f: Feature): number | null =>
  'mouthWidth' in f ? f.mouthWidth : 'width' in f && isGrooveFamily(f.family) ? f.width : null;

function applyMethods(plan: Plan, features: Feature[], library: Library, parsed: Arguments): void {
  const all = [...library.methods, ...SHIPPED_METHODS];
  for (const entry of parsed.options.get('method') ?? []) {
    const option = `--method "${entry}"`;
    const m = /^\s*([\d.]+|[A-Za-z]{1,3})\s*=\s*(.+?)\s*$/.exec(entry);
    if (!m) throw new UsageError(`${option}: write it as "24=mill and bore"`);
    const wanted = m[2]!.toLowerCase();
    const method = all.find((x) => x.id === wanted || x.name.toLowerCase() === wanted);
    if (!method)
      throw new UsageError(`${option}: use one of ${[...new Set(all.map((x) => x.name))].join(', ')}`);
    for (const s of sizesMeant(m[1]!, features, option, canBeMade))
      plan.sizes[s.key] = { overrides: {}, ...plan.sizes[s.key], method: method.id };
  }
}

const jobFile = (name: string, plan: Plan, library: Library, produced: ProducedJob) => ({
  format: 'yellow-pin/job@1',
  name,
  plan,
  // The whole list: a hand edit may call any tool, and two on one number are found only where both are known.
  library: {
    ...library,
    tools: library.tools.map((t) => ({ ...t, profile: profileOf(t, library) })),
    materials: [produced.job.material],
    machines: [produced.job.machine],
  },
  programs: produced.programs.map((p) => ({
    file: p.fileName,
    setup: p.setup.setup.id,
    operations: p.operations,
  })),
});

const profileOf = (tool: Tool, { holders }: Library) =>
  toolProfile(tool, holders.find((h) => h.id === tool.holderId) ?? null);

function answer(plan: Plan, library: Library, { job, programs, checks }: ProducedJob, metal: MetalProof) {
  return {
    format: 'yellow-pin/program@1',
    programs: programs.map((p) => ({
      file: p.fileName,
      setup: {
        up: p.setup.frame.frame.z,
        origin: p.setup.frame.frame.origin,
        xDirection: p.setup.frame.frame.x,
      },
      units: plan.units,
      machine: job.machine.name,
      tools: [...new Map(p.setup.operations.map((o) => [o.tool.id, o.tool])).values()].map((t) => ({
        number: t.number,
        kind: t.kind,
        description: describeTool(t, plan.units),
        diameter: t.diameter,
        ...(t.pointAngleDeg !== undefined ? { pointAngle: t.pointAngleDeg } : {}),
        ...(t.thread ? { pitch: t.thread.pitch } : {}),
        profile: profileOf(t, library),
      })),
      operations: p.operations.map((w) => {
        const o = p.setup.operations.find((x) => x.id === w.id)!;
        return {
          id: w.id,
          kind: o.kind,
          tool: o.tool.number,
          features: [...o.work.map((h) => h.feature), ...rimsBrokenBy(job.rows, o)],
          firstLine: w.firstLine,
          lastLine: w.lastLine,
        };
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
    checks: checks.map(({ rule, severity, message, tag, feature, line, setupId }) => ({
      rule,
      severity,
      message,
      tag,
      feature,
      line,
      file: line === undefined ? undefined : programs.find((p) => p.setup.setup.id === setupId)?.fileName,
    })),
    proof: proofJson(
      proofSummary(metal, checks),
      (id) => programs.find((p) => p.setup.setup.id === id)?.fileName,
    ),
  };
}

/** Sharp rims of holes that an operation has broken with the hole itself, such as its spot. */
const rimsBrokenBy = (rows: readonly Row[], { rim, work }: PlannedOperation): string[] =>
  rim === undefined || rim === 0
    ? []
    : rows.flatMap(({ madeBy, size }) =>
        madeBy.flatMap((m) => {
          const edge = size.features.find((f) => f.id === m.feature);
          const hole = edge && 'holeId' in edge ? edge.holeId : undefined;
          return hole !== undefined && work.some((w) => w.feature === hole) ? [m.feature] : [];
        }),
      );

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
    throw new UsageError(
      `${folder}: cannot be written (${(error as NodeJS.ErrnoException).code ?? 'error'})`,
    );
  }
}
