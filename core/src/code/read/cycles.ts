import type { MachineProfile } from '../profiles/schema.ts';
import type { CycleCall, Motion, Place } from './motion.ts';

export interface CycleWords extends CycleCall {
  from: Place;
  toInitial: boolean;
  /** I and J of G76. */
  shift: (number | undefined)[];
}

/** The motions of one cycle line, by the handbook's table of cycles. */
export function runCycle(c: CycleWords, profile: MachineProfile): Motion[] {
  const run = new Run(c);
  // First up to R when below it, then across at that height, then down to R.
  const height = Math.max(c.from[2]!, c.r);
  if (c.from[2]! < c.r) run.rapidZ(c.r);
  run.rapid([c.x, c.y, height]);
  run.rapidZ(c.r);
  BOTTOMS[c.cycle]!(run, c, profile);
  if (c.toInitial && run.z < c.initial) run.rapidZ(c.initial);
  return run.motions;
}

class Run {
  readonly motions: Motion[] = [];
  private at: Place;
  constructor(private readonly c: CycleWords) {
    this.at = c.from;
  }
  get z(): number {
    return this.at[2]!;
  }
  rapid(to: Place): void {
    this.push('rapid', to);
  }
  rapidZ(z: number): void {
    this.push('rapid', [this.at[0], this.at[1], z]);
  }
  feedZ(z: number): void {
    this.push('feed', [this.at[0], this.at[1], z]);
  }
  tapZ(z: number): void {
    this.push('tap', [this.at[0], this.at[1], z]);
  }
  dwell(): void {
    const { dwellSeconds } = this.c;
    if (dwellSeconds) this.motions.push({ ...this.motion('dwell', this.at), seconds: dwellSeconds });
  }
  private push(kind: Motion['kind'], to: Place): void {
    if (to[0] === this.at[0] && to[1] === this.at[1] && to[2] === this.at[2]) return;
    this.motions.push(this.motion(kind, to));
    this.at = to;
  }
  private motion(kind: Motion['kind'], to: Place): Motion {
    const { c } = this;
    return { line: c.line, kind, tool: c.tool, from: this.at, to, feed: c.feed, speed: c.speed, cycle: c.cycle };
  }
}

type Bottom = (run: Run, c: CycleWords, profile: MachineProfile) => void;

/** Depths of successive pecks: Q each, the last one short. */
function pecks(c: CycleWords): number[] {
  const out: number[] = [];
  const q = c.q!;
  for (let z = c.r - q; z > c.z + 1e-9; z -= q) out.push(z);
  out.push(c.z);
  return out;
}

const BOTTOMS: Record<string, Bottom> = {
  G81: (run, c) => {
    run.feedZ(c.z);
    run.rapidZ(c.r);
  },
  G82: (run, c) => {
    run.feedZ(c.z);
    run.dwell();
    run.rapidZ(c.r);
  },
  G83: (run, c, profile) => {
    let last = c.r;
    for (const z of pecks(c)) {
      if (last < c.r) run.rapidZ(Math.min(c.r, last + profile.peckClearance));
      run.feedZ(z);
      run.rapidZ(c.r);
      last = z;
    }
  },
  G73: (run, c, profile) => {
    for (const z of pecks(c)) {
      run.feedZ(z);
      run.rapidZ(z === c.z ? c.r : Math.min(c.r, z + profile.chipBreakBackOff));
    }
  },
  G84: tap,
  G74: tap,
  G85: (run, c) => {
    run.feedZ(c.z);
    run.feedZ(c.r);
  },
  G89: (run, c) => {
    run.feedZ(c.z);
    run.dwell();
    run.feedZ(c.r);
  },
  G86: (run, c) => {
    run.feedZ(c.z);
    run.rapidZ(c.r);
  },
  G76: (run, c) => {
    const [i, j] = [c.shift[0] ?? (c.shift[1] === undefined ? (c.q ?? 0) : 0), c.shift[1] ?? 0];
    run.feedZ(c.z);
    run.rapid([c.x + i, c.y + j, c.z]);
    run.rapidZ(c.r);
    run.rapid([c.x, c.y, c.r]);
  },
};

function tap(run: Run, c: CycleWords): void {
  run.tapZ(c.z);
  run.dwell();
  run.tapZ(c.r);
}
