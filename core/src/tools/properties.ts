import type { OwnNumber } from './kinds/kind.ts';
import { toolKind } from './kinds/registry.ts';
import type { Tool } from './schema.ts';

/** A number of a tool: its name here, its symbol in ISO 13399 where that has one, and what it is called. */
export interface ToolProperty {
  field: keyof Tool;
  symbol: string | null;
  label: string;
  type: 'length' | 'angle' | 'count';
}

/** Lengths that every tool has. */
export const COMMON_PROPERTIES: readonly ToolProperty[] = [
  { field: 'diameter', symbol: 'DC', label: 'diameter', type: 'length' },
  { field: 'fluteLength', symbol: 'LCF', label: 'flute length', type: 'length' },
  { field: 'overallLength', symbol: 'OAL', label: 'overall length', type: 'length' },
  { field: 'shankDiameter', symbol: 'DMM', label: 'shank \u2300', type: 'length' },
  { field: 'stickOut', symbol: 'LPR', label: 'stick-out', type: 'length' },
];

const OWN: Record<OwnNumber, Omit<ToolProperty, 'field'>> = {
  pointAngleDeg: { symbol: 'SIG', label: 'included angle', type: 'angle' },
  tipDiameter: { symbol: 'DCN', label: 'tip \u2300', type: 'length' },
  teeth: { symbol: 'NOF', label: 'teeth', type: 'count' },
  cornerRadius: { symbol: 'RE', label: 'corner radius', type: 'length' },
  neckDiameter: { symbol: 'DN', label: 'neck \u2300', type: 'length' },
  neckLength: { symbol: 'LU', label: 'usable length', type: 'length' },
  rampAngleDeg: { symbol: 'RMPX', label: 'steepest ramp', type: 'angle' },
  pilotDiameter: { symbol: null, label: 'pilot \u2300', type: 'length' },
  pilotLength: { symbol: null, label: 'pilot length', type: 'length' },
  profileRadius: { symbol: 'PRFRAD', label: 'profile radius', type: 'length' },
};

/** Every number that some kind of tool has of its own. */
export const OWN_PROPERTIES: readonly ToolProperty[] = (Object.keys(OWN) as OwnNumber[]).map((field) => ({
  field,
  ...OWN[field],
}));

/** The numbers of one kind of tool, in the order in which a form asks for them. */
export const propertiesOf = (kind: Tool['kind']): ToolProperty[] => [
  ...COMMON_PROPERTIES.slice(0, 1),
  ...toolKind(kind).own.map((field) => ({ field, ...OWN[field] })),
  ...COMMON_PROPERTIES.slice(1),
];
