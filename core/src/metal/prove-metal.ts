import type { ReadProgram } from '../code/read/motion.ts';
import { fromFrame } from '../geometry/frame.ts';
import type { Vec3 } from '../geometry/vec.ts';
import type { DerivedJob, DerivedSetup, Row } from '../job/derive.ts';
import { isOptional } from '../features/registry.ts';
import { operationKind } from '../operations/registry.ts';
import type { Check, SeenHole } from '../proof/checks/check.ts';
import { partName } from '../space/space.ts';
import type { Tool } from '../tools/schema.ts';
import type { ToolBody } from './body.ts';
import { compareTiles, type Difference, type DifferenceKind } from './compare.ts';
import { TILE } from './grid.ts';
import type { Contact } from './run.ts';
import { bodiesByNumber, cellFor, REACH, SetupMetal, type MetalInput } from './setup-metal.ts';
import { FacePoints, WallProbes, type WallFinding } from './probes.ts';
import { WantedCuts, type WantedCone } from './wanted.ts';

/** A setup's program as it was read. */
export interface ReadSetup {
  setup: DerivedSetup;
  read: ReadProgram;
  /** The holes that this setup reaches, as they are to be made. */
  holes: readonly SeenHole[];
}

/** Where metal and model differ. */
export interface ProofPlace {
  kind: DifferenceKind;
  setupId: string;
  /** The row it belongs to, and the feature; null where it is no feature's. */
  tag: string | null;
  feature: string | null;
  /** In the part file's frame. */
  at: Vec3;
  /** mm and mm³. */
  depth: number;
  volume: number;
  line: number | null;
  tool: number | null;
}

export interface MetalProof {
  /** mm³ and mm, of what is not wanted. Null: the part's shape is not known. */
  overcutVolume: number | null;
  leftoverVolume: number | null;
  largestOvercut: number | null;
  places: ProofPlace[];
  checks: Check[];
  /** What the volumes do not count, in words. */
  notCounted: string[];
  /** Size of a cell, mm: walls are judged by the exact surfaces, volumes within about 1 % of a tool this many cells across. */
  cell: number;
}

/** How far a long proof is: from 0 to 1. */
export interface MetalProgress {
  setupId: string;
  done: number;
}

export interface ProveMetalInput extends MetalInput {
  job: DerivedJob;
  programs: readonly ReadSetup[];
  /** Differences no deeper than this are none, mm. */
  tolerance: number;
  /** A length with its unit, for messages. */
  say(mm: number): string;
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
  const points = mesh && input.faces ? new FacePoints(mesh, input.faces) : null;
  let before: SetupMetal | null = null;
  const skipped = { columns: 0 };
  for (const [k, program] of programs.entries()) {
    const { setup, read } = program;
    const metal: SetupMetal = new SetupMetal(setup, input, cell, before, bodiesOf);
    const setupId = setup.setup.id;
    const wanted = new WantedCuts(program.holes, wantedCones(setup, bodiesOf));
    const probes = points
      ? new WallProbes(points, setup.frame.frame, input.tolerance, (x, y, z) => wanted.at(x, y, z))
      : null;
    metal.run.probes = probes;
    const contacts: Contact[] = [];
    for (const [n, m] of read.motions.entries()) {
      contacts.push(...metal.run.run(m, n));
      if (n % SETTLE === SETTLE - 1) metal.grid.settle();
      if (n % STEP === STEP - 1) {
        yield { setupId, done: (k + (0.6 * n) / read.motions.length) / programs.length };
      }
    }
    checks.push(...contactChecks(contacts, program, input));
    if (metal.part) {
      const isLast = k === programs.length - 1;
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
          yield { setupId, done: (k + 0.6 + (0.4 * step.value) / tiles.length) / programs.length };
        step = compare.next();
      }
      const own = together(
        [...step.value, ...wallDifferences(probes, metal, owners, setupId)].flatMap(
          (d) => placeOf(d, owners, program, isLast) ?? [],
        ),
      );
      places.push(...own);
      checks.push(...placeChecks(own, program, input));
    }
    before = metal;
  }
  return {
    ...volumes(places, mesh !== null),
    places,
    checks,
    notCounted: notCounted(input, skipped.columns),
    cell,
  };
}

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

/** Rows by the faces of their features, and by their ids: what lies at a face is that feature's. */
function ownersOf(job: DerivedJob): Map<number | string, { row: Row; feature: string }> {
  const out = new Map<number | string, { row: Row; feature: string }>();
  for (const row of job.rows)
    for (const f of row.size.features)
      if (!isOptional(f)) for (const key of [f.id, ...f.faces]) out.set(key, { row, feature: f.id });
  return out;
}

/** The setup that is the last to work on a row; where none does, the first that looks at it. */
const homeOf = (row: Row): string | null => row.operations.at(-1)?.setupId ?? row.setupId;

/** What the walls say that the grid may be too coarse for. Their volumes are the grid's affair. */
function wallDifferences(
  probes: WallProbes | null,
  { cavities }: SetupMetal,
  owners: ReturnType<typeof ownersOf>,
  setupId: string,
): Difference[] {
  if (!probes) return [];
  const difference = (kind: DifferenceKind, w: WallFinding): Difference => ({
    kind,
    face: w.face,
    cavity: null,
    depth: w.depth,
    at: w.at,
    volume: 0,
    motion: w.motion,
  });
  const isDue = (face: number, x: number, y: number, z: number): boolean => {
    const owner = owners.get(face);
    if (!owner || owner.row.operations.length === 0 || homeOf(owner.row) !== setupId) return false;
    return cavities.featureAt(x, y, z) === owner.feature;
  };
  return [
    ...probes.cuts.map((w) => difference('over-cut', w)),
    ...probes.stuck(isDue).map((w) => difference('left-over', w)),
  ];
}

/** Places of one feature and kind are one: its worst, with the volume of all. */
function together(places: readonly ProofPlace[]): ProofPlace[] {
  const out = new Map<string, ProofPlace>();
  const loose: ProofPlace[] = [];
  for (const p of places) {
    if (p.feature === null) {
      loose.push(p);
      continue;
    }
    const key = `${p.kind}/${p.feature}`;
    const known = out.get(key);
    if (!known) out.set(key, { ...p });
    else out.set(key, { ...(p.depth > known.depth ? p : known), volume: known.volume + p.volume });
  }
  return [...out.values(), ...loose];
}

/** The hole that a cut far inside the part goes on from: the one on whose axis it lies; null for none. */
function holeOver(d: Difference, holes: readonly SeenHole[]): string | null {
  if (d.kind !== 'over-cut') return null;
  const over = holes.find(({ view }) => {
    const r = Math.max(...view.steps.map((s) => (s.shape === 'cylinder' ? s.diameter : s.startDiameter))) / 2;
    return Math.hypot(d.at[0] - view.x, d.at[1] - view.y) <= r && d.at[2] <= view.entryZ;
  });
  return over?.view.feature.id ?? null;
}

/** A difference with what it belongs to; null for metal that another setup is to take. */
function placeOf(
  d: Difference,
  owners: ReturnType<typeof ownersOf>,
  { setup, read, holes }: ReadSetup,
  isLast: boolean,
): ProofPlace | null {
  const owner = owners.get(d.cavity ?? d.face) ?? owners.get(holeOver(d, holes) ?? '') ?? null;
  const setupId = setup.setup.id;
  if (
    d.kind === 'left-over' &&
    (owner ? homeOf(owner.row) !== setupId : !(isLast && setup.frame.body.standsProud))
  )
    return null;
  const motion = d.motion === null ? null : read.motions[d.motion];
  return {
    kind: d.kind,
    setupId,
    tag: owner?.row.tag ?? null,
    feature: owner?.feature ?? null,
    at: fromFrame(setup.frame.frame, d.at),
    depth: d.depth,
    volume: d.volume,
    line: motion?.line ?? null,
    tool: motion?.tool ?? null,
  };
}

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

/** What met metal and was not to: one finding for each part of a tool, at its worst. */
function contactChecks(
  contacts: readonly Contact[],
  { setup, read }: ReadSetup,
  input: ProveMetalInput,
): Check[] {
  const worst = new Map<string, { contact: Contact; count: number }>();
  for (const c of contacts) {
    const key = `${read.motions[c.motion]?.tool}/${c.part}/${c.isRapid}`;
    const known = worst.get(key);
    if (!known) worst.set(key, { contact: c, count: 1 });
    else {
      known.count++;
      if (c.depth > known.contact.depth) known.contact = c;
    }
  }
  return [...worst.values()].flatMap(({ contact: c, count }): Check[] => {
    const m = read.motions[c.motion];
    if (!m) return [];
    const tool = input.tools.find((t) => t.number === m.tool);
    const what = `${c.part === 'cutting' ? '' : `the ${partName(c.part)} of `}${nameOf(tool, m.tool)}`;
    const more = count > 1 ? ` and ${count - 1} more` : '';
    return [
      {
        rule: c.isRapid ? 'rapid-into-metal' : 'holder-into-metal',
        severity: 'error',
        message: `line ${m.line}${more}: ${what} ${c.isRapid ? 'goes at rapid' : 'is led'} through ${input.say(c.depth)} of metal at ${where(input, c.at)}. ${c.isRapid ? 'Lift it over, or feed it there.' : 'Take a longer stick-out or a smaller holder, or cut less deep.'}`,
        setupId: setup.setup.id,
        line: m.line,
      },
    ];
  });
}

/** One finding for each row and kind, at its worst; what is wanted, and what nobody planned, is none. */
function placeChecks(places: readonly ProofPlace[], { setup }: ReadSetup, input: ProveMetalInput): Check[] {
  const planned = new Set(input.job.rows.filter((r) => r.operations.length > 0).map((r) => r.tag));
  const worst = new Map<string, { place: ProofPlace; count: number }>();
  for (const p of places) {
    if (p.kind === 'wanted' || (p.kind === 'left-over' && !planned.has(p.tag ?? ''))) continue;
    const key = `${p.kind}/${p.tag}`;
    const known = worst.get(key);
    if (!known) worst.set(key, { place: p, count: 1 });
    else worst.set(key, { place: p.depth > known.place.depth ? p : known.place, count: known.count + 1 });
  }
  return [...worst.values()].map(({ place: p, count }): Check => {
    const by =
      p.tool === null
        ? ''
        : ` by ${nameOf(
            input.tools.find((t) => t.number === p.tool),
            p.tool,
          )}`;
    const deep = p.depth >= REACH ? `${input.say(REACH)} or more` : input.say(p.depth);
    const more = count > 1 ? `, and in ${count - 1} more` : '';
    const at = `${where(input, p.at, setup)}${more}`;
    return {
      rule: p.kind,
      severity: p.kind === 'over-cut' ? 'error' : 'warning',
      message:
        p.kind === 'over-cut'
          ? `${p.tag ?? 'the part'}: cut ${deep} into what is to stay${by} at ${at}. Correct the depth or the path, or accept it with a reason.`
          : `${p.tag}: ${deep} of metal is left at ${at}. Cut deeper or wider, or accept it with a reason.`,
      tag: p.tag ?? undefined,
      feature: p.feature ?? undefined,
      setupId: p.setupId,
      line: p.line ?? undefined,
    };
  });
}

const nameOf = (tool: Tool | undefined, number: number): string =>
  tool ? `T${number} ${tool.description}` : `T${number}`;

/** A place in program coordinates, as it stands in the text. */
function where({ say }: ProveMetalInput, at: Vec3, setup?: DerivedSetup): string {
  const p = setup ? toProgram(setup, at) : at;
  return `X ${say(p[0])}, Y ${say(p[1])}, Z ${say(p[2])}`;
}

function toProgram({ frame: { frame } }: DerivedSetup, p: Vec3): Vec3 {
  const d = [p[0] - frame.origin[0], p[1] - frame.origin[1], p[2] - frame.origin[2]] as const;
  const along = (a: Vec3): number => d[0] * a[0] + d[1] * a[1] + d[2] * a[2];
  return [along(frame.x), along(frame.y), along(frame.z)];
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

function notCounted({ job, mesh, programs, tools }: ProveMetalInput, open: number): string[] {
  const out: string[] = [];
  if (!mesh) out.push('anything: the shape of the part is not known here');
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
