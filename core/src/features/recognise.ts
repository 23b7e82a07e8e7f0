import type { Vec3 } from '../geometry/vec.ts';
import { meshModel, type PartMesh } from '../model/mesh.ts';
import { rayCaster } from '../model/ray.ts';
import { facesOfSolid, type ModelNote, type SolidModel } from '../model/solid-model.ts';
import type { Feature } from './family.ts';
import { FAMILIES } from './registry.ts';

export interface Recognition {
  features: Feature[];
  notes: ModelNote[];
}

export interface RecogniseOptions {
  /** Read features that can be made from two sides from this one, and leave out those that open the other way only. */
  up?: Vec3 | null;
  /** Only this solid. */
  solid?: number;
  /** The model's mesh, when it is at hand already. */
  mesh?: PartMesh;
}

/** Runs every family's recogniser over every solid. Ids are stable for the same file: they follow family, axis and place. */
export function recognise(model: SolidModel, { up = null, solid, mesh }: RecogniseOptions = {}): Recognition {
  const notes = [...model.notes];
  const { min, max } = model.bounds;
  const middle = [0, 1, 2].map((i) => (min[i]! + max[i]!) / 2) as Vec3;
  const rays = rayCaster(mesh ?? meshModel(model));
  const features: Feature[] = [];
  for (const { prefix, recognise: run } of FAMILIES) {
    const found: Omit<Feature, 'id'>[] = [];
    model.solids.forEach((_, s) => {
      if (solid !== undefined && s !== solid) return;
      const result = run({ model, solid: s, faces: facesOfSolid(model, s), middle, rays, up });
      found.push(...result.features);
      notes.push(...result.notes);
    });
    found.sort(byPlace);
    features.push(...found.map((f, i) => ({ ...f, id: `${prefix}${i + 1}` }) as Feature));
  }
  return { features, notes };
}

/** Solid, then axis, then level from the top, then rows from the front and left. */
function byPlace(a: Omit<Feature, 'id'>, b: Omit<Feature, 'id'>): number {
  const key = (f: Omit<Feature, 'id'>) => [f.solid, ...f.axis.map((v) => -v), ...[2, 1, 0].map((i) => (i === 2 ? -1 : 1) * f.entry[i]!)].map((v) => Math.round(v * 1e3));
  const [ka, kb] = [key(a), key(b)];
  for (let i = 0; i < ka.length; i++) if (ka[i] !== kb[i]) return ka[i]! - kb[i]!;
  return 0;
}
