import { Worker } from 'node:worker_threads';
import type { DrawingDepths } from '@yellow-pin/core/drawing/depths';
import type { Drawing } from '@yellow-pin/core/drawing/read-dxf';
import type { Feature } from '@yellow-pin/core/features/family';
import type { ModelNote } from '@yellow-pin/core/model/solid-model';

export interface ThreadRequest {
  step: Uint8Array;
  fileName: string;
  sizeLimit: number;
}

export interface ReadPart {
  type: 'done';
  model: Uint8Array;
  name: string;
  units: 'mm' | 'inch';
  features: Feature[];
  notes: ModelNote[];
  /** A 2D drawing and the depths that it starts with; null for solids. */
  drawing: Drawing | null;
  depths: DrawingDepths | null;
}

export type ThreadAnswer = ReadPart | { type: 'progress'; share: number; what: string } | { type: 'failed'; message: string };

export class ReadFailed extends Error {}
export class ReadCancelled extends Error {}

/** One warm thread that holds the geometry kernel. Cancelling ends the thread; the next part starts a new one. */
export class KernelThread {
  private worker: Worker | null = null;

  async read(request: ThreadRequest, onProgress: (share: number, what: string) => void, cancelled: AbortSignal): Promise<ReadPart> {
    if (cancelled.aborted) throw new ReadCancelled();
    const worker = (this.worker ??= new Worker(new URL('./kernel-thread-start.mjs', import.meta.url), { stdout: true }));
    worker.stdout?.resume();
    return new Promise<ReadPart>((resolve, reject) => {
      const finish = (act: () => void): void => {
        worker.off('message', onMessage);
        worker.off('error', onError);
        worker.off('exit', onExit);
        cancelled.removeEventListener('abort', onAbort);
        act();
      };
      const onMessage = (answer: ThreadAnswer): void => {
        if (answer.type === 'progress') onProgress(answer.share, answer.what);
        else if (answer.type === 'done') finish(() => resolve(answer));
        else finish(() => reject(new ReadFailed(answer.message)));
      };
      const drop = (error: Error): void => {
        this.worker = null;
        void worker.terminate();
        finish(() => reject(error));
      };
      const onError = (error: Error): void =>
        drop(new ReadFailed(`The geometry kernel stopped (${error.message}). The part may be damaged or too large for this machine's memory.`));
      const onExit = (): void => drop(new ReadFailed('The geometry kernel stopped. The part may be damaged or too large for this machine.'));
      const onAbort = (): void => drop(new ReadCancelled());
      worker.on('message', onMessage);
      worker.on('error', onError);
      worker.on('exit', onExit);
      cancelled.addEventListener('abort', onAbort);
      worker.postMessage(request);
    });
  }

  async close(): Promise<void> {
    await this.worker?.terminate();
    this.worker = null;
  }
}
