import { buildModel } from '@yellow-pin/core/brep/build-model';
import type { SolidModel } from '@yellow-pin/core/model/solid-model';
import { soundModel } from '@yellow-pin/core/model/sound';
import { Part21Error } from '@yellow-pin/core/part21/error';
import { UnknownStep } from '@yellow-pin/core/step/fields';
import { readStepModel, unitsInUse } from '@yellow-pin/core/step/read';
import {
  damaged,
  inspectStep,
  noSolid,
  StepFileError,
  type StepFacts,
} from '@yellow-pin/core/step/step-text';
import { parseBrep } from './brep-text.ts';
import { KernelFailure, transferStep, type Progress } from './opencascade.ts';

/** Largest STEP file that is read, bytes, unless told otherwise. */
export const DEFAULT_SIZE_LIMIT = 100 * 1024 * 1024;

/** Which reader reads: our own, the geometry kernel, or the kernel where ours finds what it does not know. */
export const READERS = ['auto', 'own', 'kernel'] as const;
export type Reader = (typeof READERS)[number];

/** The reader that `YELLOW_PIN_READER` names; `auto` where it names none. */
export const readerSetting = (): Reader =>
  READERS.find((r) => r === process.env['YELLOW_PIN_READER']) ?? 'auto';

export interface ReadOptions {
  progress?: Progress;
  sizeLimit?: number;
  reader?: Reader;
}

/**
 * Reads a STEP file (AP203, AP214, AP242) into the neutral model: mm, the file's own frame.
 * Throws {@link StepFileError} with a code and a message that says what is wrong and what to do.
 */
export async function readStep(
  bytes: Uint8Array,
  { progress = () => undefined, sizeLimit = DEFAULT_SIZE_LIMIT, reader = readerSetting() }: ReadOptions = {},
): Promise<SolidModel> {
  if (bytes.byteLength > sizeLimit)
    throw new StepFileError('too-large', tooLargeMessage(sizeLimit, bytes.byteLength));
  if (reader === 'kernel') return byKernel(bytes, inspectStep(bytes), progress);
  progress(0.1, 'reading the file');
  let facts: StepFacts;
  try {
    const built = readStepModel(bytes);
    const model = sound(built);
    // What had to be taken out of it is damage, and the file's text may say which.
    if (model !== built) inspectStep(bytes);
    progress(1, 'read');
    return model;
  } catch (error) {
    // Where anything is wrong the file's text comes first: it says most plainly what.
    facts = inspectStep(bytes);
    if (error instanceof Part21Error) throw damaged(error);
    if (!(error instanceof UnknownStep)) throw error;
    if (reader === 'own')
      throw new StepFileError('unreadable', `The STEP file holds what is not read (${error.message}).`);
    const model = await byKernel(bytes, facts, progress);
    const message = `Read by the geometry kernel, for our own reader does not know all of it (${error.message}).`;
    return { ...model, notes: [...model.notes, { code: 'read-by-kernel', message }] };
  }
}

async function byKernel(bytes: Uint8Array, said: StepFacts, progress: Progress): Promise<SolidModel> {
  const facts = { ...said, sourceUnits: unitsInUse(bytes) ?? said.sourceUnits };
  const shape = await transferStep(bytes, progress);
  let isBroken = false;
  try {
    const built = buildModel(parseBrep(shape.text), facts, ({ index }) => shape.meshFace(index));
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
