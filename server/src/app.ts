import { statSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import express, { type Express } from 'express';
import helmet from 'helmet';
import { pinoHttp } from 'pino-http';
import type { Logger } from 'pino';
import type { DataSource } from 'typeorm';
import { HttpError } from './errors.ts';
import { errorHandler } from './http/error-handler.ts';
import { giveSession, guard } from './http/guard.ts';
import { readHealth } from './http/health.ts';
import type { Uploads } from './http/uploads.ts';
import type { ImportQueue } from './imports/queue.ts';
import { jobRoutes } from './jobs/routes.ts';
import { libraryRoutes } from './library/routes.ts';
import { listChanges } from './people/changes.ts';
import type { ReleaseDesk } from './releases/desk.ts';
import { floorRoutes, releaseRoutes } from './releases/routes.ts';
import { mayAsk, type SignIn } from './people/sign-in.ts';

export interface AppParts {
  database: DataSource;
  queue: ImportQueue;
  uploads: Uploads;
  log: Logger;
  /** Names under which the server may be called, beside those of loopback. */
  hosts: readonly string[];
  /** Key of the cookies that guard writes. */
  secret: string;
  people: SignIn;
  releases: ReleaseDesk;
  /** Port of the machine's line on loopback; null where it is switched off. */
  machinePort: number | null;
  /** It is reached over a network: everybody signs in. */
  isNetwork: boolean;
}

const WEB = fileURLToPath(new URL('../../web/dist', import.meta.url));

/** The whole server as an Express application: the API under /api, the built screens everywhere else. */
export function createApp(parts: AppParts): Express {
  const { database, queue, uploads, log, hosts, secret, people, isNetwork, releases, machinePort } = parts;
  const app = express();
  app.disable('x-powered-by');
  // One spelling of every address, so that what is checked is what is answered.
  app.enable('case sensitive routing');
  // Answers of the API are never stored, so there is nothing to compare them with.
  app.set('etag', false);
  app.use(
    helmet({
      contentSecurityPolicy: {
        // Served over plain HTTP in the shop: no upgrade, and styles are made at run time.
        directives: {
          upgradeInsecureRequests: null,
          styleSrc: ["'self'", "'unsafe-inline'"],
          workerSrc: ["'self'", 'blob:'],
          imgSrc: ["'self'", 'data:', 'blob:'],
          connectSrc: ["'self'", 'blob:', 'data:'],
        },
      },
      strictTransportSecurity: false,
    }),
  );
  app.use(
    pinoHttp({
      logger: log,
      autoLogging: { ignore: (r) => !r.url?.startsWith('/api') },
      // Cookies and the rest of the headers are nobody's business.
      serializers: {
        req: ({ id, method, url }: { id: unknown; method: string; url: string }) => ({ id, method, url }),
        res: ({ statusCode }: { statusCode: number }) => ({ statusCode }),
      },
    }),
  );
  app.use(guard({ hosts, secret }));
  app.use('/api', (_, response, next) => {
    response.set('Cache-Control', 'no-store');
    next();
  });
  app.get('/api/health', async (_, response) => {
    const health = await readHealth(database, queue);
    response.status(health.ok ? 200 : 503).json(health);
  });
  app.get('/api/session', (request, response) => {
    giveSession(response, request.headers.cookie, secret);
    response.status(204).end();
  });
  app.use('/api', ...people.handlers, people.routes, mayAsk(isNetwork));
  app.get('/api/changes', async (_, response) => void response.json(await listChanges(database, null)));
  app.use('/api/library', libraryRoutes(database, log));
  app.use('/api/floor', floorRoutes(database));
  app.use('/api/jobs', releaseRoutes(database, releases, machinePort));
  app.use('/api/jobs', jobRoutes(database, queue, uploads));
  app.use('/api', () => {
    throw new HttpError(404, 'not-found', 'There is no such address in the API.');
  });
  // Not "exists": that is asked without regard to the right to read past private folders.
  if (statSync(WEB, { throwIfNoEntry: false })) {
    app.use(express.static(WEB, { index: false, maxAge: '1h' }));
    app.get('/{*path}', (request, response) => {
      giveSession(response, request.headers.cookie, secret);
      // With no-cache a page of before is never shown on top of a newer server.
      response.set('Cache-Control', 'no-cache').sendFile('index.html', { root: WEB });
    });
  }
  app.use(errorHandler);
  return app;
}
