import { z } from 'zod';
import { toolKind } from '../tools/kinds/registry.ts';
import type { Tool } from '../tools/schema.ts';

/** Speed and feed of some kinds of tool in a range of diameters. */
export const cuttingRowSchema = z.object({
  /** Kinds of tool by name. A kind that a stored material does not know is missing here, never an error of the whole list. */
  kinds: z.array(z.string().min(1)).min(1),
  /** Diameters from and below which the row holds, mm; without them all. */
  from: z.number().nonnegative().optional(),
  below: z.number().positive().optional(),
  /** Cutting speed with high-speed steel, m/min; carbide runs `carbideFactor` times as fast. */
  vc: z.number().positive(),
  carbideFactor: z.number().positive().default(2.5),
  /** Feed a turn, or a tooth for kinds that are fed by the tooth, as a share of the diameter (mm per mm); taps ignore it. */
  feedShare: z.number().nonnegative().default(0),
  /** Feed a turn or tooth never above this, mm: beyond some diameter it is the machine's force and not the tool that decides. */
  maxFeedPerTurn: z.number().positive().default(0.35),
  /** Of mills in a cut as wide as they are: share of the feed, and the usual depth of such a cut as a share of the diameter. */
  fullWidth: z.object({ feed: z.number().positive().max(1), depth: z.number().positive() }).optional(),
});
export type CuttingRow = z.infer<typeof cuttingRowSchema>;

/** Materials stored before had one entry for each kind. */
const asRows = (stored: unknown): unknown =>
  stored !== null && typeof stored === 'object' && !Array.isArray(stored)
    ? Object.entries(stored).map(([kind, data]) => ({ ...(data as object), kinds: [kind] }))
    : stored;

export const materialSchema = z.object({
  id: z.string().min(1),
  name: z.string().min(1).max(80),
  cutting: z.preprocess(asRows, z.array(cuttingRowSchema)),
  /** Hole depth in diameters from which chips are broken, and from which the drill comes out at each peck. */
  pecking: z
    .object({ chipBreakFrom: z.number().positive(), fullRetractFrom: z.number().positive() })
    .default({ chipBreakFrom: 3, fullRetractFrom: 5 }),
  /** Hole depth in diameters from which speed and feed are reduced, and to what. */
  deepHoles: z.array(
    z.object({
      overDiameters: z.number().positive(),
      speedFactor: z.number().positive(),
      feedFactor: z.number().positive(),
    }),
  ),
});
export type Material = z.infer<typeof materialSchema>;

/** A material without data for a kind of tool: what needs it stays open, and nothing else. */
export class MissingCuttingData extends RangeError {
  constructor(material: Material, tool: Tool) {
    super(
      `${material.name} has no cutting data for ${toolKind(tool.kind).label} \u2300${tool.diameter}. Add its speed and feed to the material, or choose another.`,
    );
  }
}

/** Spindle speed, rpm: n = 1000·vc/(π·D), vc in m/min, D in mm. */
export const spindleSpeed = (vc: number, diameter: number): number => (1000 * vc) / (Math.PI * diameter);

/** Spindle speed from surface feet a minute and inches: n = 12·SFM/(π·D). */
export const spindleSpeedInch = (sfm: number, diameter: number): number => (12 * sfm) / (Math.PI * diameter);

/** Feed of a mill, mm/min: F = n·z·fz. */
export const millFeed = (speed: number, teeth: number, feedPerTooth: number): number =>
  speed * teeth * feedPerTooth;

/** Feed of a drill, mm/min: F = n·f. */
export const drillFeed = (speed: number, feedPerTurn: number): number => speed * feedPerTurn;

/** Feed of a tap, mm/min: F = n·P. Never anything else. */
export const tapFeed = (speed: number, pitch: number): number => speed * pitch;

export interface SpeedLimits {
  maxSpeed: number;
  maxFeed: number;
}

export interface SpeedFeed {
  /** rpm, whole. */
  speed: number;
  /** mm/min. */
  feed: number;
  /** Said where the machine held one of them back. */
  clamped: 'speed' | 'feed' | null;
}

/** The row that holds for a tool: the narrowest range that has its diameter; undefined where the material says nothing of it. */
export const cuttingRow = (
  material: Material,
  tool: Pick<Tool, 'kind' | 'diameter'>,
): CuttingRow | undefined =>
  material.cutting
    .filter(
      (r) =>
        r.kinds.includes(tool.kind) &&
        tool.diameter >= (r.from ?? 0) - 1e-9 &&
        tool.diameter < (r.below ?? Infinity),
    )
    .sort((a, b) => width(a) - width(b))[0];
/** Where a material says nothing of cuts as wide as the cutter. */
export const USUAL_FULL_WIDTH = { feed: 0.7, depth: 0.5 };

/** Share of the feed in a cut as wide as the cutter, and how deep such a cut usually is, mm. */
export function fullWidthCut(material: Material, tool: Tool): { feedShare: number; depth: number } {
  const { feed, depth } = cuttingRow(material, tool)?.fullWidth ?? USUAL_FULL_WIDTH;
  return { feedShare: feed, depth: Math.min(depth * tool.diameter, tool.fluteLength) };
}

const width = (r: CuttingRow): number => (r.below ?? Infinity) - (r.from ?? 0);

/** Speed and feed of a tool in a material for a hole of that depth, held to the machine's limits; the feed follows a clamped speed. */
export function speedAndFeed(tool: Tool, material: Material, limits: SpeedLimits, depth: number): SpeedFeed {
  const data = cuttingRow(material, tool);
  if (!data) throw new MissingCuttingData(material, tool);
  const deep = deepHoleFactors(material, depth / tool.diameter);
  const { thread } = tool;
  const vc =
    data.vc * (tool.cutterMaterial === 'carbide' ? data.carbideFactor : 1) * (thread ? 1 : deep.speedFactor);
  const wanted = Math.round(spindleSpeed(vc, tool.diameter));
  let speed = Math.min(wanted, limits.maxSpeed);
  const teeth = toolKind(tool.kind).feedsByTooth ? (tool.teeth ?? 2) : 1;
  const perTurn = thread
    ? thread.pitch
    : Math.min(data.feedShare * tool.diameter, data.maxFeedPerTurn) * deep.feedFactor * teeth;
  let clamped: SpeedFeed['clamped'] = speed < wanted ? 'speed' : null;
  if (thread && tapFeed(speed, perTurn) > limits.maxFeed) {
    speed = Math.floor(limits.maxFeed / perTurn);
    clamped = 'feed';
  }
  const feed = thread ? tapFeed(speed, perTurn) : Math.min(drillFeed(speed, perTurn), limits.maxFeed);
  if (!thread && drillFeed(speed, perTurn) > limits.maxFeed) clamped = 'feed';
  return { speed, feed, clamped };
}

function deepHoleFactors(material: Material, ratio: number): { speedFactor: number; feedFactor: number } {
  const rows = material.deepHoles
    .filter((r) => ratio > r.overDiameters)
    .sort((a, b) => b.overDiameters - a.overDiameters);
  return rows[0] ?? { speedFactor: 1, feedFactor: 1 };
}
