import type { Vec3 } from '../geometry/vec.ts';

/** To a millionth of a millimetre: hides the noise of the last digits, nothing that can be measured. */
export const round = (v: number): number => Math.round(v * 1e6) / 1e6 + 0;
export const roundVec = (v: Vec3): Vec3 => [round(v[0]), round(v[1]), round(v[2])];
