import { createHash } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import { gzipSync } from 'node:zlib';
import { readDxf } from '@yellow-pin/core/drawing/read-dxf';
import { checkStep } from '@yellow-pin/core/step/step-text';
import { asRefusal, isDrawing } from './part-file.ts';

export interface LookRequest {
  path: string;
  fileName: string;
}

/** A file that may be stored: packed, and what tells it from others. */
export interface Looked {
  packed: Uint8Array;
  /** SHA-256 of the file as it came, hex. */
  fileHash: string;
}

/** Refuses what is neither STEP nor DXF before anything is stored; gives the file packed, as it is stored. */
export async function work({ path, fileName }: LookRequest): Promise<Looked> {
  const file = await readFile(path);
  try {
    if (isDrawing(fileName, file)) readDxf(new TextDecoder().decode(file), fileName);
    else checkStep(file);
  } catch (error) {
    throw asRefusal(error);
  }
  return { packed: gzipSync(file, { level: 1 }), fileHash: createHash('sha256').update(file).digest('hex') };
}
