import type { Segment } from '@yellow-pin/core/geometry/path';
import { recognise } from '@yellow-pin/core/features/recognise';
import { deriveJob } from '@yellow-pin/core/job/derive';
import { produceJob, type ProduceInput } from '@yellow-pin/core/job/produce';
import { meshModel } from '@yellow-pin/core/model/mesh';
import { stripPasses, type StripCut } from '@yellow-pin/core/operations/grooves/passes';
import { newPlan } from '@yellow-pin/core/plan/plan';
import { SHOP } from '@yellow-pin/demo/shop/index';
import { box, capsule, cutAll, prepare, prism, stepText } from '@yellow-pin/demo/solids';
import { readStep } from '@yellow-pin/kernel';
import { grown, type Line } from './growth.ts';

/** Slots on one part: the kernel that makes the part is what keeps them so few. */
const SLOTS = [32, 64, 128] as const;

/** A plate with n slots of one size in rows. */
async function slotted(n: number): Promise<ProduceInput> {
  const side = Math.ceil(Math.sqrt(n));
  const places = Array.from({ length: n }, (_, i) => [40 * (i % side), 20 * Math.floor(i / side)] as const);
  const plate = box([-25, -15, -25], [40 * side, 20 * side, 0]);
  const slots = places.map(([x, y]) => prism(capsule(20, 8, [x, y]), 1, -6));
  const bytes = new TextEncoder().encode(await stepText([cutAll(plate, slots)], 'slots', 'MM'));
  const model = await readStep(bytes);
  const mesh = meshModel(model);
  const features = recognise(model, { mesh }).features.filter((f) => f.family === 'slot');
  if (features.length !== n) throw new Error(`${features.length} of ${n} slots were found`);
  const plan = newPlan('mm', SHOP.materials[0]!.id, SHOP.machines[0]!.id);
  return { features, bounds: model.bounds, mesh, plan, library: SHOP, name: 'slots' };
}

/** A groove of n pieces that goes to and fro: lines joined by half circles. */
function meander(n: number): Segment[] {
  return Array.from({ length: n }, (_, i): Segment => {
    const row = Math.floor(i / 2);
    const [y, isBack] = [16 * row, row % 2 === 1];
    const end = isBack ? 0 : 100;
    return i % 2 === 0
      ? { kind: 'line', from: [100 - end, y], to: [end, y] }
      : {
          kind: 'arc',
          from: [end, y],
          to: [end, y + 16],
          centre: [end, y + 8],
          radius: 8,
          turn: isBack ? -Math.PI : Math.PI,
        };
  });
}

const CUT: Omit<StripCut, 'middle'> = {
  isFree: [false, false],
  diameter: 5,
  off: 1.5,
  stock: 0.2,
  r: 2,
  top: 0,
  floor: -4,
  perPass: 1.5,
  wallLayer: 10,
  ramp: 3,
  stepover: 1,
  circling: null,
  circleLayer: 10,
  rounds: 2,
  isClimb: true,
  above: 0.5,
  control: null,
  openTo: null,
};

/** How planning and proving grow with the slots of a part, and a groove's moves with its pieces. */
export async function grooveLines(): Promise<Line[]> {
  await prepare();
  const parts = new Map<number, ProduceInput>();
  const part = async (n: number): Promise<ProduceInput> => {
    const input = parts.get(n) ?? (await slotted(n));
    parts.set(n, input);
    return input;
  };
  return [
    ...(await grown('moves of a groove rough and finished: pieces', 0.2, (n) => {
      const path = meander(n);
      return () => {
        if (!stripPasses({ ...CUT, middle: { path, closed: false, past: [0, 0] } }))
          throw new Error('the groove has no parallels');
      };
    })),
    ...(await grown(
      'everything that follows from a plan: slots',
      1,
      async (n) => {
        const input = await part(n);
        return () => deriveJob(input);
      },
      { sizes: SLOTS },
    )),
    ...(await grown(
      'and programs, written and proved: slots',
      4,
      async (n) => {
        const input = await part(n);
        return () => produceJob(input);
      },
      { sizes: SLOTS, runs: 2 },
    )),
  ];
}
