import type { EdgeView } from '../operations/edge-view.ts';
import { operationKind } from '../operations/registry.ts';
import { within, type EdgeFamily, type Method } from './schema.ts';

/** A chamfer, a rounded edge or a sharp edge that a method is matched against. */
export interface EdgeSubject {
  family: EdgeFamily;
  edge: EdgeView;
  materialId: string;
}

/** How wide an edge is in the model, mm: a chamfer across the top, a round by its radius; 0 of a sharp one. */
export const edgeWidth = ({ shape: { profile } }: EdgeView): number =>
  profile.kind === 'chamfer' ? profile.width : profile.kind === 'round' ? profile.radius : 0;

/** What stands against a method for an edge of its family, in words; null where it applies. */
export function whyNotEdge({ when }: Method, { edge, materialId }: EdgeSubject): string | null {
  if (!within(edgeWidth(edge), when.width)) return 'it is for other widths';
  return when.materials && !when.materials.includes(materialId) ? 'it is for other materials' : null;
}

/** What a method would leave unmade of an edge, in words; null where it makes it. */
export function edgeLeft({ operations, family }: Method, s: EdgeSubject): string | null {
  if (family !== s.family) return 'it is for something else';
  const makes = operations.flatMap((o) => operationKind(o.kind).makesEdges ?? []);
  const { isBehind, profile, rise } = s.edge.shape;
  return makes.includes(rise ? 'rising' : isBehind ? 'behind' : profile.kind)
    ? null
    : 'none of its operations makes it';
}
