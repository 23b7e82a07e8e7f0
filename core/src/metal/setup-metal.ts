import { length2 } from '../geometry/path.ts';
import type { ReadProgram } from '../code/read/motion.ts';
import type { Feature } from '../features/family.ts';
import type { PartMesh } from '../model/mesh.ts';
import type { Face } from '../model/solid-model.ts';
import type { DerivedSetup } from '../job/derive.ts';
import { isParallel } from '../geometry/vec.ts';
import { toolProfile } from '../tools/profile.ts';
import type { Holder, Tool } from '../tools/schema.ts';
import { toolBodies, type ToolBody } from './body.ts';
import { Cavities } from './cavities.ts';
import { MetalGrid, type Fill } from './grid.ts';
import { PartColumns } from './part.ts';
import { MetalRun } from './run.ts';
import { TakenBefore } from './left-over.ts';
import { gridPlace, stockFill } from './stock.ts';

/** What metal is worked out from: the part, all that is to be made of it, and the tools. */
export interface MetalInput {
  /** The finished part; null: its shape is not known, and nothing is compared. */
  mesh: PartMesh | null;
  /** Its exact surfaces by face number; null where only the mesh is known. */
  faces: readonly Face[] | null;
  /** Every feature of the part, as corrected. */
  features: readonly Feature[];
  tools: readonly Tool[];
  holders: readonly Holder[];
}

/** How far a difference between metal and part is looked into, mm. */
export const REACH = 2;

/** One setup's metal: its stock, less what the setups before have taken, and what is cut of it here. */
export class SetupMetal {
  readonly part: PartColumns | null;
  readonly cavities: Cavities;
  readonly grid: MetalGrid;
  readonly run: MetalRun;
  /** What stands there before anything is cut here. */
  readonly base: Fill;
  private taken: TakenBefore | null = null;

  constructor(
    readonly setup: DerivedSetup,
    input: MetalInput,
    cell: number,
    before: readonly SetupMetal[],
    bodiesOf: (tool: number) => readonly ToolBody[] | null,
    /** Others begin with what it leaves. */
    isFollowed: boolean,
  ) {
    const { frame } = setup;
    const place = gridPlace(frame, cell);
    this.part = input.mesh ? new PartColumns(input.mesh, input.faces, frame.frame, place, REACH) : null;
    // What each of them took is gone; one that began with a stock of its own knows nothing of those before it.
    const gone = followed(setup, before).map((b) => b.took);
    this.cavities = new Cavities(input.features, frame.frame, (p) => gone.some((g) => g.hadAt(p)));
    const fresh = stockFill(frame, this.part, this.cavities, setup.setup.stock.margin);
    this.base = gone.reduce((base, g) => g.leaves(base, frame), fresh);
    const top = Math.max(frame.stock.max[2], frame.part.max[2]);
    this.grid = new MetalGrid(place, this.base, top, isFollowed);
    this.run = new MetalRun(this.grid, bodiesOf);
  }

  /** What it has taken away, for the setups after it: asked when it is done. */
  private get took(): TakenBefore {
    return (this.taken ??= new TakenBefore({ grid: this.grid, frame: this.setup.frame }));
  }
}

/** The setups whose work a setup begins with, in order: back to the last that began with a stock of its own. */
function followed(setup: DerivedSetup, before: readonly SetupMetal[]): SetupMetal[] {
  const out: SetupMetal[] = [];
  let now = setup;
  for (let k = before.length - 1; k >= 0 && followsBefore(now); k--) {
    const earlier = before[k]!;
    out.unshift(earlier);
    now = earlier.setup;
  }
  return out;
}

/** Whether a setup's stock is what the one before leaves: by name, or since outer faces are made once. */
const followsBefore = ({ setup }: DerivedSetup): boolean =>
  setup.stock.kind === 'left-over' || setup.stock.kind === 'prepared';

/** Outlines by magazine number, each worked out once. */
export function bodiesByNumber(
  tools: readonly Tool[],
  holders: readonly Holder[],
): (tool: number) => readonly ToolBody[] | null {
  const known = new Map<number, readonly ToolBody[] | null>();
  return (number) => {
    let bodies = known.get(number);
    if (bodies === undefined) {
      const tool = tools.find((t) => t.number === number);
      const holder = holders.find((h) => h.id === tool?.holderId) ?? null;
      known.set(number, (bodies = tool ? toolBodies(toolProfile(tool, holder)) : null));
    }
    return bodies;
  };
}

/** Cells across the smallest tool. */
const ACROSS = 40;
/** Cells that the motions of a program may pass in all: beyond it the grid is made coarser. */
const MOST_CELLS = 4e7;
const FINEST = 0.02;
/** Columns that a job's programs may touch in all: beyond it the grid is made coarser. */
const MOST_COLUMNS = 5e6;
/** Cells that may be looked up in what setups along other axes took. */
const MOST_LOOKED = 2.5e8;
/** About what is touched beside a cut, since metal is kept in tiles, mm. */
const BESIDE = 5;
/** Cells along the longest side of a stock, at most. */
const MOST_ALONG = 30_000;

/**
 * A cell for a whole job, mm: a fortieth of the smallest tool that is used, coarser where the motions would pass too many. One size for
 * all setups, so that one can take over from another without loss.
 */
export function cellFor(
  programs: readonly { setup: DerivedSetup; read: ReadProgram }[],
  bodiesOf: (tool: number) => readonly ToolBody[] | null,
): number {
  let smallest = Infinity;
  let area = 0;
  let touched = 0;
  let longest = 0;
  let looked = 0;
  for (const [k, { read, setup }] of programs.entries()) {
    const { min, max } = setup.frame.stock;
    longest = Math.max(longest, max[0] - min[0], max[1] - min[1]);
    const whole = (max[0] - min[0] + BESIDE) * (max[1] - min[1] + BESIDE);
    let own = 0;
    // Several tools in one place touch it once.
    const places = new Map<string, number>();
    for (const m of read.motions) {
      if (m.kind === 'rapid' || m.kind === 'dwell') continue;
      const cutting = bodiesOf(m.tool)?.filter((b) => b.part === 'cutting') ?? [];
      const radius = Math.max(0, ...cutting.map((b) => b.radius));
      if (radius === 0) continue;
      smallest = Math.min(smallest, 2 * radius);
      const [dx, dy] = [(m.to[0] ?? 0) - (m.from[0] ?? 0), (m.to[1] ?? 0) - (m.from[1] ?? 0)];
      const turned =
        m.kind === 'arc'
          ? 2 *
            Math.PI *
            length2((m.centre?.[0] ?? 0) - (m.from[0] ?? 0), (m.centre?.[1] ?? 0) - (m.from[1] ?? 0))
          : 0;
      // What lies beyond the stock passes no cells.
      const round = Math.min(turned, 4 * longest) * Math.max(1, m.turns ?? 0);
      const way = Math.max(Math.min(length2(dx, dy), 2 * longest), round);
      area += way * 2 * radius + 4 * radius * radius;
      if (way > 0) own += way * (2 * radius + BESIDE);
      else {
        const place = `${m.to[0]}/${m.to[1]}`;
        places.set(place, Math.max(radius, places.get(place) ?? 0));
      }
    }
    for (const radius of places.values()) own += (2 * radius + BESIDE) ** 2;
    touched += Math.min(own, whole);
    // What setups that look along another axis have taken is looked up cell by cell down each column.
    const { z } = setup.frame.frame;
    const turned = programs.slice(0, k).filter((p) => !isParallel(p.setup.frame.frame.z, z)).length;
    const isAll = k === programs.length - 1 && setup.frame.body.standsProud;
    looked += turned * (isAll ? whole : Math.min(own, whole)) * (max[2] - min[2]);
  }
  if (smallest === Infinity) return 0.2;
  return Math.max(
    FINEST,
    longest / MOST_ALONG,
    smallest / ACROSS,
    Math.sqrt(area / MOST_CELLS),
    Math.sqrt(touched / MOST_COLUMNS),
    Math.cbrt(looked / MOST_LOOKED),
  );
}
