import { createHmac, randomBytes, timingSafeEqual } from 'node:crypto';
import type { RequestHandler, Response } from 'express';
import { HttpError } from '../errors.ts';

export interface GuardOptions {
  /** Names under which the server is meant to be called, beside those of loopback. */
  hosts: readonly string[];
  /** Key of the cookies; the same over restarts, so that an open page goes on saving. */
  secret: string;
}

const LOOPBACK = ['localhost', '127.0.0.1', '[::1]'];
const COOKIE = 'yellow_pin_session';
const YEAR = 365 * 24 * 3600;

/**
 * Refuses what does not come from our own pages: another name in Host (a name rebound to this machine), another page
 * in Origin or Sec-Fetch-Site, and writes without the cookie that our own pages are given.
 */
export function guard({ hosts, secret }: GuardOptions): RequestHandler {
  const allowed = new Set([...LOOPBACK, ...hosts.map((h) => h.toLowerCase())]);
  return (request, _, next) => {
    const { host = '', origin } = request.headers;
    if (!allowed.has(hostName(host)))
      throw new HttpError(
        403,
        'wrong-host',
        `This server is not called "${host.slice(0, 100)}". Open it as http://127.0.0.1 with its port, or name it in YELLOW_PIN_HOSTS.`,
      );
    const isWrite = !['GET', 'HEAD', 'OPTIONS'].includes(request.method);
    // Pages may be linked to from anywhere; writes may not, wherever they go.
    if (!isWrite && !/^\/api(\/|$)/i.test(request.path)) return next();
    const site = request.headers['sec-fetch-site'];
    if (
      (origin !== undefined && hostOf(origin) !== host.toLowerCase()) ||
      (site !== undefined && site !== 'same-origin' && site !== 'none')
    )
      throw new HttpError(
        403,
        'wrong-origin',
        'The request comes from a page of another address. Only Yellow Pin’s own pages may ask.',
      );
    if (isWrite && !isOurs(request.headers.cookie, secret))
      throw new HttpError(
        403,
        'no-session',
        'The request does not carry this server’s cookie. Get it with GET /api/session and send it along.',
      );
    next();
  };
}

/** Gives the cookie that writes need. Another site's page can neither read nor send it (SameSite=Strict). */
export function giveSession(response: Response, cookies: string | undefined, secret: string): void {
  if (isOurs(cookies, secret)) return;
  const nonce = randomBytes(16).toString('base64url');
  response.append(
    'Set-Cookie',
    `${COOKIE}=${nonce}.${sign(nonce, secret)}; Path=/; HttpOnly; SameSite=Strict; Max-Age=${YEAR}`,
  );
}

const sign = (nonce: string, secret: string): string =>
  createHmac('sha256', secret).update(nonce).digest('base64url');

function isOurs(cookies: string | undefined, secret: string): boolean {
  return (cookies ?? '').split(';').some((cookie) => {
    const [name = '', value = ''] = cookie.trim().split('=', 2);
    const [nonce = '', given = ''] = value.split('.', 2);
    if (name !== COOKIE || nonce === '') return false;
    const [a, b] = [Buffer.from(given), Buffer.from(sign(nonce, secret))];
    return a.length === b.length && timingSafeEqual(a, b);
  });
}

/** The name in a Host header, without its port. */
const hostName = (host: string): string => host.toLowerCase().replace(/:\d*$/, '');

/** Host and port of an Origin; empty where it is none, as of a page in a sandbox. */
function hostOf(origin: string): string {
  try {
    return new URL(origin).host;
  } catch {
    return '';
  }
}
