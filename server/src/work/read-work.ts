import { gunzipSync, gzipSync } from 'node:zlib';
import { encode } from 'fast-png';
import type { DrawingDepths } from '@yellow-pin/core/drawing/depths';
import { readDxf, type Drawing } from '@yellow-pin/core/drawing/read-dxf';
import { modelFromDrawing, startingDepths } from '@yellow-pin/core/drawing/to-model';
import type { Feature } from '@yellow-pin/core/features/family';
import { recognise } from '@yellow-pin/core/features/recognise';
import { soundModel } from '@yellow-pin/core/model/sound';
import { edgeSegments, meshOf, type PartMesh } from '@yellow-pin/core/model/mesh';
import { drawPicture } from '@yellow-pin/core/model/picture';
import type { ModelNote, SolidModel } from '@yellow-pin/core/model/solid-model';
import { KernelFailure, openCascade, readerSetting, readStep } from '@yellow-pin/kernel';
import { asRefusal, isDrawing } from './part-file.ts';
import type { OnProgress } from './serve.ts';

/** A part to be read from its file, or looked at again from its stored model; or whatever takes its time loaded, for the first of them. */
export type ReadRequest =
  | { kind: 'warm' }
  | { kind: 'file'; packed: Uint8Array; fileName: string; sizeLimit: number }
  | { kind: 'model'; model: Uint8Array };

export interface ReadPart {
  /** The solid model as gzipped JSON; null where the stored one was looked at again. */
  model: Uint8Array | null;
  name: string;
  units: 'mm' | 'inch';
  features: Feature[];
  notes: ModelNote[];
  /** A 2D drawing and the depths that it starts with; null for solids. */
  drawing: Drawing | null;
  depths: DrawingDepths | null;
  /** A small picture of it, PNG. */
  picture: Uint8Array;
}

/** Reads a part and finds its features. Runs in a process of its own, which keeps the geometry kernel warm where it was needed. */
export async function work(request: ReadRequest, progress: OnProgress): Promise<ReadPart | null> {
  try {
    if (request.kind === 'warm') {
      // Our own reader is there with its module; the kernel takes some seconds.
      if (readerSetting() === 'kernel') await openCascade();
      return null;
    }
    if (request.kind === 'model') {
      progress(0.1, 'finding features');
      const model = soundModel(JSON.parse(gunzipSync(request.model).toString('utf8')) as SolidModel);
      const mesh = meshOf(model);
      const { features, notes } = recognise(model, { mesh });
      const picture = pictureOf(model, mesh);
      return { model: null, ...headOf(model), features, notes, drawing: null, depths: null, picture };
    }
    return await readFile(request, progress);
  } catch (error) {
    throw asRefusal(error, error instanceof KernelFailure);
  }
}

async function readFile(
  { packed, fileName, sizeLimit }: Extract<ReadRequest, { kind: 'file' }>,
  progress: OnProgress,
): Promise<ReadPart> {
  const file = unpack(packed, sizeLimit);
  const drawing = isDrawing(fileName, file)
    ? readDxf(new TextDecoder().decode(file), fileName.replace(/\.dxf$/i, ''))
    : null;
  const depths = drawing && startingDepths(drawing);
  const model =
    drawing && depths
      ? modelFromDrawing(drawing, depths)
      : await readStep(file, { sizeLimit, progress: (share, what) => progress(0.9 * share, what) });
  progress(0.92, 'finding features');
  const mesh = meshOf(model);
  const { features, notes } = recognise(model, { mesh });
  progress(0.97, 'drawing its picture');
  const picture = pictureOf(model, mesh);
  return {
    model: gzipSync(JSON.stringify(model)),
    ...headOf(model),
    features,
    notes,
    drawing,
    depths,
    picture,
  };
}

/** Width and height of the picture in the list of jobs, px: twice what it is shown at. */
const PICTURE = { width: 144, height: 104 };

const pictureOf = (model: SolidModel, mesh: PartMesh): Uint8Array => {
  const { width, height, pixels } = drawPicture(mesh, edgeSegments(model).positions, PICTURE);
  return encode({ width, height, data: pixels, channels: 4 });
};

const headOf = (model: SolidModel): Pick<ReadPart, 'name' | 'units'> => ({
  name: model.name,
  units: model.sourceUnits,
});

/** Files are stored packed since version 3 of the tables; before, as they came. */
function unpack(stored: Uint8Array, sizeLimit: number): Uint8Array {
  return stored[0] === 0x1f && stored[1] === 0x8b
    ? gunzipSync(stored, { maxOutputLength: sizeLimit + 1 })
    : stored;
}
