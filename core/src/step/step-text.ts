import { Part21Error } from '../part21/error.ts';
import { Part21File } from '../part21/file.ts';
import { decodeText } from '../part21/text.ts';
import { scanStep } from './step-scan.ts';
import { unitSystem } from './units.ts';

/** What can be said of a STEP file from its text alone, before the kernel touches it. */
export class StepFileError extends Error {
  readonly code: string;
  constructor(code: string, message: string) {
    super(message);
    this.name = 'StepFileError';
    this.code = code;
  }
}

export const noSolid = (): StepFileError =>
  new StepFileError(
    'no-solid',
    'The STEP file holds no solid and no surfaces. Export the part as a closed solid, not as a wireframe or drawing.',
  );

export interface StepFacts {
  name: string;
  sourceUnits: 'mm' | 'inch';
  schema: string;
}

const MAX_NAME = 200;
/** Of an endless name, this much is decoded. */
const MAX_ENCODED = 16 * MAX_NAME;

/**
 * Checks that the bytes are a whole ISO 10303-21 file and reads its product name and length unit, in one pass.
 * Throws {@link StepFileError}.
 */
export function inspectStep(source: string | Uint8Array): StepFacts {
  const scan = scanStep(typeof source === 'string' ? new TextEncoder().encode(source) : source);
  if (scan.isBlank) throw new StepFileError('empty', 'The file is empty. Export the part again as STEP.');
  if (!scan.begins) {
    throw new StepFileError(
      'not-step',
      'This is not a STEP file: it does not begin with ISO-10303-21. Export the part as STEP (AP203, AP214 or AP242).',
    );
  }
  if (!scan.hasData) {
    throw new StepFileError(
      'no-data',
      'The STEP file has a header but no DATA section: it was cut off or damaged. Export it again.',
    );
  }
  if (!scan.ends) {
    throw new StepFileError(
      'truncated',
      `The STEP file ends at line ${scan.lines} without END-ISO-10303-21, or a text in it is never closed: it was cut off. Copy or export it again.`,
    );
  }
  if (!scan.hasEntity)
    throw new StepFileError(
      'no-data',
      'The DATA section of the STEP file holds nothing that can be read. Export it again.',
    );
  if (scan.oddNumber) {
    const { text, line } = scan.oddNumber;
    throw new StepFileError(
      'odd-number',
      `Line ${line} of the STEP file holds ${text}, which is no size that a part can have: the file is damaged. Export it again.`,
    );
  }
  const [id, name] = (scan.product ?? []).map(decode);
  return {
    name: shortName(name || id || ''),
    sourceUnits: unitSystem(scan.unitNames.map(decode)),
    schema: scan.schema ? decode(scan.schema) : '',
  };
}

/** What a damaged file is refused with: where, and the mend. */
export const damaged = (error: Part21Error): StepFileError =>
  new StepFileError('damaged', `The STEP file is damaged: ${error.message}. Export it again.`);

/**
 * {@link inspectStep}, and whether its entities can be told from each other: brackets, semicolons and numbers that stand once. Throws
 * {@link StepFileError}.
 */
export function checkStep(bytes: Uint8Array): StepFacts {
  const facts = inspectStep(bytes);
  try {
    new Part21File(bytes);
  } catch (error) {
    throw error instanceof Part21Error ? damaged(error) : error;
  }
  return facts;
}

const decode = (bytes: Uint8Array): string =>
  decodeStepString(new TextDecoder().decode(bytes.subarray(0, MAX_ENCODED)));

/** As much of a decoded text as is shown as a name, without control characters and halves of surrogate pairs. */
export const shortName = (text: string): string => cleaned(text).slice(0, MAX_NAME);

const cleaned = (text: string): string => text.replace(/\p{Cs}|\p{Cc}/gu, ' ').trim();

/** A name as the file has it, without its escapes, control characters and halves of surrogate pairs: for people to read. */
export const decodeStepString = (s: string): string => cleaned(decodeText(s));
