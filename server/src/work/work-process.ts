import { fork, type ChildProcess } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { basename } from 'node:path';
import { fileURLToPath, pathToFileURL } from 'node:url';
import type { Answered, OnProgress } from './serve.ts';

/**
 * `refused`: the file is at fault. `too-long`, `too-large`: it broke a limit. `crashed`: the process ended by itself.
 * `cancelled`, `stopped`: nobody wants the answer any more; the file is not at fault.
 */
export type WorkFailure = 'refused' | 'too-long' | 'too-large' | 'crashed' | 'cancelled' | 'stopped';

export class WorkError extends Error {
  constructor(
    readonly failure: WorkFailure,
    readonly code: string,
    message: string,
    /** The process broke over it. */
    readonly isSpoilt = false,
  ) {
    super(message);
  }
}

export interface WorkLimits {
  /** JavaScript heap, MB. */
  heapMb: number;
  /** Whole memory of the process, MB: above it, it is ended. Only where the system tells (Linux). */
  memoryMb: number;
  /** Above this between two requests, MB, the process gives its memory back by ending: kernels' heaps never shrink. */
  idleMb: number;
}

export interface RunOptions {
  /** How long it may take. */
  seconds: number;
  signal?: AbortSignal;
  onProgress?: OnProgress;
  once?: boolean;
}

/** How often memory is looked at, ms. */
const LOOK = 250;
/** The TypeScript loader, which a child does not inherit. */
const LOADER = pathToFileURL(createRequire(import.meta.url).resolve('tsx')).href;
const START = fileURLToPath(new URL('./start.mjs', import.meta.url));
/** Where the work modules are as plain JavaScript, which “npm start” keeps up to date; without it the sources are run as they are. */
const BUILT = process.env['YELLOW_PIN_BUILT'] === 'yes' ? new URL('../../dist/', import.meta.url) : null;
/** Settings that the work goes by. It needs nothing else of ours, least of all the way into the database. */
const SETTINGS = ['PATH', 'TMPDIR', 'NODE_ENV', 'YELLOW_PIN_READER'];

/**
 * Work that may hang, crash or eat memory, in a child process: one request at a time, each with its limits. Whatever
 * happens in there, it ends with an answer here, and the next request finds a process that works.
 */
export class WorkProcess<Q, A> {
  private child: ChildProcess | null = null;
  private asked = 0;
  private closed = false;
  private tail: Promise<unknown> = Promise.resolve();
  /** Ends the request that is under way. */
  private abandon: ((error: WorkError) => void) | null = null;

  /** `module` exports `work(request, progress)`. */
  constructor(
    private readonly module: URL,
    private readonly limits: WorkLimits,
  ) {}

  /** Process id of the child, while there is one. */
  get pid(): number | null {
    return this.child?.pid ?? null;
  }

  /**
   * Does one request, after those asked before. Throws {@link WorkError}. `once`: without the second try in a fresh
   * process, for those who look for what goes wrong.
   */
  run(request: Q, { seconds, signal, onProgress, once }: RunOptions): Promise<A> {
    const turn = this.tail.then(() =>
      once
        ? this.runNow(request, seconds, signal, onProgress)
        : this.runFairly(request, seconds, signal, onProgress),
    );
    this.tail = turn.catch(() => undefined);
    return turn;
  }

  /**
   * What goes wrong in a process that has worked before may be the fault of what it did then: a kernel's memory can be
   * spoilt without a word. It is tried once more in a fresh one, so that nothing is blamed for another's damage.
   */
  private async runFairly(...args: Parameters<typeof this.runNow>): Promise<A> {
    const isFresh = this.child === null;
    try {
      return await this.runNow(...args);
    } catch (error) {
      const mayBeOthers =
        error instanceof WorkError &&
        (error.isSpoilt || ['too-long', 'too-large', 'crashed'].includes(error.failure));
      if (isFresh || !mayBeOthers || this.closed) throw error;
      return this.runNow(...args);
    }
  }

  private runNow(
    request: Q,
    seconds: number,
    signal: AbortSignal | undefined,
    onProgress: OnProgress | undefined,
  ): Promise<A> {
    if (this.closed) return Promise.reject(stopped());
    if (signal?.aborted) return Promise.reject(cancelled());
    const child = (this.child ??= this.start());
    const id = ++this.asked;
    return new Promise<A>((resolve, reject) => {
      const finish = (act: () => void): void => {
        clearTimeout(timer);
        clearInterval(look);
        child.off('message', onMessage);
        child.off('exit', onExit);
        child.off('error', onError);
        signal?.removeEventListener('abort', onAbort);
        this.abandon = null;
        act();
      };
      const drop = (error: WorkError): void => {
        this.throwAway(child);
        finish(() => reject(error));
      };
      const onMessage = (answer: Answered<A>): void => {
        // An answer to an earlier question is nobody's.
        if (answer.id !== id) return;
        if (answer.type === 'progress') return onProgress?.(answer.share, answer.what);
        if (answer.type === 'done') {
          if (memoryOf(child) > this.limits.idleMb) this.throwAway(child);
          return finish(() => resolve(answer.answer));
        }
        if (answer.spoilt) this.throwAway(child);
        finish(() => reject(new WorkError('refused', answer.code, answer.message, answer.spoilt)));
      };
      const onExit = (code: number | null, by: NodeJS.Signals | null): void => drop(crashed(code, by));
      const onError = (error: Error): void => drop(crashed(null, error.message));
      const onAbort = (): void => drop(cancelled());
      const timer = setTimeout(() => drop(tooLong(seconds)), 1000 * seconds);
      const look = setInterval(() => {
        if (memoryOf(child) > this.limits.memoryMb) drop(tooLarge(this.limits.memoryMb));
      }, LOOK);
      this.abandon = drop;
      child.on('message', onMessage);
      child.on('exit', onExit);
      child.on('error', onError);
      signal?.addEventListener('abort', onAbort);
      // A child that died a moment ago is told by its exit.
      child.send({ id, request }, () => undefined);
    });
  }

  private start(): ChildProcess {
    const { script, module, loader } = this.code();
    const child = fork(script, [module], {
      execArgv: [`--max-old-space-size=${this.limits.heapMb}`, ...loader],
      serialization: 'advanced',
      env: Object.fromEntries(SETTINGS.map((name) => [name, process.env[name]])),
      // Kernels print a page about each file.
      stdio: ['ignore', 'ignore', 'ignore', 'ipc'],
    });
    child.once('exit', () => {
      if (this.child === child) this.child = null;
    });
    child.on('error', () => undefined);
    return child;
  }

  /** What the child runs, and how it reads it. */
  private code(): { script: string; module: string; loader: string[] } {
    if (!BUILT) return { script: START, module: this.module.href, loader: ['--import', LOADER] };
    const name = basename(this.module.pathname, '.ts');
    const built = (file: string): URL => new URL(`${file}.mjs`, BUILT);
    return { script: fileURLToPath(built('start')), module: built(name).href, loader: [] };
  }

  private throwAway(child: ChildProcess): void {
    if (this.child === child) this.child = null;
    child.kill('SIGKILL');
  }

  /** Ends the process; what is under way or waits ends as `stopped`. */
  async close(): Promise<void> {
    this.closed = true;
    this.abandon?.(stopped());
    const { child } = this;
    if (child) this.throwAway(child);
    await this.tail;
  }
}

const stopped = (): WorkError => new WorkError('stopped', 'stopped', 'The server is stopping.');
const cancelled = (): WorkError => new WorkError('cancelled', 'cancelled', 'Cancelled.');
const tooLong = (seconds: number): WorkError =>
  new WorkError(
    'too-long',
    'too-long',
    `Reading was ended after ${Math.round(seconds)} s: the file is damaged, or too large for this machine. Export only the part, or raise YELLOW_PIN_READ_SECONDS.`,
  );
const tooLarge = (mb: number): WorkError =>
  new WorkError(
    'too-large',
    'too-much-memory',
    `Reading was ended: it took more than ${mb} MB of memory. The file is damaged, or too large for this machine: export only the part, or raise YELLOW_PIN_READ_MEMORY_MB.`,
  );
const crashed = (code: number | null, by: string | null): WorkError =>
  new WorkError(
    'crashed',
    'crashed',
    `The process that reads files ended by itself (${by ?? `exit code ${code}`}). Read the part again; if it ends so twice, export it anew.`,
  );

/** Resident memory of a child, MB; 0 where the system does not tell. */
function memoryOf({ pid }: ChildProcess): number {
  try {
    return Number(/^VmRSS:\s*(\d+) kB/m.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1] ?? 0) / 1024;
  } catch {
    return 0;
  }
}
