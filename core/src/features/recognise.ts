import { at, first } from '../lists.ts';
import { areaAbout, isParallel, type Vec3 } from '../geometry/vec.ts';
import { meshModel, type PartMesh } from '../model/mesh.ts';
import { patchGraph, planeNormal, type PatchGraph } from '../model/patches.ts';
import { rayCaster, type RayCaster } from '../model/ray.ts';
import {
  facesOfSolid,
  loopPoints,
  type ModelNote,
  type SaidOfFaces,
  type SolidModel,
} from '../model/solid-model.ts';
import type { Feature, Found, RecogniseContext, Recognised } from './family.ts';
import { FAMILIES, isInPreparedStock, isOptional } from './registry.ts';
import { featureSchema } from './schema.ts';
import { seenAndLeft } from './seen-and-left.ts';

export interface Recognition {
  features: Feature[];
  notes: ModelNote[];
}

export interface RecogniseOptions {
  /** Read features that can be made from two sides from this one, and edges as seen from it. */
  up?: Vec3 | null;
  /** Only this solid. */
  solid?: number;
  /** The model's mesh, and the tree over it, when they are at hand already. */
  mesh?: PartMesh;
  rays?: RayCaster;
}

/** Runs every family's recogniser over every solid. Ids are stable for the same file: they follow family, axis and place. */
export function recognise(
  model: SolidModel,
  { up = null, solid, mesh, rays: known }: RecogniseOptions = {},
): Recognition {
  const notes = [...model.notes];
  const { min, max } = model.bounds;
  const middle = [0, 1, 2].map((i) => (at(min, i) + at(max, i)) / 2) as Vec3;
  // Of an assembly each solid is looked at by itself: what stands beside it in the file is not there when it is made.
  const several = model.solids.length > 1;
  const wholeMesh = several ? null : (mesh ?? meshModel(model));
  const whole = wholeMesh && (known ?? rayCaster(wholeMesh));
  const graph = patchGraph(model);
  const features: Feature[] = [];
  const contexts = model.solids.flatMap((_, s) => {
    if (solid !== undefined && s !== solid) return [];
    const patches = graph.patches.flatMap((p, i) => (p.solid === s ? [i] : []));
    const claimed = new Set<number>();
    const found: Feature[] = [];
    const own = wholeMesh ?? meshModel(model, (f) => f.solid === s);
    const context: RecogniseContext = {
      model,
      graph,
      solid: s,
      faces: facesOfSolid(model, s),
      patches,
      middle,
      mesh: own,
      rays: whole ?? rayCaster(own),
      up,
      main: up ?? mainDirection(model, graph, patches),
      claimed,
      found,
      memo: new Map(),
    };
    return [{ context, claimed, found }];
  });
  for (const { family, prefix, recognise: run, place } of FAMILIES) {
    const list: { feature: Found; owner: (typeof contexts)[number]; key: number[] }[] = [];
    for (const owner of contexts) {
      const result = attempt(() => run(owner.context), family, owner.context);
      notes.push(...result.notes);
      for (const feature of result.features) {
        const left = unusable(feature);
        if (left) notes.push(left);
        else list.push({ feature, owner, key: placeKey(feature, place(feature as Feature)) });
      }
    }
    list.sort((a, b) => byKey(a.key, b.key));
    list.forEach(({ feature, owner }, i) => {
      const named = { id: `${prefix}${i + 1}`, ...feature } as Feature;
      features.push(named);
      owner.found.push(named);
      for (const f of named.faces) owner.claimed.add(f);
    });
  }
  for (const { context } of contexts) notes.push(...seenAndLeft(context));
  notes.push(...addSaid(features, model.said ?? []));
  return { features, notes };
}

/**
 * What the file says of a face it says of the features that have it: sharp edges only name the faces beside them. What is said of faces that
 * are nobody's is told.
 */
function addSaid(features: Feature[], said: readonly SaidOfFaces[]): ModelNote[] {
  if (said.length === 0) return [];
  const told = new Set<SaidOfFaces>();
  const ofFace = new Map<number, SaidOfFaces[]>();
  for (const s of said)
    for (const f of s.faces) {
      const known = ofFace.get(f);
      if (known) known.push(s);
      else ofFace.set(f, [s]);
    }
  for (const feature of features) {
    if (isOptional(feature) && !isInPreparedStock(feature)) continue;
    const own = feature.faces.flatMap((f) => ofFace.get(f) ?? []);
    for (const s of own) told.add(s);
    const texts = new Map(own.map(({ text, unit }) => [text, { text, unit }]));
    if (texts.size > 0) feature.said = [...texts.values()];
  }
  const left = [...new Set(said.filter((s) => !told.has(s)).map((s) => s.text))];
  if (left.length === 0) return [];
  const shown = left.slice(0, MOST_TOLD).join('; ');
  const more = left.length > MOST_TOLD ? ` and ${left.length - MOST_TOLD} more` : '';
  const message = `The part’s file says of faces that belong to no feature: ${shown}${more}.`;
  return [{ code: 'said-of-others', message }];
}

/** Texts that a note names. */
const MOST_TOLD = 20;

/** A solid so damaged that a family's recogniser falls over it loses that family, and a note says so. */
function attempt(run: () => Recognised, family: string, { solid }: RecogniseContext): Recognised {
  try {
    return run();
  } catch (error) {
    const why = error instanceof Error ? error.message : String(error);
    const message = `Solid ${solid + 1} is damaged: no ${family} could be looked for in it (${why}). Repair it where it was drawn, or look it over by eye.`;
    return { features: [], notes: [{ code: 'not-looked-for', message }] };
  }
}

/** What a damaged file made into a feature without depth, size or place is left out, and named. */
function unusable(feature: Found): ModelNote | null {
  const parsed = featureSchema.safeParse({ id: 'x', ...feature });
  if (parsed.success) return null;
  const { path, message } = first(parsed.error.issues);
  return {
    code: 'feature-left',
    message: `A ${feature.family} of solid ${feature.solid + 1} at faces ${feature.faces.slice(0, 5).join(', ')} was left out: its ${path.join(' ')} is wrong (${message}). Look at that place in the model.`,
  };
}

/** Solid, then axis, then level from the top, then rows from the front and left. */
function placeKey(f: Found, [x, y, z]: Vec3): number[] {
  return [f.solid, ...f.axis.map((v) => -v), -z, y, x].map((v) => Math.round(v * 1e3));
}

function byKey(a: number[], b: number[]): number {
  for (let i = 0; i < a.length; i++) if (a[i] !== b[i]) return at(a, i) - at(b, i);
  return 0;
}

/** A direction counts with at least this share of the part's planes. */
const NOTABLE = 0.04;

/** A plane direction at least this near the file's Z is what the drawing has up. */
const NEAR_Z = 0.85;

/** The file's Z as the part's planes have it; of a part that stands askew, the direction that most of its planes look to. */
export function mainDirection(model: SolidModel, graph: PatchGraph, patches: number[]): Vec3 {
  const areas: { d: Vec3; area: number }[] = [];
  let total = 0;
  for (const p of patches) {
    const n = planeNormal(at(graph.patches, p));
    if (!n) continue;
    let area = 0;
    for (const face of at(graph.patches, p).faces)
      for (const loop of at(model.faces, face).loops) area += areaAbout(loopPoints(model, loop), n);
    total += Math.abs(area);
    const same = areas.find((a) => isParallel(a.d, n));
    if (same) same.area += Math.abs(area);
    else areas.push({ d: n, area: Math.abs(area) });
  }
  const notable = areas.filter((a) => a.area >= NOTABLE * total);
  if (notable.length === 0) return [0, 0, 1];
  const upright = notable.reduce((m, a) => (Math.abs(a.d[2]) > Math.abs(m.d[2]) ? a : m));
  const best =
    Math.abs(upright.d[2]) > NEAR_Z ? upright.d : notable.reduce((m, a) => (a.area > m.area ? a : m)).d;
  return best[2] < -1e-9 ? [-best[0], -best[1], -best[2]] : best;
}
