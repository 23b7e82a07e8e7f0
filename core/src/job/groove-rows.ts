import type { FamilyName } from '../features/family.ts';
import {
  isAreaFamily,
  isEdgeFamily,
  isGrooveFamily,
  METHOD_FAMILIES,
  type AreaFamily,
  type EdgeFamily,
  type GrooveFamily,
} from '../methods/schema.ts';
import { viewArea, type AreaView } from '../operations/area-view.ts';
import { viewEdge, type EdgeView } from '../operations/edge-view.ts';
import { viewGroove, type GrooveView } from '../operations/groove-view.ts';
import type { PlannerInput } from './placed.ts';
import { PlacedRows, type Placing } from './placed-rows.ts';
import type { JobView, RowFamily } from './row-planner.ts';
import { NOTHING } from './step-planner.ts';

const groovePlacing = (family: GrooveFamily): Placing<GrooveView> => ({
  view: viewGroove,
  stand: (standing, view, k, row, after) => standing.groove(view, k, row, after),
  restOf: () => null,
  withOtherSide: (view) => view,
  subject: (groove, materialId) => ({ family, groove, materialId }),
  listOf: (row) => row.grooves,
  give: (grooves) => ({ ...NOTHING, grooves }),
});

const areaPlacing = (family: AreaFamily): Placing<AreaView> => ({
  view: viewArea,
  stand: (standing, view, k, row, after) => standing.area(view, k, row, after),
  restOf: (view, until) => ({ ...view, until }),
  withOtherSide: (view) => ({ ...view, hasOtherSide: true }),
  subject: (area, materialId) => ({ family, area, materialId }),
  listOf: (row) => row.areas,
  give: (areas) => ({ ...NOTHING, areas }),
});

const edgePlacing = (family: EdgeFamily, input: PlannerInput): Placing<EdgeView> => ({
  view: viewEdge,
  stand: (standing, view, k, _, after) => standing.edge(view, k, after),
  restOf: () => null,
  withOtherSide: (view) => view,
  subject: (edge, materialId) => ({ family, edge, materialId }),
  listOf: (row) => row.edges,
  give: (edges) => ({ ...NOTHING, edges }),
  // Only where all sharp edges are to be broken: who chooses a method for a rim wants it made by that.
  madeBy: (view, decision) =>
    decision.method === undefined &&
    input.plan.edgeBreak !== null &&
    view.broken >= input.plan.edgeBreak - BROKEN
      ? 'what made the hole has broken its rim'
      : null,
});

/** A rim that is broken to within that of what is wanted needs no more, mm. */
const BROKEN = 0.02;

type MakeRows = (input: PlannerInput, job: JobView) => RowFamily;

/** Planners of all families but holes and bosses: slots, grooves, channels, the areas between them, and edges. */
export const placedRows: Partial<Record<FamilyName, MakeRows>> = Object.fromEntries(
  METHOD_FAMILIES.flatMap((family): [FamilyName, MakeRows][] => {
    if (isGrooveFamily(family))
      return [[family, (input, job) => new PlacedRows(groovePlacing(family), input, job)]];
    if (isAreaFamily(family))
      return [[family, (input, job) => new PlacedRows(areaPlacing(family), input, job)]];
    if (isEdgeFamily(family))
      return [[family, (input, job) => new PlacedRows(edgePlacing(family, input), input, job)]];
    return [];
  }),
);
