import type { ErrorRequestHandler } from 'express';
import { ZodError } from 'zod';
import { isAway, isBadData, isNoRoom } from '../database/errors.ts';
import { HttpError } from '../errors.ts';

/** Every error leaves as a status, a code and a sentence; never as a stack. */
export const errorHandler: ErrorRequestHandler = (error: unknown, request, response, next) => {
  if (response.headersSent) return next(error);
  const known = toHttpError(error);
  if (known.status >= 500 && known.code !== 'database-away' && known.code !== 'busy')
    request.log.error({ err: error }, 'request failed');
  if (known.status === 503) response.set('Retry-After', '2');
  response.status(known.status).json({ code: known.code, message: known.message, details: known.details });
};

/** What the parsers of requests say, in our words. */
const BY_TYPE: Record<string, string> = {
  'entity.parse.failed': 'The request is not valid JSON.',
  'entity.too.large': 'The request is too large.',
  'encoding.unsupported': 'The request is compressed in a way that is not understood.',
  'charset.unsupported': 'The request is in a character set that is not understood: send UTF-8.',
  'request.aborted': 'The request was cut off.',
  'request.size.invalid': 'The request is longer or shorter than it says.',
};
const CODES: Record<string, string> = { 'entity.parse.failed': 'bad-json', 'entity.too.large': 'too-large' };

export function toHttpError(error: unknown): HttpError {
  if (error instanceof HttpError) return error;
  if (error instanceof ZodError) {
    const issue = error.issues[0];
    return new HttpError(
      400,
      'bad-request',
      `${issue?.path.join('.') || 'request'}: ${issue?.message ?? 'wrong'}.`,
      error.issues.slice(0, 10).map(({ path, message }) => ({ path: path.join('.'), message })),
    );
  }
  if (isAway(error))
    return new HttpError(
      503,
      'database-away',
      'The database does not answer just now; nothing was changed. Try again in a moment.',
    );
  if (isNoRoom(error))
    return new HttpError(
      507,
      'disk-full',
      'The disk is full: nothing could be stored, and nothing was lost. Make room, then try again.',
    );
  if (isBadData(error))
    return new HttpError(400, 'bad-data', 'The request holds text or numbers that cannot be stored.');
  const { status, type = '' } = (error ?? {}) as { status?: unknown; type?: string };
  if (typeof status === 'number' && status >= 400 && status < 500)
    return new HttpError(
      status,
      CODES[type] ?? 'bad-request',
      BY_TYPE[type] ?? 'The request cannot be understood. Check its address and its form.',
    );
  return new HttpError(
    500,
    'internal',
    'Something went wrong on the server; nothing was changed. Try again.',
  );
}
