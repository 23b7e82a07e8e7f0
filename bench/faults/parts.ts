import {
  drawCircle,
  drawEllipse,
  drawRectangle,
  makeCylinder,
  makeSphere,
  measureVolume,
  type Shape3D,
  type Sketch,
} from 'replicad';
import { recognise } from '@yellow-pin/core/features/recognise';
import { meshModel, meshVolume } from '@yellow-pin/core/model/mesh';
import { UnknownStep } from '@yellow-pin/core/step/fields';
import { asSplines } from '@yellow-pin/demo/as-splines';
import { chance } from '@yellow-pin/demo/mutate';
import { openSides } from '@yellow-pin/demo/open-sides';
import { own } from '@yellow-pin/demo/own';
import { blind, box, prepare, stepText, sunk, turned, type Point } from '@yellow-pin/demo/solids';
import { withoutSeams } from '@yellow-pin/demo/without-seams';
import { atMost, type Figure } from './report.ts';

/** A mesh's volume is off by no more than its chords, as a share. */
const CHORDS = 0.01;
/** Parts of a hundred whose text a modelling kernel wrote beside itself: our reader leaves them to it. */
const LEFT = 4;

/** Parts that nobody drew, each a body with bodies cut out of it and put on it, in three ways of storing, through our own reader. */
export async function randomParts(count: number, from = 1): Promise<Figure[]> {
  await prepare();
  let [made, left, cracked, wrong, fallen] = [0, 0, 0, 0, 0];
  for (let seed = from; made < count; seed++) {
    const part = await quietly(() => partOf(seed));
    if (!part) continue;
    made++;
    for (const [form, text] of [
      ['plain', part.text],
      ['without seams', withoutSeams(part.text)],
      ['as splines', asSplines(part.text)],
    ] as const)
      try {
        const model = own(text);
        const mesh = meshModel(model);
        const open = openSides(mesh);
        const off = Math.abs(meshVolume(mesh) / part.volume - 1);
        if (open > 0) cracked++;
        if (off > CHORDS) wrong++;
        if (open > 0 || off > CHORDS)
          console.log(
            `     part ${seed}, ${form}: ${open} open sides, volume off by ${(100 * off).toFixed(2)} %`,
          );
        recognise(model, { mesh });
      } catch (error) {
        if (error instanceof UnknownStep) left++;
        else fallen++;
        console.log(`     part ${seed}, ${form}: ${String(error).slice(0, 200)}`);
      }
  }
  return [
    atMost(
      `${made} random parts in three writings: left to the kernel`,
      left,
      Math.ceil((3 * made * LEFT) / 100),
    ),
    atMost('with open sides in their mesh', cracked, 0),
    atMost(`of another volume, by more than ${100 * CHORDS} %`, wrong, 0),
    atMost('at which something fell over', fallen, 0),
  ];
}

/** A part with its exact volume; null where the modelling kernel does not manage it. */
async function partOf(seed: number): Promise<{ text: string; volume: number } | null> {
  try {
    const shape = shapeOf(chance(seed));
    return { volume: measureVolume(shape), text: await stepText([shape], `part ${seed}`) };
  } catch {
    return null;
  }
}

function shapeOf(random: () => number): Shape3D {
  const r = (a: number, b: number): number => a + (b - a) * random();
  const pick = <T>(list: readonly (() => T)[]): T => list[Math.floor(random() * list.length)]!();
  const axis = (): Point =>
    random() < 0.7
      ? pick<Point>([
          () => [0, 0, 1],
          () => [0, 0, -1],
          () => [1, 0, 0],
          () => [-1, 0, 0],
          () => [0, 1, 0],
          () => [0, -1, 0],
        ])
      : [r(-1, 1), r(-1, 1), r(0.2, 1)];
  let shape = pick<Shape3D>([
    () => box([-r(15, 40), -r(10, 30), -r(5, 20)], [r(15, 40), r(10, 30), r(5, 20)]),
    () => makeCylinder(r(12, 30), r(15, 50), [0, 0, -12], [0, 0, 1]),
    () => (drawEllipse(r(15, 30), r(10, 20)).sketchOnPlane('XY', -10) as Sketch).extrude(r(15, 30)),
    () =>
      (drawRectangle(r(25, 50), r(20, 40)).sketchOnPlane('XY', -12) as Sketch).loftWith(
        drawCircle(r(8, 18)).sketchOnPlane('XY', r(6, 20)) as Sketch,
      ),
  ]);
  for (let n = 1 + Math.floor(r(1, 6)); n > 0; n--) {
    const at: Point = [r(-25, 25), r(-20, 20), r(-8, 15)];
    const other = pick<Shape3D>([
      () => makeCylinder(r(1.5, 7), r(10, 80), at, axis()),
      () => turned(blind(r(3, 12), r(5, 20)), [at[0], at[1], 12], axis()),
      () => turned(sunk(blind(r(3, 6), r(8, 20)), r(8, 13)), [at[0], at[1], 12], [0, 0, 1]),
      () => makeSphere(r(3, 10)).translate(at) as Shape3D,
      () => box(at, [at[0] + r(3, 15), at[1] + r(3, 15), at[2] + r(3, 30)]),
    ]);
    shape = (random() < 0.75 ? shape.cut(other as never) : shape.fuse(other as never)) as Shape3D;
  }
  const edges = random();
  try {
    if (edges < 0.5) return shape.fillet(r(0.4, 1.5)) as Shape3D;
    if (edges < 0.7) return shape.chamfer(r(0.3, 1)) as Shape3D;
  } catch {
    // Not all edges take one.
  }
  return shape;
}

/** Without what kernels print. */
async function quietly<T>(work: () => Promise<T>): Promise<T> {
  const { log } = console;
  console.log = () => undefined;
  try {
    return await work();
  } finally {
    console.log = log;
  }
}
