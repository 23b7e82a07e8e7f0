import { describe, expect, it } from 'vitest';
import { z } from 'zod';
import { describeError, isAway } from '../database/errors.ts';
import { HttpError, notFound } from '../errors.ts';
import { toHttpError } from './error-handler.ts';

const coded = (code: string, message = 'x') => Object.assign(new Error(message), { code });
const refused = new AggregateError([coded('ECONNREFUSED', 'connect ECONNREFUSED 127.0.0.1:1')], '');

describe('errors in answers', () => {
  it.each([
    [coded('ECONNREFUSED'), 503, 'database-away'],
    [refused, 503, 'database-away'],
    [coded('57P01', 'terminating connection due to administrator command'), 503, 'database-away'],
    [new Error('Connection terminated unexpectedly'), 503, 'database-away'],
    [Object.assign(new Error('QueryFailed'), { driverError: coded('08006') }), 503, 'database-away'],
    [coded('53100', 'could not extend file'), 507, 'disk-full'],
    [coded('ENOSPC', 'no space left on device'), 507, 'disk-full'],
    [coded('22021', 'invalid byte sequence'), 400, 'bad-data'],
    [Object.assign(new Error('x'), { status: 415, type: 'charset.unsupported' }), 415, 'bad-request'],
    [Object.assign(new Error('x'), { status: 413, type: 'entity.too.large' }), 413, 'too-large'],
    [Object.assign(new Error('Failed to decode param'), { status: 400 }), 400, 'bad-request'],
    [notFound('job'), 404, 'not-found'],
    [new HttpError(409, 'stale', 'saved elsewhere'), 409, 'stale'],
    [z.object({ a: z.number() }).safeParse({ a: 'x' }).error, 400, 'bad-request'],
    [new TypeError('cannot read properties of null'), 500, 'internal'],
    [coded('EACCES'), 500, 'internal'],
    ['a string', 500, 'internal'],
    [null, 500, 'internal'],
  ])('%s: %i %s', (error, status, code) => {
    const known = toHttpError(error);
    expect([known.status, known.code]).toEqual([status, code]);
    expect(known.message).toMatch(/^[A-Za-z].*\.$|saved elsewhere/);
    // Nothing of the inside comes out.
    if (status >= 500) expect(known.message).not.toMatch(/properties|x|ECONN/i);
  });

  it('a wrong field is named', () => {
    const wrong = z
      .object({ plan: z.object({ units: z.enum(['mm', 'inch']) }) })
      .safeParse({ plan: { units: 'ell' } });
    expect(toHttpError(wrong.error).message).toMatch(/^plan\.units: /);
  });

  it('are told in one line to who starts the server', () => {
    expect(describeError(refused)).toBe('connect ECONNREFUSED 127.0.0.1:1');
    expect(describeError(new Error('one\n  two'))).toBe('one two');
    expect([isAway(refused), isAway(new Error('syntax error')), isAway(undefined)]).toEqual([
      true,
      false,
      false,
    ]);
  });
});
