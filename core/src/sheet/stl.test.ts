import { describe, expect, it } from 'vitest';
import type { MetalMesh } from '../metal/picture.ts';
import { metalStl } from './stl.ts';

const quad: MetalMesh = {
  positions: Float32Array.from([0, 0, 1, 2, 0, 1, 2, 3, 1, 0, 3, 1]),
  normals: Float32Array.from([0, 0, 1, 0, 0, 1, 0, 0, 1, 0, 0, 1]),
  tools: Uint16Array.from([0, 0, 0, 0]),
};

describe('metal as STL', () => {
  it('has two triangles a quad, with their normal and corners', () => {
    const bytes = metalStl([quad, quad], 'cap');
    const view = new DataView(bytes.buffer);
    expect(bytes.length).toBe(84 + 4 * 50);
    expect(view.getUint32(80, true)).toBe(4);
    const facet = (n: number) =>
      Array.from({ length: 12 }, (_, i) => view.getFloat32(84 + 50 * n + 4 * i, true));
    expect(facet(0)).toEqual([0, 0, 1, 0, 0, 1, 2, 0, 1, 2, 3, 1]);
    expect(facet(3)).toEqual([0, 0, 1, 0, 0, 1, 2, 3, 1, 0, 3, 1]);
  });
  it('is not taken for text', () => {
    const head = new TextDecoder().decode(metalStl([], 'solid ⌀7').slice(0, 80));
    expect(head.startsWith('solid')).toBe(false);
    expect(head).toContain('solid');
  });
});
