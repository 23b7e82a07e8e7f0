import fc from 'fast-check';
import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { scanStep } from './step-scan.ts';
import { checkStep, decodeStepString, inspectStep, StepFileError } from './step-text.ts';

const part = readFileSync(new URL('../../../demo/parts/adapter-plate.step', import.meta.url), 'utf8');
const codeOf = (text: string): string => {
  try {
    inspectStep(text);
  } catch (error) {
    expect(error).toBeInstanceOf(StepFileError);
    return (error as StepFileError).code;
  }
  return 'whole';
};
const wrapped = (data: string): string =>
  `ISO-10303-21;\nHEADER;\nFILE_SCHEMA(('AP214'));\nENDSEC;\nDATA;\n#1=X();\n${data}\nENDSEC;\nEND-ISO-10303-21;`;
const ms = (run: () => unknown): number => {
  const from = performance.now();
  run();
  return performance.now() - from;
};

describe('a file that is looked at before it is stored', () => {
  it('is refused with line and entity where an entity is damaged', () => {
    const bytes = (text: string) => new TextEncoder().encode(text);
    expect(checkStep(bytes(part)).name).toBe('Adapter plate TW-207');
    expect(() => checkStep(bytes(wrapped('#2=X();\n#2=Y();')))).toThrow(
      /line 8, #2: this number stands twice/,
    );
    expect(() => checkStep(bytes(wrapped('#2=X()\n#3=Y();')))).toThrow(/#2: the semicolon/);
  });
});

describe('the head of a STEP file', () => {
  it('is told from its bytes', () => {
    expect(inspectStep(part)).toEqual({
      name: 'Adapter plate TW-207',
      sourceUnits: 'inch',
      schema: expect.stringMatching(/^\w{5}/) as string,
    });
  });

  it('may have a byte order mark, comments anywhere and named data sections', () => {
    const text = wrapped("#2=PRODUCT/* a; */('id' ,\n'it''s; DATA;','',(#1));").replace(
      'DATA;',
      "/* END-ISO-10303-21; */ DATA ('part',('AP214'));",
    );
    expect(inspectStep(`\ufeff${text}`).name).toBe("it's; DATA;");
  });

  it('what stands in strings and comments is no keyword', () => {
    expect(codeOf("ISO-10303-21;\nHEADER;\nF('DATA;','END-ISO-10303-21;');\n/* DATA; */")).toBe('no-data');
    expect(codeOf(wrapped("/* #2=P('"))).toBe('truncated');
    expect(codeOf(wrapped("#2=P('never closed);"))).toBe('truncated');
  });

  it.each(['NaN', '-nan', 'INF', '1.#QNAN', '1E308', '-1.E+4000', `1${'0'.repeat(400)}.`])(
    'a number that no part has is named with its line: %s',
    (number) => {
      expect(() => inspectStep(wrapped(`#2=CARTESIAN_POINT('',(0.,0.,${number}));`))).toThrow(/Line 7 of/);
    },
  );

  it('numbers that parts do have pass, in names too', () => {
    expect(
      codeOf(wrapped("#2=P('1E308 NaN',1.E-07,-3.5E+10,0.0000000000000000000000000000000000001);")),
    ).toBe('whole');
  });

  it('takes time as its length does, whatever it is filled with', () => {
    const fillings = [
      ' ',
      'DATA',
      'DATA(',
      'DATA (',
      "PRODUCT('",
      'CONVERSION_BASED_UNIT (',
      '/*',
      '#',
      "''",
    ];
    for (const filling of fillings) {
      const long = wrapped(`DATA${filling.repeat(Math.ceil(400_000 / filling.length))}`);
      // Anything quadratic takes minutes over 400 kB.
      expect(ms(() => codeOf(long))).toBeLessThan(2000);
    }
  });

  it('a name of 200,000 escaped letters is decoded as far as it is kept', () => {
    const name = `\\X2\\${'00C4'.repeat(200_000)}\\X0\\`;
    expect(ms(() => inspectStep(wrapped(`#2=PRODUCT('1','${name}','',());`)))).toBeLessThan(2000);
    expect(decodeStepString(name)).toHaveLength(200_000);
  });

  it('decoded text can be stored: no control characters and no half of a pair', () => {
    expect(decodeStepString('a\\X2\\D83D\\X0\\b\\X2\\0000\\X0\\c')).toBe('a b c');
    expect(decodeStepString('\\X4\\0001F600FFFFFFFF\\X0\\')).toBe('😀\u{10ffff}');
    fc.assert(
      fc.property(fc.string({ unit: 'binary' }), (s) => {
        expect(/[\p{Cs}\p{Cc}]/u.test(decodeStepString(s))).toBe(false);
      }),
    );
  });

  it('any bytes at all are scanned to their end', () => {
    fc.assert(
      fc.property(fc.uint8Array({ maxLength: 2000 }), (bytes) => {
        const head = new TextEncoder().encode('ISO-10303-21;');
        const whole = new Uint8Array([...head, ...bytes]);
        expect(scanStep(whole).begins).toBe(true);
      }),
    );
  });
});
