import type { MachineProfile } from './schema.ts';

/** What of a profile contradicts itself, each with its mend; empty where nothing does. */
export function profileFaults(p: MachineProfile): string[] {
  const calls = p.levelSubprograms || p.holeSubprograms;
  return [
    calls && p.programNumber === null
      ? 'Subprograms are called by number, and its programs have none. Give it a program number, or switch subprograms off.'
      : null,
    p.coolant && p.coolantOn === p.coolantOff
      ? `M${p.coolantOn} cannot switch the coolant on and off. Give each its own word.`
      : null,
    p.tapping === 'announced' && (p.tapWord === p.coolantOn || p.tapWord === p.coolantOff)
      ? `M${p.tapWord} announces taps and is a coolant word. Give one of them another.`
      : null,
    p.park && p.home !== 'machine-coordinates'
      ? 'X and Y are parked by machine coordinates: let it go home by them too, or do not park.'
      : null,
    p.chipBreakBackOff > 5 || p.peckClearance > 5
      ? 'Between pecks the tool stays within 5 mm of the depth. Write millimetres.'
      : null,
  ].filter((f) => f !== null);
}
