import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { LIBRARY } from '../testing/fixtures.ts';
import { LengthError } from '../units/length.ts';
import { toolsFromCsv, toolsToCsv } from './csv.ts';
import { TOOL_KINDS } from './kinds/registry.ts';
import type { Tool } from './schema.ts';
import { sizeFromText } from './size.ts';
import { usualTool } from './usual.ts';

const say = (mm: number): string => `${mm} mm`;
const M8 = {
  designation: 'M8x1.25',
  hand: 'left',
  pitch: 1.25,
  majorDiameter: 8,
  leads: ['bottoming'],
} as const;
const every: Tool[] = TOOL_KINDS.flatMap(
  ({ kind }) =>
    usualTool(
      { kind, ...(kind === 'tap' ? { thread: { ...M8, leads: ['bottoming'] } } : { diameter: 10 }) },
      LIBRARY,
    ) ?? [],
);

describe('tools as comma-separated values', () => {
  it('come back as they were, every kind of them, whatever the size', () => {
    expect(every.length).toBe(TOOL_KINDS.length);
    expect(toolsFromCsv(toolsToCsv(every), say)).toEqual({ tools: every, left: [] });
    fc.assert(
      fc.property(fc.constantFrom(...every), fc.string({ minLength: 1, maxLength: 30 }), (tool, text) => {
        const named = { ...tool, description: text.trim() || 'x' };
        expect(toolsFromCsv(toolsToCsv([named]), say).tools).toEqual([named]);
      }),
    );
  });

  it('carry the symbols of ISO 13399', () => {
    const head = toolsToCsv([]).split('\r\n')[0]!.split(',');
    for (const symbol of ['DC', 'LCF', 'LU', 'OAL', 'SIG', 'DN', 'DMM', 'NOF', 'RE', 'TDZ', 'TP'])
      expect(head).toContain(symbol);
  });

  it('take any order of columns, semicolons, other units and names of drills', () => {
    const text = [
      'OAL;DC;kind;LCF;LPR;SIG;holder',
      '150;1/4in;drill;70;80;118°;h',
      '4in;;drill;60;70;118;h',
    ].join('\n');
    expect(toolsFromCsv(text, say).tools[0]).toMatchObject({
      diameter: 6.35,
      overallLength: 150,
      shankDiameter: 6.35,
    });
    const named = [
      'kind,size,SIG,LCF,OAL,LPR,holder',
      'drill,#7,118,50,90,55,h',
      'drill,F,118,50,90,55,h',
    ].join('\n');
    expect(toolsFromCsv(named, say).tools.map((t) => [t.sizeName, t.diameter])).toEqual([
      ['#7', 5.1054],
      ['F', 6.5278],
    ]);
  });

  it('leave a bad row out, name it, and keep the rest', () => {
    const text = [
      'kind,DC,LCF,OAL,LPR,holder,number,SIG',
      'drill,8,60,100,65,h,4,118',
      'drill,8,160,100,65,h,,118',
      'drill,eight,60,100,65,h,,118',
      'hammer,8,60,100,65,h,,118',
      'drill,9,60,100,65,h,-2,118',
      'drill,,60,100,65,h,,118',
    ].join('\n');
    const { tools, left } = toolsFromCsv(text, say);
    expect(tools.map((t) => t.diameter)).toEqual([8]);
    expect(left.map((l) => l.row)).toEqual([3, 4, 5, 6, 7]);
    expect(left[0]!.message).toContain('flutes are longer');
    expect(left[1]!.message).toContain('DC');
    expect(left[2]!.message).toContain('kind');
    expect(left[4]!.message).toContain('missing');
  });

  it('say what a file that is no such table lacks', () => {
    expect(toolsFromCsv('a,b\n1,2', say).left[0]!.message).toContain('columns');
  });
});

describe('a size as it is typed', () => {
  it.each([
    ['8.5', 'mm', 8.5, '8.5'],
    ['#7', 'mm', 5.1054, '#7'],
    ['No. 29', 'inch', 3.4544, '#29'],
    ['f', 'mm', 6.5278, 'F'],
    ['1/4', 'mm', 6.35, '1/4'],
    ['27/64in', 'mm', 10.71563, '27/64in'],
    ['6.5mm', 'inch', 6.5, '6.5'],
    ['0.5', 'inch', 12.7, '0.5in'],
  ] as const)('%s in %s', (text, unit, diameter, sizeName) => {
    const read = sizeFromText(text, unit);
    expect(read.diameter).toBeCloseTo(diameter, 4);
    expect(read.sizeName).toBe(sizeName);
  });
  it.each(['#81', 'width', '-3', ''])('refuses %s in words', (text) => {
    expect(() => sizeFromText(text, 'mm')).toThrow(LengthError);
  });
});
