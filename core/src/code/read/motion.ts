import type { Compensation } from './compensation.ts';
import type { CycleName } from '../../motion/work.ts';

/** A coordinate that the text does not determine (machine home, before the first move) is null: never a number to reach. */
export type Coordinate = number | null;
export type Place = readonly [Coordinate, Coordinate, Coordinate];

/** One thing the machine does. Program coordinates in mm, feed mm/min, speed rpm. */
export interface Motion {
  line: number;
  /** Of a motion in a subprogram: the line of the main program that called it. */
  caller?: number;
  kind: 'rapid' | 'feed' | 'arc' | 'dwell' | 'tap';
  tool: number;
  from: Place;
  to: Place;
  centre?: readonly [number, number, number];
  /** Full turns of an arc beyond the last part turn. */
  turns?: number;
  clockwise?: boolean;
  /** Together with the arcs beside it, about the same centre, it goes round at least once. */
  round?: true;
  feed: number;
  speed: number;
  cycle?: string;
  /** The way a hole is made that it is part of, by a cycle or written out. */
  how?: CycleName;
  /** Cutter compensation in force; ends are where the cutter's middle goes, once it has been worked out. */
  compensation?: Compensation;
  /** Dwell time, s. */
  seconds?: number;
}

/** One hole made by a cycle line, or by straight moves that do the same, as read from the text. */
export interface CycleCall {
  line: number;
  caller?: number;
  /** Of a hole that is written out: the lines that make it. */
  lines?: readonly [number, number];
  /** The word as it stands in the text, and what it does. */
  cycle: string;
  how: CycleName;
  /** Of tapping: which way the thread turns. */
  hand?: 'right' | 'left';
  tool: number;
  x: number;
  y: number;
  r: number;
  z: number;
  initial: number;
  q?: number;
  dwellSeconds?: number;
  feed: number;
  feedPerTurn: boolean;
  speed: number;
  spindle: 'clockwise' | 'counter-clockwise' | 'off';
  coolant: boolean;
  /** Such as G54; null where none was chosen. */
  workOffset: string | null;
  /** The tool stood below this R and somewhere else when the line began. */
  rises: boolean;
}

/** The line of the main program in which something happens: lines of subprograms stand after its end, whenever they run. */
export const mainLine = (m: { line: number; caller?: number }): number => m.caller ?? m.line;

/** Something in the text that is wrong or was not understood. Many of one kind are one problem with a count in its message. */
export interface ReadProblem {
  line: number;
  severity: 'error' | 'warning';
  rule: string;
  message: string;
}

export interface ReadProgram {
  motions: Motion[];
  calls: CycleCall[];
  problems: ReadProblem[];
  units: 'mm' | 'inch';
  lineCount: number;
  /** Work offsets as they are chosen, with their lines. */
  workOffsets: { line: number; name: string }[];
  /** Magazine places in the order in which tools are changed in. */
  toolChanges: { line: number; tool: number; /** How many motions there were before. */ motions: number }[];
}
