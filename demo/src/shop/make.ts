import type { Tool } from '@yellow-pin/core/tools/schema';

/** A tool before it is known whether it stands in the magazine. */
export type Drawer = Omit<Tool, 'number'>;

export const round = (v: number, digits = 2): number => Math.round(v * 10 ** digits) / 10 ** digits;

/** Millimetres from inches. */
export const inch = (v: number): number => v * 25.4;

/** A size as it is written on a drawer: a number with its sign, a name without. */
export const sizeWords = (name: string): string => (/^[0-9.]+$/.test(name) ? `⌀${name}` : name);
