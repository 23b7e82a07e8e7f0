import * as Comlink from 'comlink';
import { useCallback, useEffect, useRef, useState, type ComponentType } from 'react';
import { drawsInTheRound } from '../part/in-the-round.ts';
import type { Loose, Preview, PreviewWorker } from '../workers/preview.worker.ts';

/**
 * The view that can be turned, asked for with the file, so that it is there when the file is read. Where it cannot be had, an upload goes on
 * without.
 */
export const fetchLoosePart = (): Promise<{ default: ComponentType<Loose> }> =>
  import('../part/LoosePart.tsx').catch(() => ({ default: () => null }));

/** Width and height at which a part that was dropped is drawn, px. */
export const PREVIEW = { width: 400, height: 260 };

/** Reads a file in a worker of its own and shows it at once, while it is sent and its features are looked for. */
export function usePreview() {
  const [shown, setShown] = useState<{ file: File; preview: Preview } | null>(null);
  const worker = useRef<Worker | null>(null);
  const stop = useCallback(() => {
    worker.current?.terminate();
    worker.current = null;
    setShown(null);
  }, []);
  const show = useCallback(
    async (file: File): Promise<void> => {
      stop();
      const own = new Worker(new URL('../workers/preview.worker.ts', import.meta.url), { type: 'module' });
      worker.current = own;
      const bytes = new Uint8Array(await file.arrayBuffer());
      const isStill = !drawsInTheRound();
      if (!isStill) void fetchLoosePart();
      const remote = Comlink.wrap<PreviewWorker>(own);
      const made = await remote.preview(Comlink.transfer(bytes, [bytes.buffer]), isStill ? PREVIEW : null);
      // Another may have been dropped meanwhile.
      if (worker.current === own) setShown(made && { file, preview: made });
    },
    [stop],
  );
  useEffect(() => stop, [stop]);
  return { shown, show, stop };
}
