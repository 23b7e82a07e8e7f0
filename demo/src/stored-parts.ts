import type { Shape3D } from 'replicad';
import type { FamilyName, FeatureOf } from '@yellow-pin/core/features/family';
import type { Frame } from '@yellow-pin/core/geometry/frame';
import type { Vec3 } from '@yellow-pin/core/geometry/vec';
import { asSplines } from './as-splines.ts';
import { splitAt, stepText } from './solids.ts';

export const UP: [number, number, number] = [0, 0, 1];
export const PLACE: Frame = {
  origin: [900, -400, 250],
  x: [0.8, -0.6, 0],
  y: [0.48, 0.64, -0.6],
  z: [0.36, 0.48, 0.8],
};
export const HOME: Frame = { origin: [0, 0, 0], x: [1, 0, 0], y: [0, 1, 0], z: [0, 0, 1] };

/** The ways in which files store one part: as modelled, cut in two, as splines, tilted in inches. */
export const WAYS = ['as modelled', 'faces split', 'as splines', 'tilted, in inches'] as const;
export type Way = (typeof WAYS)[number];

/** A part as STEP text, stored in one of the ways. */
export async function stored(body: Shape3D, way: Way, splitX: number): Promise<string> {
  let shape = body.clone() as Shape3D;
  if (way === 'faces split') shape = await splitAt(shape, splitX);
  // About an axis and angle that carry the file's axes to those of PLACE.
  if (way === 'tilted, in inches') shape = tilted(shape);
  const text = await stepText([shape], 'fixture', way === 'tilted, in inches' ? 'INCH' : 'MM');
  return way === 'as splines' ? asSplines(text) : text;
}

function tilted(shape: Shape3D): Shape3D {
  const { x, y, z } = PLACE;
  const angle = Math.acos((x[0] + y[1] + z[2] - 1) / 2);
  const axis: Vec3 = [y[2] - z[1], z[0] - x[2], x[1] - y[0]];
  return shape.rotate((angle * 180) / Math.PI, [0, 0, 0], axis).translate(PLACE.origin) as Shape3D;
}

export type Expected = { [N in FamilyName]: Partial<FeatureOf<N>> & { family: N } }[FamilyName];

/** A part with features of a family or two, and what is to be found in it. */
export interface Fixture {
  name: string;
  body(): Shape3D;
  expected: Expected[];
  splitX: number;
}
