import { describe, expect, it } from 'vitest';
import { plainName } from './plain-name.ts';

describe('file names from jobs', () => {
  it.each([
    ['Vent cap TW-183', 'vent-cap-tw-183'],
    ['  Größe 7/8" – links  ', 'gro-e-7-8-links'],
    ['../../etc', 'etc'],
    ['漢字', 'programs'],
    ['', 'programs'],
  ])('%s → %s', (name, file) => expect(plainName(name, 'programs')).toBe(file));
  it('are never long', () => expect(plainName('a'.repeat(500), 'x')).toHaveLength(60));
});
