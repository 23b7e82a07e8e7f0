import { describe, expect, it } from 'vitest';
import { boxModel } from '../testing/box-model.ts';
import { edgeSegments, meshModel } from './mesh.ts';
import { drawPicture, type Picture } from './picture.ts';

const box = boxModel([0, 0, 0], [40, 20, 10]);
const draw = (eye?: [number, number, number], size = { width: 80, height: 60 }): Picture =>
  drawPicture(meshModel(box), edgeSegments(box).positions, { ...size, ...(eye ? { eye } : {}) });
const pixel = (p: Picture, x: number, y: number) => [
  ...p.pixels.slice(4 * (y * p.width + x), 4 * (y * p.width + x) + 4),
];

describe('a picture of a part', () => {
  it('is as large as fits, on a clear ground', () => {
    const p = draw([0, 0, 1]);
    const covered = (x: number, y: number): boolean => pixel(p, x, y)[3]! > 0;
    // 40 × 20 from above in 80 × 60: 88 % of the width, half of that high.
    expect(covered(40, 30)).toBe(true);
    expect([covered(6, 30), covered(2, 30)]).toEqual([true, false]);
    expect([covered(40, 14), covered(40, 10)]).toEqual([true, false]);
  });
  it('has light from above: the top is brighter than the sides, and edges are dark', () => {
    const p = draw();
    const greys = new Set<number>();
    for (let i = 0; i < p.pixels.length; i += 4) if (p.pixels[i + 3] === 255) greys.add(p.pixels[i]!);
    expect(Math.max(...greys)).toBeGreaterThan(190);
    expect(Math.min(...greys)).toBeLessThan(110);
    // Three faces are seen, each in a grey of its own.
    expect([...greys].filter((g) => g >= 120).length).toBeGreaterThanOrEqual(3);
  });
  it('shows what is nearer over what is behind', () => {
    const behind = boxModel([0, 0, -30], [40, 20, -20]);
    const alone = draw([0, 0, 1]);
    const mesh = meshModel(box);
    const far = meshModel(behind);
    const both = {
      positions: Float32Array.from([...far.positions, ...mesh.positions]),
      triangles: Uint32Array.from([
        ...far.triangles,
        ...mesh.triangles.map((t) => t + far.positions.length / 3),
      ]),
    };
    const p = drawPicture(both, edgeSegments(box).positions, { width: 80, height: 60, eye: [0, 0, 1] });
    expect(pixel(p, 40, 30)).toEqual(pixel(alone, 40, 30));
  });
  it('of nothing is clear', () => {
    const none = { positions: new Float32Array(), triangles: new Uint32Array() };
    const p = drawPicture(none, new Float32Array(), { width: 8, height: 8 });
    expect(p.pixels.every((v) => v === 0)).toBe(true);
  });
});
