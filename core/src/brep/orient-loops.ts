import { chartOf } from '../model/chart.ts';
import { connect } from '../model/connect.ts';
import { signedArea } from '../model/triangulate.ts';
import { loopPoints, type Face, type SolidModel } from '../model/solid-model.ts';

/**
 * Turns round the loops of faces that some programs write with the face on their right: where two faces run an edge the same way, those whose
 * loops go round their area the wrong way. Of borders that go round a surface no area tells: where that does not do, the few faces that do not
 * agree with the many are turned. Changes the model in place; gives whether every edge is run both ways afterwards.
 */
export function orientLoops(model: SolidModel): boolean {
  const wrong = runAlike(model);
  if (wrong.size === 0) return true;
  for (const index of wrong) if (areaLeft(model, model.faces[index]!) < 0) turnRound(model.faces[index]!);
  const few = runAlike(model).size > 0 ? outvoted(model) : [];
  for (const index of few ?? []) turnRound(model.faces[index]!);
  connect(model);
  return few !== null && runAlike(model).size === 0;
}

function turnRound(face: Face): void {
  face.loops = face.loops.map((loop) => [...loop].reverse().map((l) => ({ ...l, reversed: !l.reversed })));
}

/**
 * The faces to be turned so that all agree: of those that hang together the smaller half. Null where they cannot agree, as on a band that is
 * joined to itself turned over.
 */
function outvoted(model: SolidModel): number[] | null {
  const uses = model.edges.map((): { face: number; reversed: boolean }[] => []);
  model.faces.forEach(({ loops }, face) => {
    for (const { edge, reversed } of loops.flat()) uses[edge]!.push({ face, reversed });
  });
  const beside = model.faces.map((): { face: number; isAlike: boolean }[] => []);
  for (const [a, b, ...others] of uses) {
    if (!a || !b || others.length > 0 || a.face === b.face) continue;
    const isAlike = a.reversed === b.reversed;
    beside[a.face]!.push({ face: b.face, isAlike });
    beside[b.face]!.push({ face: a.face, isAlike });
  }
  const isTurned: (boolean | undefined)[] = model.faces.map(() => undefined);
  const out: number[] = [];
  for (let start = 0; start < model.faces.length; start++) {
    if (isTurned[start] !== undefined) continue;
    isTurned[start] = false;
    const shell = [start];
    for (const face of shell)
      for (const next of beside[face]!) {
        const wanted = isTurned[face] !== next.isAlike;
        if (isTurned[next.face] === undefined) {
          isTurned[next.face] = wanted;
          shell.push(next.face);
        } else if (isTurned[next.face] !== wanted) return null;
      }
    const turned = shell.filter((f) => isTurned[f]);
    out.push(...(2 * turned.length <= shell.length ? turned : shell.filter((f) => !isTurned[f])));
  }
  return out;
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
