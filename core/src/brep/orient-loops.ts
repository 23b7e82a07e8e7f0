import { chartOf } from '../model/chart.ts';
import { connect } from '../model/connect.ts';
import { signedArea } from '../model/triangulate.ts';
import { loopPoints, type Face, type SolidModel } from '../model/solid-model.ts';

/**
 * Turns round the loops of faces that some programs write with the face on their right: where two faces run an edge the same way, those whose
 * loops go round their area the wrong way. Changes the model in place; gives whether every edge is run both ways afterwards.
 */
export function orientLoops(model: SolidModel): boolean {
  const wrong = runAlike(model);
  if (wrong.size === 0) return true;
  for (const index of wrong) {
    const face = model.faces[index]!;
    if (areaLeft(model, face) < 0)
      face.loops = face.loops.map((loop) =>
        [...loop].reverse().map((l) => ({ ...l, reversed: !l.reversed })),
      );
  }
  connect(model);
  return runAlike(model).size === 0;
}

/** Faces with an edge that another face runs the same way. */
function runAlike(model: SolidModel): Set<number> {
  const users = new Map<number, number>();
  const out = new Set<number>();
  model.faces.forEach((face, i) => {
    for (const { edge, reversed } of face.loops.flat()) {
      const key = 2 * edge + (reversed ? 1 : 0);
      const other = users.get(key);
      if (other === undefined) users.set(key, i);
      else if (model.edges[edge]!.faces.length === 2) out.add(i).add(other);
    }
  });
  return out;
}

/** Area to the left of a face's loops in its flat picture, as seen from outside; of borders that go round the surface nothing is known. */
function areaLeft(model: SolidModel, face: Face): number {
  if (face.surface.kind === 'freeform') return 0;
  const chart = chartOf(face.surface);
  const twice = face.loops.reduce((sum, l) => sum + signedArea(chart.unroll(loopPoints(model, l))), 0);
  return twice * (face.reversed ? -1 : 1);
}
