import type { SolidModel } from '@yellow-pin/core/model/solid-model';
import { parseBrep } from './brep-text.ts';
import { buildModel } from './build-model.ts';
import { noSolid, transferStep, type Progress } from './opencascade.ts';
import { inspectStep, StepFileError } from './step-text.ts';

/** Largest STEP file that is read, bytes, unless told otherwise. */
export const DEFAULT_SIZE_LIMIT = 100 * 1024 * 1024;

/**
 * Reads a STEP file (AP203, AP214, AP242) into the neutral model: mm, the file's own frame.
 * Throws {@link StepFileError} with a code and a message that says what is wrong and what to do.
 */
export async function readStep(
  bytes: Uint8Array,
  { progress = () => undefined, sizeLimit = DEFAULT_SIZE_LIMIT }: { progress?: Progress; sizeLimit?: number } = {},
): Promise<SolidModel> {
  if (bytes.byteLength > sizeLimit) throw new StepFileError('too-large', tooLargeMessage(bytes.byteLength, sizeLimit));
  const facts = inspectStep(new TextDecoder('utf-8').decode(bytes));
  const shape = await transferStep(bytes, progress);
  try {
    const model = buildModel(parseBrep(shape.text), facts, (index) => shape.meshFace(index));
    if (model.faces.length === 0) throw noSolid();
    progress(1, 'read');
    return model;
  } finally {
    shape.release();
  }
}

export const tooLargeMessage = (bytes: number, limit: number): string =>
  `The file is ${(bytes / 1048576).toFixed(1)} MB; the limit is ${(limit / 1048576).toFixed(0)} MB. Raise YELLOW_PIN_STEP_LIMIT_MB or export only the part.`;
