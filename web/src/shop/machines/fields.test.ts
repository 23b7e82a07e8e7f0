import { describe, expect, it } from 'vitest';
import { machineProfileSchema, type MachineProfile } from '@yellow-pin/core/code/profiles/schema';
import { PROFILES } from '@yellow-pin/core/code/profiles/shipped';
import { GROUPS, type Field } from './fields.ts';

const FIELDS = GROUPS.flatMap((g) => g.fields);
/** Puts back into a profile what a field shows of it. */
function putBack(f: Field, p: MachineProfile): Partial<MachineProfile> {
  switch (f.kind) {
    case 'number':
      return f.set(f.of(p))(p);
    case 'switch':
      return f.set(f.of(p))(p);
    case 'choice':
    case 'text':
      return f.set(f.of(p))(p);
    case 'lines':
    case 'some':
      return f.set([...f.of(p)])(p);
  }
}

describe('the form of a machine', () => {
  it('has names of its own for all fields', () => {
    expect(new Set(FIELDS.map((f) => f.name)).size).toBe(FIELDS.length);
  });
  it.each(FIELDS.map((f) => [f.name, f] as const))('%s: what it shows is what it sets', (_, f) => {
    for (const p of [...PROFILES, { ...PROFILES[0]!, park: { x: -300, y: 5 } }]) {
      if (!(f.when?.(p) ?? true)) continue;
      expect({ ...p, ...putBack(f, p) }).toEqual(p);
    }
  });
  it.each(FIELDS.filter((f) => f.kind === 'choice').map((f) => [f.name, f] as const))(
    '%s: each of its choices is one that profiles have',
    (_, f) => {
      for (const [value] of f.options) {
        const p = { ...PROFILES[0]!, ...f.set(value)(PROFILES[0]!) };
        expect(machineProfileSchema.parse(p)).toEqual(p);
        expect(f.of(p)).toBe(value);
      }
    },
  );
  it('decides about everything that a profile says but what it is known by', () => {
    const touched = new Set<string>();
    for (const f of FIELDS)
      for (const k of Object.keys(putBack(f, { ...PROFILES[0]!, park: { x: 0, y: 0 } }))) touched.add(k);
    expect(Object.keys(PROFILES[0]!).filter((k) => !touched.has(k))).toEqual(['id', 'name']);
  });
});
