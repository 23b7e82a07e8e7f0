import type { TapLead, Thread } from '@yellow-pin/core/threads/thread';
import type { Drawer } from './make.ts';

/** M2 to M20, coarse and the common fine pitches; 4-40 to 1/2-13 and their fine ones; pipe 1/8 to 1/2. */
const WANTED = [
  ...['M2x0.4', 'M2.5x0.45', 'M3x0.5', 'M4x0.7', 'M5x0.8', 'M6x1', 'M8x1.25', 'M10x1.5', 'M12x1.75', 'M14x2'],
  ...[
    'M16x2',
    'M18x2.5',
    'M20x2.5',
    'M8x1',
    'M10x1',
    'M10x1.25',
    'M12x1.25',
    'M12x1.5',
    'M14x1.5',
    'M16x1.5',
  ],
  ...['M20x1.5', '4-40 UNC', '6-32 UNC', '8-32 UNC', '10-24 UNC', '1/4-20 UNC', '5/16-18 UNC', '3/8-16 UNC'],
  ...[
    '7/16-14 UNC',
    '1/2-13 UNC',
    '4-48 UNF',
    '6-40 UNF',
    '8-36 UNF',
    '10-32 UNF',
    '1/4-28 UNF',
    '5/16-24 UNF',
  ],
  ...['3/8-24 UNF', '7/16-20 UNF', '1/2-20 UNF', 'G 1/8', 'G 1/4', 'G 3/8', 'G 1/2'],
];
const TAPERED = ['1/8-27 NPT', '1/4-18 NPT', '3/8-18 NPT', '1/2-14 NPT'];
const BOTTOMING = [
  ...['M3x0.5', 'M4x0.7', 'M5x0.8', 'M6x1', 'M8x1.25', 'M10x1.5', 'M12x1.75', '6-32 UNC', '8-32 UNC'],
  ...['10-24 UNC', '10-32 UNF', '1/4-20 UNC', '5/16-18 UNC', '3/8-16 UNC'],
];
const SPIRAL_POINT = [
  ...['M3x0.5', 'M4x0.7', 'M5x0.8', 'M6x1', 'M8x1.25', 'M10x1.5', 'M12x1.75', '6-32 UNC', '8-32 UNC'],
  ...['10-24 UNC', '10-32 UNF', '1/4-20 UNC', '5/16-18 UNC', '3/8-16 UNC'],
];
const FORMING = ['M3x0.5', 'M4x0.7', 'M5x0.8', 'M6x1', 'M8x1.25'];

/** The shop's taps: a plug tap of each size, and other leads where they are used. */
export function adjustedTaps(threads: readonly Thread[]): Drawer[] {
  const make = (
    name: string,
    lead: TapLead,
    style: 'cutting' | 'forming' = 'cutting',
    hand: 'right' | 'left' = 'right',
  ): Drawer => {
    const t = threads.find((x) => x.designation === name);
    if (!t) throw new RangeError(`no thread ${name}`);
    const extra = [
      lead === 'plug' ? '' : lead.replace('-', ' '),
      style === 'forming' ? 'forming' : '',
      hand === 'left' ? 'left hand' : '',
    ].filter(Boolean);
    return {
      id: ['tap', name, lead, style, hand].join('-').replace(/[ /]/g, '_'),
      kind: 'tap',
      description: ['tap', name, ...extra].join(' '),
      diameter: t.majorDiameter,
      sizeName: name,
      tipDiameter: 0,
      fluteLength: Math.round(12 + 2.2 * t.majorDiameter),
      overallLength: Math.round(50 + 4 * t.majorDiameter),
      shankDiameter: Math.round(t.majorDiameter * 8) / 10,
      stickOut: Math.round(30 + 2.4 * t.majorDiameter),
      holderId: 'tap-holder',
      cutterMaterial: 'hss',
      thread: {
        designation: t.designation,
        pitch: t.pitch,
        majorDiameter: t.majorDiameter,
        hand,
        lead,
        style,
      },
    };
  };
  return [
    ...WANTED.map((n) => make(n, 'plug')),
    ...BOTTOMING.map((n) => make(n, 'bottoming')),
    ...SPIRAL_POINT.map((n) => make(n, 'spiral-point')),
    ...FORMING.map((n) => make(n, 'plug', 'forming')),
    ...TAPERED.map((n) => make(n, 'plug')),
    make('M8x1.25', 'plug', 'cutting', 'left'),
    make('M6x1', 'plug', 'cutting', 'left'),
    make('M6x1', 'semi-bottoming'),
    make('M8x1.25', 'taper'),
  ];
}
