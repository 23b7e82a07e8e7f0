/** What goes to a work process, and what comes back; `id` says which request an answer belongs to. */
export interface Asked<Q> {
  id: number;
  request: Q;
}
export type Answered<A> =
  | { id: number; type: 'done'; answer: A }
  | { id: number; type: 'progress'; share: number; what: string }
  /** `spoilt`: the process can no longer be trusted and is thrown away. */
  | { id: number; type: 'refused'; code: string; message: string; spoilt: boolean };

export type OnProgress = (share: number, what: string) => void;

/** The work is done, or refused for a reason that is the file's: a code for programs and a sentence for people. */
export class Refused extends Error {
  constructor(
    readonly code: string,
    message: string,
    readonly spoilt = false,
  ) {
    super(message);
  }
}

/** Does one request after another in a child process. */
export function serve<Q, A>(work: (request: Q, progress: OnProgress) => Promise<A>): void {
  const send = (answer: Answered<A>): void => void process.send?.(answer);
  process.on('message', ({ id, request }: Asked<Q>) => {
    work(request, (share, what) => send({ id, type: 'progress', share, what })).then(
      (answer) => send({ id, type: 'done', answer }),
      (error: unknown) =>
        send(
          error instanceof Refused
            ? { id, type: 'refused', code: error.code, message: error.message, spoilt: error.spoilt }
            : {
                id,
                type: 'refused',
                code: 'internal',
                message: `The file could not be read: ${error instanceof Error ? error.message : String(error)}. Export it again, and keep the file if it fails twice.`,
                spoilt: true,
              },
        ),
    );
  });
}
