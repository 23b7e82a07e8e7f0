import type { Motion } from '../code/read/motion.ts';
import { known } from '../lists.ts';
import type { ProfilePart } from '../tools/profile.ts';
import type { ToolBody } from './body.ts';
import { MetalGrid } from './grid.ts';
import { TILE } from './tile.ts';
import type { WallProbes } from './probes.ts';
import { arcWays, lineWay, type Span, type Way } from './sweep.ts';

/** Metal where a tool was not to meet any: on a rapid way, or with what does not cut. Program coordinates, mm. */
export interface Contact {
  /** Number of the motion in the program. */
  motion: number;
  part: ProfilePart;
  /** It went at rapid; else it was fed, and what met the metal was no cutting part. */
  isRapid: boolean;
  /** How much of a column stood in the way at the worst place, and where that is. */
  depth: number;
  at: [number, number, number];
}

/** Metal in less of a column than this is touched, not met, mm. */
const TOUCHED = 0.02;
/** And so is less than this share of a cell more than one: corners of cells beside a wall. */
const LEAST_CELLS = 2;

/** Motions of a program, one after the other, through metal. */
export class MetalRun {
  private readonly out: Span = { low: 0, high: 0 };
  private readonly reached: Span = { low: 0, high: 0 };
  /** A tool that goes up and down in one place takes nothing where it has been. */
  private plunge = { x: NaN, y: NaN, tool: -1, low: Infinity };

  constructor(
    readonly grid: MetalGrid,
    /** A tool's outline by its number; null for one that is not known. */
    private readonly bodiesOf: (tool: number) => readonly ToolBody[] | null,
  ) {}

  /** Asked of every way that something cuts along; null: nobody looks. */
  probes: Pick<WallProbes, 'pass'> | null = null;
  /** Volume that the last motion took, mm³. */
  took = 0;

  /** After the metal was put back: where tools have been is full again. */
  forget(): void {
    this.plunge = { x: NaN, y: NaN, tool: -1, low: Infinity };
  }

  /** Takes away what a motion's tool passes through; gives what it met and was not to meet. `index`: the motion's number. */
  run(m: Motion, index: number): Contact[] {
    this.took = 0;
    const [x1, y1, z1] = m.to;
    if (m.kind === 'dwell' || x1 === null || y1 === null || z1 === null) return [];
    const bodies = this.bodiesOf(m.tool);
    if (!bodies) return [];
    // From a place that the text does not say, such as home, it comes straight down from above all metal.
    const [x0, y0, z0] = m.from;
    const to = [x1, y1, z1] as const;
    const from =
      x0 === null || y0 === null || z0 === null
        ? ([x1, y1, Math.max(z1, this.grid.top) + 1] as const)
        : ([x0, y0, z0] as const);
    if (this.wasThere(m, from, to)) return [];
    const ways =
      m.kind === 'arc'
        ? arcWays(
            from,
            to,
            planeCentre(m),
            m.clockwise === true,
            from[2] === z1 ? Math.min(1, m.turns ?? 0) : (m.turns ?? 0),
          )
        : [lineWay(from, to)];
    return this.sweep(m, index, ways, bodies);
  }

  private sweep(m: Motion, index: number, ways: readonly Way[], bodies: readonly ToolBody[]): Contact[] {
    const isRapid = m.kind === 'rapid';
    const met = new Map<ProfilePart, Contact & { cells: number }>();
    if (!isRapid)
      this.probes?.pass(
        ways,
        bodies.filter((b) => b.part === 'cutting'),
        index,
      );
    // What cuts goes first: the shank follows where the flutes have been.
    for (const isCutting of [true, false])
      for (const way of ways)
        for (const body of bodies)
          if ((body.part === 'cutting') === isCutting)
            this.pass(
              way,
              body,
              index,
              isCutting && !isRapid ? null : (x, y) => this.meet(met, m, index, body, x, y),
            );
    return [...met.values()].flatMap(({ cells, ...c }) =>
      cells >= LEAST_CELLS && c.depth > TOUCHED ? [c] : [],
    );
  }

  private meet(
    met: Map<ProfilePart, Contact & { cells: number }>,
    m: Motion,
    index: number,
    body: ToolBody,
    x: number,
    y: number,
  ): void {
    const { taken } = this.grid;
    let c = met.get(body.part);
    if (!c) {
      c = {
        motion: index,
        part: body.part,
        isRapid: m.kind === 'rapid',
        depth: 0,
        at: [x, y, 0],
        cells: 0,
      };
      met.set(body.part, c);
    }
    if (taken.length > TOUCHED) c.cells++;
    if (taken.length > c.depth) {
      c.depth = taken.length;
      c.at = [x, y, taken.low];
    }
  }

  /** One body along one stretch, row by row. `meet` is told of each column that held metal. */
  private pass(way: Way, body: ToolBody, index: number, meet: ((x: number, y: number) => void) | null): void {
    const { grid, out } = this;
    const { x0, y0, cell, nx, ny } = grid.place;
    const r = body.radius;
    const j0 = Math.max(0, Math.ceil((way.box[1] - r - y0) / cell - 0.5));
    const j1 = Math.min(ny - 1, Math.floor((way.box[3] + r - y0) / cell - 0.5));
    const { reached } = this;
    // What does not cut leaves the metal where it is: that it met it is said.
    const isCutting = body.part === 'cutting';
    const isEven = way.even(body, out);
    const [low, high] = [out.low, out.high];
    const area = cell * cell;
    const lowest = way.lowest + body.low;
    for (let j = j0; j <= j1; j++) {
      const y = y0 + (j + 0.5) * cell;
      if (!way.row(r, y, reached)) continue;
      const i1 = Math.min(nx - 1, Math.floor((reached.high - x0) / cell - 0.5 + 1e-9));
      const row = Math.floor(j / TILE) * grid.across;
      for (let i = Math.max(0, Math.ceil((reached.low - x0) / cell - 0.5 - 1e-9)); i <= i1; i++) {
        // A tile whose metal lies lower is passed in one step.
        if (lowest >= grid.topOf(row + Math.floor(i / TILE))) {
          i = Math.floor(i / TILE) * TILE + TILE - 1;
          continue;
        }
        if (isEven && isCutting && !meet) {
          const last = Math.min(i1, Math.floor(i / TILE) * TILE + TILE - 1);
          this.took += grid.takeRun(i, last, j, low, high, index + 1) * area;
          i = last;
          continue;
        }
        const x = x0 + (i + 0.5) * cell;
        if (isEven) {
          if (!grid.take(i, j, low, high, index + 1, isCutting)) continue;
        } else {
          if (!way.span(body, x, y, out) || out.high <= out.low) continue;
          if (!grid.take(i, j, out.low, out.high, index + 1, isCutting)) continue;
        }
        if (isCutting) this.took += grid.taken.length * area;
        meet?.(x, y);
      }
    }
  }

  /** Whether a straight way up or down lies where this tool has been since it came here. */
  private wasThere(
    m: Motion,
    from: readonly [number, number, number],
    to: readonly [number, number, number],
  ): boolean {
    const { plunge } = this;
    const isUpright = from[0] === to[0] && from[1] === to[1] && m.kind !== 'arc';
    if (!isUpright || plunge.x !== from[0] || plunge.y !== from[1] || plunge.tool !== m.tool) {
      this.plunge = {
        x: isUpright ? to[0] : NaN,
        y: to[1],
        tool: m.tool,
        low: isUpright ? Math.min(from[2], to[2]) : Infinity,
      };
      return false;
    }
    const low = Math.min(from[2], to[2]);
    if (low >= plunge.low) return true;
    plunge.low = low;
    return false;
  }
}

/** Where an arc's centre lies in its plane. */
function planeCentre(m: Motion): readonly [number, number] {
  const [x, y] = known(m.centre, 'the centre of an arc');
  return [x, y];
}
