import { peckCount } from '../../cutting/depths.ts';
import type { Parameters } from '../kind.ts';

/** A peck may be said as a depth, as a share of the diameter, or by how many pecks there are to be. */
export const PECK_BY = ['depth', 'share of ⌀', 'count'] as const;
export type PeckBy = (typeof PECK_BY)[number];

export interface PeckInput {
  diameter: number;
  /** From R to the tip's lowest place, mm. */
  travel: number;
  /** Peck as a share of the diameter, where nothing is typed. */
  share: number;
}

/** Peck depth Q, mm, with its parameters; at least 0.001 so that a typed nought is caught as such and no share rounds to it. */
export function peckDepth(parameters: Parameters, { diameter, travel, share }: PeckInput): number {
  const usual = Math.max(0.1, Math.round(diameter * share * 10) / 10);
  const by = parameters.choice<PeckBy>('peckBy', 'peck by', PECK_BY, 'depth', 'method');
  if (by === 'share of ⌀') {
    const q = diameter * parameters.number('peckShare', 'share of ⌀', share, 'method');
    parameters.derived('peck', 'peck', q, 'share × ⌀');
    parameters.shown('pecks', 'pecks', q > 0 ? String(peckCount(travel, q)) : '–');
    return q;
  }
  if (by === 'count') {
    const count = Math.max(
      1,
      Math.round(parameters.number('peckCount', 'pecks', peckCount(travel, usual), 'method')),
    );
    // Rounded up to what a control keeps: rounding down would add a sliver of a peck.
    const q = Math.ceil((travel / count) * 1000) / 1000;
    parameters.derived('peck', 'peck', q, 'depth / count');
    return q;
  }
  const q = parameters.length('peck', 'peck', usual, 'method', `${share} × ⌀`);
  parameters.shown('pecks', 'pecks', q > 0 ? String(peckCount(travel, q)) : '–');
  return q;
}
