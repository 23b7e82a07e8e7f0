import { mainLine } from '@yellow-pin/core/code/read/motion';
import { proveJobMetal, withMetal } from '@yellow-pin/core/job/prove-metal';
import type { ProducedSetup, ProduceInput } from '@yellow-pin/core/job/produce';
import type { DerivedJob } from '@yellow-pin/core/job/derive';
import type { MetalProof } from '@yellow-pin/core/metal/prove-metal';
import { Player, type Patch, type Pose } from '@yellow-pin/core/metal/player';
import { applyCorrections } from '@yellow-pin/core/corrections/apply';
import { withJobTools } from '@yellow-pin/core/plan/library';
import type { Face } from '@yellow-pin/core/model/solid-model';
import { withAccepted } from '@yellow-pin/core/proof/accepted';
import type { Check } from '@yellow-pin/core/proof/checks/check';

/** A job as it was last read back: what metal is proved and played from. */
export interface ReadJob {
  input: ProduceInput;
  job: DerivedJob;
  programs: readonly ProducedSetup[];
  checks: readonly Check[];
  faces: readonly Face[];
}

/** What the worker tells while metal is taken off. */
export type MetalStep =
  { step: 'progress'; done: number } | { step: 'metal'; proof: MetalProof; checks: Check[] };

/** How long a stretch of work may be before others are heard, ms. */
const STRETCH = 25;

/** What the metal of a job shows, with the findings of its texts. */
const metalStep = ({ checks, input }: ReadJob, proof: MetalProof): MetalStep => ({
  step: 'metal',
  proof,
  checks: withAccepted(withMetal(checks, proof.checks), input.plan.accepted),
});

/** Takes metal off, and remembers what the last texts have shown: accepting a finding takes none off again. */
export class MetalDesk {
  private last: { of: ReadJob; tolerance: number; proof: MetalProof } | null = null;

  /** Tells what is known where the texts are those of the last time; false where they are others. */
  tellsKnown(of: ReadJob, tolerance: number, tell: (step: MetalStep) => void): boolean {
    const { last } = this;
    if (!last || last.tolerance !== tolerance || !isSameRead(last.of, of)) return false;
    tell(metalStep(of, last.proof));
    return true;
  }

  /** Takes the metal off in stretches; `goesOn` is asked between them. False where it was given up. */
  async takeOff(
    of: ReadJob,
    tolerance: number,
    tell: (step: MetalStep) => void,
    goesOn: () => Promise<boolean>,
  ): Promise<boolean> {
    const { input, job, programs, faces } = of;
    const steps = proveJobMetal(input, { job, programs, faces, tolerance });
    let since = performance.now();
    for (;;) {
      const next = steps.next();
      if (next.done) {
        this.last = { of, tolerance, proof: next.value };
        tell(metalStep(of, next.value));
        return true;
      }
      if (performance.now() - since < STRETCH) continue;
      tell({ step: 'progress', done: next.value.done });
      if (!(await goesOn())) return false;
      since = performance.now();
    }
  }
}

/** Whether the same plan's same texts were read: what is read once is kept as it is. */
const isSameRead = (a: ReadJob, b: ReadJob): boolean =>
  a.job === b.job &&
  a.programs.length === b.programs.length &&
  a.programs.every((p, i) => p.read === b.programs[i]?.read);

/** What is known of a program before it is played. */
export interface Reel {
  setupId: string;
  /** s. */
  total: number;
  /** When each motion ends, s; its line and tool. */
  ends: Float64Array;
  lines: Uint32Array;
  tools: Uint16Array;
}

export interface Frame {
  pose: Pose;
  patches: Patch[];
}

/** One program that is played; made anew for another setup or another text. */
export class Desk {
  private player: Player | null = null;

  /** Sets up a setup's program to be played from its start. */
  open({ input, job, programs }: ReadJob, setupId: string): Reel | null {
    const upTo = programs.slice(0, programs.findIndex((p) => p.setup.setup.id === setupId) + 1);
    if (upTo.length === 0) return null;
    const { tools, holders } = withJobTools(input.library, input.plan);
    const { features } = applyCorrections(input.features, input.plan.corrections, input.plan.units);
    const player = new Player(
      { mesh: input.mesh ?? null, faces: null, features, tools, holders },
      upTo,
      job.machine,
    );
    this.player = player;
    return {
      setupId,
      total: player.total,
      ends: player.ends.slice(),
      lines: Uint32Array.from(player.motions, mainLine),
      tools: Uint16Array.from(player.motions, (m) => m.tool),
    };
  }

  /** The metal and the tool at a moment, s; null where nothing is set up. */
  at(seconds: number): Frame | null {
    if (!this.player) return null;
    const pose = this.player.goTo(seconds);
    return { pose, patches: this.player.patches() };
  }
}
