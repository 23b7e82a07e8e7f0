import type { SolidModel } from '@yellow-pin/core/model/solid-model';
import { soundModel } from '@yellow-pin/core/model/sound';
import { parseBrep } from './brep-text.ts';
import { buildModel } from './build-model.ts';
import { KernelFailure, noSolid, transferStep, type Progress } from './opencascade.ts';
import { inspectStep, StepFileError } from './step-text.ts';

/** Largest STEP file that is read, bytes, unless told otherwise. */
export const DEFAULT_SIZE_LIMIT = 100 * 1024 * 1024;

/**
 * Reads a STEP file (AP203, AP214, AP242) into the neutral model: mm, the file's own frame.
 * Throws {@link StepFileError} with a code and a message that says what is wrong and what to do.
 */
export async function readStep(
  bytes: Uint8Array,
  {
    progress = () => undefined,
    sizeLimit = DEFAULT_SIZE_LIMIT,
  }: { progress?: Progress; sizeLimit?: number } = {},
): Promise<SolidModel> {
  if (bytes.byteLength > sizeLimit)
    throw new StepFileError('too-large', tooLargeMessage(sizeLimit, bytes.byteLength));
  const facts = inspectStep(bytes);
  const shape = await transferStep(bytes, progress);
  let isBroken = false;
  try {
    const built = buildModel(parseBrep(shape.text), facts, (index) => shape.meshFace(index));
    if (built.faces.length === 0) throw noSolid();
    const model = sound(built);
    progress(1, 'read');
    return model;
  } catch (error) {
    isBroken = error instanceof KernelFailure;
    throw error;
  } finally {
    // Of a kernel that broke nothing is asked any more.
    if (!isBroken) shape.release();
  }
}

function sound(built: SolidModel): SolidModel {
  try {
    return soundModel(built);
  } catch {
    throw new StepFileError(
      'damaged',
      'Nothing in the STEP file has a size and a place that a part can have: it is damaged. Export it again.',
    );
  }
}

/** `bytes`: how large the file is, where that is known. */
export function tooLargeMessage(limit: number, bytes?: number): string {
  const is = bytes === undefined ? 'is too large' : `is ${(bytes / 1048576).toFixed(1)} MB`;
  return `The file ${is}; the limit is ${(limit / 1048576).toFixed(0)} MB. Raise YELLOW_PIN_STEP_LIMIT_MB or export only the part.`;
}
