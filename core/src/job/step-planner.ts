import { first as firstOf } from '../lists.ts';
import { MissingCuttingData } from '../cutting/material.ts';
import type { MethodStep } from '../methods/match.ts';
import { RelationError } from '../methods/relation.ts';
import { stretchesOf } from '../motion/stretches.ts';
import type { HoleView } from '../operations/hole-view.ts';
import type {
  CutSort,
  KindContext,
  Missing,
  OperationKind,
  Planned,
  PlanResult,
  Remark,
} from '../operations/kind.ts';
import type { PlannedOperation } from '../operations/planned.ts';
import { operationKind } from '../operations/registry.ts';
import { visitOrder } from '../order/ways.ts';
import type { SizeDecision } from '../plan/plan.ts';
import { partName, type Space } from '../space/space.ts';
import { outlines, profiles, type Disc, type ProfilePoint } from '../tools/profile.ts';
import type { Tool } from '../tools/schema.ts';
import type { PlacedSetup, PlannerInput } from './placed.ts';
import type { Row } from './row.ts';

/** What is planned: a feature as seen from a setup. */
export interface View {
  label: string;
  feature: { id: string };
}

/** A kind's features, where it is given none of a family. */
export const NOTHING: Given = { holes: [], bosses: [], grooves: [], areas: [], edges: [] };
export type Given = Pick<KindContext, CutSort>;

/** What became of a method's steps. */
export interface Made<V extends View = HoleView> {
  /** Holes, or whatever is made. */
  holes: V[];
  operations: Omit<PlannedOperation, 'position' | 'after'>[];
  skipped: string[];
  missing: Missing[];
  blocked: Row['blocked'];
}

/** Plans the steps of a method for the features of a size in one setup. `give`: how kinds of operation are given them. */
export class StepPlanner<V extends View = HoleView> {
  private readonly discsOf: (tool: Tool) => readonly Disc[];
  private readonly outlineOf: (tool: Tool) => readonly ProfilePoint[];

  constructor(
    private readonly give: (views: V[]) => Given,
    private readonly input: PlannerInput,
    private readonly say: (mm: number) => string,
  ) {
    this.discsOf = outlines(input.library);
    this.outlineOf = profiles(input.library);
  }

  /**
   * Plans a method's steps for the holes; where a step cannot be had for some of them, those are left out of all steps, and the rest is
   * planned anew.
   */
  plan(
    row: Row,
    decision: SizeDecision,
    where: PlacedSetup,
    all: V[],
    steps: MethodStep[],
    prefix: string,
  ): Made<V> {
    const blocked = new Map<string, string>();
    for (;;) {
      const holes = all.filter((h) => !blocked.has(h.label));
      const result = holes.length > 0 ? this.trySteps(row, decision, where, holes, steps, prefix) : null;
      if (result && 'missing' in result && result.holes && result.holes.length < holes.length) {
        for (const label of result.holes)
          blocked.set(
            label,
            result.missing.startsWith(`${label}:`) ? result.missing : `${label}: ${result.missing}`,
          );
        continue;
      }
      const operations = result && 'operations' in result ? result.operations : [];
      const hit = this.inHolding(where, operations);
      if (hit.size > 0) {
        for (const [label, reason] of hit) blocked.set(label, reason);
        continue;
      }
      return {
        holes,
        operations,
        skipped: result && 'skipped' in result ? result.skipped : [],
        missing: result && 'missing' in result ? result.all : [],
        blocked: all.flatMap((h) => {
          const reason = blocked.get(h.label);
          return reason === undefined ? [] : [{ label: h.label, feature: h.feature.id, reason }];
        }),
      };
    }
  }

  private trySteps(
    row: Row,
    decision: SizeDecision,
    where: PlacedSetup,
    holes: V[],
    steps: MethodStep[],
    prefix: string,
  ):
    | (Missing & { all: Missing[] })
    | { operations: Omit<PlannedOperation, 'position' | 'after'>[]; skipped: string[] } {
    const { library, material, machine } = this.input;
    const operations: Omit<PlannedOperation, 'position' | 'after'>[] = [];
    const skipped: string[] = [];
    const missing: Missing[] = [];
    const seen = new Map<string, number>();
    const fits = new Map<string, string[]>();
    for (const step of steps) {
      const planWith = (
        name: string,
      ): { kind: OperationKind; key: string; context: KindContext; result: PlanResult } => {
        const nth = (seen.get(name) ?? 0) + 1;
        const key = `${prefix}${nth === 1 ? name : `${name} ${nth}`}`;
        const kind = operationKind(name);
        const context: KindContext = {
          decision,
          thread: row.thread,
          print: prefix === '' ? row.print : { through: false },
          tools: library.tools,
          material,
          machine,
          say: this.say,
          space: where.space,
          discs: (t) => this.discsOf(t),
          outline: (t) => this.outlineOf(t),
          pace: (this.input.plan.codeOptions.feedPercent ?? 100) / 100,
          favour: this.input.favour.get(where.setup.id) ?? [],
          setup: where.setup,
          ...this.give(holes),
          edgeBreak: this.input.plan.edgeBreak,
          step: step.step,
          isThreadMilled: steps.some((s) => operationKind(s.kind).millsThreads),
          set: step.set,
          opened: Math.max(0, ...operations.map((o) => o.opens ?? 0)),
          openedTo: (label) => openedTo(operations, label),
          rim: step.ifNeeded ? Math.max(0, ...operations.map((o) => o.rim ?? 0)) : 0,
          key,
          chosen: decision.tools?.[key],
          fits: (tools) =>
            fits.set(
              key,
              tools.map((t) => t.id),
            ),
        };
        const isFor = kind.cuts.some((sort) => context[sort].length > 0);
        const result: PlanResult = isFor
          ? planned(() => kind.plan(context))
          : { missing: `An operation "${kind.label}" has nothing to do there. Take it out of the method.` };
        return { kind, key, context, result };
      };
      // What the first kind has no tool for, another may make as well; where none does, the first says what is missing.
      const first = planWith(step.kind);
      const isMissing = (r: PlanResult): boolean => 'missing' in r && r.holes === undefined;
      let taken = first;
      for (const name of isMissing(first.result) ? step.or : []) {
        const other = planWith(name);
        if (isMissing(other.result)) continue;
        taken = other;
        break;
      }
      const { kind, key, context, result } = taken;
      seen.set(kind.kind, (seen.get(kind.kind) ?? 0) + 1);
      if ('missing' in result && step.ifNeeded) skipped.push(`No ${kind.label}: ${result.missing}`);
      else if ('missing' in result) missing.push(result);
      else if ('none' in result) {
        if (result.none) skipped.push(result.none);
      } else {
        const settled = kind.settles ?? [];
        for (const o of operations) o.remarks = o.remarks.filter((r) => !settled.includes(r.rule));
        operations.push({
          ...result,
          fits: fits.get(key) ?? [],
          alternatives: this.loaded(result),
          remarks: [...result.remarks, ...this.unfit(context, kind.label, result.tool)],
          work: visitOrder(result.work, decision.visit),
          id: `${where.setup.id}/${row.tag}/${key}`,
          kind: kind.kind,
          label: kind.label,
          rank: kind.rank,
          setupId: where.setup.id,
          tag: row.tag,
          sizeKey: row.size.key,
          key,
        });
      }
    }
    const some = missing.find((m) => m.holes !== undefined);
    const whole = missing.filter((m) => m.holes === undefined);
    if (whole.length > 0) return { missing: firstOf(whole).missing, all: whole };
    return some ? { ...some, all: [some] } : { operations, skipped };
  }

  /** Tools that would do as well. For one that stands in the magazine none is fetched out of the drawer. */
  private loaded({ tool, alternatives }: Planned): string[] | undefined {
    if (tool.number === null) return alternatives;
    const { tools } = this.input.library;
    return alternatives?.filter((id) => tools.some((t) => t.id === id && t.number !== null));
  }

  /** The tool that was chosen is not the one that is taken: why is said where the choice is made. */
  private unfit({ chosen, tools }: KindContext, label: string, taken: Tool): Remark[] {
    if (chosen === undefined || chosen === taken.id) return [];
    const wanted = tools.find((t) => t.id === chosen);
    const what = wanted
      ? `${wanted.description} was chosen`
      : 'The tool that was chosen is gone from the list';
    return [
      {
        rule: 'tool-unfit',
        severity: 'warning',
        message: `${label}: ${what}${wanted ? ' and does not do here' : ''}: ${taken.description} is taken.`,
      },
    ];
  }

  /** Holes where a tool would stand in a jaw, a clamp or a keep-out box, with the reason. */
  private inHolding(where: PlacedSetup, operations: readonly Planned[]): Map<string, string> {
    const out = new Map<string, string>();
    for (const o of operations) {
      const discs = this.discsOf(o.tool);
      for (const h of o.work) {
        if (out.has(h.label)) continue;
        let hit: ReturnType<Space['holdingAlong']> = null;
        for (const [from, to] of stretchesOf(h)) hit ??= where.space.holdingAlong(discs, from, to);
        if (hit)
          out.set(
            h.label,
            `${h.label}: ${hit.part === 'cutting' ? '' : `the ${partName(hit.part)} of `}T${o.tool.number ?? '–'} ${o.tool.description} would go to Z ${this.say(h.z)} beside ${hit.name}, whose top is at Z ${this.say(hit.height)}. Move the holding, or make it in another setup.`,
          );
      }
    }
    return out;
  }
}

/** Z down to which the widest of some operations has opened a feature; null where none has. */
function openedTo(operations: readonly Planned[], label: string): number | null {
  const widest = operations.reduce<Planned | null>(
    (a, o) => (o.opens !== undefined && o.opens >= (a?.opens ?? 0) ? o : a),
    null,
  );
  const own = widest?.work.find((w) => w.label === label);
  return own ? own.z + (widest?.opensAbove ?? 0) : null;
}

/** A material that says nothing of a tool keeps the row open, and tells why. */
function planned(plan: () => PlanResult): PlanResult {
  try {
    return plan();
  } catch (error) {
    if (error instanceof MissingCuttingData || error instanceof RelationError)
      return { missing: error.message };
    throw error;
  }
}
