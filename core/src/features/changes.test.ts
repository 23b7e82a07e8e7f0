import { describe, expect, it } from 'vitest';
import { hole } from '../testing/fixtures.ts';
import type { Feature } from './family.ts';
import { FAMILIES, familyOf, isOpenBelow, isOptional, placeOf, placeSeen } from './registry.ts';

const base = { id: 'X1', solid: 0, faces: [], axis: [0, 0, 1], reachableFrom: [[0, 0, 1]] } as const;
const line = [{ kind: 'line', from: [0, 0, 0], to: [40, 0, 0] }] as const;
/** One feature of each family that has a depth; its top at Z 0. */
const DEEP = [
  hole({ depth: 20, stack: [{ shape: 'cylinder', diameter: 8, length: 20 }] }),
  {
    ...base,
    family: 'slot',
    kind: 'closed',
    width: 8,
    length: 30,
    depth: 6,
    bottom: 'flat',
    centre: [15, 0, 0],
    direction: [1, 0, 0],
  },
  {
    ...base,
    family: 't-slot',
    direction: [1, 0, 0],
    mouthWidth: 8,
    mouthDepth: 9,
    headWidth: 15,
    headHeight: 6,
    length: 50,
    openEnds: 2,
    at: [25, 0, 0],
  },
  {
    ...base,
    family: 'dovetail',
    direction: [1, 0, 0],
    mouthWidth: 12,
    bottomWidth: 20,
    depth: 7,
    angle: 60,
    length: 50,
    openEnds: 2,
    at: [25, 0, 0],
  },
  {
    ...base,
    family: 'face-groove',
    shape: 'path',
    width: 4,
    depth: 3,
    centrelineLength: 40,
    centreline: line,
    at: [20, 0, 0],
  },
  {
    ...base,
    family: 'channel',
    width: 6,
    depth: 5,
    centrelineLength: 40,
    centreline: line,
    openEnds: 0,
    bottom: 'flat',
    at: [20, 0, 0],
  },
] as unknown as Feature[];
const heights = (f: Feature): number[] =>
  'centreline' in f ? f.centreline.flatMap((p) => [p.from[2], p.to[2]]) : [];

describe('what may be changed about a feature', () => {
  it.each(DEEP.map((f) => [f.family, f] as const))(
    'a %s is raised and deepened as a whole: its place, and the line along it',
    (_, f) => {
      const { changes } = familyOf(f);
      const depth = changes!.depth!(f);
      const moved = changes!.moved!(f, 2, depth + 5)!;
      expect(familyOf(moved).changes!.depth!(moved)).toBeCloseTo(depth + 5, 9);
      expect(placeOf(moved)[2]).toBeCloseTo(placeOf(f)[2] + 2, 9);
      expect(heights(moved)).toEqual(heights(f).map((z) => z + 2));
    },
  );

  it('a T-slot whose mouth or head would vanish is left as it is', () => {
    const tSlot = DEEP.find((f) => f.family === 't-slot')!;
    const { changes } = familyOf(tSlot);
    expect(changes!.moved!(tSlot, -9, 10)).toBeNull();
    expect(changes!.moved!(tSlot, 0, 9)).toBeNull();
    expect(changes!.moved!(tSlot, 0, 9.5)).toMatchObject({ mouthDepth: 9, headHeight: 0.5 });
  });
});

describe('what a family says of its features', () => {
  it('only what goes through may be entered from below, and has a place there', () => {
    const blind = hole({ kind: 'blind', depth: 20 });
    const through = hole({ kind: 'through', bottom: { shape: 'open' }, depth: 20 });
    expect([blind, through].map(isOpenBelow)).toEqual([false, true]);
    const down = [0, 0, -1] as const;
    expect(placeSeen(blind, [...down])).toEqual(placeOf(blind));
    expect(placeSeen(through, [...down])[2]).toBeCloseTo(placeOf(through)[2] - 20, 9);
    const [slot] = DEEP.filter((f) => f.family === 'slot');
    expect(isOpenBelow(slot!)).toBe(false);
    expect(isOpenBelow({ ...slot!, bottom: 'open' } as Feature)).toBe(true);
  });

  it('only edges, bosses and what prepared stock has already are made at will', () => {
    expect(FAMILIES.filter((f) => f.optional !== undefined).map((f) => f.family)).toEqual([
      'sharp-edge',
      'boss',
      'pocket',
      'outline',
      'face',
      'step',
      'rising-edge',
    ]);
    expect(DEEP.some(isOptional)).toBe(false);
  });
});
