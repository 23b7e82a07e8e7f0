import { readFile } from 'node:fs/promises';
import { DxfError, isDxf, readDxf } from '@yellow-pin/core/drawing/read-dxf';
import { modelFromDrawing, startingDepths } from '@yellow-pin/core/drawing/to-model';
import { meshOf } from '@yellow-pin/core/model/mesh';
import { rayCaster, type RayCaster } from '@yellow-pin/core/model/ray';
import type { SolidModel } from '@yellow-pin/core/model/solid-model';
import type { PartMesh } from '@yellow-pin/core/model/mesh';
import { readStep, StepFileError } from '@yellow-pin/kernel';
import { UsageError } from './arguments.ts';

export interface LoadedPart {
  model: SolidModel;
  mesh: PartMesh;
  rays: RayCaster;
}

/** A 2D drawing with its starting depths: the layer of the largest outline is the part's, the rest goes through 10 mm. */
function drawn(text: string, name: string): SolidModel {
  const drawing = readDxf(text, name);
  return modelFromDrawing(drawing, startingDepths(drawing));
}

/** Reads a STEP part or a DXF drawing from disk; what is wrong with it becomes one line that names the file. */
export async function loadPart(path: string): Promise<LoadedPart> {
  const bytes = await readText(path);
  try {
    const text = new TextDecoder().decode(bytes);
    const model = isDxf(path, text)
      ? drawn(text, path.replace(/^.*[\\/]/, '').replace(/\.dxf$/i, ''))
      : await quietly(() => readStep(bytes, { progress: (_, what) => process.stderr.write(`${what} …\n`) }));
    const mesh = meshOf(model);
    return { model, mesh, rays: rayCaster(mesh) };
  } catch (error) {
    if (error instanceof StepFileError || error instanceof DxfError)
      throw new UsageError(`${path}: ${error.message}`);
    throw error;
  }
}

export async function readText(path: string): Promise<Uint8Array> {
  try {
    return await readFile(path);
  } catch (error) {
    const code = (error as NodeJS.ErrnoException).code;
    throw new UsageError(
      `${path}: ${code === 'ENOENT' ? 'there is no such file' : code === 'EISDIR' ? 'this is a folder, not a file' : `cannot be read (${code})`}`,
    );
  }
}

/** The kernel prints to stdout, which carries only the answer: while it works its lines go to stderr. */
async function quietly<T>(work: () => Promise<T>): Promise<T> {
  const { log } = console;
  console.log = (...words: unknown[]) => console.error(...words);
  try {
    return await work();
  } finally {
    console.log = log;
  }
}
