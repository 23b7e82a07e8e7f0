/** An answer other than success, with a code for programs and a sentence for people. */
export class HttpError extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    message: string,
    readonly details?: unknown,
  ) {
    super(message);
  }
}

export const notFound = (what: string): HttpError =>
  new HttpError(404, 'not-found', `There is no such ${what}. It may have been deleted.`);
