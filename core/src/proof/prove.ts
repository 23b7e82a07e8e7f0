import { first } from '../lists.ts';
import type { WantedRim } from '../motion/work.ts';
import type { ReadProgram } from '../code/read/motion.ts';
import { readProgram, type ToolsSaid } from '../code/read/read.ts';
import { Words } from '../code/write/words.ts';
import { isHole } from '../features/family.ts';
import type { DerivedJob, DerivedSetup } from '../job/derive.ts';
import { printed } from '../job/print.ts';
import { isReached, labelOf } from '../job/placed.ts';
import { viewHole } from '../operations/hole-view.ts';
import type { Space } from '../space/space.ts';
import type { Disc, ProfilePoint } from '../tools/profile.ts';
import { toolKind } from '../tools/kinds/registry.ts';
import type { Tool } from '../tools/schema.ts';
import { formatLength } from '../units/length.ts';
import type { Check, MadeHole, SeenHole } from './checks/check.ts';
import { CHECK_RULES } from './checks/rules/registry.ts';
import { isKnown } from './chords.ts';
import { foldFloods } from './floods.ts';
import { AreaFinder, milledAreas, seenAreas } from './areas/finder.ts';
import { EdgeFinder, milledEdges, seenEdges } from './edges/finder.ts';
import { milledRises, RiseFinder } from './edges/rises.ts';
import { entryHoles } from './entry-holes.ts';
import { GrooveFinder, milledGrooves, seenGrooves } from './grooves/finder.ts';
import { HoleFinder, milledHoles, type MilledHole } from './milled.ts';
import { madeHoles } from './pairing.ts';
import { milledBosses, seenBosses, type SeenBoss } from './threads/bosses.ts';
import { programTime, type ProgramTime } from './time.ts';

export interface ProvenProgram {
  read: ReadProgram;
  checks: Check[];
  time: ProgramTime;
  made: MadeHole[];
  milled: MilledHole[];
  /** The holes that the setup reaches, as they are to be made there. */
  holes: SeenHole[];
  /** The bosses with a thread that it reaches. */
  bosses: SeenBoss[];
}

export interface ProofInput {
  job: DerivedJob;
  setup: DerivedSetup;
  /** What is in the way in that setup. */
  space: Space;
  /** A tool's whole outline as it stands in the machine. */
  discs(tool: Tool): readonly Disc[];
  outline(tool: Tool): readonly ProfilePoint[];
  tools: readonly Tool[];
  units: 'mm' | 'inch';
}

/** Reads a setup's text back and runs every check on it. Nothing here looks at how the text was written. */
export function proveProgram(text: string, input: ProofInput): ProvenProgram {
  const { job, setup, tools, units } = input;
  const byNumber = new Map(tools.flatMap((t) => (t.number === null ? [] : [[t.number, t] as const])));
  const toolOf = (n: number): Tool | null => byNumber.get(n) ?? null;
  const read = readProgram(text, job.machine, toolsSaid(setup, toolOf));
  const say = (mm: number): string => `${formatLength(mm, units)} ${units === 'mm' ? 'mm' : 'in'}`;
  const holes = seenHoles(job, setup, say);
  const made = madeHoles(read, holes, setup, toolOf);
  const rises = new RiseFinder(setup);
  const edges = new EdgeFinder(seenEdges(setup), (t) => input.outline(t));
  const finder = new HoleFinder(holes);
  const bosses = seenBosses(job, setup);
  const milled = milledHoles(withoutEdges(read, { edges, rises }, toolOf), finder, toolOf);
  const grooves = new GrooveFinder(seenGrooves(job, setup), (t) => input.outline(t));
  const areas = new AreaFinder(seenAreas(job, setup), input.space);
  const words = new Words(job.machine, units);
  const word = (letter: string, mm: number): string =>
    letter === 'F' ? `F${words.feed(mm, true)}` : `${letter}${words.coordinate(mm)}`;
  const setupId = setup.setup.id;
  const context = {
    ...input,
    read,
    holes,
    made,
    milled,
    finder,
    grooves,
    milledGrooves: milledGrooves(read, grooves, toolOf),
    areas,
    milledAreas: milledAreas(read, areas, toolOf),
    entryHoles: entryHoles(
      made.flatMap((m) => (m.view ? [] : [m.call])),
      { grooves, areas },
      toolOf,
    ),
    edges,
    milledEdges: milledEdges(read, edges, toolOf),
    rises,
    milledRises: milledRises(read, rises, toolOf),
    bosses,
    milledBosses: milledBosses(read, bosses, toolOf),
    toolOf,
    madeEarlier: madeEarlier(job, setup),
    say,
    word,
  };
  const checks: Check[] = read.problems.map((p) =>
    p.severity === 'error' ? { ...p, setupId, mustMend: true } : { ...p, setupId },
  );
  for (const { run } of CHECK_RULES) checks.push(...run(context).map((c) => ({ ...c, setupId })));
  return {
    read,
    checks: foldFloods(checks),
    time: programTime(read, job.machine),
    made,
    milled,
    holes,
    bosses,
  };
}

/** What reading a setup's text must know of its tools: D holds the radius of the tool of its number. */
export function toolsSaid(
  { operations }: Pick<DerivedSetup, 'operations'>,
  toolOf: (number: number) => Tool | null,
): ToolsSaid {
  const drilling = new Set(
    operations.filter((o) => o.work.some((w) => w.motion.kind === 'cycle')).map((o) => o.tool.number),
  );
  return {
    radiusOf: (d) => {
      const tool = toolOf(d);
      return tool ? tool.diameter / 2 : null;
    },
    makesHoles: (n) => {
      const tool = toolOf(n);
      return tool !== null && (toolKind(tool.kind).onlyPlunges || drilling.has(n));
    },
  };
}

/** What was read without what goes along wanted edges: a hole's rim is judged as an edge then. */
const withoutEdges = (
  read: ReadProgram,
  { edges, rises }: { edges: EdgeFinder; rises: RiseFinder },
  toolOf: (n: number) => Tool | null,
): Pick<ReadProgram, 'motions'> =>
  edges.edges.length + rises.rises.length === 0
    ? read
    : {
        motions: read.motions.filter((m) => {
          const tool = toolOf(m.tool);
          return !tool || !isKnown(m) || !(edges.isOn(m, tool) || rises.isOn(m, tool));
        }),
      };

/** The holes that this setup reaches, as they are to be made from its side: by the print where that is the hole's own side. */
function seenHoles(job: DerivedJob, setup: DerivedSetup, say: (mm: number) => string): SeenHole[] {
  const wanted = new Map<string, WantedRim[]>();
  for (const { label, wanted: rims } of setup.operations.flatMap((o) => o.work))
    if (rims) wanted.set(label, [...(wanted.get(label) ?? []), ...rims]);
  return job.rows.flatMap((row) =>
    row.size.features.flatMap((f, i): SeenHole[] => {
      const view = isHole(f) ? viewHole(f, labelOf(row.size, i), setup.frame.frame) : null;
      if (!view) return [];
      const home = job.setups.find((s) => isReached(f, s));
      const isHome = home?.setup.id === setup.setup.id;
      const made = isHome ? printed(view, row.print, row.size.features.length, say).view : view;
      return [{ view: made, row, wanted: wanted.get(view.label) ?? [] }];
    }),
  );
}

/** Features that the setups before make: what they opened is air by now. */
function madeEarlier(job: DerivedJob, setup: DerivedSetup): Set<string> {
  const before = job.setups.slice(
    0,
    job.setups.findIndex((s) => s.setup.id === setup.setup.id),
  );
  const ids = new Set(before.map((s) => s.setup.id));
  return new Set(
    job.rows.flatMap((r) =>
      r.operations.filter((o) => ids.has(o.setupId)).flatMap((o) => o.work.map((w) => w.feature)),
    ),
  );
}

/** Checks of the plan itself, before any code: open rows, remarks of operations, two tools on one number. */
export function planChecks(job: DerivedJob, tools: readonly Tool[]): Check[] {
  const out: Check[] = [];
  for (const row of job.rows) {
    const feature = first(row.size.features).id;
    if (row.state === 'unreachable' || row.state === 'open') {
      for (const message of row.reasons)
        out.push({
          rule: row.state === 'open' ? 'open-row' : 'unreachable',
          severity: 'warning',
          message: `${row.tag}: ${message}`,
          tag: row.tag,
          feature,
        });
    }
    for (const { rule, severity, message } of row.remarks)
      out.push({ rule, severity, message: `${row.tag}: ${message}`, tag: row.tag, feature });
  }
  for (const { setup, frame, operations } of job.setups) {
    const clearance = frame.top + setup.clearance;
    for (const o of operations) {
      const high = o.work.filter((h) => h.r > clearance + 1e-6);
      if (high.length > 0)
        out.push({
          rule: 'r-above-clearance',
          severity: 'error',
          mustMend: true,
          message: `${o.tag}: the R level of ${o.label} stands ${(first(high).r - clearance).toFixed(2)} mm above the clearance level. Raise the clearance in the setup, or lower R.`,
          tag: o.tag,
          setupId: setup.id,
        });
    }
  }
  const byNumber = new Map<number, Tool>();
  const used = new Set(job.rows.flatMap((r) => r.operations.map((o) => o.tool.id)));
  for (const t of tools) {
    if (t.number === null) continue;
    const other = byNumber.get(t.number);
    if (other)
      out.push({
        rule: 'number-twice',
        severity: used.has(t.id) || used.has(other.id) ? 'error' : 'warning',
        mustMend: true,
        message: `T${t.number} holds two tools: ${other.description} and ${t.description}. Give one of them another number.`,
      });
    byNumber.set(t.number, t);
  }
  for (const o of job.rows.flatMap((r) => r.operations)) {
    if (o.tool.number === null)
      out.push({
        rule: 'no-number',
        severity: 'error',
        mustMend: true,
        message: `${o.tag}: ${o.tool.description} lies in the drawer. Give it a free number in the magazine for this job.`,
        tag: o.tag,
      });
  }
  return out;
}
