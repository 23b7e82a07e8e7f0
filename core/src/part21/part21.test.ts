import * as fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { Part21Error } from './error.ts';
import { Part21File } from './file.ts';
import { decodeText, encodeText } from './text.ts';
import { Item, Ref, Typed, type Value } from './value.ts';
import { Part21Writer } from './write.ts';

const HEADER = `HEADER;FILE_DESCRIPTION((''),'2;1');FILE_NAME('a','',(''),(''),'','','');FILE_SCHEMA(('S'));ENDSEC;`;
const fileOf = (data: string, { header = HEADER, after = '' } = {}) =>
  new Part21File(
    new TextEncoder().encode(`ISO-10303-21;${header}DATA;${data}ENDSEC;${after}END-ISO-10303-21;`),
  );
const argsOf = (data: string): Value[] => fileOf(`#1=A(${data});`).entity(1).parts[0]!.args;

/** Without halves of surrogate pairs. */
const isWellFormed = (s: string) => !/\p{Cs}/u.test(s);

describe('an exchange file', () => {
  it('has values of every sort', () => {
    expect(argsOf(`1,-2.5,+3.,1.5E-3,.T.,.UNSPECIFIED.,$,*,'x',#7,(1,(2)),(),LEN(2.),"0FF"`)).toEqual([
      ...[1, -2.5, 3, 0.0015, new Item('T'), new Item('UNSPECIFIED'), null, undefined, 'x', new Ref(7)],
      ...[[1, [2]], [], new Typed('LEN', [2]), '0FF'],
    ]);
  });

  it('may have comments, breaks and tabs anywhere between its words', () => {
    const f = fileOf(`/* ; */ #1 /* = */\r\n=\tA /* ( */ (\n1 /* ' */ ,\t'a/*b*/;#2=' )\n;`);
    expect(f.entity(1).parts).toEqual([{ type: 'A', args: [1, 'a/*b*/;#2='] }]);
  });

  it('has complex entities, found by each of their types', () => {
    const f = fileOf(`#5=( A('B(') B() C((1),.X.) );#6=B();#7=!OWN(1);`);
    expect(f.entity(5).parts.map((p) => p.type)).toEqual(['A', 'B', 'C']);
    expect(f.ofType('B')).toEqual([5, 6]);
    expect(f.ofType('!OWN')).toEqual([7]);
    expect(f.ofType('NONE')).toEqual([]);
  });

  it('takes small letters, large numbers of entities, and several named sections', () => {
    const f = fileOf(`#4000000000=a(#12);ENDSEC;DATA('two',('S'));#12=b();`);
    expect(f.count).toBe(2);
    expect(f.entity(4000000000).parts[0]).toEqual({ type: 'A', args: [new Ref(12)] });
  });

  it('passes over anchors, references and signatures (edition 3)', () => {
    const text = `ISO-10303-21;${HEADER}ANCHOR;<a>=#1;ENDSEC;REFERENCE;#9=<b.stp#x>;ENDSEC;DATA;#1=A();ENDSEC;SIGNATURE;x=ENDSEC;END-ISO-10303-21;`;
    expect(new Part21File(new TextEncoder().encode(text)).count).toBe(1);
  });

  it('reads what the header says', () => {
    const f = fileOf('#1=A();');
    expect(f.schemas).toEqual(['S']);
    expect(f.header('FILE_NAME')[0]).toBe('a');
    expect(f.header('NOTHING')).toEqual([]);
  });

  it.each([
    ['not-step', 'solid x', /does not begin with ISO-10303-21/],
    ['cut off', `ISO-10303-21;${HEADER}DATA;#1=A();`, /cut off/],
    ['cut off within', `ISO-10303-21;${HEADER}DATA;#1=A((1,`, /#1.*cut off/],
    ['no data', `ISO-10303-21;${HEADER}END-ISO-10303-21;`, /no DATA/],
    [
      'no semicolon',
      `ISO-10303-21;${HEADER}DATA;\n#1=A()\n#2=B();ENDSEC;END-ISO-10303-21;`,
      /line 3, #1.*semicolon/,
    ],
    [
      'no bracket',
      `ISO-10303-21;${HEADER}DATA;\n#1=A((1);\n#2=B();ENDSEC;END-ISO-10303-21;`,
      /#1: a bracket/,
    ],
    ['no end of a text', `ISO-10303-21;${HEADER}DATA;#1=A('x);#2=B();ENDSEC;`, /#1: a text is never closed/],
    ['no equals sign', `ISO-10303-21;${HEADER}DATA;#1 A();ENDSEC;END-ISO-10303-21;`, /#1: “=”/],
    [
      'one number twice',
      `ISO-10303-21;${HEADER}DATA;#1=A();\n#1=A();ENDSEC;END-ISO-10303-21;`,
      /line 2, #1.*twice/,
    ],
  ])('says where it is damaged: %s', (_, text, message) => {
    expect(() => new Part21File(new TextEncoder().encode(text))).toThrow(message);
  });

  it.each([
    ['1.#QNAN', /#1: 1\.#QNAN is no number/],
    ['NAN', /NAN is no value/],
    ['1E999', /1E999 is no number/],
    ['1 2', /comma or the closing bracket/],
    ['(1,2', /.*/],
    ['&', /“&” is no value/],
    ['.X', /a dot/],
    ['(('.repeat(40) + '))'.repeat(40), /deep/],
  ])('says what is no value: %s', (data, message) => {
    expect(() => argsOf(data)).toThrow(message);
  });

  it('says which entity is referred to and is not there', () => {
    expect(() => fileOf('#1=A();').entity(2)).toThrow(
      new Part21Error('#2 is referred to and is not in the file', 0),
    );
  });

  it('whatever stands in its bytes is read or refused', () => {
    const text = fc.stringMatching(/^[#=();',.$*/A-E0-9 \n-]*$/, { maxLength: 80 });
    fc.assert(
      fc.property(text, (data) => {
        try {
          for (const e of fileOf(data).entities()) expect(e.parts.length).toBeGreaterThan(0);
        } catch (error) {
          expect(error).toBeInstanceOf(Part21Error);
        }
      }),
      { numRuns: 500 },
    );
  });

  it('is read as it was written', () => {
    const { value } = fc.letrec<{ value: Value }>((tie) => ({
      value: fc.oneof(
        { depthSize: 'small' },
        fc.double({ noNaN: true, noDefaultInfinity: true }).map((x) => x + 0),
        fc.string({ unit: 'binary' }).filter(isWellFormed),
        fc.constantFrom(null, undefined, new Item('T'), new Item('OUT_OF'), new Ref(3)),
        fc.array(tie('value'), { maxLength: 4 }),
        fc.array(tie('value'), { maxLength: 2 }).map((args) => new Typed('SOME_TYPE', args)),
      ),
    }));
    fc.assert(
      fc.property(fc.array(value), (args) => {
        const w = new Part21Writer();
        const ref = w.add('THING', ...args);
        const header = {
          description: ['d'],
          fileName: 'n',
          time: '',
          author: '',
          organisation: '',
          system: '',
          schemas: ['S'],
        };
        const f = new Part21File(new TextEncoder().encode(w.text(header)));
        expect(f.entity(ref.id).parts).toEqual([{ type: 'THING', args }]);
      }),
    );
  });
});

describe('texts', () => {
  it.each([
    ["it''s", "it's"],
    ['\\X2\\00E400F6\\X0\\', 'äö'],
    ['\\X4\\0001F600\\X0\\', '😀'],
    ['\\X\\E4', 'ä'],
    ['\\S\\d', 'ä'],
    ['\\PA\\\\S\\d', 'ä'],
    ['a\\\\b', 'a\\b'],
    ['\\\\X\\E4', '\\X\\E4'],
    ['c:\\new', 'c:\\new'],
  ])('%s', (raw, text) => {
    expect(decodeText(raw)).toBe(text);
  });

  it('any text is written in plain ASCII and read back', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'binary' }), (s) => {
        const raw = encodeText(s);
        expect(raw).toMatch(/^[\x20-\x7e]*$/);
        if (isWellFormed(s)) expect(decodeText(raw)).toBe(s);
      }),
    );
  });
});
