import type { DerivedJob, DerivedSetup } from '../job/derive.ts';
import type { WantedEdge } from '../motion/work.ts';
import { operationKind } from '../operations/registry.ts';
import type { Check } from '../proof/checks/check.ts';
import type { ToolBody } from './body.ts';
import { compareTiles, type DifferenceKind } from './compare.ts';
import { contactChecks, placeChecks, type Telling } from './findings.ts';
import { TILE } from './tile.ts';
import {
  homeOf,
  ownersOf,
  placeOf,
  together,
  wallDifferences,
  type ProofPlace,
  type ReadSetup,
} from './places.ts';
import { Loads } from './load.ts';
import { blockSide, type Paint } from './paint.ts';
import { FacePoints, WallProbes } from './probes.ts';
import type { Contact } from './run.ts';
import { bodiesByNumber, cellFor, REACH, SetupMetal, type MetalInput } from './setup-metal.ts';
import { WantedCuts, type WantedCone } from './wanted.ts';

export interface MetalProof {
  /** mm³ and mm, of what is not wanted. Null: the part's shape is not known. */
  overcutVolume: number | null;
  leftoverVolume: number | null;
  largestOvercut: number | null;
  places: ProofPlace[];
  checks: Check[];
  /** Where all of it lies, to be drawn. */
  paint: Paint[];
  /** What the volumes do not count, in words. */
  notCounted: string[];
  /** Size of a cell, mm: walls are judged by the exact surfaces, volumes within about 1 % of a tool this many cells across. */
  cell: number;
}

/** How far a long proof is: from 0 to 1. */
export interface MetalProgress {
  done: number;
}

export interface ProveMetalInput extends MetalInput, Telling {
  programs: readonly ReadSetup[];
  /** Differences no deeper than this are none, mm. */
  tolerance: number;
}

/** Motions that are run between two words on how far it is. */
const STEP = 20;
/** And between two looks at where the highest metal stands. */
const SETTLE = 200;

/** Runs the programs of a job through its stock, one setup after the other, and compares what is left with the part. */
export function* proveMetal(input: ProveMetalInput): Generator<MetalProgress, MetalProof> {
  const { job, programs, mesh } = input;
  const bodiesOf = bodiesByNumber(input.tools, input.holders);
  const cell = cellFor(programs, bodiesOf);
  const owners = ownersOf(job);
  const places: ProofPlace[] = [];
  const checks: Check[] = [];
  const paint: Paint[] = [];
  const points = mesh && input.faces ? new FacePoints(mesh, input.faces) : null;
  const before: SetupMetal[] = [];
  const skipped = { columns: 0 };
  for (const [k, program] of programs.entries()) {
    const { setup, read } = program;
    const metal = new SetupMetal(setup, input, cell, before, bodiesOf, k < programs.length - 1);
    const setupId = setup.setup.id;
    const wanted = new WantedCuts(
      program.holes,
      wantedCones(setup, bodiesOf),
      program.bosses,
      wantedEdges(setup),
      setup.operations.flatMap((o) => o.work.flatMap((w) => w.rises ?? [])),
    );
    const probes = points
      ? new WallProbes(points, setup.frame.frame, input.tolerance, (x, y, z) => wanted.at(x, y, z))
      : null;
    metal.run.probes = probes;
    const contacts: Contact[] = [];
    const loads = new Loads(input, setupId);
    for (const [n, m] of read.motions.entries()) {
      contacts.push(...metal.run.run(m, n));
      loads.add(m, metal.run.took);
      if (n % SETTLE === SETTLE - 1) metal.grid.settle();
      if (n % STEP === STEP - 1) {
        yield { done: (k + (0.6 * n) / read.motions.length) / programs.length };
      }
    }
    checks.push(...contactChecks(contacts, program, input), ...loads.checks());
    if (metal.part) {
      const isLast = k === programs.length - 1 && isLastAtWork(job, setup);
      const tiles = tilesToCompare(metal, job, setupId, isLast);
      const compare = compareTiles({
        grid: metal.grid,
        part: metal.part,
        base: metal.base,
        wanted,
        tolerance: input.tolerance,
        reach: REACH,
        cavityAt: (x, y, z) => metal.cavities.featureAt(x, y, z),
        tiles,
        skipped,
      });
      let step = compare.next();
      while (!step.done) {
        if (step.value % 16 === 0)
          yield { done: (k + 0.6 + (0.4 * step.value) / tiles.length) / programs.length };
        step = compare.next();
      }
      const found: ProofPlace[] = [];
      for (const d of [...step.value, ...wallDifferences(probes, metal, owners, setupId)]) {
        const place = placeOf(d, owners, program, isLast);
        if (!place) continue;
        found.push(place);
        paint.push({
          setupId,
          kind: d.kind,
          tag: place.tag,
          side: blockSide(cell),
          blocks: d.blocks.blocks(),
        });
      }
      const own = together(found);
      places.push(...own);
      checks.push(...placeChecks(own, program, input));
    }
    before.push(metal);
  }
  return {
    ...volumes(places, mesh !== null),
    places,
    checks,
    paint,
    notCounted: notCounted(input, skipped.columns, before),
    cell,
  };
}

/** Whether no setup after one makes anything: a program may be proved without those of the others. */
const isLastAtWork = (job: DerivedJob, { setup }: DerivedSetup): boolean =>
  job.setups
    .slice(job.setups.findIndex((s) => s.setup.id === setup.id) + 1)
    .every((s) => s.operations.length === 0);

/** The cones that planned operations leave at holes' rims: a spot breaks an edge that the model has sharp. */
const wantedCones = (
  { operations }: DerivedSetup,
  bodiesOf: (tool: number) => readonly ToolBody[] | null,
): WantedCone[] =>
  operations.flatMap((o) =>
    operationKind(o.kind).breaksRims && o.tool.number !== null
      ? (bodiesOf(o.tool.number) ?? [])
          .filter((b) => b.part === 'cutting')
          .flatMap((body) => o.work.map(({ x, y, z }) => ({ x, y, z, body })))
      : [],
  );

/** The corners that are to be cut off edges which the model has sharp. */
const wantedEdges = ({ operations }: DerivedSetup): WantedEdge[] =>
  operations.flatMap((o) => o.work.flatMap((w) => w.edges ?? []));

/** Tiles that something was cut in, and those over what this setup is to make; in the last one all, where stock stood over the part. */
function tilesToCompare(metal: SetupMetal, job: DerivedJob, setupId: string, isLast: boolean): number[] {
  const { grid, cavities } = metal;
  const out = new Set<number>();
  const all = isLast && metal.setup.frame.body.standsProud;
  for (let t = 0; t < grid.across * grid.down; t++) if (all || grid.isTouched(t)) out.add(t);
  const own = new Set(
    job.rows.filter((r) => homeOf(r) === setupId).flatMap((r) => r.size.features.map((f) => f.id)),
  );
  const { x0, y0, cell } = grid.place;
  const side = TILE * cell;
  for (const { feature, box } of cavities.boxes) {
    if (!own.has(feature)) continue;
    for (let j = Math.floor((box[1] - y0) / side); j <= Math.floor((box[3] - y0) / side); j++)
      for (let i = Math.floor((box[0] - x0) / side); i <= Math.floor((box[2] - x0) / side); i++)
        if (i >= 0 && j >= 0 && i < grid.across && j < grid.down) out.add(j * grid.across + i);
  }
  return [...out].sort((a, b) => a - b);
}

function volumes(
  places: readonly ProofPlace[],
  isKnown: boolean,
): Pick<MetalProof, 'overcutVolume' | 'leftoverVolume' | 'largestOvercut'> {
  if (!isKnown) return { overcutVolume: null, leftoverVolume: null, largestOvercut: null };
  const of = (kind: DifferenceKind): ProofPlace[] => places.filter((p) => p.kind === kind);
  const sum = (list: readonly ProofPlace[]): number => list.reduce((n, p) => n + p.volume, 0);
  return {
    overcutVolume: sum(of('over-cut')),
    leftoverVolume: sum(of('left-over')),
    largestOvercut: Math.max(0, ...of('over-cut').map((p) => p.depth)),
  };
}

function notCounted(
  { job, mesh, programs, tools }: ProveMetalInput,
  open: number,
  metal: readonly SetupMetal[],
): string[] {
  const out: string[] = [];
  if (!mesh) out.push('anything: the shape of the part is not known here');
  const lost = metal.reduce((n, m) => n + m.grid.lost, 0);
  if (lost > 0) out.push(`${lost} cuts in columns that fall into too many pieces`);
  if (open > 0) out.push(`${open} columns where the part's mesh is not closed`);
  if (job.setups.some((s) => s.setup.stock.kind === 'solid'))
    out.push('the true shape of a stock that is another part: its box was taken');
  const unknown = new Set(
    programs
      .flatMap((p) => p.read.motions.map((m) => m.tool))
      .filter((n) => n !== 0 && !tools.some((t) => t.number === n)),
  );
  if (unknown.size > 0)
    out.push(`what ${[...unknown].map((n) => `T${n}`).join(', ')} cuts: not in the tool list`);
  return out;
}
