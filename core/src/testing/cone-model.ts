import type { Vec3 } from '../geometry/vec.ts';
import type { SolidModel } from '../model/solid-model.ts';
import { oneFace } from './one-face.ts';

/**
 * The side of a cone of 45° with its tip in the origin, up to a plane through [0, 0, 10] that rises along X by `lean` (below 1): one face, with
 * its true area. The border begins where it is nearest to the tip, and a seam leads there.
 */
export function modelFromCone(lean: number): { model: SolidModel; area: number } {
  // z = r on the cone and z = 10 + lean·x in the plane.
  const heightAt = (turn: number): number => 10 / (1 - lean * Math.cos(turn));
  const n = 120;
  const points = Array.from({ length: n + 1 }, (_, i): Vec3 => {
    const turn = Math.PI + (2 * Math.PI * (i % n)) / n;
    const z = heightAt(turn);
    return [z * Math.cos(turn), z * Math.sin(turn), z];
  });
  const { model } = oneFace(
    {
      surface: { kind: 'cone', origin: [0, 0, 1], axis: [0, 0, 1], radius: 1, semiAngle: Math.PI / 4 },
      loops: [
        [
          { edge: 0, reversed: true },
          { edge: 1, reversed: false },
          { edge: 1, reversed: true },
        ],
      ],
    },
    [
      { curve: { kind: 'ellipse' }, points },
      { curve: { kind: 'line' }, points: [points[0]!, [0, 0, 0]] },
    ],
  );
  // Seen along the axis the face is an ellipse, and it stands at 45° all over.
  const steps = 7200;
  let plan = 0;
  for (let i = 0; i < steps; i++) plan += (heightAt((2 * Math.PI * i) / steps) ** 2 * Math.PI) / steps;
  return { model, area: plan * Math.SQRT2 };
}
