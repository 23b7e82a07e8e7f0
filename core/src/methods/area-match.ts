import type { AreaView } from '../operations/area-view.ts';
import { operationKind } from '../operations/registry.ts';
import type { AreaFamily, Method } from './schema.ts';

/** A face, step, pocket or outline that a method is matched against. */
export interface AreaSubject {
  family: AreaFamily;
  area: AreaView;
  materialId: string;
}

/** What stands against a method for an area of its family, in words; null where it applies. */
export function whyNotArea({ when }: Method, { area, materialId }: AreaSubject): string | null {
  if (when.through !== undefined && when.through !== area.shape.through)
    return when.through ? 'it is for those that go through' : 'it is for those with a floor';
  return when.materials && !when.materials.includes(materialId) ? 'it is for other materials' : null;
}

/** What a method would leave unmade of an area, in words; null where it makes the whole. */
export function areaLeft({ operations, family }: Method, s: AreaSubject): string | null {
  if (family !== s.family) return 'it is for something else';
  const makes = operations.flatMap((o) => operationKind(o.kind).makesAreas ?? []);
  return makes.includes(s.area.shape.side) ? null : 'none of its operations makes it';
}
