import { PROFILES } from '@yellow-pin/core/code/profiles/shipped';
import type { Library } from '@yellow-pin/core/plan/library';
import { NAMED_THREADS } from '@yellow-pin/core/threads/more';
import type { Tool } from '@yellow-pin/core/tools/schema';
import { CORE_DRILLS, DRILLS, STARTERS } from './drills.ts';
import { HOLDERS } from './holders.ts';
import { MATERIALS } from './materials.ts';
import { MILLS } from './mills.ts';
import { OPENERS } from './openers.ts';
import { adjustedTaps } from './taps.ts';
import type { Drawer } from './make.ts';

/** The made-up shop: Tidewrack Instruments. All that lies in its drawer. */
const DRAWER: readonly Drawer[] = [
  ...STARTERS,
  ...DRILLS,
  ...CORE_DRILLS,
  ...OPENERS,
  ...adjustedTaps(NAMED_THREADS),
  ...MILLS,
];

/** What stays in the machine, by its place there. */
const MAGAZINE: readonly string[] = [
  ...['spot-10-90', 'spot-10-120', 'spot-16-90', 'spot-16-120', 'spot-6-90', 'spot-6-120'],
  ...[
    'drill-3.3',
    'drill-4.2',
    'drill-5',
    'drill-5.5',
    'drill-6',
    'drill-6.6',
    'drill-6.8',
    'drill-7',
    'drill-8',
  ],
  ...[
    'drill-8.5',
    'drill-9',
    'drill-10.2',
    'drill-12',
    'drill-16',
    'drill-1',
    'drill-5.5-long',
    'drill-6.6-long',
    'drill-1in',
  ],
  ...['drill-n7', 'drill-n21', 'drill-1_4', 'drill-K', 'csk-12.4-90', 'csk-20-90', 'cbore-11', 'cbore-15'],
  ...['cbore-16', 'cbore-22', 'cbore-7_16', 'reamer-8', 'tap-M6x1-plug-cutting-right'],
  ...['tap-M8x1.25-plug-cutting-right', 'tap-M8x1.25-bottoming-cutting-right'],
  ...['tap-M5x0.8-plug-cutting-right', 'tap-1_4-20_UNC-spiral-point-cutting-right'],
  ...['mill-6', 'mill-10', 'mill-20', 'chamfer-mill-10-90', 'drill-8.4'],
  ...['chamfer-mill-6-90', 'corner-rounding-cutter-R3'],
];

/** Numbers of the magazine for what stands in it; null for what lies in the drawer. */
function placed(drawer: readonly Drawer[]): Tool[] {
  const missing = MAGAZINE.filter((id) => !drawer.some((t) => t.id === id));
  if (missing.length > 0) throw new RangeError(`the drawer has no ${missing.join(', ')}`);
  const tools = drawer.map((t): Tool => {
    const place = MAGAZINE.indexOf(t.id);
    return { ...t, number: place < 0 ? null : place + 1 };
  });
  const inMachine = tools.filter((t) => t.number !== null);
  inMachine.sort((a, b) => (a.number ?? 0) - (b.number ?? 0));
  return [...inMachine, ...tools.filter((t) => t.number === null)];
}

export const SHOP: Library = {
  tools: placed(DRAWER),
  holders: HOLDERS,
  materials: MATERIALS,
  machines: PROFILES.map((p) => ({ ...p, magazineSize: 60 })),
  methods: [],
};
