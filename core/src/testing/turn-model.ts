import { directionFromFrame, fromFrame, type Frame } from '../geometry/frame.ts';
import { connect } from '../model/connect.ts';
import { boundsOf, type SolidModel, type Surface } from '../model/solid-model.ts';

/** The same model placed in another frame: what stood in the file's axes stands in `frame`'s. Exact surfaces only. */
export function placeModel(model: SolidModel, frame: Frame): SolidModel {
  const surface = (s: Surface): Surface => {
    if (s.kind === 'freeform') throw new RangeError('free-form faces cannot be placed');
    const origin = fromFrame(frame, s.origin);
    if (s.kind === 'plane') return { ...s, origin, normal: directionFromFrame(frame, s.normal) };
    return s.kind === 'sphere' ? { ...s, origin } : { ...s, origin, axis: directionFromFrame(frame, s.axis) };
  };
  const edges = model.edges.map((e) => ({
    ...e,
    points: e.points.map((p) => fromFrame(frame, p)),
    curve:
      e.curve.kind === 'circle'
        ? {
            ...e.curve,
            centre: fromFrame(frame, e.curve.centre),
            axis: directionFromFrame(frame, e.curve.axis),
          }
        : e.curve,
  }));
  const placed: SolidModel = {
    ...model,
    faces: model.faces.map((f) => ({ ...f, surface: surface(f.surface) })),
    edges,
    bounds: boundsOf(edges.flatMap((e) => e.points)),
  };
  connect(placed);
  return placed;
}

/** Several models as one file's solids, each in its own place. */
export function assembled(models: readonly SolidModel[]): SolidModel {
  const out: SolidModel = { ...models[0]!, name: 'assembly', solids: [], faces: [], edges: [], notes: [] };
  for (const m of models) {
    const [solid, face, edge] = [out.solids.length, out.faces.length, out.edges.length];
    out.solids.push(...m.solids);
    out.edges.push(...m.edges.map((e) => ({ ...e, faces: e.faces.map((f) => f + face) })));
    out.faces.push(
      ...m.faces.map((f) => ({
        ...f,
        solid: f.solid + solid,
        loops: f.loops.map((l) => l.map((e) => ({ ...e, edge: e.edge + edge }))),
      })),
    );
  }
  out.bounds = boundsOf(out.edges.flatMap((e) => e.points));
  return out;
}
