import { add, cross, distance, dot, length, normalize, scale, sub, type Vec3 } from '../geometry/vec.ts';
import { chartOf } from '../model/chart.ts';
import { segmentsPerTurn } from '../model/circle-edge.ts';
import { meetsAny, windingOf } from '../model/close-outline.ts';
import {
  loopEnd,
  loopPoints,
  type Edge,
  type Face,
  type Loop,
  type SolidModel,
} from '../model/solid-model.ts';
import { coneApex } from '../model/surface.ts';

/** A pole lies on its surface within this, mm. */
const ON = 1e-4;

/**
 * Gives a face that ends in a pole the seam that leads to it, where its file has none: some programs write a cone's tip or a ball's pole as a
 * loop of one vertex, or leave a cone's out altogether. What is found in a face then does not hang on who wrote it. `poles`: those that are
 * written. Adds an edge to the model and to the face's loop.
 */
export function seamToPole(model: SolidModel, face: Face, poles: readonly Vec3[]): void {
  const pole = poleOf(model, face, poles);
  const [loop] = face.loops;
  if (!pole || !loop || face.loops.length !== 1) return;
  const start = clearStart(model, face, loop);
  const turned = [...loop.slice(start), ...loop.slice(0, start)];
  const seam = seamFrom(face, loopEnd(model, turned[0]!, 'start'), pole);
  if (!seam) return;
  const edge = model.edges.push(seam) - 1;
  face.loops = [[...turned, { edge, reversed: false }, { edge, reversed: true }]];
}

/** The edge of a loop from whose start the way to a cone's tip meets nothing of the loop; the first where there is none. */
function clearStart(model: SolidModel, { surface }: Face, loop: Loop): number {
  if (surface.kind !== 'cone') return 0;
  const chart = chartOf(surface);
  const flat = chart.unroll(loopPoints(model, loop));
  const turn = chart.turns?.u ?? 0;
  const tip = chart.turns?.poles.lower?.v ?? 0;
  const found = loop.findIndex((l) => {
    const from = loopEnd(model, l, 'start');
    const at = flat.find((f) => f.point === from);
    return at !== undefined && !meetsAny(at, { u: at.u, v: tip }, [flat], 'u', turn);
  });
  return Math.max(0, found);
}

/** The pole that a face reaches and none of its edges leads to; null where there is none. */
function poleOf(model: SolidModel, face: Face, poles: readonly Vec3[]): Vec3 | null {
  const s = face.surface;
  const [loop] = face.loops;
  if (!loop || face.loops.length !== 1) return null;
  if (s.kind === 'sphere') {
    const [pole] = poles;
    return pole && Math.abs(distance(pole, s.origin) - s.radius) < ON ? pole : null;
  }
  if (s.kind !== 'cone') return null;
  const apex = coneApex(s);
  return goesRound(model, face, loop) ? apex : null;
}

/** Whether a loop goes round the axis: then a cone's face that has no other reaches its apex. */
function goesRound(model: SolidModel, { surface }: Face, loop: Loop): boolean {
  const chart = chartOf(surface);
  const flat = chart.unroll(loopPoints(model, loop));
  return flat.length > 0 && windingOf(flat, 'u', chart.turns?.u ?? 0) !== 0;
}

/** A straight line on a cone, an arc through the middle of a sphere. */
function seamFrom({ surface: s }: Face, from: Vec3, pole: Vec3): Edge | null {
  const shared = { faces: [], convexity: 'seam' as const, angle: 0 };
  if (s.kind === 'cone') return { curve: { kind: 'line' }, points: [from, pole], ...shared };
  if (s.kind !== 'sphere') return null;
  const [a, b] = [normalize(sub(from, s.origin)), normalize(sub(pole, s.origin))];
  const axis = cross(a, b);
  if (length(axis) < 1e-9) return null;
  const side = normalize(cross(normalize(axis), a));
  const angle = Math.atan2(dot(b, side), dot(b, a));
  const n = Math.max(2, Math.ceil((angle / (2 * Math.PI)) * segmentsPerTurn(s.radius)));
  const at = (t: number): Vec3 =>
    add(s.origin, scale(add(scale(a, Math.cos(t)), scale(side, Math.sin(t))), s.radius));
  const points = Array.from({ length: n + 1 }, (_, i) =>
    i === 0 ? from : i === n ? pole : at((i / n) * angle),
  );
  return {
    curve: { kind: 'circle', centre: s.origin, axis: normalize(axis), radius: s.radius },
    points,
    ...shared,
  };
}
