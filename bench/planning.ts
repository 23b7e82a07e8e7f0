import { applyCorrections, targetOf } from '@yellow-pin/core/corrections/apply';
import { readDxf } from '@yellow-pin/core/drawing/read-dxf';
import { modelFromDrawing, startingDepths } from '@yellow-pin/core/drawing/to-model';
import type { Feature } from '@yellow-pin/core/features/family';
import { recognise } from '@yellow-pin/core/features/recognise';
import { deriveJob } from '@yellow-pin/core/job/derive';
import { newPlan } from '@yellow-pin/core/plan/plan';
import { produceJob, type ProduceInput } from '@yellow-pin/core/job/produce';
import { meshModel } from '@yellow-pin/core/model/mesh';
import { compareFeatures } from '@yellow-pin/core/revision/compare';
import { SHOP } from '@yellow-pin/demo/shop/index';
import { grown, type Line } from './growth.ts';

/** A plate with n circles in rows, as a drawing. */
function circles(n: number): string {
  const side = Math.ceil(Math.sqrt(n));
  const out: (string | number)[] = [0, 'SECTION', 2, 'HEADER', 9, '$INSUNITS', 70, 4, 0, 'ENDSEC'];
  out.push(0, 'SECTION', 2, 'ENTITIES', 0, 'LWPOLYLINE', 8, 'PLATE', 90, 4, 70, 1);
  const end = 20 * side + 10;
  for (const [x, y] of [
    [-10, -10],
    [end, -10],
    [end, end],
    [-10, end],
  ])
    out.push(10, x!, 20, y!);
  for (let i = 0; i < n; i++)
    out.push(
      0,
      'CIRCLE',
      8,
      'HOLES',
      10,
      20 * (i % side),
      20,
      20 * Math.floor(i / side),
      40,
      i % 3 === 0 ? 3.3 : 4.25,
    );
  out.push(0, 'ENDSEC', 0, 'EOF', '');
  return out.join('\n');
}

/** A plate with n holes of two sizes, ready to be planned. */
export function partForProfile(n: number): ProduceInput {
  const drawing = readDxf(circles(n), 'plate');
  const model = modelFromDrawing(drawing, startingDepths(drawing));
  const mesh = meshModel(model);
  const features = recognise(model, { mesh }).features.filter((f) => f.family === 'hole');
  const plan = newPlan('mm', SHOP.materials[0]!.id, SHOP.machines[0]!.id);
  return { features, bounds: model.bounds, mesh, plan, library: SHOP, name: 'plate' };
}

/** What the programmer waits for after each change: corrections, comparison, drawings, and the whole way to proved programs. */
export async function planningLines(): Promise<Line[]> {
  const parts = new Map<number, ProduceInput>();
  const part = (n: number): ProduceInput => {
    const known = parts.get(n) ?? partForProfile(n);
    parts.set(n, known);
    return known;
  };
  const moved = (features: readonly Feature[]): Feature[] =>
    features.map((f) =>
      f.family === 'hole' ? { ...f, entry: [f.entry[0] + 0.7, f.entry[1], f.entry[2]] } : f,
    );
  return [
    ...(await grown('a drawing read, with its starting depths: circles', 1, (n) => {
      const text = circles(n);
      return () => {
        const drawing = readDxf(text, 'plate');
        return modelFromDrawing(drawing, startingDepths(drawing));
      };
    })),
    ...(await grown('one correction for all holes of a part', 0.2, (n) => {
      const { features } = part(n);
      const targets = features.map(targetOf);
      return () =>
        applyCorrections(features, [
          { id: 'c', kind: 'levels', targets, raiseTop: 0, lowerBottom: 0, depth: 9 },
        ]);
    })),
    ...(await grown('a revision compared, every hole moved', 0.5, (n) => {
      const { features } = part(n);
      const after = moved(features);
      return () => compareFeatures(features, after);
    })),
    ...(await grown('everything that follows from a plan: holes', 1, (n) => {
      const input = part(n);
      deriveJob(input);
      return () => deriveJob(input);
    })),
    ...(await grown('and programs, written and proved: holes', 2.5, (n) => {
      const input = part(n);
      return () => produceJob(input);
    })),
  ];
}
