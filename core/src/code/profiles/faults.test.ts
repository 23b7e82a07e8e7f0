import { describe, expect, it } from 'vitest';
import { profileFaults } from './faults.ts';
import { machineProfileSchema } from './schema.ts';
import { PROFILES, PUBLIC_RS274, RIGID_TAP_ANNOUNCED, RIGID_TAP_BUILT_IN } from './shipped.ts';

it('takes no M word that means something else already', () => {
  for (const coolantOn of [3, 6, 19, 30])
    expect(machineProfileSchema.safeParse({ ...RIGID_TAP_BUILT_IN, coolantOn }).success).toBe(false);
  expect(machineProfileSchema.safeParse({ ...RIGID_TAP_BUILT_IN, coolantOn: 88 }).success).toBe(true);
});

it('all that ship peck as it is settled: 0.5 above the last depth, back by 0.25', () => {
  for (const p of PROFILES) expect([p.peckClearance, p.chipBreakBackOff]).toEqual([0.5, 0.25]);
});

describe('what contradicts itself in a profile', () => {
  it('is nothing in those that ship', () => expect(PROFILES.flatMap(profileFaults)).toEqual([]));
  it.each([
    [{ ...PUBLIC_RS274, holeSubprograms: true }, 'called by number'],
    [{ ...RIGID_TAP_BUILT_IN, coolantOff: 8 }, 'M8 cannot switch the coolant on and off'],
    [{ ...RIGID_TAP_ANNOUNCED, tapWord: 9 }, 'M9 announces taps and is a coolant word'],
    [{ ...RIGID_TAP_ANNOUNCED, park: { x: 0, y: 0 } }, 'parked by machine coordinates'],
    [{ ...RIGID_TAP_BUILT_IN, peckClearance: 50 }, 'within 5 mm'],
  ])('is said with its mend %#', (profile, words) => {
    expect(profileFaults(profile)[0]).toContain(words);
  });
});
