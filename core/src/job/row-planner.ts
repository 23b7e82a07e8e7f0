import type { Callout } from '../callout/callout.ts';
import { first as firstOf } from '../lists.ts';
import type { Feature, FamilyName } from '../features/family.ts';
import { familyOf, isInPreparedStock } from '../features/registry.ts';
import type { FeatureSize } from '../features/sets.ts';
import { SHIPPED_METHODS } from '../methods/shipped.ts';
import type { SizeDecision } from '../plan/plan.ts';
import { formatLength } from '../units/length.ts';
import { BossRows } from './boss-rows.ts';
import { placedRows } from './groove-rows.ts';
import { HoleRows } from './hole-rows.ts';
import { isReached, type PlannerInput } from './placed.ts';
import { saidOf } from './said.ts';
import { printOf } from './print.ts';
import type { Row } from './row.ts';
import { sideNames } from './row-words.ts';

const EMPTY: SizeDecision = { overrides: {} };

/** What a family knows of its rows beyond what all have: what stands in them, and how they are made. */
export interface RowFamily {
  /** Fills in what the print and the model say of it. */
  describe(row: Row, decision: SizeDecision): void;
  /** Whether a callout that the part's file has for it can be its print; none can where this is not said. */
  takesCallout?(callout: Callout): boolean;
  /** Plans its operations into the row, or the reasons why they cannot be had. */
  plan(row: Row, decision: SizeDecision): void;
}

/** What a family's planner may ask of the whole job. */
export interface JobView {
  row(size: FeatureSize): Row;
  /** The size that a feature belongs to, by its id. */
  sizeOf: ReadonlyMap<string, FeatureSize>;
  isMadeBefore(size: FeatureSize, feature: string, k: number): boolean;
  /** Why no setup reaches these features. */
  unreached(features: Feature[]): string;
  say(mm: number): string;
}

/** Families that methods make. */
const MAKING: Partial<Record<FamilyName, (input: PlannerInput, job: JobView) => RowFamily>> = {
  hole: (input, job) => new HoleRows(input, job),
  boss: (input, job) => new BossRows(input, job),
  ...placedRows,
};

/**
 * Plans every row. A size whose holes start in another's cavity is planned after that one, since it depends on whether that is made: so
 * rows are worked out as they are asked for, each once.
 */
export class RowPlanner implements JobView {
  readonly sizeOf = new Map<string, FeatureSize>();
  private readonly families = new Map<FamilyName, RowFamily>();
  private readonly rows = new Map<FeatureSize, Row>();
  private readonly busy = new Set<FeatureSize>();
  /** Outer faces are yet to be made. */
  private readonly hasStock: boolean;

  constructor(private readonly input: PlannerInput) {
    this.hasStock = input.setups.some((s) => s.setup.stock.kind !== 'prepared');
    for (const s of input.sizes) for (const f of s.features) this.sizeOf.set(f.id, s);
    for (const [family, make] of Object.entries(MAKING))
      this.families.set(family as FamilyName, make(input, this));
  }

  say(mm: number): string {
    const { units } = this.input.plan;
    return `${formatLength(mm, units)} ${units === 'mm' ? 'mm' : 'in'}`;
  }

  all(): Row[] {
    return this.input.sizes.map((s) => this.row(s));
  }

  /** The row of a size, worked out when it is first asked for. */
  row(size: FeatureSize): Row {
    const known = this.rows.get(size);
    if (known) return known;
    this.busy.add(size);
    const row = this.make(size);
    this.busy.delete(size);
    this.rows.set(size, row);
    return row;
  }

  private make(size: FeatureSize): Row {
    const { plan, setups } = this.input;
    const decision = plan.sizes[size.key] ?? EMPTY;
    const thread = decision.thread ?? null;
    const print = printOf(decision);
    const first = firstOf(size.features);
    const row: Row = {
      size,
      tag: size.tag,
      state: 'open',
      callout: { through: false },
      calloutText: familyOf(first).describe(first, (mm) => formatLength(mm, plan.units)),
      thread,
      print,
      guesses: [],
      setupId: setups.find((s) => size.features.some((f) => isReached(f, s)))?.setup.id ?? null,
      method: null,
      methods: [],
      holes: [],
      grooves: [],
      areas: [],
      edges: [],
      operations: [],
      blocked: [],
      madeBy: [],
      reasons: [],
      remarks: [],
      notMade: null,
      wants: [],
    };
    const family = this.families.get(size.family);
    family?.describe(row, decision);
    const said = saidOf(size.features, plan.units, (c) => family?.takesCallout?.(c) ?? false);
    if (decision.thread === undefined) row.guesses.unshift(...said.guesses);
    row.remarks.push(...said.remarks);
    if (decision.leftOut) return { ...row, state: 'left out', reasons: [decision.leftOut] };
    const { optional, isBrokenOnWish } = familyOf(first);
    // What nothing in the model asks for is made where the print does, or the stock, or whoever chooses a method for it.
    const isAsked =
      thread !== null ||
      (isInPreparedStock(first) && this.hasStock) ||
      (isBrokenOnWish === true && plan.edgeBreak !== null) ||
      (family !== undefined && decision.method !== undefined);
    if (optional !== undefined && !isAsked)
      return { ...row, methods: this.waysFor(first), state: 'optional', reasons: [optional] };
    if (row.setupId === null)
      return {
        ...row,
        state: 'unreachable',
        notMade: 'out of reach',
        reasons: [this.unreached(size.features)],
      };
    if (!family)
      return {
        ...row,
        notMade: 'no method yet',
        reasons: [
          'Recognised and shown; no method makes it yet. Program it elsewhere and leave it out here with that as the reason.',
        ],
      };
    family.plan(row, decision);
    const isMade = row.operations.length > 0 || row.madeBy.length > 0;
    if (row.reasons.length > 0 || !isMade) {
      // A row is made whole or not at all: half a hole in the program is a trap.
      if (row.reasons.length === 0) row.reasons.push(...row.blocked.slice(0, 1).map((b) => b.reason));
      const notMade = row.wants.length > 0 ? 'no tool' : 'to decide';
      return { ...row, notMade, operations: [], blocked: [], madeBy: [] };
    }
    return { ...row, state: 'planned', wants: [] };
  }

  /** How a feature would be made that nothing asks for: it is made where one of these is chosen. */
  private waysFor(f: Feature): Row['methods'] {
    const own = [...this.input.library.methods, ...SHIPPED_METHODS].filter((m) => m.family === f.family);
    return own.map(({ id, name }) => ({ id, name }));
  }

  unreached(features: Feature[]): string {
    return features.every((f) => f.reachableFrom.length === 0)
      ? 'No straight tool reaches it from outside: the part itself is in the way.'
      : `No setup looks at it: turn the part so that ${sideNames(firstOf(features))} is up, or add a setup.`;
  }

  /** Whether that feature of a size is made in this setup or an earlier one. A size in work cannot be waited for. */
  isMadeBefore(size: FeatureSize, feature: string, k: number): boolean {
    if (this.busy.has(size)) return false;
    const row = this.row(size);
    if (row.state !== 'planned' || row.blocked.some((b) => b.feature === feature)) return false;
    const ids = new Set(this.input.setups.slice(0, k + 1).map((s) => s.setup.id));
    const own = row.operations.filter((o) => o.work.some((w) => w.feature === feature));
    return own.length > 0 && own.every((o) => ids.has(o.setupId));
  }
}
