import type { Correction } from '@yellow-pin/core/corrections/schema';
import { sideOf } from '@yellow-pin/core/setup/setup';
import { formatLength, type LengthUnit } from '@yellow-pin/core/units/length';

/** A direction as a side of the file's box, or its three parts. */
const directionName = (d: readonly number[]): string =>
  sideOf(d as [number, number, number]) ?? d.map((v) => v.toFixed(2)).join(', ');

/** A correction in words, for its list. */
export function correctionInWords(c: Correction, unit: LengthUnit): string {
  const say = (mm: number): string => formatLength(mm, unit);
  if (c.kind === 'made') {
    if ('edges' in c.feature)
      return `${c.feature.edges.length} ${c.feature.edges.length === 1 ? 'edge' : 'edges'} put in to be broken`;
    return `hole ⌀${say(c.feature.diameter)} put in at ${c.feature.entry.map(say).join(', ')}`;
  }
  const families = [...new Set(c.targets.map((t) => t.family))];
  const what = `${c.targets.length} ${families.length === 1 ? families[0] : 'feature'}${c.targets.length === 1 ? '' : 's'}`;
  switch (c.kind) {
    case 'dismiss':
      return `${what} dismissed`;
    case 'approach':
      return `${what} made from ${directionName(c.from)}`;
    case 'join':
      return `${what} joined into one`;
    case 'split':
      return `${what} split between ${say(c.from)} and ${say(c.to)}`;
    case 'own-chamfer':
      return `${what}: the entry chamfer is a job of its own`;
    case 'levels':
      if (c.depth !== null)
        return `${what}: depth ${say(c.depth)}${c.raiseTop ? `, top moved by ${say(c.raiseTop)}` : ''}`;
      return `${what}: ${[c.raiseTop ? `top ${c.raiseTop > 0 ? 'raised' : 'lowered'} by ${say(Math.abs(c.raiseTop))}` : '', c.lowerBottom ? `bottom ${c.lowerBottom > 0 ? 'lowered' : 'raised'} by ${say(Math.abs(c.lowerBottom))}` : ''].filter(Boolean).join(', ')}`;
  }
}
