import { length2 } from '../geometry/path.ts';
import type { ReadProgram } from '../code/read/motion.ts';
import { fromFrame } from '../geometry/frame.ts';
import type { Vec3 } from '../geometry/vec.ts';
import type { DerivedJob, DerivedSetup, Row } from '../job/derive.ts';
import { ownsFaces } from '../job/row.ts';
import type { SeenBoss } from '../proof/threads/bosses.ts';
import type { SeenHole } from '../proof/checks/check.ts';
import { widestStep } from '../tools/kinds/kind.ts';
import type { Difference, DifferenceKind } from './compare.ts';
import { blockSide, PaintBlocks } from './paint.ts';
import type { WallFinding, WallProbes } from './probes.ts';
import type { SetupMetal } from './setup-metal.ts';

/** A setup's program as it was read. */
export interface ReadSetup {
  setup: DerivedSetup;
  read: ReadProgram;
  /** The holes that this setup reaches, as they are to be made. */
  holes: readonly SeenHole[];
  /** Bosses with a thread. */
  bosses?: readonly SeenBoss[];
}

/** Where metal and model differ. */
export interface ProofPlace {
  kind: DifferenceKind;
  setupId: string;
  /** The row it belongs to, and the feature; null where it is no feature's. */
  tag: string | null;
  feature: string | null;
  /** In the part file's frame. */
  at: Vec3;
  /** mm and mm³. */
  depth: number;
  volume: number;
  line: number | null;
  tool: number | null;
}

/** A tool on a hole's axis, mm. */
const SAME_AXIS = 0.02;
/** Rows by the faces of their features, and by their ids: what lies at a face is that feature's. */
export function ownersOf(job: DerivedJob): Map<number | string, { row: Row; feature: string }> {
  const out = new Map<number | string, { row: Row; feature: string }>();
  for (const row of job.rows)
    for (const f of row.size.features)
      if (ownsFaces(row)) for (const key of [f.id, ...f.faces]) out.set(key, { row, feature: f.id });
  return out;
}

/** The setup that is the last to work on a row; where none does, the first that looks at it. */
export const homeOf = (row: Row): string | null => row.operations.at(-1)?.setupId ?? row.setupId;

/** What the walls say that the grid may be too coarse for. Their volumes are the grid's affair. */
export function wallDifferences(
  probes: WallProbes | null,
  { cavities, grid }: SetupMetal,
  owners: ReturnType<typeof ownersOf>,
  setupId: string,
): Difference[] {
  if (!probes) return [];
  const side = blockSide(grid.place.cell);
  const difference = (kind: DifferenceKind, w: WallFinding): Difference => {
    const blocks = new PaintBlocks(side);
    blocks.add(w.at[0], w.at[1], w.at[2] - side / 2, w.at[2] + side / 2);
    return {
      kind,
      face: w.face,
      cavity: null,
      depth: w.depth,
      at: w.at,
      volume: 0,
      motion: w.motion,
      blocks,
    };
  };
  const isDue = (face: number, x: number, y: number, z: number): boolean => {
    const owner = owners.get(face);
    if (!owner || owner.row.operations.length === 0 || homeOf(owner.row) !== setupId) return false;
    return cavities.featureAt(x, y, z) === owner.feature;
  };
  return [
    ...probes.cuts.map((w) => difference('over-cut', w)),
    ...probes.stuck(isDue).map((w) => difference('left-over', w)),
  ];
}

/** Places of one feature and kind are one: its worst, with the volume of all. */
export function together(places: readonly ProofPlace[]): ProofPlace[] {
  const out = new Map<string, ProofPlace>();
  const loose: ProofPlace[] = [];
  for (const p of places) {
    if (p.feature === null) {
      loose.push(p);
      continue;
    }
    const key = `${p.kind}/${p.feature}`;
    const known = out.get(key);
    if (!known) out.set(key, { ...p });
    else out.set(key, { ...(p.depth > known.depth ? p : known), volume: known.volume + p.volume });
  }
  return [...out.values(), ...loose];
}

/** The hole that a cut belongs to which lies at no feature's face: the one its tool went straight down in, or on whose axis it lies. */
function holeOf(d: Difference, { read, holes }: ReadSetup): string | null {
  if (d.kind !== 'over-cut') return null;
  const [x, y] = (d.motion === null ? null : read.motions[d.motion]?.to) ?? [null, null];
  const found = holes.find(({ view }) => {
    if (x !== null && y !== null && length2(x - view.x, y - view.y) < SAME_AXIS) return true;
    return length2(d.at[0] - view.x, d.at[1] - view.y) <= widestStep(view) / 2 && d.at[2] <= view.entryZ;
  });
  return found?.view.feature.id ?? null;
}

/** Metal that reaches no higher is none upon a floor, mm. */
const AT_FLOOR = 0.02;

/** Where a feature ends, seen from the setup that makes it; what a row has no view of ends nowhere. */
function lowestOf({ row, feature }: { row: Row; feature: string }): number {
  const view = [...row.holes, ...row.grooves, ...row.areas, ...row.edges].find(
    (v) => v.feature.id === feature,
  );
  return view ? view.entryZ - view.depth : -Infinity;
}

/** A difference with what it belongs to; null for metal that another setup is to take. */
export function placeOf(
  d: Difference,
  owners: ReturnType<typeof ownersOf>,
  program: ReadSetup,
  isLast: boolean,
): ProofPlace | null {
  const { setup, read } = program;
  const owner = owners.get(d.cavity ?? d.face) ?? owners.get(holeOf(d, program) ?? '') ?? null;
  const setupId = setup.setup.id;
  // Where stock stood proud all that no setup was to take is to be gone in the end.
  const isAll = isLast && setup.frame.body.standsProud;
  const home = owner && homeOf(owner.row);
  const isDue = home === null ? isAll : home === setupId;
  if (d.kind === 'left-over' && !isDue) return null;
  // Metal up to where a feature ends, beside it or below, is stock that another setup takes.
  if (d.kind === 'left-over' && owner && !isLast && d.at[2] < lowestOf(owner) + AT_FLOOR) return null;
  const motion = d.motion === null ? null : read.motions[d.motion];
  return {
    kind: d.kind,
    setupId,
    tag: owner?.row.tag ?? null,
    feature: owner?.feature ?? null,
    at: fromFrame(setup.frame.frame, d.at),
    depth: d.depth,
    volume: d.volume,
    line: motion?.line ?? null,
    tool: motion?.tool ?? null,
  };
}
