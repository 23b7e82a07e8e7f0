import { buildModel, type FreeformFace } from '../brep/build-model.ts';
import { meshFreeform } from '../brep/freeform-mesh.ts';
import type { SolidModel } from '../model/solid-model.ts';
import { Part21Error } from '../part21/error.ts';
import { Part21File } from '../part21/file.ts';
import { faceEntities, type BrepDocument } from '../brep/shapes.ts';
import { orientLoops } from '../brep/orient-loops.ts';
import { assemble } from './assembly.ts';
import { Entities, UnknownStep } from './fields.ts';
import { faultOf } from './health.ts';
import { saidOfFaces } from './said.ts';
import { noSolid, shortName, type StepFacts } from './step-text.ts';
import { lengthUnitName, unitSystem } from './units.ts';

/**
 * Reads a STEP file (ISO 10303-21 with AP203, AP214 or AP242) into the neutral model: mm, the file's own frame. Throws a `Part21Error` that
 * names line and entity where the file is damaged, `StepFileError` where there is no solid in it, and {@link UnknownStep} where it may be
 * right and holds what this reader does not know, or what came of it is not sound.
 */
export function readStepModel(bytes: Uint8Array): SolidModel {
  const entities = new Entities(new Part21File(bytes));
  const { document, context } = assemble(entities);
  if (context === null) {
    // Faces that no body has, or surfaces by themselves: another reader may make something of them.
    const loose = LOOSE.find((type) => entities.file.ofType(type).length > 0);
    throw loose ? new UnknownStep(`${loose} without a body`, entities.file.ofType(loose)[0] ?? 0) : noSolid();
  }
  const sourceUnits = unitSystem([lengthUnitName(entities, context)]);
  const failed: number[] = [];
  const mesh = (face: FreeformFace) => {
    const made = meshFreeform(face);
    if (!made) failed.push(face.index);
    return made;
  };
  const model = buildModel(document, { name: productName(entities), sourceUnits }, mesh);
  if (!orientLoops(model)) throw new UnknownStep('two faces run one of their edges the same way', 0);
  const fault = failed.length > 0 ? `free-form face ${failed[0]} cannot be laid out flat` : faultOf(model);
  if (fault) throw new UnknownStep(fault, 0);
  addSaid(model, entities, document);
  return model;
}

/** Name of the first product, else its id. */
function productName(entities: Entities): string {
  const [first] = entities.file.ofType('PRODUCT');
  if (first === undefined) return '';
  const f = entities.need(first, 'PRODUCT');
  const text = (i: number): string => (i < f.count ? shortName(f.text(i)) : '');
  return text(1) || text(0);
}

/** Representations that bodies stand in, those of the parts themselves first. */
const OF_BODIES = [
  'ADVANCED_BREP_SHAPE_REPRESENTATION',
  'FACETED_BREP_SHAPE_REPRESENTATION',
  'MANIFOLD_SURFACE_SHAPE_REPRESENTATION',
  'SHAPE_REPRESENTATION',
];

/** The unit that a file's bodies are drawn in: one that is only declared is of no account. Null where the file does not say so plainly. */
export function unitsInUse(bytes: Uint8Array): StepFacts['sourceUnits'] | null {
  try {
    const entities = new Entities(new Part21File(bytes));
    for (const type of OF_BODIES)
      for (const id of entities.file.ofType(type)) {
        const context = entities.need(id, type).ref(2);
        if (entities.part(context, 'GLOBAL_UNIT_ASSIGNED_CONTEXT'))
          return unitSystem([lengthUnitName(entities, context)]);
      }
  } catch (error) {
    if (!(error instanceof Part21Error)) throw error;
  }
  return null;
}

/** What the file says of faces, where it says anything. */
function addSaid(model: SolidModel, entities: Entities, document: BrepDocument): void {
  if (entities.file.ofType('GEOMETRIC_ITEM_SPECIFIC_USAGE').length === 0) return;
  const facesOf = new Map<number, number[]>();
  faceEntities(document).forEach((entity, i) => {
    const known = facesOf.get(entity);
    if (known) known.push(i);
    else facesOf.set(entity, [i]);
  });
  const { said, unread } = saidOfFaces(entities, facesOf, model.sourceUnits);
  if (said.length > 0) model.said = said;
  if (unread > 0)
    model.notes.push({
      code: 'said-unread',
      message: `${unread} of the dimensions, tolerances and texts that the file attaches to the part could not be read. Look at the print.`,
    });
}

const LOOSE = ['GEOMETRIC_SET', 'ADVANCED_FACE', 'FACE_SURFACE'];
