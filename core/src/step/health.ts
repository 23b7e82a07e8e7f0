import { meshOf, meshVolume } from '../model/mesh.ts';
import { distance } from '../geometry/vec.ts';
import { loopEnd, type SolidModel } from '../model/solid-model.ts';

/** A loop whose ends are farther apart than this does not close, mm. */
const OPEN = 1e-3;

/**
 * What is wrong with a model that came out of a file, in a few words; null where it is sound: every closed solid's edges have two faces, its
 * loops close, every face has triangles, and the whole has a volume.
 */
export function faultOf(model: SolidModel): string | null {
  const { faces, edges } = model;
  for (const [i, face] of faces.entries())
    for (const loop of face.loops) {
      const [first, last] = [loop[0], loop[loop.length - 1]];
      if (first && last && distance(loopEnd(model, last, 'end'), loopEnd(model, first, 'start')) > OPEN)
        return `a loop of face ${i} does not close`;
    }
  const open = edges.findIndex((e) => e.convexity === 'open');
  if (open >= 0 && model.solids.every((s) => s.closed)) return `edge ${open} has one face`;
  const mesh = meshOf(model);
  if (mesh.failed.length > 0) return `face ${mesh.failed[0]} cannot be meshed`;
  if (model.solids.some((s) => s.closed) && !(meshVolume(mesh) > 0)) return 'its volume is not positive';
  return null;
}
