import { existsSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import express, { type ErrorRequestHandler, type Express } from 'express';
import helmet from 'helmet';
import multer from 'multer';
import { pinoHttp } from 'pino-http';
import type { Logger } from 'pino';
import type { DataSource } from 'typeorm';
import { ZodError } from 'zod';
import { HttpError } from './errors.ts';
import { jobRoutes, uploadError } from './jobs/routes.ts';
import { readLibrary } from './library/service.ts';
import type { ImportQueue } from './queue/import-queue.ts';

export interface AppParts {
  database: DataSource;
  queue: ImportQueue;
  log: Logger;
  stepLimitBytes: number;
}

const WEB = fileURLToPath(new URL('../../web/dist', import.meta.url));

/** The whole server as an Express application: the API under /api, the built screens everywhere else. */
export function createApp({ database, queue, log, stepLimitBytes }: AppParts): Express {
  const app = express();
  app.disable('x-powered-by');
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
  app.use(pinoHttp({ logger: log, autoLogging: { ignore: (r) => !r.url?.startsWith('/api') } }));
  app.use('/api', express.json({ limit: '8mb' }));
  app.get('/api/health', (_, response) => void response.json({ ok: true }));
  app.get('/api/library', async (_, response) => void response.json(await readLibrary(database)));
  app.use('/api/jobs', jobRoutes(database, queue, stepLimitBytes));
  app.use('/api', () => {
    throw new HttpError(404, 'not-found', 'There is no such address in the API.');
  });
  if (existsSync(WEB)) {
    app.use(express.static(WEB, { index: false, maxAge: '1h' }));
    app.get('/{*path}', (_, response) => response.sendFile('index.html', { root: WEB }));
  }
  app.use(errorHandler(stepLimitBytes));
  return app;
}

const errorHandler =
  (limit: number): ErrorRequestHandler =>
  (error: unknown, request, response, next) => {
    if (response.headersSent) return next(error);
    const known = toHttpError(error, limit);
    if (known.status >= 500) request.log.error({ err: error }, 'request failed');
    response.status(known.status).json({ code: known.code, message: known.message, details: known.details });
  };

function toHttpError(error: unknown, limit: number): HttpError {
  if (error instanceof HttpError) return error;
  if (error instanceof multer.MulterError) return uploadError(error, limit);
  if (error instanceof ZodError) {
    const issue = error.issues[0];
    return new HttpError(400, 'bad-request', `${issue?.path.join('.') || 'request'}: ${issue?.message ?? 'wrong'}.`, error.issues.slice(0, 10));
  }
  const type = (error as { type?: string } | null)?.type;
  if (type === 'entity.parse.failed') return new HttpError(400, 'bad-json', 'The request is not valid JSON.');
  if (type === 'entity.too.large') return new HttpError(413, 'too-large', 'The request is too large.');
  return new HttpError(500, 'internal', 'Something went wrong on the server; nothing was changed. Try again.');
}
