import { create } from 'zustand';
import type { MetalMesh } from '@yellow-pin/core/metal/picture';
import type { Pose } from '@yellow-pin/core/metal/player';
import type { MetalProof } from '@yellow-pin/core/metal/prove-metal';
import type { Check } from '@yellow-pin/core/proof/checks/check';
import type { Frame, Reel } from '../workers/metal-steps.ts';

/** What of part and metal is shown while a program is played. */
export const SHOWN = ['metal', 'part', 'both'] as const;
export type Shown = (typeof SHOWN)[number];

/** A plane that cuts the picture open: along one of the setup's axes, as a share of the stock. */
export interface CutOpen {
  axis: 'x' | 'y' | 'z';
  share: number;
}

interface PlayState {
  reel: Reel | null;
  seconds: number;
  isPlaying: boolean;
  /** Seconds of the machine in one of the clock. */
  speed: number;
  stopsAtTool: boolean;
  pose: Pose | null;
  /** Patches of the metal's surface by number. */
  patches: ReadonlyMap<number, MetalMesh>;
  shown: Shown;
  byTool: boolean;
  /** Where metal and part differ is hatched. */
  isPainted: boolean;
  /** Colours chosen for tools, by number: which of the list. */
  colours: Readonly<Record<number, number>>;
  cut: CutOpen | null;
  set(part: Partial<Omit<PlayState, 'set' | 'take' | 'load'>>): void;
  /** Another program, or none: it stands at its start. */
  load(reel: Reel | null): void;
  /** What the worker says of a moment. */
  take(frame: Frame): void;
}

const NOTHING = { seconds: 0, isPlaying: false, pose: null, patches: new Map<number, MetalMesh>() };

export const usePlay = create<PlayState>()((set) => ({
  reel: null,
  ...NOTHING,
  speed: 4,
  stopsAtTool: false,
  shown: 'metal',
  byTool: true,
  isPainted: true,
  colours: {},
  cut: null,
  set: (part) => set(part),
  load: (reel) => set({ reel, ...NOTHING }),
  take: ({ pose, patches }) =>
    set((s) => {
      if (patches.length === 0) return { pose };
      const next = new Map(s.patches);
      for (const { patch, mesh } of patches) next.set(patch, mesh);
      return { pose, patches: next };
    }),
}));

/** What taking the metal off has shown; `done` while it is under way. */
interface MetalState {
  /** Of which reading, and by which tolerance: results of another are not shown. */
  of: unknown;
  asked: number;
  done: number | null;
  proof: MetalProof | null;
  checks: Check[] | null;
  tolerance: number;
  set(part: Partial<Omit<MetalState, 'set'>>): void;
}

export const useMetal = create<MetalState>()((set) => ({
  of: null,
  asked: 0,
  done: null,
  proof: null,
  checks: null,
  tolerance: 0.02,
  set: (part) => set(part),
}));

/** The motion that is under way at a moment. */
export function motionAt({ ends }: Pick<Reel, 'ends'>, seconds: number): number {
  let [low, high] = [0, Math.max(0, ends.length - 1)];
  while (low < high) {
    const mid = (low + high) >> 1;
    if (ends[mid]! <= seconds) low = mid + 1;
    else high = mid;
  }
  return low;
}

/** The moment at which a motion begins, s. */
export const startOf = ({ ends }: Pick<Reel, 'ends'>, motion: number): number =>
  motion <= 0 ? 0 : (ends[motion - 1] ?? 0);

/** The moment at which the next thing of a sort begins: another line, another operation, another tool. `way` -1: the one before. */
export function stepFrom(reel: Reel, seconds: number, way: 1 | -1, sort: (motion: number) => number): number {
  const last = reel.ends.length - 1;
  const now = motionAt(reel, seconds);
  if (way > 0) {
    for (let n = now + 1; n <= last; n++) if (sort(n) !== sort(now)) return startOf(reel, n);
    return reel.total;
  }
  let n = now;
  while (n > 0 && sort(n - 1) === sort(now)) n--;
  // Already at its start: the one before.
  if (n > 0 && seconds - startOf(reel, n) < 1e-6) {
    const before = n - 1;
    n = before;
    while (n > 0 && sort(n - 1) === sort(before)) n--;
  }
  return startOf(reel, n);
}
