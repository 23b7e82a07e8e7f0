import { applyCorrections, targetOf } from '@yellow-pin/core/corrections/apply';
import { readDxf } from '@yellow-pin/core/drawing/read-dxf';
import { modelFromDrawing, startingDepths } from '@yellow-pin/core/drawing/to-model';
import type { Feature } from '@yellow-pin/core/features/family';
import { recognise } from '@yellow-pin/core/features/recognise';
import { deriveJob } from '@yellow-pin/core/job/derive';
import { newPlan, type Plan } from '@yellow-pin/core/plan/plan';
import { decisionFromCallout } from '@yellow-pin/core/job/print';
import { featureSizes } from '@yellow-pin/core/features/sets';
import { narrowest } from '@yellow-pin/core/features/hole/recognise';
import { inputOfSample, sampleJob } from '@yellow-pin/demo/sample-job';
import { editsOf } from '@yellow-pin/core/job/edited';
import { produceJob, Producer, type ProduceInput, type ProduceStep } from '@yellow-pin/core/job/produce';
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

/** The plate with M4 and M10 threads, as its print may say. */
function threaded(input: ProduceInput): ProduceInput {
  const sizes = { ...input.plan.sizes };
  for (const s of featureSizes(input.features)) {
    const [first] = s.features;
    if (first?.family !== 'hole') continue;
    const callout = narrowest(first) < 7 ? 'M8x1.25 THRU' : 'M10x1.5 THRU';
    sizes[s.key] = { ...decisionFromCallout(callout, 'mm'), overrides: {} };
  }
  return { ...input, plan: { ...input.plan, sizes } };
}

/** The manifold block after one depth has been changed: its section's numbers, motion and code, before anything is read back. */
async function changedDepth(): Promise<Line[]> {
  const input = inputOfSample(await sampleJob('manifold-block.step'), 'manifold-block.step');
  const [size] = featureSizes(input.features).filter((s) => s.family === 'hole');
  let best = Infinity;
  for (let i = 0; i < 6; i++) {
    const overrides = { drill: { depth: 12 + i / 10 } };
    const plan = {
      ...input.plan,
      sizes: { ...input.plan.sizes, ...(size ? { [size.key]: { overrides } } : {}) },
    };
    const start = performance.now();
    const steps = new Producer().steps({ ...input, plan });
    steps.next();
    steps.next();
    best = Math.min(best, performance.now() - start);
  }
  return [
    {
      what: 'a changed depth of the manifold block, to code',
      value: best,
      unit: 'ms',
      goal: '< 100',
      met: best < 100,
    },
  ];
}

/** A line of the manifold block's first program edited by hand: planned no more, read back and judged until its first finding stands. */
async function editedByHand(): Promise<Line[]> {
  const input = inputOfSample(await sampleJob('manifold-block.step'), 'manifold-block.step');
  const producer = new Producer();
  const last = (plan: Plan): Extract<ProduceStep, { step: 'proof' }> => {
    const told = [...producer.steps({ ...input, plan })].at(-1);
    if (told?.step !== 'proof') throw new Error('nothing was proved');
    return told;
  };
  const { programs, job, checks } = last(input.plan);
  const [program] = programs;
  let best = Infinity;
  for (let n = 1; n <= 6; n++) {
    const typed = program!.text.replace('G40 G49 G80', `G40 G49 G80\nG12${n}`);
    const start = performance.now();
    const handEdits = { [program!.setup.setup.id]: editsOf(typed, program!, job.machine) };
    const found = last({ ...input.plan, handEdits }).checks;
    if (found.length <= checks.length) throw new Error('the edit was not found');
    best = Math.min(best, performance.now() - start);
  }
  const what = 'a line of the manifold block edited by hand, to its first finding';
  return [{ what, value: best, unit: 'ms', goal: '< 1000', met: best < 1000 }];
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
    ...(await grown('the same with a thread in every hole', 1, (n) => {
      const input = threaded(part(n));
      deriveJob(input);
      return () => deriveJob(input);
    })),
    ...(await changedDepth()),
    ...(await editedByHand()),
    ...(await grown('and programs, written and proved: holes', 2.5, (n) => {
      const input = part(n);
      return () => produceJob(input);
    })),
  ];
}
