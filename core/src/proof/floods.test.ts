import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Check } from './checks/check.ts';
import { foldFloods } from './floods.ts';

const check = (part: Partial<Check> = {}): Check => ({
  rule: 'too-deep',
  severity: 'error',
  message: 'A1: 2 mm too deep.',
  tag: 'A',
  setupId: 's1',
  ...part,
});

describe('many findings alike', () => {
  it('are listed while they are few, and one with a count and their lines from then on', () => {
    const three = [11, 12, 13].map((line) => check({ line }));
    expect(foldFloods(three)).toEqual(three);
    const [one, ...others] = foldFloods([...three, check({ line: 14 }), check({ line: 14 })]);
    expect(others).toEqual([]);
    expect(one).toMatchObject({ line: 11 });
    expect(one!.message).toBe('A1: 2 mm too deep. And 4 more like it (lines 12, 13, 14).');
  });

  it('name no more than six lines, and none where they have none', () => {
    const many = Array.from({ length: 12 }, (_, i) => check({ line: i + 1 }));
    expect(foldFloods(many)[0]!.message).toContain('(lines 2, 3, 4, 5, 6, 7 …)');
    expect(foldFloods(Array.from({ length: 5 }, () => check()))[0]!.message).toBe(
      'A1: 2 mm too deep. And 4 more like it.',
    );
  });

  it('are alike only in rule, severity, tag and setup; no kind is lost', () => {
    const pick = fc.constantFrom('a', 'b');
    const any = fc
      .tuple(pick, fc.constantFrom('error' as const, 'warning' as const), pick, pick)
      .map(([rule, severity, tag, setupId]) => check({ rule, severity, tag, setupId }));
    const kindOf = (c: Check): string => [c.rule, c.severity, c.tag, c.setupId].join('/');
    fc.assert(
      fc.property(fc.array(any, { maxLength: 60 }), (checks) => {
        const folded = foldFloods(checks);
        expect(new Set(folded.map(kindOf))).toEqual(new Set(checks.map(kindOf)));
        for (const kind of new Set(checks.map(kindOf))) {
          const n = checks.filter((c) => kindOf(c) === kind).length;
          expect(folded.filter((c) => kindOf(c) === kind)).toHaveLength(n <= 3 ? n : 1);
        }
      }),
    );
  });
});
