import type { Shape3D } from 'replicad';
import type { Feature } from '@yellow-pin/core/features/family';
import { recognise, type Recognition } from '@yellow-pin/core/features/recognise';
import { directionFromFrame, fromFrame, type Frame } from '@yellow-pin/core/geometry/frame';
import { distance, type Vec3 } from '@yellow-pin/core/geometry/vec';
import { readStep } from '@yellow-pin/kernel';
import { HOME, PLACE, stored, type Expected, type Way } from './stored-parts.ts';

/** Sizes must be right to this, mm; angles to a hundredth of a degree. */
const EXACT = 0.005;

/** Recognises a part that is stored in one of the ways, and says where it lies. */
export async function read(body: Shape3D, way: Way, splitX: number): Promise<Recognition & { frame: Frame }> {
  const text = await stored(body, way, splitX);
  const found = recognise(await readStep(new TextEncoder().encode(text)));
  return { ...found, frame: way === 'tilted, in inches' ? PLACE : HOME };
}

const POINTS = ['centre', 'at', 'entry'];
const DIRECTIONS = ['axis', 'direction'];

/** Whether a feature is as it is expected, in a part that lies in `frame`. */
export function fits(f: Feature, e: Expected, frame: Frame): boolean {
  return Object.entries(e).every(([key, want]) => {
    const value = (f as unknown as Record<string, unknown>)[key];
    if (POINTS.includes(key))
      return distance(value as Vec3, fromFrame(frame, want as unknown as Vec3)) < EXACT;
    if (DIRECTIONS.includes(key)) {
      const d = directionFromFrame(frame, want as unknown as Vec3);
      return (
        Math.min(
          distance(value as Vec3, d),
          key === 'direction' ? distance(value as Vec3, d.map((v) => -v) as Vec3) : Infinity,
        ) < 1e-4
      );
    }
    if (typeof want === 'number' && typeof value === 'number')
      return Math.abs(value - want) <= (key === 'angle' ? 0.01 : EXACT);
    return JSON.stringify(value) === JSON.stringify(want);
  });
}
