import { CYCLE_WORDS } from '@yellow-pin/core/code/cycles';
import type { MachineProfile } from '@yellow-pin/core/code/profiles/schema';

type Set = (p: MachineProfile) => Partial<MachineProfile>;

/** One thing that a profile says, as a control on its form. */
export type Field = {
  name: string;
  says?: string;
  /** Only asked where it means something. */
  when?(p: MachineProfile): boolean;
} & (
  | { kind: 'number'; unit?: string; of(p: MachineProfile): number; set(v: number): Set }
  | { kind: 'switch'; of(p: MachineProfile): boolean; set(v: boolean): Set }
  | {
      kind: 'choice';
      options: readonly (readonly [string, string])[];
      of(p: MachineProfile): string;
      set(v: string): Set;
    }
  | { kind: 'text'; of(p: MachineProfile): string; set(v: string): Set }
  /** Lines of code, one below the other. */
  | { kind: 'lines'; of(p: MachineProfile): readonly string[]; set(v: string[]): Set }
  /** Which of several. */
  | { kind: 'some'; all: readonly string[]; of(p: MachineProfile): readonly string[]; set(v: string[]): Set }
);

type NumberKey = {
  [K in keyof MachineProfile]: MachineProfile[K] extends number ? K : never;
}[keyof MachineProfile];
type SwitchKey = {
  [K in keyof MachineProfile]: MachineProfile[K] extends boolean ? K : never;
}[keyof MachineProfile];

const number = (key: NumberKey, name: string, unit?: string, says?: string): Field => ({
  kind: 'number',
  name,
  unit,
  says,
  of: (p) => p[key],
  set: (v) => () => ({ [key]: v }),
});
const onOff = (key: SwitchKey, name: string, says?: string): Field => ({
  kind: 'switch',
  name,
  says,
  of: (p) => p[key],
  set: (v) => () => ({ [key]: v }),
});
type ChoiceKey = {
  [K in keyof MachineProfile]: MachineProfile[K] extends string ? K : never;
}[keyof MachineProfile];
const choice = <K extends ChoiceKey>(
  key: K,
  name: string,
  options: readonly (readonly [MachineProfile[K], string])[],
  says?: string,
): Field => ({
  kind: 'choice',
  name,
  says,
  options,
  of: (p) => p[key],
  set: (v) => () => ({ [key]: v }),
});
const axis = (key: 'x' | 'y' | 'z'): Field => ({
  kind: 'number',
  name: `travel ${key.toUpperCase()}`,
  unit: 'mm',
  says: '0: not known',
  of: (p) => p.travel?.[key] ?? 0,
  set: (v) => (p) => {
    const travel = { ...(p.travel ?? { x: v, y: v, z: v }), [key]: v };
    return { travel: v > 0 ? travel : null };
  },
});
const parked = (key: 'x' | 'y'): Field => ({
  kind: 'number',
  name: `at machine ${key.toUpperCase()}`,
  unit: 'mm',
  when: (p) => p.park !== null,
  of: (p) => p.park?.[key] ?? 0,
  set: (v) => (p) => ({ park: { ...(p.park ?? { x: 0, y: 0 }), [key]: v } }),
});

/** Everything that a profile says, in the groups of the form. */
export const GROUPS: readonly { name: string; fields: readonly Field[] }[] = [
  {
    name: 'Machine',
    fields: [
      number('maxSpeed', 'speed at most', 'rpm'),
      number('maxFeed', 'feed at most', 'mm/min'),
      number('rapid', 'rapid', 'mm/min'),
      number('acceleration', 'speeds up by', 'mm/s²'),
      number('toolChangeSeconds', 'tool change', 's'),
      number('spindleStartSeconds', 'spindle start', 's'),
      number('magazineSize', 'places in the magazine'),
      axis('x'),
      axis('y'),
      axis('z'),
    ],
  },
  {
    name: 'Cycles and taps',
    fields: [
      {
        kind: 'some',
        name: 'cycles it has',
        says: 'holes that would need another are written out',
        all: CYCLE_WORDS,
        of: (p) => p.cycles,
        set: (v) => () => ({ cycles: CYCLE_WORDS.filter((w) => v.includes(w)) }),
      },
      choice('tapping', 'tapping in step', [
        ['built-in', 'by the cycle alone'],
        ['announced', 'told by a word before it'],
      ]),
      { ...number('tapWord', 'told by M'), when: (p) => p.tapping === 'announced' },
      onOff('pecksTaps', 'Q pecks taps'),
      number('chipBreakBackOff', 'G73 backs off', 'mm'),
      number('peckClearance', 'G83 stops short by', 'mm'),
      choice('dwellUnit', 'dwell P in', [
        ['milliseconds', 'ms, or s with a point'],
        ['seconds', 's'],
      ]),
      choice('riseOrder', 'to a higher R', [
        ['unknown', 'not known: the worse is proved'],
        ['up-first', 'it goes up first'],
        ['across-first', 'it goes across first'],
      ]),
    ],
  },
  {
    name: 'Start and end',
    fields: [
      {
        kind: 'switch',
        name: 'program numbers',
        of: (p) => p.programNumber !== null,
        set: (v) => (p) => ({ programNumber: v ? (p.programNumber ?? 1001) : null }),
      },
      {
        kind: 'number',
        name: 'first setup is O',
        when: (p) => p.programNumber !== null,
        says: 'each further one has the next',
        of: (p) => p.programNumber ?? 0,
        set: (v) => () => ({ programNumber: v > 0 ? v : null }),
      },
      onOff('percentSigns', '% at both ends'),
      {
        kind: 'lines',
        name: 'own lines at the start',
        says: 'a safe start, accuracy; they are read back like any other',
        of: (p) => p.startLines,
        set: (v) => () => ({ startLines: v }),
      },
      {
        kind: 'lines',
        name: 'own lines at the end',
        of: (p) => p.endLines,
        set: (v) => () => ({ endLines: v }),
      },
      choice('endWord', 'ends with', [
        ['M30', 'M30'],
        ['M2', 'M2'],
      ]),
      choice('home', 'goes home by', [
        ['machine-coordinates', 'machine coordinates, G53'],
        ['reference-return', 'reference return, G28'],
        ['second-reference', 'second reference, G30'],
      ]),
      {
        kind: 'switch',
        name: 'X and Y are parked at the end',
        of: (p) => p.park !== null,
        set: (v) => (p) => ({ park: v ? (p.park ?? { x: 0, y: 0 }) : null }),
      },
      parked('x'),
      parked('y'),
    ],
  },
  {
    name: 'Tools and coolant',
    fields: [
      choice('toolCall', 'a tool is called', [
        ['tool-first', 'T1 M6'],
        ['change-first', 'M6 T1'],
        ['two-blocks', 'T1, then M6'],
      ]),
      choice('toolLength', 'its length is taken', [
        ['called', 'by G43 H'],
        ['with-change', 'by the change itself'],
      ]),
      onOff('stageNextTool', 'the next tool is staged'),
      onOff('otherLengthOffsets', 'G43 may take another H'),
      onOff('coolant', 'coolant'),
      { ...number('coolantOn', 'on: M'), when: (p) => p.coolant },
      { ...number('coolantOff', 'off: M'), when: (p) => p.coolant },
      onOff('oneMPerBlock', 'one M in a block'),
      onOff('optionalStop', 'M1 after each tool'),
    ],
  },
  {
    name: 'Blocks',
    fields: [
      {
        kind: 'choice',
        name: 'line numbers',
        options: [
          ['none', 'none'],
          ['blocks', 'before every block'],
          ['tool-changes', 'at tool changes'],
        ],
        of: (p) => (p.lineNumbers.on ? p.lineNumbers.where : 'none'),
        set: (v) => (p) => ({
          lineNumbers: {
            ...p.lineNumbers,
            on: v !== 'none',
            where: v === 'tool-changes' ? 'tool-changes' : 'blocks',
          },
        }),
      },
      {
        kind: 'number',
        name: 'from N',
        when: (p) => p.lineNumbers.on,
        of: (p) => p.lineNumbers.start,
        set: (v) => (p) => ({ lineNumbers: { ...p.lineNumbers, start: v } }),
      },
      {
        kind: 'number',
        name: 'by',
        when: (p) => p.lineNumbers.on,
        of: (p) => p.lineNumbers.step,
        set: (v) => (p) => ({ lineNumbers: { ...p.lineNumbers, step: v } }),
      },
      choice('commentStyle', 'comments', [
        ['parentheses', '( in brackets )'],
        ['semicolon', '; after a semicolon'],
        ['none', 'none'],
      ]),
      { ...number('commentLength', 'no longer than', 'letters'), when: (p) => p.commentStyle !== 'none' },
      {
        kind: 'number',
        name: 'decimals, mm',
        of: (p) => p.decimals.mm,
        set: (v) => (p) => ({ decimals: { ...p.decimals, mm: v } }),
      },
      {
        kind: 'number',
        name: 'decimals, inch',
        of: (p) => p.decimals.inch,
        set: (v) => (p) => ({ decimals: { ...p.decimals, inch: v } }),
      },
      onOff('wordSpaces', 'spaces between words'),
      onOff('twoDigitWords', 'G01 in place of G1'),
      onOff('wholeUnitsWithoutPoint', 'X5 means 5 whole units'),
      choice('lineEnding', 'lines end with', [
        ['lf', 'LF'],
        ['crlf', 'CR LF'],
      ]),
    ],
  },
  {
    name: 'Ways and subprograms',
    fields: [
      choice('arcs', 'arcs by', [
        ['centre', 'I J from their start'],
        ['centre-from-zero', 'I J from the zero'],
        ['radius', 'R, a quarter at most'],
      ]),
      choice('arcTurns', 'P on an arc', [
        ['added', 'adds turns'],
        ['counted', 'counts all turns'],
      ]),
      onOff('helices', 'arcs may rise and fall', 'else they become lines'),
      number('lookAhead', 'looks ahead by', 'blocks', 'while it compensates'),
      {
        kind: 'text',
        name: 'harmless G words',
        says: 'for accuracy or smoothing: they change nothing here',
        of: (p) => p.harmless.join(' '),
        set: (v) => () => ({
          harmless: v
            .split(/[\s,;G]+/i)
            .filter((w) => w !== '')
            .map(Number),
        }),
      },
      onOff('holeSubprograms', 'places of several tools once', 'as a subprogram'),
      onOff('levelSubprograms', 'alike levels once', 'as a subprogram'),
    ],
  },
];
