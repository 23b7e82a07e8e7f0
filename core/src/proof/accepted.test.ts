import { describe, expect, it } from 'vitest';
import type { Check } from './checks/check.ts';
import { acceptanceOf, acceptedSchema, isAcceptable, without, withAccepted } from './accepted.ts';

const left: Check = {
  rule: 'left-over',
  severity: 'warning',
  message: 'B: 1.8 mm is left.',
  tag: 'B',
  setupId: 's1',
};
const unread: Check = {
  rule: 'unknown-word',
  severity: 'error',
  message: 'G5',
  line: 4,
  setupId: 's1',
  mustMend: true,
};

describe('a finding that is accepted', () => {
  const accepted = [acceptanceOf(left, 'the customer wants the point left')];

  it('counts as a note and keeps its words and the reason; the same rule elsewhere still counts', () => {
    const others: Check[] = [
      { ...left, message: 'C: 1.8 mm is left.', tag: 'C' },
      { ...left, setupId: 's2' },
      { ...left, rule: 'over-cut', severity: 'error' },
    ];
    const [mine, ...rest] = withAccepted([left, ...others], accepted);
    expect(mine).toEqual({ ...left, severity: 'note', accepted: 'the customer wants the point left' });
    expect(rest).toEqual(others);
  });

  it('does not cover a worse one: another number, and it is told again', () => {
    const worse = { ...left, message: 'B: 4.2 mm is left.' };
    expect(withAccepted([worse], accepted)).toEqual([worse]);
    // A line more above it moves it, and changes nothing of it.
    expect(withAccepted([{ ...left, line: 12 }], accepted)[0]!.severity).toBe('note');
  });

  it('can be taken back', () => {
    const [mine] = withAccepted([left], accepted);
    expect(without(accepted, mine!)).toEqual([]);
    expect(isAcceptable(mine!)).toBe(true);
  });

  it('is never one that says that the text was not understood, nor a note', () => {
    expect(isAcceptable(unread)).toBe(false);
    expect(withAccepted([unread], [acceptanceOf(unread, 'it will do')])).toEqual([unread]);
    expect(isAcceptable({ ...left, severity: 'note' })).toBe(false);
  });

  it('needs a reason', () => {
    expect(acceptedSchema.safeParse(acceptanceOf(left, '  ')).success).toBe(false);
    expect(acceptedSchema.safeParse(accepted[0]).success).toBe(true);
  });
});
