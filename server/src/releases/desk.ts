import type { DataSource } from 'typeorm';
import type { Logger } from 'pino';
import type { ReleaseContent } from '@yellow-pin/core/release/schema';
import { WorkError, WorkProcess } from '../work/work-process.ts';
import type { StoredJob } from '../work/plan-input.ts';
import { beginRelease, failRelease, finishRelease, tellRelease } from './service.ts';

/** Longest that a release may be proved, s. */
const SECONDS = 900;

/** Proves releases one after the other in a process of their own, so that the server stays free. */
export class ReleaseDesk {
  private readonly prover: WorkProcess<StoredJob, ReleaseContent>;
  private readonly running = new Map<string, AbortController>();

  constructor(
    private readonly database: DataSource,
    private readonly log: Logger,
    memoryMb: number,
  ) {
    this.prover = new WorkProcess(new URL('../work/release-work.ts', import.meta.url), {
      heapMb: Math.round(0.75 * memoryMb),
      memoryMb,
      idleMb: Math.round(0.3 * memoryMb),
    });
  }

  /** Begins a release; gives its number at once, and proves it meanwhile. */
  async begin(jobId: string, by: { author: string | null; remark: string }): Promise<number> {
    const { number, request } = await beginRelease(this.database, jobId, by);
    const cancel = new AbortController();
    this.running.set(jobId, cancel);
    void this.prove(jobId, number, request, cancel).finally(() => this.running.delete(jobId));
    return number;
  }

  /** Nobody wants the release that is under way any more. */
  async cancel(jobId: string, number: number): Promise<void> {
    await failRelease(this.database, jobId, number, 'cancelled', 'It was cancelled.');
    this.running.get(jobId)?.abort();
  }

  async close(): Promise<void> {
    await this.prover.close();
  }

  private async prove(
    jobId: string,
    number: number,
    request: StoredJob,
    cancel: AbortController,
  ): Promise<void> {
    try {
      const content = await this.prover.run(request, {
        seconds: SECONDS,
        signal: cancel.signal,
        onProgress: (share, what) =>
          void tellRelease(this.database, jobId, number, share, what).catch(() => undefined),
      });
      await finishRelease(this.database, jobId, number, content);
    } catch (error) {
      if (!(error instanceof WorkError)) this.log.error({ err: error, jobId, number }, 'release failed');
      const why = sentenceOf(error);
      await failRelease(this.database, jobId, number, 'failed', why).catch((also: unknown) =>
        this.log.error({ err: also, jobId, number }, 'the end of a release could not be stored'),
      );
    }
  }
}

/** Why a release was not made. What broke a limit is no file's fault here: the part was read before. */
function sentenceOf(error: unknown): string {
  if (!(error instanceof WorkError)) return 'It could not be proved or stored. Release it again.';
  switch (error.failure) {
    case 'refused':
      return error.message;
    case 'too-long':
      return `Proving it took longer than ${SECONDS / 60} minutes. Release its setups as jobs of their own.`;
    case 'stopped':
      return 'The server ended while it was proved. Release it again.';
    default:
      return 'The process that proves it ended by itself. Release it again; if it ends so twice, keep the job for its makers.';
  }
}
