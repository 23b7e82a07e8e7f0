import { at } from '../lists.ts';
import { describeTool } from '../code/write/write.ts';
import type { ProgramFile } from '../code/files/split.ts';
import { filesOf } from '../job/files.ts';
import type { DerivedJob } from '../job/derive.ts';
import type { ProducedSetup } from '../job/produce.ts';
import type { PartMesh } from '../model/mesh.ts';
import { visitsOf } from '../order/sequence.ts';
import type { Plan } from '../plan/plan.ts';
import { attitudeName } from '../setup/setup.ts';
import { holdingInWords, stockInWords, zeroInWords } from '../setup/setup-frame.ts';
import { toolProfile } from '../tools/profile.ts';
import type { Tool } from '../tools/schema.ts';
import { formatLength } from '../units/length.ts';
import { holeLines } from './hole-list.ts';
import type { FloorSheet, SheetTool } from './schema.ts';
import { frontView, topView, type EdgePieces } from './views.ts';

/** What floor sheets are made from: a produced job, and the part to draw. */
export interface SheetInput {
  name: string;
  plan: Plan;
  job: DerivedJob;
  programs: readonly ProducedSetup[];
  mesh: PartMesh;
  edges: EdgePieces;
  /** SHA-256 of a file's text, hex; null where it is not worked out. */
  hashOf?(file: ProgramFile): string | null;
}

/** One floor sheet for each setup that has a program. */
export const floorSheets = (input: SheetInput): FloorSheet[] =>
  input.programs.map((p) => floorSheet(input, p));

function floorSheet(
  { name, plan, job, mesh, edges, hashOf }: SheetInput,
  program: ProducedSetup,
): FloorSheet {
  const { setup, frame, operations } = program.setup;
  const u = plan.units === 'mm' ? 'mm' : 'in';
  const say = (mm: number): string => formatLength(mm, plan.units);
  const length = (mm: number): string => `${say(mm)} ${u}`;
  const own = job.rows.filter((r) => r.operations.some((o) => o.setupId === setup.id));
  const here = job.rows.filter((r) => r.setupId === setup.id);
  const holes = holeLines(own, plan.units);
  return {
    format: 'yellow-pin/floor-sheet@1',
    job: name,
    setupId: setup.id,
    setup: setup.name,
    number: job.setups.findIndex((s) => s.setup.id === setup.id) + 1,
    of: job.setups.length,
    units: plan.units,
    machine: job.machine.name,
    material: job.material.name,
    attitude: attitudeName(setup.attitude),
    workOffset: setup.workOffset,
    zero: zeroInWords(setup, length),
    clearance: length(setup.clearance),
    stock: `${stockInWords(program.setup.setup, frame, say)} ${u}`,
    saw: sawn(program.setup, length),
    holding: holdingInWords(setup, say),
    feedPercent: job.feedPercent,
    seconds: program.time.total,
    files: filesOf(program, plan.splits, job.machine).map((f) => ({
      name: f.fileName,
      lines: f.text.trimEnd().split('\n').length,
      sha256: hashOf?.(f) ?? null,
    })),
    top: topView(frame, mesh, edges, tagPlaces(own)),
    front: frontView(frame, mesh, edges),
    tools: sheetTools(program, plan.units),
    holes,
    toKnow: operations.flatMap((o) =>
      o.remarks.flatMap((r) =>
        r.onSheet === undefined ? [] : [{ what: `${o.tag}, ${o.label}`, text: r.onSheet }],
      ),
    ),
    handEdits: program.taken.map(({ firstLine, before, after }) => {
      const now = after.length > 0 ? after.join(' / ') : 'nothing';
      return `line ${firstLine}: ${now}${before.length > 0 ? ` in place of ${before.join(' / ')}` : ' put in'}`;
    }),
    accepted: plan.accepted
      .filter((a) => a.setupId === null || a.setupId === setup.id)
      .map(({ message, reason }) => ({ message, reason })),
    notMade: [
      ...here.flatMap((r) =>
        r.state === 'open' || r.state === 'left out'
          ? [`${r.tag} ${r.calloutText} ×${r.size.features.length}${r.reasons[0] ? `: ${r.reasons[0]}` : ''}`]
          : [],
      ),
      ...here.flatMap((r) => r.blocked.map((b) => `${b.label}: ${b.reason}`)),
      ...own.flatMap((r) =>
        r.operations.some((o) => o.tool.number === null)
          ? [
              `${r.tag}: ${r.operations.find((o) => o.tool.number === null)?.tool.description ?? ''} has no number`,
            ]
          : [],
      ),
    ],
  };
}

/** Sizes longer than the first are not lettered one by one: a plate of two thousand holes is not read hole by hole. */
const MOST_TAGS = 300;

/** Where each thing that is made stands, seen from above. */
function tagPlaces(rows: DerivedJob['rows']): FloorSheet['top']['tags'] {
  const all = rows.flatMap((row): FloorSheet['top']['tags'] => {
    const places = row.holes.length > 0 ? row.holes : (row.operations[0]?.work ?? []);
    return places.map((h) => ({ label: h.label, at: [h.x, h.y] }));
  });
  return joined(all.length <= MOST_TAGS ? all : all.filter((t) => /^[A-Z]+1$/.test(t.label)));
}

/** Labels on one axis stand beside each other. */
function joined(tags: FloorSheet['top']['tags']): FloorSheet['top']['tags'] {
  const out = new Map<string, FloorSheet['top']['tags'][number]>();
  for (const { label, at } of tags) {
    const key = at.map((v) => v.toFixed(1)).join();
    const before = out.get(key);
    out.set(key, { label: before ? `${before.label} ${label}` : label, at });
  }
  return [...out.values()];
}

/** What is cut off for the stock, with the size to saw. */
function sawn(
  { setup, frame: { body } }: Pick<ProducedSetup['setup'], 'setup' | 'frame'>,
  length: (mm: number) => string,
): string | null {
  const size = [0, 1, 2].map((i) => at(body.box.max, i) - at(body.box.min, i));
  const { kind } = setup.stock;
  if (kind === 'round-bar')
    return `round ${length(2 * body.radius)}, ${length(at(size, 'xyz'.indexOf(body.along)))} long`;
  if (kind === 'block' || kind === 'outline') return size.map(length).join(' × ');
  return null;
}

function sheetTools(program: ProducedSetup, units: Plan['units']): SheetTool[] {
  const say = (mm: number): string => formatLength(mm, units);
  const visits = visitsOf(program.setup.operations);
  const tools = [...new Map(visits.map((v) => [v.tool.id, v.tool])).values()];
  const tags = (t: Tool): string[] =>
    visits.flatMap((v) => (v.tool.id === t.id ? v.operations.map((o) => o.tag) : []));
  return tools.map((t) => ({
    number: t.number,
    kind: t.kind,
    description: t.description || describeTool(t, units),
    diameter: say(t.diameter),
    flute: say(t.fluteLength),
    stickOut: say(t.stickOut),
    makes: [...new Set(tags(t))].join(' '),
    seconds: (t.number === null ? undefined : program.time.byTool.get(t.number)) ?? 0,
    outline: toolProfile(t, null).map((p): [number, number] => [p.z, p.r]),
  }));
}
