import * as Comlink from 'comlink';
import { textHash } from '@yellow-pin/core/code/files/hash';
import type { OperationFile } from '@yellow-pin/core/job/files';
import { Producer } from '@yellow-pin/core/job/produce';
import type { FloorSheet } from '@yellow-pin/core/sheet/schema';
import { floorSheets } from '@yellow-pin/core/sheet/sheet';
import { metalStl } from '@yellow-pin/core/sheet/stl';
import type { EdgePieces } from '@yellow-pin/core/sheet/views';
import type { Library } from '@yellow-pin/core/plan/library';
import type { Plan } from '@yellow-pin/core/plan/plan';
import type { Feature } from '@yellow-pin/core/features/family';
import { runByHand, type RunByHand } from '@yellow-pin/core/features/edge/by-hand';
import type { Vec3 } from '@yellow-pin/core/geometry/vec';
import type { DrawingDepths } from '@yellow-pin/core/drawing/depths';
import type { Drawing } from '@yellow-pin/core/drawing/read-dxf';
import { modelFromDrawing } from '@yellow-pin/core/drawing/to-model';
import { recognise, type Recognition } from '@yellow-pin/core/features/recognise';
import { boxFromPoints, type PartBox } from '@yellow-pin/core/setup/setup-frame';
import { lookAt, type Look } from '@yellow-pin/core/model/look';
import { pickables as pickablesOf, type Pickable, type PickableKind } from '@yellow-pin/core/model/pickable';
import { drawPicture, type Picture } from '@yellow-pin/core/model/picture';
import { edgeSegments, meshModel, type PartMesh } from '@yellow-pin/core/model/mesh';
import { boundsOf, type Bounds, type ModelNote, type SolidModel } from '@yellow-pin/core/model/solid-model';
import { Desk, MetalDesk, type Frame, type MetalStep, type ReadJob, type Reel } from './metal-steps.ts';
import { newCurves, screenProof, type ScreenStep } from './produce-steps.ts';

export interface PartPicture {
  mesh: PartMesh;
  edges: Float32Array;
  bounds: Bounds;
  solids: number;
  /** Of a drawing: what its depths gave; null for solids, whose notes come with the job. */
  notes: ModelNote[] | null;
}

/** What a plan is worked out from; sent once, since most changes are of the plan alone. */
export interface PlanSource {
  features: Feature[];
  library: Library;
  name: string;
}

let model: SolidModel | null = null;
let solidShown: number | null = null;
let shownMesh: PartMesh | null = null;
let shownEdges = new Float32Array();
let shownPieces: EdgePieces | null = null;
let bounds: Bounds | null = null;
let partBox: PartBox | undefined;
let recognised: Recognition | null = null;

/** Fetches a job's solid model and makes its picture; `solid` shows one of several. A revision may be named. */
async function open(
  jobId: string,
  solid: number | null,
  revision: number | null = null,
): Promise<PartPicture> {
  const response = await fetch(`/api/jobs/${jobId}/model${revision === null ? '' : `?revision=${revision}`}`);
  if (!response.ok) throw new Error('The part could not be fetched. Load the page again.');
  model = (await response.json()) as SolidModel;
  recognised = null;
  return show(solid);
}

/** A 2D drawing as a plate of the typed depths: its model and features are made here, each time a depth changes. */
function openDrawing(drawing: Drawing, depths: DrawingDepths): PartPicture {
  model = modelFromDrawing(drawing, depths);
  recognised = recognise(model);
  return { ...show(null), notes: recognised.notes };
}

function show(solid: number | null): PartPicture {
  if (!model) throw new Error('no part is open');
  const whole = model;
  sent = new Set();
  solidShown = solid;
  const mesh = meshModel(whole, (f) => solid === null || f.solid === solid);
  shownMesh = mesh;
  const pieces = edgeSegments({
    ...whole,
    edges: whole.edges.filter((e) => solid === null || e.faces.some((f) => whole.faces[f]!.solid === solid)),
  });
  const edges = pieces.positions;
  // What is sent away is not here any more.
  shownEdges = edges.slice();
  shownPieces = { ...pieces, positions: shownEdges };
  bounds =
    solid === null
      ? whole.bounds
      : boundsOf(
          whole.edges
            .filter((e) => e.faces.some((f) => whole.faces[f]!.solid === solid))
            .flatMap((e) => e.points),
        );
  partBox = boxFromPoints(bounds, mesh.positions.slice());
  return { mesh, edges, bounds, solids: whole.solids.length, notes: null };
}

/** The part that is shown as a still picture, for browsers that draw nothing in the round. */
function stillPicture(width: number, height: number): Picture {
  if (!shownMesh || !model) throw new Error('no part is open');
  return drawPicture(shownMesh, shownEdges, { width, height });
}

/** Places of the part that is shown, to choose from a list. */
const pickables = (kinds: PickableKind[]): Pickable[] => (model ? pickablesOf(model, kinds, solidShown) : []);

/** A solid of the file as it is shown to be chosen. */
export interface SolidCard {
  name: string;
  bounds: Bounds;
  picture: Picture;
}

/** Each solid of the file with its picture. */
function solidCards(width: number, height: number): SolidCard[] {
  const whole = model;
  if (!whole) return [];
  return whole.solids.map(({ name }, s) => {
    const edges = whole.edges.filter((e) => e.faces.some((f) => whole.faces[f]!.solid === s));
    const mesh = meshModel(whole, (f) => f.solid === s);
    const { positions } = edgeSegments({ ...whole, edges });
    return {
      name,
      bounds: boundsOf(edges.flatMap((e) => e.points)),
      picture: drawPicture(mesh, positions, { width, height }),
    };
  });
}

/** What is at a point of a face. */
const look = (face: number, point: Vec3): Look | null => (model ? lookAt(model, face, point) : null);

/** Edges chosen by hand as a run seen from a direction. */
const edgeRun = (edges: number[], up: Vec3): RunByHand | null => (model ? runByHand(model, edges, up) : null);

/** Features whose curves the screens have already. */
let sent = new Set<string>();
/** What was last read back; null while another is worked out. */
let readJob: ReadJob | null = null;
let latestMetal = 0;
const desk = new Desk();
const metalDesk = new MetalDesk();
const producer = new Producer();
let source: PlanSource | null = null;
let shown: { of: Feature[]; solid: number | null; list: Feature[] } | null = null;
/** The newest request: what is being worked out for another is given up at its next step. */
let latest = 0;

/** Lets messages that came meanwhile be heard. */
const pause = (): Promise<void> =>
  new Promise((resolve) => {
    const { port1, port2 } = new MessageChannel();
    port1.onmessage = () => {
      port1.close();
      resolve();
    };
    port2.postMessage(null);
  });

/**
 * The job that follows from the plan: operations, then code, then what the code was found to do, each told as soon as it is there. Of many
 * changes in a row, as in a drag, only the last is worked out. False where another request came meanwhile. `from`: null where it is as it was.
 */
async function produce(
  plan: Plan,
  from: PlanSource | null,
  tell: (step: ScreenStep) => void,
): Promise<boolean> {
  const me = ++latest;
  readJob = null;
  if (from) source = from;
  await pause();
  if (me !== latest) return false;
  if (!bounds || !model || !source) throw new Error('no part is open');
  const { library, name } = source;
  const features = shownFeatures(recognised?.features ?? source.features);
  const input = { features, bounds, partBox, plan, library, name, mesh: shownMesh };
  for (const s of producer.steps(input)) {
    if (s.step === 'plan') tell({ step: 'plan', job: s.job, curves: newCurves(s.job.rows, model, sent) });
    else if (s.step === 'code') tell(s);
    else {
      const proofs = new Map(s.programs.map((p) => [p.setup.setup.id, screenProof(p, s.job.machine)]));
      const buffers = [...proofs.values()].flatMap(({ motion: m }) => [
        m.lines.buffer,
        m.rapid.buffer,
        m.points.buffer,
      ]);
      readJob = { input, job: s.job, programs: s.programs, checks: s.checks, faces: model.faces };
      tell(Comlink.transfer({ step: 'proof', proofs, checks: s.checks }, buffers));
    }
    await pause();
    if (me !== latest) return false;
  }
  return true;
}

/** Features of the solid that is shown: the same list as long as nothing else is shown. */
function shownFeatures(all: Feature[]): Feature[] {
  if (shown?.of !== all || shown.solid !== solidShown)
    shown = {
      of: all,
      solid: solidShown,
      list: all.filter((f) => solidShown === null || f.solid === solidShown),
    };
  return shown.list;
}

/**
 * Takes the metal off by what was read last, and compares it with the part; after `rest` ms in which nothing else is read. False where there
 * is nothing read, or another request came meanwhile. What is known of the same texts is told at once.
 */
async function metal(tolerance: number, rest: number, tell: (step: MetalStep) => void): Promise<boolean> {
  const mine = readJob;
  const me = ++latestMetal;
  if (!mine) return false;
  if (metalDesk.tellsKnown(mine, tolerance, tell)) return true;
  const isWanted = (): boolean => mine === readJob && me === latestMetal;
  await new Promise((resolve) => setTimeout(resolve, rest));
  if (!isWanted()) return false;
  return metalDesk.takeOff(mine, tolerance, tell, async () => {
    await pause();
    return isWanted();
  });
}

/** Sets a setup's program up to be played; null where it has none, or is not read yet. */
const playSetup = (setupId: string): Reel | null => (readJob ? desk.open(readJob, setupId) : null);

/** Metal and tool at a moment of the program that is set up, s. */
function playAt(seconds: number): Frame | null {
  const frame = desk.at(seconds);
  return (
    frame &&
    Comlink.transfer(
      frame,
      frame.patches.flatMap(({ mesh }) => [mesh.positions.buffer, mesh.normals.buffer, mesh.tools.buffer]),
    )
  );
}

/** The floor sheets of what was read last, with the hashes of its files; null while it is not read. */
function sheets(): FloorSheet[] | null {
  if (!readJob || !shownMesh || !shownPieces) return null;
  const { input, job, programs } = readJob;
  return floorSheets({
    name: input.name,
    plan: input.plan,
    job,
    programs,
    mesh: shownMesh,
    edges: shownPieces,
    hashOf: (f) => textHash(f.text),
  });
}

/** The stock as a setup's program leaves it, as an STL file; null where it is not read yet. */
async function stockStl(setupId: string, name: string): Promise<Uint8Array<ArrayBuffer> | null> {
  const mine = readJob;
  if (!mine) return null;
  const own = new Desk();
  const reel = own.open(mine, setupId);
  if (!reel) return null;
  await pause();
  const frame = own.at(reel.total);
  const bytes = metalStl(frame?.patches.map((p) => p.mesh) ?? [], name);
  return Comlink.transfer(bytes, [bytes.buffer]);
}

/** One operation of what was read last as a program of its own, or why it cannot be. */
const operationFile = (setupId: string, operationId: string): OperationFile =>
  producer.operation(setupId, operationId);

const jobWorker = {
  open,
  openDrawing,
  show,
  produce,
  metal,
  playSetup,
  playAt,
  look,
  edgeRun,
  pickables,
  solidCards,
  stillPicture,
  sheets,
  stockStl,
  operationFile,
};
export type JobWorker = typeof jobWorker;
Comlink.expose(jobWorker);
