import type { Thread } from '@yellow-pin/core/threads/thread';
import type { Tool } from '@yellow-pin/core/tools/schema';

const WANTED = [
  'M3x0.5',
  'M4x0.7',
  'M5x0.8',
  'M6x1',
  'M8x1.25',
  'M10x1.5',
  'M12x1.75',
  'M16x2',
  '6-32 UNC',
  '8-32 UNC',
  '10-24 UNC',
  '10-32 UNF',
  '1/4-20 UNC',
  '5/16-18 UNC',
  '3/8-16 UNC',
  '1/2-13 UNC',
];
const BOTTOMING = ['M4x0.7', 'M5x0.8', 'M6x1', 'M8x1.25', 'M10x1.5', '10-32 UNF', '1/4-20 UNC'];
const SPIRAL_POINT = ['M4x0.7', 'M5x0.8', 'M6x1', 'M8x1.25', '1/4-20 UNC'];
const FORMING = ['M4x0.7', 'M6x1'];

/** The shop's taps: a plug tap of each size, and other leads where they are used. */
export function adjustedTaps(threads: readonly Thread[]): Omit<Tool, 'number'>[] {
  const make = (
    name: string,
    lead: 'plug' | 'bottoming' | 'spiral-point',
    style: 'cutting' | 'forming' = 'cutting',
    hand: 'right' | 'left' = 'right',
  ): Omit<Tool, 'number'> => {
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
    make('M8x1.25', 'plug', 'cutting', 'left'),
  ];
}
