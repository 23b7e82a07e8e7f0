import { known } from '../../lists.ts';
import type { MachineProfile } from '../profiles/schema.ts';
import type { CycleCall, Motion, Place } from './motion.ts';

/** Opens cycle lines into motions, by the handbook's table of cycles. One object serves a whole program. */
export class CycleRunner {
  private call!: CycleCall;
  private at: Place = [null, null, null];

  constructor(
    private readonly profile: MachineProfile,
    private readonly motions: Motion[],
  ) {}

  /** Appends the motions of one call and gives the place where it ends. `i`, `j`: the shift of G76, NaN where not said. */
  run(call: CycleCall, from: Place, toInitial: boolean, i: number, j: number): Place {
    this.call = call;
    this.at = from;
    // Below R some controls go up first and some across first; where the profile does not know, the worse is read.
    if (known(from[2], 'Z') < call.r && this.profile.riseOrder === 'up-first') this.vertical('rapid', call.r);
    this.move('rapid', call.x, call.y, known(this.at[2], 'Z'));
    this.vertical('rapid', call.r);
    this.bottom(i, j);
    if (toInitial && known(this.at[2], 'Z') < call.initial) this.vertical('rapid', call.initial);
    return this.at;
  }

  private bottom(i: number, j: number): void {
    const { call } = this;
    switch (call.cycle) {
      case 'G83':
        return this.fullRetract();
      case 'G73':
        return this.chipBreak();
      case 'G84':
      case 'G74':
        return this.tapped();
      case 'G85':
        this.vertical('feed', call.z);
        return this.vertical('feed', call.r);
      case 'G89':
        this.vertical('feed', call.z);
        this.dwell();
        return this.vertical('feed', call.r);
      case 'G76':
        return this.shifted(i, j);
      case 'G82':
        this.vertical('feed', call.z);
        this.dwell();
        return this.vertical('rapid', call.r);
      default:
        // G81, and G86, which stops the spindle before it comes out.
        this.vertical('feed', call.z);
        return this.vertical('rapid', call.r);
    }
  }

  /** Depth of the next peck below `last`: Q each, the last one short. */
  private nextPeck(last: number): number {
    const z = last - known(this.call.q, 'the peck');
    return z > this.call.z + 1e-9 ? z : this.call.z;
  }

  private fullRetract(): void {
    const { r, z } = this.call;
    for (let last = r, next = this.nextPeck(r); ; next = this.nextPeck(last)) {
      if (last < r) this.vertical('rapid', Math.min(r, last + this.profile.peckClearance));
      this.vertical('feed', next);
      this.vertical('rapid', r);
      if (next === z) return;
      last = next;
    }
  }

  /** In step down to the depth and out to R, in pecks where the machine takes Q for them. */
  private tapped(): void {
    const { r, z, q } = this.call;
    const isPecked = this.profile.pecksTaps && q !== undefined && q > 0;
    for (let next = isPecked ? this.nextPeck(r) : z; ; next = this.nextPeck(next)) {
      this.vertical('tap', next);
      if (next === z) this.dwell();
      this.vertical('tap', r);
      if (next === z) return;
    }
  }

  private chipBreak(): void {
    const { r, z } = this.call;
    for (let next = this.nextPeck(r); ; next = this.nextPeck(next)) {
      this.vertical('feed', next);
      if (next === z) return this.vertical('rapid', r);
      this.vertical('rapid', Math.min(r, next + this.profile.chipBreakBackOff));
    }
  }

  /** Feed in, shift off the wall (by Q toward +X unless I, J say otherwise), out, and back over the axis. */
  private shifted(i: number, j: number): void {
    const { x, y, z, r, q } = this.call;
    const dx = Number.isNaN(i) ? (Number.isNaN(j) ? (q ?? 0) : 0) : i;
    this.vertical('feed', z);
    this.move('rapid', x + dx, y + (Number.isNaN(j) ? 0 : j), z);
    this.vertical('rapid', r);
    this.move('rapid', x, y, r);
  }

  private dwell(): void {
    const seconds = this.call.dwellSeconds;
    if (seconds) this.motions.push({ ...this.motion('dwell', this.at), seconds });
  }

  private vertical(kind: Motion['kind'], z: number): void {
    if (z === this.at[2]) return;
    const to: Place = [this.at[0], this.at[1], z];
    this.motions.push(this.motion(kind, to));
    this.at = to;
  }

  private move(kind: Motion['kind'], x: number, y: number, z: number): void {
    if (x === this.at[0] && y === this.at[1] && z === this.at[2]) return;
    const to: Place = [x, y, z];
    this.motions.push(this.motion(kind, to));
    this.at = to;
  }

  private motion(kind: Motion['kind'], to: Place): Motion {
    const { line, caller, tool, feed, speed, cycle, how } = this.call;
    const called = caller === undefined ? {} : { caller };
    return { line, ...called, kind, tool, from: this.at, to, feed, speed, cycle, how };
  }
}
