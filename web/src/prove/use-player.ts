import { useEffect, useRef } from 'react';
import { useJob } from '../job/job-view.ts';
import { usePick } from '../job/store.ts';
import type { ScreenProgram } from '../workers/produce-steps.ts';
import { motionAt, startOf, usePlay } from './play-store.ts';

/**
 * Sets the shown setup's program up in the worker, and keeps metal and tool at the moment that is asked for: one question at a time, the
 * newest moment next. While it plays, the moment goes on with the clock.
 */
export function usePlayer(): void {
  const { produced, setup, program, remote } = useJob();
  const read = produced?.checks ?? null;
  const isBusy = useRef(false);

  useEffect(() => {
    const { load } = usePlay.getState();
    load(null);
    if (!read) return;
    let isCurrent = true;
    void remote.current?.playSetup(setup.id).then((reel) => isCurrent && load(reel));
    return () => {
      isCurrent = false;
      load(null);
    };
  }, [read, setup.id, remote]);

  useEffect(() => {
    const ask = async (): Promise<void> => {
      if (isBusy.current) return;
      isBusy.current = true;
      try {
        for (let shown = NaN; ;) {
          const { seconds, reel, take } = usePlay.getState();
          if (!reel || seconds === shown) return;
          shown = seconds;
          const frame = await remote.current?.playAt(seconds);
          if (frame && usePlay.getState().reel === reel) take(frame);
        }
      } finally {
        isBusy.current = false;
      }
    };
    void ask();
    return usePlay.subscribe((now, before) => {
      if (now.seconds !== before.seconds || now.reel !== before.reel) void ask();
    });
  }, [remote]);

  useEffect(
    () =>
      usePick.subscribe((now, before) => {
        const isSame =
          now.line === before.line && now.tag === before.tag && now.operation === before.operation;
        const { reel, pose, set } = usePlay.getState();
        const line = isSame ? null : (now.line ?? firstLine(program, now.tag, now.operation));
        if (!reel || line === null || pose?.line === line) return;
        const motion = reel.lines.findIndex((l) => l >= line);
        if (motion >= 0) set({ seconds: startOf(reel, motion), isPlaying: false });
      }),
    [program],
  );

  useEffect(() => {
    let request = 0;
    let before = 0;
    const tick = (now: number): void => {
      const { isPlaying, reel, seconds, speed, stopsAtTool, set } = usePlay.getState();
      if (!isPlaying || !reel) return;
      const next = Math.min(reel.total, seconds + (Math.min(100, now - before) / 1000) * speed);
      before = now;
      const stop = stopsAtTool ? nextTool(reel, seconds, next) : null;
      if (stop !== null) set({ seconds: stop, isPlaying: false });
      else set({ seconds: next, isPlaying: next < reel.total });
      request = requestAnimationFrame(tick);
    };
    const start = (): void => {
      before = performance.now();
      cancelAnimationFrame(request);
      request = requestAnimationFrame(tick);
    };
    const off = usePlay.subscribe((now, then) => {
      if (now.isPlaying && !then.isPlaying) start();
    });
    return () => {
      off();
      cancelAnimationFrame(request);
      usePlay.getState().set({ isPlaying: false });
    };
  }, []);
}

/** The line in which a row's operation begins, or the first of its operations; null where it has none here. */
function firstLine(
  program: ScreenProgram | null,
  tag: string | null,
  operation: string | null,
): number | null {
  if (!program || tag === null) return null;
  const own = program.setup.operations.filter(
    (o) => o.tag === tag && (operation === null || o.key === operation),
  );
  const lines = program.operations.filter((o) => own.some((x) => x.id === o.id)).map((o) => o.firstLine);
  return lines.length > 0 ? Math.min(...lines) : null;
}

/** The moment between two at which another tool begins; null where none does. */
function nextTool(
  reel: Parameters<typeof motionAt>[0] & { tools: Uint16Array },
  from: number,
  to: number,
): number | null {
  const first = motionAt(reel, from);
  for (let n = first + 1; n <= motionAt(reel, to); n++)
    if (reel.tools[n] !== reel.tools[n - 1]) return startOf(reel, n);
  return null;
}
