import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { changesTo, inEditor, withoutTaken } from './sync.ts';

const applied = (text: string, changes: ReturnType<typeof changesTo>): string =>
  [...changes].reverse().reduce((t, c) => t.slice(0, c.from) + c.insert + t.slice(c.to), text);

describe('an editor’s text', () => {
  it('is brought to another, line by line (property)', () => {
    const line = fc.constantFrom('G80', 'X1.', '', 'M30', '%');
    const text = fc.array(line, { maxLength: 8 }).map((l) => l.join('\n'));
    fc.assert(
      fc.property(text, text, (a, b) => {
        expect(applied(a, changesTo(a, b))).toBe(b);
      }),
    );
  });
  it('is not touched where it is the same: a cursor stays', () => {
    expect(changesTo('A\nB\nC', 'A\nB\nC')).toEqual([]);
    expect(changesTo('A\nB\nC', 'A\nX\nC')).toEqual([{ from: 2, to: 4, insert: 'X\n' }]);
  });
  it('has one kind of line end, and none behind the last line', () => {
    expect(inEditor('%\r\nM30\r\n')).toBe('%\nM30');
  });
  it('is shown beside what it was posted as', () => {
    const taken = [
      { firstLine: 2, lastLine: 3, before: ['b'], after: ['x', 'y'] },
      { firstLine: 5, lastLine: 4, before: ['d', 'e'], after: [] },
    ];
    expect(withoutTaken('a\nx\ny\nc\nf\n', taken)).toBe('a\nb\nc\nd\ne\nf');
  });
});
