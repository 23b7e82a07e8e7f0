import { describe, expect, it } from 'vitest';
import type { Check } from '../proof/checks/check.ts';
import { withMetal } from './prove-metal.ts';

const check = (rule: string, line: number, tag?: string, severity: Check['severity'] = 'error'): Check => ({
  rule,
  severity,
  line,
  tag,
  setupId: 's1',
  message: `${rule} at ${line}`,
});
const rules = (text: Check[], metal: Check[]): string[] =>
  withMetal(text, metal).map((c) => `${c.rule} ${c.line}`);

describe('what text and metal say of one line is said once', () => {
  it('a depth that the text judges, with its mend, rather than what the metal lost by it', () => {
    expect(rules([check('too-deep', 9, 'A')], [check('over-cut', 9, 'A')])).toEqual(['too-deep 9']);
    // Of another hole it is another matter.
    expect(rules([check('too-deep', 9, 'A')], [check('over-cut', 9, 'B')])).toEqual([
      'too-deep 9',
      'over-cut 9',
    ]);
  });

  it('how far a tool is fed into the part, by the metal', () => {
    expect(rules([check('into-part', 9)], [check('over-cut', 9, 'A')])).toEqual(['over-cut 9']);
    expect(rules([check('into-part', 9)], [])).toEqual(['into-part 9']);
  });

  it('a crash, and not what was cut on its way, whoever found it', () => {
    expect(
      rules([check('rapid-into-part', 9)], [check('rapid-into-metal', 9), check('over-cut', 9, 'A')]),
    ).toEqual(['rapid-into-part 9']);
    expect(rules([], [check('rapid-into-metal', 9), check('over-cut', 9)])).toEqual(['rapid-into-metal 9']);
    // Elsewhere, and in another setup, both stand.
    expect(rules([check('rapid-into-part', 9)], [check('over-cut', 10)])).toEqual([
      'rapid-into-part 9',
      'over-cut 10',
    ]);
    expect(
      withMetal([check('rapid-into-part', 9)], [{ ...check('over-cut', 9), setupId: 's2' }]),
    ).toHaveLength(2);
  });

  it('what is left is always told', () => {
    expect(rules([check('too-deep', 9, 'A')], [check('left-over', 9, 'A', 'warning')])).toHaveLength(2);
  });
});
