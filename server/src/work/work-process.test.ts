import { afterEach, describe, expect, it } from 'vitest';
import type { Trick } from './testing-work.ts';
import { WorkError, WorkProcess } from './work-process.ts';

const MODULE = new URL('./testing-work.ts', import.meta.url);
type Work = WorkProcess<{ trick: Trick; say?: string }, { say: string; pid: number }>;
let open: Work[] = [];
const process_ = (limits: Partial<{ memoryMb: number; idleMb: number }> = {}): Work => {
  const p: Work = new WorkProcess(MODULE, { heapMb: 200, memoryMb: 2000, idleMb: 2000, ...limits });
  open.push(p);
  return p;
};
const failure = async (p: Work, trick: Trick, seconds = 20, signal?: AbortSignal): Promise<string> => {
  const error = await p.run({ trick }, { seconds, signal }).catch((e: unknown) => e);
  expect(error).toBeInstanceOf(WorkError);
  expect((error as WorkError).message.length).toBeGreaterThan(8);
  return (error as WorkError).failure;
};
const isAlive = (pid: number): boolean => {
  try {
    process.kill(pid, 0);
    return true;
  } catch {
    return false;
  }
};

describe('a work process', () => {
  afterEach(async () => {
    await Promise.all(open.map((p) => p.close()));
    open = [];
  });

  it('answers, tells how far it is, and stays for the next', async () => {
    const p = process_();
    const seen: string[] = [];
    const first = await p.run(
      { trick: 'echo', say: 'a' },
      { seconds: 20, onProgress: (_, what) => seen.push(what) },
    );
    const second = await p.run({ trick: 'echo', say: 'b' }, { seconds: 20 });
    expect([first.say, second.say, seen]).toEqual(['a', 'b', ['a']]);
    expect(second.pid).toBe(first.pid);
  });

  it('gives each of several asked at once its own answer', async () => {
    const p = process_();
    const says = ['slow', 'b', 'slow', 'd'];
    const answers = await Promise.all(says.map((say) => p.run({ trick: 'echo', say }, { seconds: 20 })));
    expect(answers.map((a) => a.say)).toEqual(says);
  });

  it('takes no answer to an earlier question', async () => {
    const p = process_();
    await p.run({ trick: 'late', say: 'a' }, { seconds: 20 });
    expect((await p.run({ trick: 'echo', say: 'slow' }, { seconds: 20 })).say).toBe('slow');
  });

  it('goes on after a file that is refused', async () => {
    const p = process_();
    const { pid } = await p.run({ trick: 'echo' }, { seconds: 20 });
    expect(await failure(p, 'refuse')).toBe('refused');
    expect((await p.run({ trick: 'echo' }, { seconds: 20 })).pid).toBe(pid);
  });

  it.each(['spoil', 'throw'] as const)(
    'is thrown away after %s, and the next file is read',
    async (trick) => {
      const p = process_();
      const { pid } = await p.run({ trick: 'echo' }, { seconds: 20 });
      expect(await failure(p, trick)).toBe('refused');
      expect((await p.run({ trick: 'echo', say: 'x' }, { seconds: 20 })).pid).not.toBe(pid);
      await expect.poll(() => isAlive(pid)).toBe(false);
    },
  );

  it('ends what never ends, and frees the machine', async () => {
    const p = process_();
    const { pid } = await p.run({ trick: 'echo' }, { seconds: 20 });
    expect(await failure(p, 'hang', 1.5)).toBe('too-long');
    await expect.poll(() => isAlive(pid)).toBe(false);
    expect((await p.run({ trick: 'echo', say: 'x' }, { seconds: 20 })).say).toBe('x');
  });

  it('blames no file for what one before it has spoilt', async () => {
    const p = process_();
    await p.run({ trick: 'echo' }, { seconds: 20 });
    expect((await p.run({ trick: 'grudge', say: 'x' }, { seconds: 2 })).say).toBe('x');
  });

  it('ends what eats memory', async () => {
    const p = process_({ memoryMb: 400 });
    expect(await failure(p, 'hog')).toBe('too-large');
    expect((await p.run({ trick: 'echo', say: 'x' }, { seconds: 20 })).say).toBe('x');
  });

  it('gives memory back between two requests', async () => {
    const p = process_({ idleMb: 1 });
    const { pid } = await p.run({ trick: 'echo' }, { seconds: 20 });
    expect((await p.run({ trick: 'echo' }, { seconds: 20 })).pid).not.toBe(pid);
  });

  it('says that it crashed, and is there again', async () => {
    const p = process_();
    expect(await failure(p, 'exit')).toBe('crashed');
    expect((await p.run({ trick: 'echo', say: 'x' }, { seconds: 20 })).say).toBe('x');
    const killer = setInterval(() => p.pid && process.kill(p.pid, 'SIGKILL'), 300);
    expect(await failure(p, 'hang')).toBe('crashed');
    clearInterval(killer);
  });

  it('is not stopped by what stops the terminal', async () => {
    const p = process_();
    const { pid } = await p.run({ trick: 'echo' }, { seconds: 20 });
    for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP'] as const) process.kill(pid, signal);
    expect((await p.run({ trick: 'echo', say: 'slow' }, { seconds: 20 })).pid).toBe(pid);
  });

  it('is cancelled, and stopped, at any time', async () => {
    const p = process_();
    const cancel = new AbortController();
    setTimeout(() => cancel.abort(), 100);
    expect(await failure(p, 'hang', 20, cancel.signal)).toBe('cancelled');
    const running = failure(p, 'hang');
    const waiting = failure(p, 'echo');
    setTimeout(() => void p.close(), 100);
    expect([await running, await waiting]).toEqual(['stopped', 'stopped']);
  });
});
