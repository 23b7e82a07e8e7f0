import { Refused, type OnProgress } from './serve.ts';

/** Everything that a file may do to who reads it; for tests. */
export type Trick = 'echo' | 'refuse' | 'spoil' | 'throw' | 'hang' | 'exit' | 'hog' | 'late' | 'grudge';

const hoard: Buffer[] = [];
let before = 0;

export async function work(
  { trick, say = '' }: { trick: Trick; say?: string },
  progress: OnProgress,
): Promise<{ say: string; pid: number }> {
  progress(0.5, say);
  // Falls over what another has left behind.
  if (trick === 'grudge' && before > 0) for (;;);
  before++;
  if (trick === 'refuse') throw new Refused('bad', 'This file is damaged.');
  if (trick === 'spoil') throw new Refused('bad', 'The kernel fell over it.', true);
  if (trick === 'throw') throw new TypeError('cannot read properties of null');
  if (trick === 'exit') process.exit(7);
  if (trick === 'hang') for (;;);
  if (trick === 'hog')
    for (;;) {
      hoard.push(Buffer.alloc(16 * 1048576, 1));
      await new Promise((r) => setTimeout(r, 5));
    }
  // Answers twice, the second time when the next request is under way.
  if (trick === 'late')
    setTimeout(() => process.send?.({ id: 1, type: 'done', answer: { say: 'of before', pid: 0 } }), 50);
  if (say === 'slow') await new Promise((r) => setTimeout(r, 200));
  return { say, pid: process.pid };
}
