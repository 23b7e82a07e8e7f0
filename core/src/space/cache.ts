import type { Frame } from '../geometry/frame.ts';
import type { PartMesh } from '../model/mesh.ts';
import { heightsOf, type Heights } from './heights.ts';

/** A part's heights by setup: they stay the same while numbers of the plan change. */
const known = new WeakMap<PartMesh, Map<string, Heights>>();
const KEPT = 12;

/** {@link heightsOf}, worked out once for a mesh and a frame. */
export function heightsFor(mesh: PartMesh, frame: Frame): Heights {
  let own = known.get(mesh);
  if (!own) known.set(mesh, (own = new Map()));
  const key = JSON.stringify([frame.origin, frame.x, frame.z]);
  let heights = own.get(key);
  if (!heights) {
    if (own.size >= KEPT) own.delete(own.keys().next().value!);
    own.set(key, (heights = heightsOf(mesh, frame)));
  }
  return heights;
}
