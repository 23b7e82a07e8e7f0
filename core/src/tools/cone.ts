import { rimDiameter, spotDepth } from '../cutting/depths.ts';
import { toolKind } from './kinds/registry.ts';
import type { MainCone } from './kinds/kind.ts';
import type { Tool } from './schema.ts';

/** The cone with which a tool opens rims; throws a RangeError for a kind that has none. */
export function coneOf(tool: Tool): MainCone {
  const cone = toolKind(tool.kind).cone?.(tool);
  if (!cone) throw new RangeError(`${tool.description} has no cone`);
  return cone;
}

/** Diameter of the rim that a tool leaves with its tip so deep below the rim's level, mm; what its cone does not reach is its start's. */
export function rimAt(tool: Tool, depth: number): number {
  const { z, diameter, angleDeg } = coneOf(tool);
  return rimDiameter(depth - z, angleDeg, diameter);
}

/** How deep below the rim's level a tool's tip goes to leave that rim, mm. */
export function tipForRim(tool: Tool, rim: number): number {
  const { z, diameter, angleDeg } = coneOf(tool);
  return z + spotDepth(rim, angleDeg, diameter);
}
