import { length2 } from '../geometry/path.ts';
import type { MachineProfile } from '../code/profiles/schema.ts';
import { mainLine, type Motion } from '../code/read/motion.ts';
import { motionTimes } from '../proof/time.ts';
import type { MetalSnapshot } from './grid.ts';
import { TILE } from './tile.ts';
import { arcSweep } from '../geometry/arc.ts';
import { meshMetal, type MetalMesh } from './picture.ts';
import { bodiesByNumber, SetupMetal, type MetalInput } from './setup-metal.ts';
import type { ReadSetup } from './places.ts';

/** Where a tool's tip is at a moment; null where the text does not say. Program coordinates, mm. */
export interface Pose {
  tool: number;
  at: [number, number, number] | null;
  line: number;
  isRapid: boolean;
  /** Number of the motion that is under way. */
  motion: number;
}

/** A patch of the metal's surface by its number; what is not named looks as it did. */
export interface Patch {
  patch: number;
  mesh: MetalMesh;
}

/** Cells of the shown metal along the longest side. */
const ACROSS = 420;
/** Tiles of a patch along its side: one thing to draw each. */
const PATCH = 3;
/** States kept to come back to. */
const KEPT = 40;

/** One setup's program, to be looked at moment by moment: metal that comes off, and where the tool is. */
export class Player {
  readonly motions: readonly Motion[];
  /** When each motion ends, s from the start. */
  readonly ends: Float64Array;
  private readonly metal: SetupMetal;
  private readonly states: { motion: number; state: MetalSnapshot }[] = [];
  /** Motions that are cut by now. */
  private done = 0;
  private readonly stale = new Set<number>();
  private readonly patchesAcross: number;

  /** `upTo`: the programs of the setups before, and then the one to be played. */
  constructor(input: MetalInput, upTo: readonly ReadSetup[], machine: MachineProfile) {
    const bodiesOf = bodiesByNumber(input.tools, input.holders);
    const { stock } = upTo[upTo.length - 1]!.setup.frame;
    const longest = Math.max(stock.max[0] - stock.min[0], stock.max[1] - stock.min[1]);
    const cell = Math.max(0.05, longest / ACROSS);
    const before: SetupMetal[] = [];
    for (const { setup, read } of upTo.slice(0, -1)) {
      const metal = new SetupMetal(setup, input, cell, before, bodiesOf, true);
      read.motions.forEach((m, n) => metal.run.run(m, n));
      before.push(metal);
    }
    const own = upTo[upTo.length - 1]!;
    this.metal = new SetupMetal(own.setup, input, cell, before, bodiesOf, false);
    this.motions = own.read.motions;
    this.ends = motionTimes(own.read, machine);
    const { across, down } = this.metal.grid;
    this.patchesAcross = Math.ceil(across / PATCH);
    for (let p = 0; p < this.patchesAcross * Math.ceil(down / PATCH); p++) this.stale.add(p);
    this.states.push({ motion: 0, state: this.metal.grid.snapshot() });
  }

  get total(): number {
    return this.ends[this.ends.length - 1] ?? 0;
  }

  /** The motion that is under way at a moment, s. */
  motionAt(seconds: number): number {
    let [low, high] = [0, this.ends.length - 1];
    while (low < high) {
      const mid = (low + high) >> 1;
      if (this.ends[mid]! <= seconds) low = mid + 1;
      else high = mid;
    }
    return Math.max(0, low);
  }

  /** Brings the metal to a moment, s, and says where the tool is. */
  goTo(seconds: number): Pose {
    const n = this.motionAt(seconds);
    const isOver = seconds >= this.total;
    this.cutTo(isOver ? this.motions.length : n);
    const m = this.motions[n];
    if (!m) return { tool: 0, at: null, line: 0, isRapid: true, motion: 0 };
    const start = n === 0 ? 0 : this.ends[n - 1]!;
    const length = this.ends[n]! - start;
    const share = isOver || length <= 0 ? 1 : Math.min(1, Math.max(0, (seconds - start) / length));
    const part = partOf(m, share);
    if (part && share < 1 && !isOver) this.metal.run.run(part, n);
    return {
      tool: m.tool,
      at: part ? (part.to as [number, number, number]) : null,
      line: mainLine(m),
      isRapid: m.kind === 'rapid',
      motion: n,
    };
  }

  private cutTo(n: number): void {
    const { grid, run } = this.metal;
    if (n < this.done) {
      const kept = this.states.filter((s) => s.motion <= n);
      const state = kept[kept.length - 1]!;
      this.states.length = kept.length;
      grid.restore(state.state);
      run.forget();
      this.done = state.motion;
    }
    const every = Math.max(20, Math.ceil(this.motions.length / KEPT));
    while (this.done < n) {
      run.run(this.motions[this.done]!, this.done);
      this.done++;
      const last = this.states[this.states.length - 1]!;
      if (this.done - last.motion >= every) {
        grid.settle();
        this.states.push({ motion: this.done, state: grid.snapshot() });
      }
    }
  }

  /** The patches of the surface that have changed since they were last asked for. */
  patches(): Patch[] {
    const { grid } = this.metal;
    for (const tile of grid.takeChanged()) {
      const [i, j] = [tile % grid.across, Math.floor(tile / grid.across)];
      // A wall on a border belongs to the patch on its low side.
      for (const [di, dj] of [
        [0, 0],
        [-1, 0],
        [0, -1],
      ] as const)
        if (i + di >= 0 && j + dj >= 0)
          this.stale.add(Math.floor((j + dj) / PATCH) * this.patchesAcross + Math.floor((i + di) / PATCH));
    }
    const side = PATCH * TILE;
    const { nx, ny } = grid.place;
    const out = [...this.stale].map((patch): Patch => {
      const [i0, j0] = [(patch % this.patchesAcross) * side, Math.floor(patch / this.patchesAcross) * side];
      const box = { i0, j0, i1: Math.min(nx, i0 + side), j1: Math.min(ny, j0 + side) };
      return {
        patch,
        mesh: meshMetal(grid, box, (maker) => (maker === 0 ? 0 : (this.motions[maker - 1]?.tool ?? 0))),
      };
    });
    this.stale.clear();
    return out;
  }
}

/** The first share of a motion; null where its ends are not known. */
function partOf(m: Motion, share: number): Motion | null {
  const [x1, y1, z1] = m.to;
  if (x1 === null || y1 === null || z1 === null) return null;
  const [x0, y0, z0] = m.from;
  if (x0 === null || y0 === null || z0 === null || m.kind === 'dwell') return share < 1 ? null : m;
  if (m.kind !== 'arc' || !m.centre) {
    const to = [x0 + share * (x1 - x0), y0 + share * (y1 - y0), z0 + share * (z1 - z0)] as const;
    return { ...m, to };
  }
  return arcPart(m, [x0, y0, z0], [x1, y1, z1], share);
}

function arcPart(
  m: Motion,
  from: readonly [number, number, number],
  to: readonly [number, number, number],
  share: number,
): Motion {
  const [cx, cy] = m.centre ?? [0, 0];
  const r = length2(from[0] - cx, from[1] - cy);
  const start = Math.atan2(from[1] - cy, from[0] - cx);
  const end = Math.atan2(to[1] - cy, to[0] - cx);
  const sweep = share * arcSweep(start, end, m.clockwise === true, m.turns ?? 0);
  const a = start + sweep;
  const full = Math.floor(Math.abs(sweep) / (2 * Math.PI));
  return {
    ...m,
    to: [cx + r * Math.cos(a), cy + r * Math.sin(a), from[2] + share * (to[2] - from[2])],
    turns: full,
  };
}
