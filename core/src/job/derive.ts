import { at } from '../lists.ts';
import type { MachineProfile } from '../code/profiles/schema.ts';
import { applyCorrections, type Corrected } from '../corrections/apply.ts';
import type { Material } from '../cutting/material.ts';
import type { Feature } from '../features/family.ts';
import { featureSizes } from '../features/sets.ts';
import type { PartMesh } from '../model/mesh.ts';
import type { Bounds } from '../model/solid-model.ts';
import { sequence } from '../order/sequence.ts';
import { heightsFor } from '../space/cache.ts';
import { isInPreparedStock } from '../features/registry.ts';
import { partInPlan } from '../space/areas.ts';
import { seenArea, seenOpening } from '../space/openings.ts';
import { Space } from '../space/space.ts';
import { fewestTools } from './fewest-tools.ts';
import { withJobTools, type Library } from '../plan/library.ts';
import type { Plan } from '../plan/plan.ts';
import type { PlannedOperation, Row } from './row.ts';
import { labelOf, type PlacedSetup } from './placed.ts';
import { RowPlanner } from './row-planner.ts';
import type { Setup } from '../setup/setup.ts';
import { setupFrames, type PartBox, type SetupFrame } from '../setup/setup-frame.ts';

export type { PlannedOperation, Row, RowState } from './row.ts';
export { labelOf } from './placed.ts';

export interface DerivedSetup {
  setup: Setup;
  frame: SetupFrame;
  /** In the order in which they run. */
  operations: PlannedOperation[];
}

export interface DerivedJob {
  rows: Row[];
  setups: DerivedSetup[];
  machine: MachineProfile;
  material: Material;
  /** At how many percent of their feeds all operations run. */
  feedPercent: number;
  /** What the programmer's corrections did. */
  corrected: Pick<Corrected, 'by' | 'lost'>;
  /** Features planned, and all. */
  coverage: { planned: number; total: number };
}

export interface DeriveInput {
  /** As recognised: the plan's corrections are applied here. */
  features: Feature[];
  bounds: Bounds;
  /** The part's box along any axes; from its bounds where it is not given. */
  partBox?: PartBox;
  /** The part's shape, to see where tools would touch it; null: not known, and nothing is found in the way. */
  mesh?: PartMesh | null;
  plan: Plan;
  library: Library;
}

/** What follows from part and plan as plain values, and what is in the way in each setup, by its id. */
export interface Derivation {
  job: DerivedJob;
  spaces: ReadonlyMap<string, Space>;
}

/** Everything that follows from the part and the plan: sizes, operations in order, and what is still open. */
export const deriveJob = (input: DeriveInput): DerivedJob => derive(input).job;

/** {@link deriveJob}, with the spaces that motion and proof look into. */
export function derive(input: DeriveInput): Derivation {
  const { features: recognised, bounds, partBox, mesh, plan } = input;
  const library = withJobTools(input.library, plan);
  const machine = named(library.machines, plan.machineId, 'machine');
  const material = named(library.materials, plan.materialId, 'material');
  const { features, by, lost } = applyCorrections(recognised, plan.corrections, plan.units);
  const sizes = featureSizes(features, { known: Object.keys(plan.sizes) });
  const frames = setupFrames(plan.setups, partBox ?? bounds);
  const placed = plan.setups.map((setup, i): PlacedSetup => {
    const frame = at(frames, i);
    const seen = { setup: frame, plan: partInPlan(features, frame) };
    const heights = mesh ? heightsFor(mesh, frame.frame) : null;
    const openings = sizes.flatMap((s) =>
      s.features.flatMap((f, n) => {
        const label = labelOf(s, n);
        // What prepared stock has already is no metal, unless it is to be made.
        const isAsked = setup.stock.kind !== 'prepared' || plan.sizes[s.key]?.method !== undefined;
        return (
          (isInPreparedStock(f) && isAsked
            ? seenArea(f, label, seen, (z) => heights?.section(z) ?? [])
            : seenOpening(f, label, frame.frame)) ?? []
        );
      }),
    );
    return { setup, frame, space: new Space(heights, frame, openings, seen.plan) };
  });
  const planner = { sizes, setups: placed, plan, library, machine, material };
  let rows = new RowPlanner({ ...planner, favour: new Map() }).all();
  // Planned once to see which tools would do, and again with the fewest of them where that is fewer.
  const favour = fewestTools(rows);
  if (favour.size > 0) rows = new RowPlanner({ ...planner, favour }).all();
  const operations = rows.flatMap((r) => r.operations);
  const setups = placed.map(({ setup, frame }) => ({
    setup,
    frame,
    operations: sequence(
      operations.filter((o) => o.setupId === setup.id),
      plan.toolOrders[setup.id],
    ),
  }));
  const job: DerivedJob = {
    rows,
    setups,
    machine: {
      ...machine,
      commentStyle: plan.codeOptions.commentStyle ?? machine.commentStyle,
      lineNumbers: { ...machine.lineNumbers, on: plan.codeOptions.lineNumbers ?? machine.lineNumbers.on },
    },
    material,
    feedPercent: plan.codeOptions.feedPercent ?? 100,
    corrected: { by, lost },
    coverage: {
      planned:
        count(rows, (r) => r.state === 'planned' || r.state === 'left out') -
        rows.reduce((n, r) => n + r.blocked.length, 0),
      total: count(rows, (r) => r.state !== 'optional'),
    },
  };
  return { job, spaces: new Map(placed.map((p) => [p.setup.id, p.space])) };
}

function named<T extends { id: string; name: string }>(list: readonly T[], id: string, what: string): T {
  const found = list.find((m) => m.id === id);
  if (!found)
    throw new RangeError(
      `The plan names the ${what} "${id}", which the shop does not have. Choose one of: ${list.map((m) => m.name).join(', ')}.`,
    );
  return found;
}

const count = (rows: Row[], which: (r: Row) => boolean): number =>
  rows.filter(which).reduce((n, r) => n + r.size.features.length, 0);
