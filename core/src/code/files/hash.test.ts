import { expect, it } from 'vitest';
import { textHash } from './hash.ts';

it('is the SHA-256 of the standard’s own example', () => {
  expect(textHash('abc')).toBe('ba7816bf8f01cfea414140de5dae2223b00361a396177a9cb410ff61f20015ad');
  expect(textHash('abd')).not.toBe(textHash('abc'));
});
