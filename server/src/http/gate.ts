import { HttpError } from '../errors.ts';

/** Lets so many in at once; others wait in line, and where the line is full they are sent away with a word. */
export class Gate {
  private inside = 0;
  private readonly line: (() => void)[] = [];

  constructor(
    private readonly atOnce: number,
    private readonly inLine: number,
  ) {}

  /** Waits for its turn. Call what it gives when leaving. An aborted `signal` leaves the line. */
  async enter(signal?: AbortSignal): Promise<() => void> {
    if (this.inside >= this.atOnce) {
      if (this.line.length >= this.inLine)
        throw new HttpError(503, 'busy', 'Many files are being sent at once. Try again in a minute.');
      await new Promise<void>((resolve, reject) => {
        const turn = (): void => {
          signal?.removeEventListener('abort', gone);
          resolve();
        };
        const gone = (): void => {
          this.line.splice(this.line.indexOf(turn), 1);
          reject(new HttpError(499, 'gone', 'The client went away.'));
        };
        this.line.push(turn);
        signal?.addEventListener('abort', gone);
      });
    } else this.inside++;
    let left = false;
    return () => {
      if (left) return;
      left = true;
      // The place goes to the next in line, if there is one.
      const next = this.line.shift();
      if (next) next();
      else this.inside--;
    };
  }
}
