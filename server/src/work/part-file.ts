import { DxfError, isDxf } from '@yellow-pin/core/drawing/read-dxf';
import { StepFileError } from '@yellow-pin/core/step/step-text';
import { Refused } from './serve.ts';

/** What tells a drawing from a solid stands in here, bytes. */
const HEAD = 4096;

/** Whether a file is a 2D drawing; else it is taken for a solid. */
export const isDrawing = (fileName: string, file: Uint8Array): boolean =>
  isDxf(fileName, new TextDecoder().decode(file.subarray(0, HEAD)));

/** What readers say of a file, as a refusal; other errors are ours and stay as they are. `spoilt`: the reader broke. */
export function asRefusal(error: unknown, spoilt = false): unknown {
  if (error instanceof StepFileError) return new Refused(error.code, error.message, spoilt);
  if (error instanceof DxfError) return new Refused('not-dxf', error.message);
  return error;
}
