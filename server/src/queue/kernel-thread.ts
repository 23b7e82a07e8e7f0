import { parentPort } from 'node:worker_threads';
import { gzipSync } from 'node:zlib';
import { DxfError, isDxf, readDxf } from '@yellow-pin/core/drawing/read-dxf';
import { modelFromDrawing, startingDepths } from '@yellow-pin/core/drawing/to-model';
import { recognise } from '@yellow-pin/core/features/recognise';
import { meshModel } from '@yellow-pin/core/model/mesh';
import { readStep, StepFileError } from '@yellow-pin/kernel';
import type { ThreadAnswer, ThreadRequest } from './kernel-pool.ts';

/** Keeps the geometry kernel warm and reads one part at a time. */
const port = parentPort!;
const send = (answer: ThreadAnswer): void => port.postMessage(answer);

port.on('message', (request: ThreadRequest) => void read(request));

async function read({ step, fileName, sizeLimit }: ThreadRequest): Promise<void> {
  try {
    const text = new TextDecoder().decode(step);
    const drawing = isDxf(fileName, text) ? readDxf(text, fileName.replace(/\.dxf$/i, '')) : null;
    const depths = drawing && startingDepths(drawing);
    const model =
      drawing && depths ? modelFromDrawing(drawing, depths) : await readStep(step, { sizeLimit, progress: (share, what) => send({ type: 'progress', share: 0.9 * share, what }) });
    send({ type: 'progress', share: 0.92, what: 'finding features' });
    const { features, notes } = recognise(model, { mesh: meshModel(model) });
    send({ type: 'done', model: gzipSync(JSON.stringify(model)), name: model.name, units: model.sourceUnits, features, notes, drawing, depths });
  } catch (error) {
    const known = error instanceof StepFileError || error instanceof DxfError;
    send({
      type: 'failed',
      message: known
        ? error.message
        : `The part could not be read: ${error instanceof Error ? error.message : String(error)}. Export it again, and keep the file if it fails twice.`,
    });
  }
}
