import * as Comlink from 'comlink';
import { edgeSegments, meshOf } from '@yellow-pin/core/model/mesh';
import { drawPicture, type Picture } from '@yellow-pin/core/model/picture';
import { readStepModel } from '@yellow-pin/core/step/read';
import { inspectStep } from '@yellow-pin/core/step/step-text';

/** What can be shown of a file that is still on its way. */
export interface Preview {
  name: string;
  picture: Picture;
  /** Its box, mm. */
  size: [number, number, number];
  units: 'mm' | 'inch';
}

/** Reads a part here, before the server has it; null where our own reader cannot: the server says why, or reads it otherwise. */
function preview(bytes: Uint8Array, width: number, height: number): Preview | null {
  try {
    const model = readStepModel(bytes, inspectStep(bytes));
    const picture = drawPicture(meshOf(model), edgeSegments(model).positions, { width, height });
    const { min, max } = model.bounds;
    const made: Preview = {
      name: model.name,
      picture,
      size: [max[0] - min[0], max[1] - min[1], max[2] - min[2]],
      units: model.sourceUnits,
    };
    return Comlink.transfer(made, [picture.pixels.buffer]);
  } catch {
    return null;
  }
}

const exposed = { preview };
export type PreviewWorker = typeof exposed;
Comlink.expose(exposed);
