import { makeSphere, type Shape3D } from 'replicad';
import { beforeAll, describe, expect, it } from 'vitest';
import { readStep } from '@yellow-pin/kernel';
import { asSplines } from './as-splines.ts';
import { encode } from './model-of.ts';
import { box, prepare, stepText } from './solids.ts';
import { withoutSeams } from './without-seams.ts';

beforeAll(prepare);

/** A post with a ball on its end, leaning about X by an angle: its highest place is on the ball, and on none of its edges. */
function ballPost(angleDeg: number): Shape3D {
  const ball = makeSphere(6).translate([0, 0, 20]) as Shape3D;
  const cut = ball.cut(box([-10, -10, 0], [10, 10, 20]) as never) as Shape3D;
  const post = (box([-6, -6, 0], [6, 6, 20]) as never as { fuse(s: Shape3D): Shape3D }).fuse(cut);
  return post.rotate(angleDeg, [0, 0, 0], [1, 0, 0]) as Shape3D;
}

/** All rounded: whatever is outermost is a ball or a bend. */
const rounded = (): Shape3D => box([0, 0, 0], [40, 30, 20]).fillet(4) as Shape3D;

describe.each(['own', 'kernel'] as const)('the box round a part, by the reader %s', (reader) => {
  const boundsOf = async (text: string) => (await readStep(encode(text), { reader })).bounds;

  it('a whole ball', async () => {
    const text = await stepText([makeSphere(11) as Shape3D], 'ball');
    const { min, max } = await boundsOf(text);
    for (const k of [0, 1, 2] as const) {
      expect(min[k]).toBeCloseTo(-11, 6);
      expect(max[k]).toBeCloseTo(11, 6);
    }
  });

  it.each([0, 25, 61])('a ball’s end that leans by %d degrees', async (angle) => {
    const text = await stepText([ballPost(angle)], 'post');
    const top = 6 + 20 * Math.cos((angle * Math.PI) / 180);
    expect((await boundsOf(text)).max[2]).toBeCloseTo(top, 5);
    if (reader === 'own') expect((await boundsOf(withoutSeams(text))).max[2]).toBeCloseTo(top, 5);
    expect((await boundsOf(asSplines(text))).max[2]).toBeCloseTo(top, 4);
  });

  it('a block that is round all over ends where its flat faces do', async () => {
    const { min, max } = await boundsOf(await stepText([rounded()], 'round'));
    expect([...min, ...max].map((x) => Number(x.toFixed(6)))).toEqual([0, 0, 0, 40, 30, 20]);
  });
});
