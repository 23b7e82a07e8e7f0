import { gunzipSync, gzipSync } from 'node:zlib';
import { encode } from 'fast-png';
import { readDxf } from '@yellow-pin/core/drawing/read-dxf';
import { modelFromDrawing, startingDepths } from '@yellow-pin/core/drawing/to-model';
import { recognise } from '@yellow-pin/core/features/recognise';
import { soundModel } from '@yellow-pin/core/model/sound';
import { edgeSegments, meshOf, type PartMesh } from '@yellow-pin/core/model/mesh';
import { drawPicture } from '@yellow-pin/core/model/picture';
import type { SolidModel } from '@yellow-pin/core/model/solid-model';
import { plateStep } from '@yellow-pin/demo/plate-step';
import { KernelFailure, openCascade, readerSetting, readStep } from '@yellow-pin/kernel';
import { asRefusal, isDrawing } from './part-file.ts';
import type { ReadPart, ReadRequest } from './read-request.ts';
import type { OnProgress } from './serve.ts';

/** Reads a part and finds its features. Runs in a process of its own, which keeps the geometry kernel warm where it was needed. */
export async function work(request: ReadRequest, progress: OnProgress): Promise<ReadPart | null> {
  try {
    if (request.kind === 'warm') {
      await warmUp(request.step);
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

/** Holes of the plates that are read to be quick: as much work as a part has, the later ones as a large part has once they are quick too. */
const [WARM_HOLES, MANY_WARM_HOLES, FIRST_WITH_MANY] = [300, 900, 9];

/**
 * The kernel takes some seconds to load, where it reads. Our own reader is there with its module, and reads a part twice as quickly once its
 * code was compiled for what it meets: it meets it here.
 */
async function warmUp(step: number): Promise<void> {
  if (readerSetting() === 'kernel') await openCascade();
  else if (step > 0) {
    const packed = new TextEncoder().encode(
      plateStep({ holes: step < FIRST_WITH_MANY ? WARM_HOLES : MANY_WARM_HOLES }),
    );
    await readFile(
      { kind: 'file', packed, fileName: 'plate.step', sizeLimit: packed.length },
      () => undefined,
    );
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
    model: gzipSync(JSON.stringify(model), { level: 1 }),
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
