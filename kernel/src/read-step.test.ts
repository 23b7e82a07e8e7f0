import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { readStep } from './read-step.ts';
import { decodeStepString, inspectStep, StepFileError } from '@yellow-pin/core/step/step-text';

const part = readFileSync(new URL('../../demo/parts/adapter-plate.step', import.meta.url), 'utf8');
const bytes = (text: string) => new TextEncoder().encode(text);
const codeOf = async (text: string, sizeLimit?: number): Promise<string> => {
  try {
    await readStep(bytes(text), { sizeLimit });
  } catch (error) {
    expect(error).toBeInstanceOf(StepFileError);
    expect((error as StepFileError).message.length).toBeGreaterThan(20);
    return (error as StepFileError).code;
  }
  return 'read';
};

describe('bad files', () => {
  it.each([
    ['nothing', '', 'empty'],
    ['blanks', '  \n ', 'empty'],
    ['another format', 'solid cube\nfacet normal 0 0 1', 'not-step'],
    ['a file cut off', part.slice(0, part.length / 2), 'truncated'],
    ['a header alone', 'ISO-10303-21;\nHEADER;\nENDSEC;\nEND-ISO-10303-21;', 'no-data'],
    [
      'an empty data section',
      'ISO-10303-21;\nHEADER;\nENDSEC;\nDATA;\nENDSEC;\nEND-ISO-10303-21;',
      'no-data',
    ],
    [
      'garbage after a good header',
      "ISO-10303-21;\nHEADER;\nFILE_SCHEMA(('AUTOMOTIVE_DESIGN'));\nENDSEC;\nDATA;\n#1=%%%garbage((((;\n#2=;;;\nENDSEC;\nEND-ISO-10303-21;",
      'damaged',
    ],
    [
      'points without a solid',
      "ISO-10303-21;\nHEADER;\nFILE_SCHEMA(('AUTOMOTIVE_DESIGN'));\nENDSEC;\nDATA;\n#1=CARTESIAN_POINT('',(0.,0.,0.));\nENDSEC;\nEND-ISO-10303-21;",
      'no-solid',
    ],
  ])('%s', async (_, text, code) => expect(await codeOf(text)).toBe(code));

  it('a file over the limit', async () => expect(await codeOf(part, 1000)).toBe('too-large'));

  it('the kernel goes on reading good files after bad ones', async () => {
    await codeOf(part.slice(0, 5000) + '\nENDSEC;\nEND-ISO-10303-21;\n');
    expect((await readStep(bytes(part))).solids).toEqual([{ name: 'solid 1', closed: true }]);
  });
});

describe('good files', () => {
  it('reads inches into millimetres', async () => {
    const model = await readStep(bytes(part));
    expect(model.sourceUnits).toBe('inch');
    expect(model.bounds).toEqual({ min: [0, 0, -19.05], max: [152.4, 101.6, 0] });
    expect(model.name).toBe('Adapter plate TW-207');
  });

  it.each(['own', 'kernel'] as const)(
    'does not take an inch that is only declared for the unit: %s',
    async (reader) => {
      const cap = readFileSync(new URL('../../demo/parts/vent-cap.step', import.meta.url), 'utf8');
      const declared = cap.replace(
        /^DATA;/m,
        "DATA;\n#900001=DIMENSIONAL_EXPONENTS(1.,0.,0.,0.,0.,0.,0.);\n#900002=LENGTH_MEASURE_WITH_UNIT(LENGTH_MEASURE(25.4),#900003);\n#900003=(LENGTH_UNIT()NAMED_UNIT(*)SI_UNIT(.MILLI.,.METRE.));\n#900004=(CONVERSION_BASED_UNIT('INCH',#900002)LENGTH_UNIT()NAMED_UNIT(#900001));",
      );
      expect(declared).not.toBe(cap);
      expect((await readStep(bytes(declared), { reader })).sourceUnits).toBe('mm');
      expect((await readStep(bytes(part), { reader })).sourceUnits).toBe('inch');
    },
  );

  it('keeps a hostile or endless name as plain text, cut to a sane length', () => {
    const named = (name: string) => inspectStep(part.replace(/Adapter plate TW-207/g, name)).name;
    expect(named('<script>alert(1)</script>')).toBe('<script>alert(1)</script>');
    expect(named('x'.repeat(10_000))).toHaveLength(200);
    expect(named("it''s")).toBe("it's");
  });

  it('decodes names in other scripts', () => {
    expect(decodeStepString('\\X2\\90E854C1\\X0\\')).toBe('部品');
    expect(decodeStepString('Gr\\X\\F6\\S\\_e')).toBe('Größe'.replace('ß', 'ß'));
  });

  it('reports an open shell and uses what there is', async () => {
    // The last face of the shell is left out: its border is free.
    const open = part.replace(/(CLOSED_SHELL\('',\([^)]*),\s*#\d+\s*\)\)/, '$1))');
    expect(open).not.toBe(part);
    const model = await readStep(bytes(open));
    expect(model.solids.some((s) => !s.closed)).toBe(true);
    expect(model.notes.map((n) => n.code)).toContain('open-shell');
  });
});
