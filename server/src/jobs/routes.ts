import { pipeline } from 'node:stream/promises';
import { Readable } from 'node:stream';
import { createGunzip } from 'node:zlib';
import { Router, type Request } from 'express';
import type { DataSource } from 'typeorm';
import { z } from 'zod';
import { MOST_PLAN_BYTES, planSchema } from '@yellow-pin/core/plan/plan';
import { HttpError } from '../errors.ts';
import { authorOf } from '../http/author.ts';
import { jsonBody } from '../http/json-door.ts';
import type { Uploads } from '../http/uploads.ts';
import type { ImportQueue } from '../imports/queue.ts';
import { listChanges, noteChange } from '../people/changes.ts';
import { leave, tellPresence } from '../people/presence.ts';
import { jobNames, jobPicture, keepSummary, listJobs, listQuerySchema, summarySchema } from './list.ts';
import { acceptRevision, addRevision, discardRevision, readRevision, retryRevision } from './revisions.ts';
import {
  cancelImport,
  copyJob,
  createJob,
  deleteJob,
  modelPieces,
  openJob,
  purgeJob,
  renameJob,
  restoreJob,
  retryImport,
  sameFile,
  savePlan,
} from './service.ts';

const idSchema = z.uuid();
const saveSchema = z.object({ revision: z.number().int().nonnegative(), plan: planSchema });
const revisionSchema = z.coerce.number().int().positive().max(1e6);
const tabSchema = z.string().regex(/^[\w-]{1,40}$/);
const renameSchema = z.object({ name: z.string().trim().min(1).max(120) });

const planBody = jsonBody(MOST_PLAN_BYTES);
const smallBody = jsonBody(10_000);

function idOf(request: Request): string {
  const id = idSchema.safeParse(request.params['id']);
  if (!id.success) throw new HttpError(404, 'not-found', 'There is no such job. Check the address.');
  return id.data;
}

function revisionOf(request: Request): number {
  const revision = revisionSchema.safeParse(request.params['revision']);
  if (!revision.success)
    throw new HttpError(404, 'not-found', 'There is no such revision. Check the address.');
  return revision.data;
}

export function jobRoutes(database: DataSource, queue: ImportQueue, uploads: Uploads): Router {
  const router = Router();

  router.get('/', async (request, response) => {
    const query = listQuerySchema.safeParse(request.query);
    if (!query.success)
      throw new HttpError(400, 'bad-query', 'The list cannot be had that way. Open it anew from its start.');
    response.json(await listJobs(database, query.data));
  });
  router.get('/names', async (_, response) => void response.json(await jobNames(database)));

  router.post('/', async (request, response) => {
    const job = await uploads.take(
      request,
      response,
      'No file came with the request. Drop a STEP file (.step, .stp) or a drawing (.dxf).',
      (file) => createJob(database, queue, file, authorOf(request)),
    );
    response.status(201).json({ ...job, same: await sameFile(database, job) });
  });

  router.get('/:id', async (request, response) => {
    response.type('application/json').send(await openJob(database, queue, idOf(request)));
  });

  router.get('/:id/model', async (request, response) => {
    const wanted = revisionSchema.optional().safeParse(request.query['revision']);
    if (!wanted.success)
      throw new HttpError(404, 'not-found', 'There is no such revision. Check the address.');
    const { length, pieces } = await modelPieces(database, idOf(request), wanted.data);
    response.type('application/json');
    // It is stored as it is sent; only a client that cannot unpack has it unpacked here.
    const isPacked = request.acceptsEncodings('gzip') === 'gzip';
    if (isPacked) response.set({ 'Content-Encoding': 'gzip', 'Content-Length': String(length) });
    const stored = Readable.from(pieces, { objectMode: false });
    await (isPacked ? pipeline(stored, response) : pipeline(stored, createGunzip(), response));
  });

  router.get('/:id/picture', async (request, response) => {
    const picture = await jobPicture(database, idOf(request));
    if (!picture) throw new HttpError(404, 'not-found', 'There is no picture of this part.');
    response.type('image/png').send(picture);
  });

  router.put('/:id/plan', ...planBody, async (request, response) => {
    const { revision, plan } = saveSchema.parse(request.body);
    response.json({ revision: await savePlan(database, idOf(request), revision, plan, authorOf(request)) });
  });
  router.put('/:id/summary', ...smallBody, async (request, response) => {
    await keepSummary(database, idOf(request), summarySchema.parse(request.body));
    response.status(204).end();
  });
  router.get('/:id/changes', async (request, response) => {
    response.json(await listChanges(database, idOf(request)));
  });
  router.post('/:id/presence/:tab', async (request, response) => {
    const tab = tabSchema.parse(request.params['tab']);
    response.json({ others: await tellPresence(database, idOf(request), tab, authorOf(request)) });
  });
  router.post('/:id/presence/:tab/leave', async (request, response) => {
    await leave(database, idOf(request), tabSchema.parse(request.params['tab']));
    response.status(204).end();
  });
  router.post('/:id/copy', async (request, response) => {
    response.status(201).json(await copyJob(database, idOf(request), authorOf(request)));
  });

  router.post('/:id/revisions', async (request, response) => {
    const id = idOf(request);
    const revision = await uploads.take(
      request,
      response,
      'No file came with the request. Drop the newer file of the part.',
      (file) => addRevision(database, queue, id, file),
    );
    response.status(201).json({ revision });
  });
  router.get(
    '/:id/revisions/:revision',
    async (request, response) =>
      void response.json(await readRevision(database, idOf(request), revisionOf(request))),
  );
  router.post('/:id/revisions/:revision/accept', ...planBody, async (request, response) => {
    const { revision, plan } = saveSchema.parse(request.body);
    response.json({
      revision: await acceptRevision(database, idOf(request), revisionOf(request), revision, plan),
    });
  });
  router.post('/:id/revisions/:revision/retry', async (request, response) => {
    await retryRevision(database, queue, idOf(request), revisionOf(request));
    response.status(204).end();
  });
  router.delete('/:id/revisions/:revision', async (request, response) => {
    await discardRevision(database, idOf(request), revisionOf(request));
    response.status(204).end();
  });

  router.patch(
    '/:id',
    ...smallBody,
    async (request, response) =>
      void response.json(
        await renameJob(database, idOf(request), renameSchema.parse(request.body).name, authorOf(request)),
      ),
  );
  router.post(
    '/:id/cancel',
    async (request, response) => void response.json(await cancelImport(database, idOf(request))),
  );
  router.post(
    '/:id/retry',
    async (request, response) => void response.json(await retryImport(database, queue, idOf(request))),
  );
  router.post(
    '/:id/restore',
    async (request, response) => void response.json(await restoreJob(database, idOf(request))),
  );
  router.delete('/:id', async (request, response) => {
    const id = idOf(request);
    if (request.query['forever'] === '1') await purgeJob(database, id);
    else {
      await deleteJob(database, id);
      await noteChange(database, authorOf(request), 'put the job into the bin', id);
    }
    response.status(204).end();
  });

  return router;
}
