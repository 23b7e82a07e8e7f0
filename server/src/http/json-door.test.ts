import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { checkDocument, printable } from './json-door.ts';

const codeOf = (document: unknown): string => {
  try {
    checkDocument(document);
    return 'taken';
  } catch (error) {
    return (error as { code: string }).code;
  }
};

describe('the door for JSON', () => {
  it('takes what a database can hold', () => {
    fc.assert(
      fc.property(fc.jsonValue({ stringUnit: 'grapheme' }), (value) => {
        const text = JSON.stringify(value);
        fc.pre(!/\\u0000|"__proto__"/.test(text));
        expect(codeOf(JSON.parse(text))).toBe('taken');
      }),
    );
  });

  it.each([
    ['{"a":["b\\u0000"]}', 'bad-text'],
    ['{"a\\u0000":1}', 'bad-text'],
    ['["\\ud800"]', 'bad-text'],
    ['{"x":{"\\udc00":0}}', 'bad-text'],
    ['{"__proto__":{"polluted":1}}', 'bad-key'],
    ['"\\ud83d\\ude00"', 'taken'],
  ])('%s: %s', (text, code) => expect(codeOf(JSON.parse(text))).toBe(code));

  it.each([100, 200_000])('%i brackets in brackets are too deep', (depth) => {
    expect(codeOf(JSON.parse('['.repeat(depth) + ']'.repeat(depth)))).toBe('too-deep');
  });

  it('names of files become text that can be stored and shown', () => {
    expect(printable('a\0b\ud800c\n')).toBe('a b c');
    fc.assert(
      fc.property(fc.string({ unit: 'binary' }), (s) => {
        expect(/[\p{Cs}\p{Cc}]/u.test(printable(s))).toBe(false);
      }),
    );
  });
});
