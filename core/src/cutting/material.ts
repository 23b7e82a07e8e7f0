import { z } from 'zod';
import type { Tool } from '../tools/schema.ts';

export const cuttingDataSchema = z.object({
  /** Cutting speed with high-speed steel, m/min; carbide runs `carbideFactor` times as fast. */
  vc: z.number().positive(),
  carbideFactor: z.number().positive().default(2.5),
  /** Feed a turn, as a share of the diameter (mm per mm); taps ignore it. */
  feedShare: z.number().nonnegative().default(0),
  /** Feed a turn never above this, mm: beyond some diameter it is the machine's force and not the drill that decides. */
  maxFeedPerTurn: z.number().positive().default(0.35),
});

export const materialSchema = z.object({
  id: z.string().min(1),
  name: z.string().min(1).max(80),
  /** By kind of tool. A kind that a stored material does not know is missing here, never an error of the whole list. */
  cutting: z.record(z.string(), cuttingDataSchema),
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
      `${material.name} has no cutting data for ${tool.kind}. Add its speed and feed to the material, or choose another.`,
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

/** Speed and feed of a tool in a material for a hole of that depth, held to the machine's limits; the feed follows a clamped speed. */
export function speedAndFeed(tool: Tool, material: Material, limits: SpeedLimits, depth: number): SpeedFeed {
  const data = material.cutting[tool.kind];
  if (!data) throw new MissingCuttingData(material, tool);
  const deep = deepHoleFactors(material, depth / tool.diameter);
  const isTap = tool.kind === 'tap';
  const vc =
    data.vc * (tool.cutterMaterial === 'carbide' ? data.carbideFactor : 1) * (isTap ? 1 : deep.speedFactor);
  const wanted = Math.round(spindleSpeed(vc, tool.diameter));
  let speed = Math.min(wanted, limits.maxSpeed);
  const perTurn = isTap
    ? tool.thread!.pitch
    : Math.min(data.feedShare * tool.diameter, data.maxFeedPerTurn) * deep.feedFactor;
  let clamped: SpeedFeed['clamped'] = speed < wanted ? 'speed' : null;
  if (isTap && tapFeed(speed, perTurn) > limits.maxFeed) {
    speed = Math.floor(limits.maxFeed / perTurn);
    clamped = 'feed';
  }
  const feed = isTap ? tapFeed(speed, perTurn) : Math.min(drillFeed(speed, perTurn), limits.maxFeed);
  if (!isTap && drillFeed(speed, perTurn) > limits.maxFeed) clamped = 'feed';
  return { speed, feed, clamped };
}

function deepHoleFactors(material: Material, ratio: number): { speedFactor: number; feedFactor: number } {
  const rows = material.deepHoles
    .filter((r) => ratio > r.overDiameters)
    .sort((a, b) => b.overDiameters - a.overDiameters);
  return rows[0] ?? { speedFactor: 1, feedFactor: 1 };
}
