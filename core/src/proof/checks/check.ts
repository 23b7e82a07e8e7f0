import type { CycleCall, ReadProgram } from '../../code/read/motion.ts';
import type { DerivedJob, DerivedSetup } from '../../job/derive.ts';
import type { HoleView } from '../../operations/hole-view.ts';
import type { Severity } from '../../operations/kind.ts';
import type { Tool } from '../../tools/schema.ts';

/** One finding: what, where and the mend. Severities: an error must not be sent to the machine. */
export interface Check {
  rule: string;
  severity: Severity;
  message: string;
  tag?: string;
  feature?: string;
  setupId?: string;
  line?: number;
}

/** A cycle line together with the hole it makes. */
export interface MadeHole {
  call: CycleCall;
  tool: Tool | null;
  view: HoleView | null;
  tag: string | null;
}

export interface CheckContext {
  job: DerivedJob;
  setup: DerivedSetup;
  read: ReadProgram;
  made: MadeHole[];
  say(mm: number): string;
}

export interface CheckRule {
  rule: string;
  run(context: CheckContext): Omit<Check, 'setupId'>[];
}

/** Farthest a hole's position in the text may be from the model's, mm. */
const PLACE_TOLERANCE = 0.02;

/** Pairs each cycle line with the hole of the model at its X and Y, nearest entry level first. */
export function madeHoles(read: ReadProgram, tools: readonly Tool[]): (views: { view: HoleView; tag: string }[]) => MadeHole[] {
  const byNumber = new Map(tools.flatMap((t) => (t.number === null ? [] : [[t.number, t] as const])));
  return (views) => {
    const cells = new Map<string, { view: HoleView; tag: string }[]>();
    const key = (x: number, y: number) => `${Math.round(x)},${Math.round(y)}`;
    for (const v of views) {
      const k = key(v.view.x, v.view.y);
      const list = cells.get(k);
      if (list) list.push(v);
      else cells.set(k, [v]);
    }
    return read.calls.map((call) => {
      let best: { view: HoleView; tag: string } | null = null;
      for (let i = -1; i <= 1; i++) {
        for (let j = -1; j <= 1; j++) {
          for (const v of cells.get(key(call.x + i, call.y + j)) ?? []) {
            const near = Math.hypot(v.view.x - call.x, v.view.y - call.y) <= PLACE_TOLERANCE;
            if (near && (!best || Math.abs(v.view.entryZ - call.r) < Math.abs(best.view.entryZ - call.r))) best = v;
          }
        }
      }
      return { call, tool: byNumber.get(call.tool) ?? null, view: best?.view ?? null, tag: best?.tag ?? null };
    });
  };
}
