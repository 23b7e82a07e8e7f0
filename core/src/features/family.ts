import type { Frame } from '../geometry/frame.ts';
import type { Vec3 } from '../geometry/vec.ts';
import type { PartMesh } from '../model/mesh.ts';
import type { PatchGraph } from '../model/patches.ts';
import type { RayCaster } from '../model/ray.ts';
import type { ModelNote, SolidModel } from '../model/solid-model.ts';
import type { AreaShape } from './area/shape.ts';
import type { EdgeShape } from './edge/shape.ts';
import type { GrooveShape } from './groove-shape.ts';
import type { BossFeature } from './boss/schema.ts';
import type { BoreGrooveFeature } from './bore-groove/schema.ts';
import type { ChamferFeature } from './chamfer/schema.ts';
import type { ChannelFeature } from './channel/schema.ts';
import type { DovetailFeature } from './dovetail/schema.ts';
import type { FaceGrooveFeature } from './face-groove/schema.ts';
import type { FaceFeature } from './face/schema.ts';
import type { HoleFeature } from './hole/schema.ts';
import type { OutlineFeature } from './outline/schema.ts';
import type { PocketFeature } from './pocket/schema.ts';
import type { RoundedEdgeFeature } from './rounded-edge/schema.ts';
import type { RisingEdgeFeature } from './rising-edge/schema.ts';
import type { SharpEdgeFeature } from './sharp-edge/schema.ts';
import type { SlotFeature } from './slot/schema.ts';
import type { StepFeature } from './step/schema.ts';
import type { TSlotFeature } from './t-slot/schema.ts';
import type { WallGrooveFeature } from './wall-groove/schema.ts';

/** Every recognised feature. A new family adds its type here and its recogniser to the registry. */
export type Feature =
  | HoleFeature
  | SlotFeature
  | TSlotFeature
  | DovetailFeature
  | FaceGrooveFeature
  | ChannelFeature
  | BoreGrooveFeature
  | WallGrooveFeature
  | ChamferFeature
  | RoundedEdgeFeature
  | SharpEdgeFeature
  | RisingEdgeFeature
  | BossFeature
  | FaceFeature
  | OutlineFeature
  | StepFeature
  | PocketFeature;

export type FamilyName = Feature['family'];
export type FeatureOf<N extends FamilyName> = Extract<Feature, { family: N }>;

/** A feature before it has its id. */
export type Found<F extends Feature = Feature> = F extends Feature ? Omit<F, 'id'> : never;

/** A cavity's mouth: runs of points at the level of its face, as wide as `width` all along, and how deep it goes, mm. */
export interface Opening {
  runs: Vec3[][];
  width: number;
  depth: number;
}

export interface RecogniseContext {
  model: SolidModel;
  graph: PatchGraph;
  solid: number;
  /** Face numbers of that solid. */
  faces: number[];
  /** Patches of that solid. */
  patches: number[];
  middle: Vec3;
  mesh: PartMesh;
  rays: RayCaster;
  /** Tool direction that was asked for: features that can be read from two sides are read from this one. */
  up: Vec3 | null;
  /** The direction that is up for edges and walls: `up`, else the part's plane direction nearest the file's Z. */
  main: Vec3;
  /** Faces that belong to a feature of a family before. */
  claimed: ReadonlySet<number>;
  /** Features of the families before, of this solid. */
  found: readonly Feature[];
  /** What several families look at, worked out once. */
  memo: Map<string, unknown>;
}

/** Works `make` out on first use for this solid. */
export function once<T>(context: RecogniseContext, key: string, make: () => T): T {
  if (!context.memo.has(key)) context.memo.set(key, make());
  return context.memo.get(key) as T;
}

export interface Recognised<F extends Feature = Feature> {
  /** Without ids: those are given to all features of a part together. */
  features: Found<F>[];
  notes: ModelNote[];
}

/**
 * What a programmer may change about a feature of a family. What a family leaves out makes no sense for it; null: it does not fit this
 * feature. Lengths in mm.
 */
export interface FamilyChanges<F extends Feature = Feature> {
  /** How deep it goes. */
  depth?(feature: F): number;
  /** Its top raised along the axis, and how deep it goes from there. */
  moved?(feature: F, raise: number, depth: number): F | null;
  /** Read from its other end, which lies along `from`. */
  fromBelow?(feature: F, from: Vec3): F;
  /** Two of it, with air between these depths below its entry. */
  split?(feature: F, from: number, to: number): Feature[] | null;
  /** Its entry chamfer as a feature of its own. */
  ownChamfer?(feature: F, units: 'mm' | 'inch'): Feature[] | null;
  /** Several that are one. */
  join?(features: readonly F[]): F | null;
}

export interface FeatureFamily<N extends FamilyName = FamilyName> {
  family: N;
  /** First letters of the ids, `H1`, `H2` … */
  prefix: string;
  recognise(context: RecogniseContext): Recognised<FeatureOf<N>>;
  /** A point on it that names its place: where a tag stands. */
  place(feature: FeatureOf<N>): Vec3;
  /** Directions from each of which a part of it is made, as an end that widens; left out where any that reaches it will do. */
  madeFrom?(feature: FeatureOf<N>): Vec3[];
  /** Its place seen from below, where it opens there too. */
  placeBelow?(feature: FeatureOf<N>): Vec3 | null;
  /** What features of one row share, sizes aside; rows are grouped under it. Plural, as a heading. */
  group(feature: FeatureOf<N>): string;
  /** Order of the groups within the family. */
  groupRank?(feature: FeatureOf<N>): number;
  /** Its sizes as text: equal for features that are made alike. `anyDepth` leaves depths out. */
  sizeKey(feature: FeatureOf<N>, anyDepth: boolean): string;
  /** Its sizes for reading; `say` writes a length in the job's unit. */
  describe(feature: FeatureOf<N>, say: (mm: number) => string): string;
  /** The size that rows of one group are sorted by, mm. */
  sortBy(feature: FeatureOf<N>): number;
  /** Why nothing in the model asks for it to be made, where that is so: it is offered, never counted as open. */
  optional?: string;
  /** It is optional with prepared stock alone: any other has metal there. */
  isInPreparedStock?: true;
  /** It runs along an edge, which a tool may come to from any side. */
  isOnEdge?: true;
  /** Whether a tool may come in from below as well; left out where `bottom` says so, or nothing is open there. */
  isOpenBelow?(feature: FeatureOf<N>): boolean;
  /** What may be corrected about it. */
  changes?: FamilyChanges<FeatureOf<N>>;
  /** Lines in space that show it, where it is no point and has neither edges nor a centre line of its own. */
  curves?(feature: FeatureOf<N>): Vec3[][];
  /**
   * Its walls and levels as a cutter from a setup's side finds them, program coordinates; null where the file was read before they were
   * kept. Families that are no groove leave it out.
   */
  groove?(feature: FeatureOf<N>, frame: Frame): GrooveShape | null;
  /** Its borders and levels as a cutter from a setup's side finds them, program coordinates; families that are no area leave it out. */
  area?(feature: FeatureOf<N>, frame: Frame): AreaShape;
  /** Its run as a setup's side finds it, program coordinates; null where its curve was not kept. Families that are no edge leave it out. */
  edge?(feature: FeatureOf<N>, frame: Frame): EdgeShape | null;
  /** It is made where the job wants all sharp edges broken. */
  isBrokenOnWish?: true;
  /** What it opens in the face it is cut into; families that open nothing there leave it out. */
  opening?(feature: FeatureOf<N>): Opening;
}

/** A family whose features are not known more closely. */
export type AnyFamily = { [K in keyof FeatureFamily]: FeatureFamily[K] };

export const isBoss = (f: Feature): f is BossFeature => f.family === 'boss';
export const isHole = (f: Feature): f is HoleFeature => f.family === 'hole';
