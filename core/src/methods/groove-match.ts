import { partsOf, type GrooveView } from '../operations/groove-view.ts';
import { operationKind } from '../operations/registry.ts';
import { END_KINDS, within, type Method, type GrooveFamily } from './schema.ts';

/** A slot, groove or channel that a method is matched against. */
export interface GrooveSubject {
  family: GrooveFamily;
  groove: GrooveView;
  materialId: string;
}

/** Which ends of a groove are open, as methods say it. */
export const endKind = ({ shape }: GrooveView): (typeof END_KINDS)[number] =>
  END_KINDS[shape.ends.filter((e) => e.open).length] ?? 'closed';

/** What stands against a method for a groove of its family, in words; null where it applies. */
export function whyNotGroove({ when }: Method, { groove, materialId }: GrooveSubject): string | null {
  const { width, depth, shape } = groove;
  if (when.through !== undefined && when.through !== shape.through)
    return when.through ? 'it is for those that go through' : 'it is for those with a floor';
  if (when.ends && !when.ends.includes(endKind(groove))) return 'it is for other ends';
  if (!within(width, when.width)) return 'it is for other widths';
  if (!within(depth / width, when.ratio)) return 'it is for other depths';
  return when.materials && !when.materials.includes(materialId) ? 'it is for other materials' : null;
}

/** What a method would leave unmade of a groove, in words; null where it makes the whole. */
export function grooveLeft({ operations, family, when }: Method, s: GrooveSubject): string | null {
  if (family !== s.family) return 'it is for something else';
  if (when.through !== undefined && when.through !== s.groove.shape.through)
    return when.through ? 'it is for those that go through' : 'it is for those with a floor';
  const makes = operations.flatMap((o) => operationKind(o.kind).makes ?? []);
  const missing = partsOf(s.groove).filter((p) => !makes.includes(p));
  return missing.length > 0 ? `none of its operations makes the ${missing.join(' and the ')}` : null;
}
