import { meshOf, solidVolumes } from '../model/mesh.ts';
import { distance } from '../geometry/vec.ts';
import { loopEnd, type SolidModel } from '../model/solid-model.ts';

/** A loop whose ends are farther apart than this does not close, mm. */
const OPEN = 1e-3;

/** A solid may be larger than its box by rounding alone, as a share. */
const BEYOND = 1e-3;

/**
 * What is wrong with a model that came out of a file, in a few words; null where it is sound: its loops close, every face has triangles, and
 * each closed solid has a volume that the model's box can hold. A shell that is open is no fault: the model says so itself.
 */
export function faultOf(model: SolidModel): string | null {
  for (const [i, face] of model.faces.entries())
    for (const loop of face.loops) {
      const [first, last] = [loop[0], loop[loop.length - 1]];
      if (first && last && distance(loopEnd(model, last, 'end'), loopEnd(model, first, 'start')) > OPEN)
        return `a loop of face ${i} does not close`;
    }
  const mesh = meshOf(model);
  if (mesh.failed.length > 0) return `face ${mesh.failed[0]} cannot be meshed`;
  const { min, max } = model.bounds;
  const box = (max[0] - min[0]) * (max[1] - min[1]) * (max[2] - min[2]);
  for (const [i, volume] of solidVolumes(mesh, model).entries()) {
    if (!model.solids[i]?.closed) continue;
    if (!(volume > 0)) return `the volume of solid ${i + 1} is not positive`;
    if (volume > box * (1 + BEYOND)) return `solid ${i + 1} is larger than the box round it`;
  }
  return null;
}
