import { describe, expect, it } from 'vitest';
import type { Motion } from '@yellow-pin/core/code/read/motion';
import { frameFrom } from '@yellow-pin/core/geometry/frame';
import { packMotion, piecesOf, placeOfLine } from './motion-pack.ts';

const motion = (line: number, kind: Motion['kind'], from: Motion['from'], to: Motion['to']): Motion => ({
  line,
  kind,
  tool: 1,
  from,
  to,
  feed: 100,
  speed: 1000,
});
const UP = frameFrom([100, 0, 0], [0, 0, 1], [1, 0, 0]);
const MOTIONS = [
  motion(3, 'rapid', [null, null, null], [0, 0, 5]),
  motion(4, 'rapid', [0, 0, 5], [10, 0, 5]),
  motion(5, 'feed', [10, 0, 5], [10, 0, -2]),
  motion(5, 'rapid', [10, 0, -2], [10, 0, 5]),
  motion(6, 'dwell', [10, 0, 5], [10, 0, 5]),
];

describe('packed motion', () => {
  it('stands in the part’s own place, and leaves out what the text does not say', () => {
    const pack = packMotion(MOTIONS, UP);
    expect([...pack.lines]).toEqual([4, 5, 5]);
    expect([...pack.rapid]).toEqual([1, 0, 1]);
    expect([...pack.points.subarray(0, 6)]).toEqual([100, 0, 5, 110, 0, 5]);
  });
  it('knows where a line goes deepest', () => {
    const pack = packMotion(MOTIONS, UP);
    expect(placeOfLine(pack, 5, [0, 0, 1])).toEqual([110, 0, -2]);
    expect(placeOfLine(pack, 6, [0, 0, 1])).toBeNull();
  });
  it('is taken apart by lines and by kind', () => {
    const pack = packMotion(MOTIONS, UP);
    const all = piecesOf(pack, null);
    expect([all.rapid.length, all.feed.length]).toEqual([12, 6]);
    const some = piecesOf(pack, [[5, 6]]);
    expect([some.rapid.length, some.feed.length]).toEqual([6, 6]);
    expect([...some.feed]).toEqual([110, 0, 5, 110, 0, -2]);
    expect(piecesOf(pack, [[90, 99]]).rapid).toHaveLength(0);
  });
});
