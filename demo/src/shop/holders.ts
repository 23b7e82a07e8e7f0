import type { Holder } from '@yellow-pin/core/tools/schema';

/** The made-up shop's holders. */
export const HOLDERS: Holder[] = [
  {
    id: 'er16',
    description: 'collet holder 16, short',
    steps: [
      { diameter: 28, length: 30 },
      { diameter: 50, length: 40 },
    ],
  },
  {
    id: 'er32',
    description: 'collet holder 32',
    steps: [
      { diameter: 50, length: 45 },
      { diameter: 63, length: 35 },
    ],
  },
  {
    id: 'chuck13',
    description: 'drill chuck 13',
    steps: [
      { diameter: 43, length: 70 },
      { diameter: 50, length: 30 },
    ],
  },
  {
    id: 'tap-holder',
    description: 'tap holder',
    steps: [
      { diameter: 32, length: 50 },
      { diameter: 50, length: 35 },
    ],
  },
  { id: 'weldon20', description: 'side-lock holder 20', steps: [{ diameter: 52, length: 60 }] },
];
