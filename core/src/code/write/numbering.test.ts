import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { RIGID_TAP_BUILT_IN } from '../profiles/shipped.ts';
import { linesOf, numbered, textOf, unnumbered } from './numbering.ts';

const on = { ...RIGID_TAP_BUILT_IN, lineNumbers: { on: true, start: 10, step: 5, where: 'blocks' as const } };

describe('block numbers', () => {
  it('stand before blocks alone, and one that is there stays', () => {
    const lines = ['%', 'O1001', '(A)', '', '; B', 'G0 X1.', 'N7 G1 X2.', 'M30', '%'];
    expect(numbered(lines, on)).toEqual([
      ...['%', 'O1001', '(A)', '', '; B', 'N10 G0 X1.', 'N7 G1 X2.', 'N15 M30', '%'],
    ]);
    expect(numbered(lines, RIGID_TAP_BUILT_IN)).toEqual(lines);
    expect(unnumbered('N7 G1', RIGID_TAP_BUILT_IN)).toBe('N7 G1');
  });
  it('are no part of the lines: put on and taken off, the lines are there again (property)', () => {
    const line = fc.constantFrom('G0 X1.', '(N5)', '', 'M30', '%');
    fc.assert(
      fc.property(fc.array(line, { minLength: 1 }), fc.constantFrom('lf', 'crlf'), (lines, lineEnding) => {
        const back = linesOf(textOf(lines, { ...on, lineEnding })).map((l) => unnumbered(l, on));
        expect(back).toEqual(lines);
      }),
    );
  });
});
