import * as Comlink from 'comlink';
import { edgeSegments, meshOf, type PartMesh } from '@yellow-pin/core/model/mesh';
import { drawPicture, type Picture } from '@yellow-pin/core/model/picture';
import type { Bounds } from '@yellow-pin/core/model/solid-model';
import { readStepModel } from '@yellow-pin/core/step/read';

/** What can be shown of a file that is still on its way. */
export interface Preview {
  name: string;
  /** Still, where that was asked for; null else. */
  picture: Picture | null;
  /** To be turned: its triangles, and its edges as pairs of points. */
  shape: Pick<PartMesh, 'positions' | 'normals' | 'triangles'> & { edges: Float32Array };
  bounds: Bounds;
  units: 'mm' | 'inch';
}

/** What of it is shown in the round. */
export type Loose = Pick<Preview, 'shape' | 'bounds' | 'name'>;

/** Reads a part here, before the server has it; null where our own reader cannot: the server says why, or reads it otherwise. */
function preview(bytes: Uint8Array, still: { width: number; height: number } | null): Preview | null {
  try {
    const model = readStepModel(bytes);
    const { positions, normals, triangles } = meshOf(model);
    const edges = edgeSegments(model).positions;
    const picture = still && drawPicture({ positions, triangles }, edges, still);
    const made: Preview = {
      name: model.name,
      picture,
      shape: { positions, normals, triangles, edges },
      bounds: model.bounds,
      units: model.sourceUnits,
    };
    const buffers = [positions, normals, triangles, edges].map((a) => a.buffer);
    return Comlink.transfer(made, picture ? [...buffers, picture.pixels.buffer] : buffers);
  } catch {
    return null;
  }
}

const exposed = { preview };
export type PreviewWorker = typeof exposed;
Comlink.expose(exposed);
