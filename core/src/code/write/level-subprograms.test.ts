import { describe, expect, it } from 'vitest';
import { readProgram } from '../read/read.ts';
import { RIGID_TAP_BUILT_IN } from '../profiles/shipped.ts';
import { calledLevels } from './level-subprograms.ts';

const blocks = (text: string) =>
  text
    .trim()
    .split('\n')
    .map((t) => ({ text: t.trim(), label: 'A1' }));
const way = 'X-20. F100.\nY2.\nX-80.\nY0. F400.';
const three = `G0 X-80. Y0.\nZ2.\nG1 Z-4. F400.\n${way}\nZ-8.\n${way}\nZ-12.\n${way}\nG0 Z25.`;

/** What a text does, without the lines in which it does it. */
const motions = (text: string) =>
  readProgram(
    `%\nO1001\nG21 G17 G90 G94\nT1 M6\nS1000 M3\nG54 G0 X0. Y0.\nG43 H1 Z25.\n${text}\n%`,
    RIGID_TAP_BUILT_IN,
    { radiusOf: () => 3 },
  ).motions.map(({ line: _, caller: __, ...m }) => m);

describe('levels that are alike', () => {
  it('call one subprogram, and do what they did', () => {
    const subs: string[][] = [];
    const out = calledLevels(blocks(three), (lines) => 2000 + subs.push([...lines])).map((b) => b.text);
    expect(subs).toEqual([way.split('\n')]);
    expect(out.filter((t) => t === 'M98 P2001')).toHaveLength(3);
    const called = `${out.join('\n')}\nM30\nO2001\n${subs[0]!.join('\n')}\nM99`;
    expect(motions(called)).toEqual(motions(`${three}\nM30`));
  });

  it('are left as they are where they are not alike, or begin with another feed', () => {
    const none = (text: string) => calledLevels(blocks(text), () => NaN).map((b) => b.text);
    const other = three.replace('Z-8.', 'Z-8. F300.').replace('Z-12.', 'Z-12. F200.');
    expect(none(other)).toEqual(blocks(other).map((b) => b.text));
    const falling = three.replaceAll('Y2.', 'Y2. Z-9.');
    expect(none(falling)).toEqual(blocks(falling).map((b) => b.text));
  });
});
