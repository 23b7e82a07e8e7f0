import { Router, type Request } from 'express';
import multer from 'multer';
import type { DataSource } from 'typeorm';
import { z } from 'zod';
import { DxfError, isDxf, readDxf } from '@yellow-pin/core/drawing/read-dxf';
import { planSchema } from '@yellow-pin/core/job/plan';
import { tooLargeMessage } from '@yellow-pin/kernel/read-step';
import { inspectStep, StepFileError } from '@yellow-pin/kernel/step-text';
import { HttpError } from '../errors.ts';
import type { ImportQueue } from '../queue/import-queue.ts';
import { acceptRevision, addRevision, discardRevision, readRevision } from './revisions.ts';
import { cancelImport, createJob, deleteJob, listJobs, openJob, readModel, renameJob, restoreJob, savePlan } from './service.ts';

const idSchema = z.uuid();
const saveSchema = z.object({ revision: z.number().int().nonnegative(), plan: planSchema });
const revisionSchema = z.coerce.number().int().positive().max(1e6);
const renameSchema = z.object({ name: z.string().trim().min(1).max(120) });

function idOf(request: Request): string {
  const id = idSchema.safeParse(request.params['id']);
  if (!id.success) throw new HttpError(404, 'not-found', 'There is no such job. Check the address.');
  return id.data;
}

function revisionOf(request: Request): number {
  const revision = revisionSchema.safeParse(request.params['revision']);
  if (!revision.success) throw new HttpError(404, 'not-found', 'There is no such revision. Check the address.');
  return revision.data;
}

/** Refuses what is neither STEP nor DXF before anything is stored. */
function inspect(file: Express.Multer.File): void {
  try {
    const text = file.buffer.toString('utf8');
    if (isDxf(file.originalname, text)) readDxf(text, file.originalname);
    else inspectStep(text);
  } catch (error) {
    if (error instanceof StepFileError) throw new HttpError(422, error.code, error.message);
    if (error instanceof DxfError) throw new HttpError(422, 'not-dxf', error.message);
    throw error;
  }
}

export function jobRoutes(database: DataSource, queue: ImportQueue, stepLimitBytes: number): Router {
  const router = Router();
  const upload = multer({ storage: multer.memoryStorage(), limits: { fileSize: stepLimitBytes, files: 1, fields: 4 }, defParamCharset: 'utf8' });

  router.get('/', async (_, response) => void response.json(await listJobs(database)));

  router.post('/', upload.single('file'), async (request, response) => {
    const { file } = request;
    if (!file) throw new HttpError(400, 'no-file', 'No file came with the request. Drop a STEP file (.step, .stp) or a drawing (.dxf).');
    inspect(file);
    const job = await createJob(database, { fileName: file.originalname, step: file.buffer });
    await queue.add(job.id);
    response.status(201).json(job);
  });

  router.get('/:id', async (request, response) => void response.json(await openJob(database, idOf(request))));

  router.get('/:id/model', async (request, response) => {
    const wanted = revisionSchema.optional().safeParse(request.query['revision']);
    if (!wanted.success) throw new HttpError(404, 'not-found', 'There is no such revision. Check the address.');
    const model = await readModel(database, idOf(request), wanted.data);
    response.set({ 'Content-Type': 'application/json', 'Content-Encoding': 'gzip', 'Cache-Control': 'private, no-cache' }).send(model);
  });

  router.put('/:id/plan', async (request, response) => {
    const { revision, plan } = saveSchema.parse(request.body);
    response.json({ revision: await savePlan(database, idOf(request), revision, plan) });
  });

  router.post('/:id/revisions', upload.single('file'), async (request, response) => {
    const { file } = request;
    if (!file) throw new HttpError(400, 'no-file', 'No file came with the request. Drop the newer file of the part.');
    inspect(file);
    const id = idOf(request);
    const revision = await addRevision(database, id, file.originalname, file.buffer);
    await queue.add(id, { revision });
    response.status(201).json({ revision });
  });
  router.get('/:id/revisions/:revision', async (request, response) => void response.json(await readRevision(database, idOf(request), revisionOf(request))));
  router.post('/:id/revisions/:revision/accept', async (request, response) => {
    const { revision, plan } = saveSchema.parse(request.body);
    response.json({ revision: await acceptRevision(database, idOf(request), revisionOf(request), revision, plan) });
  });
  router.delete('/:id/revisions/:revision', async (request, response) => {
    await discardRevision(database, idOf(request), revisionOf(request));
    response.status(204).end();
  });

  router.patch('/:id', async (request, response) => void response.json(await renameJob(database, idOf(request), renameSchema.parse(request.body).name)));
  router.post('/:id/cancel', async (request, response) => void response.json(await cancelImport(database, idOf(request))));
  router.post('/:id/restore', async (request, response) => void response.json(await restoreJob(database, idOf(request))));
  router.delete('/:id', async (request, response) => {
    await deleteJob(database, idOf(request));
    response.status(204).end();
  });

  return router;
}

/** multer's own errors in our words. */
export function uploadError(error: multer.MulterError, limit: number): HttpError {
  if (error.code === 'LIMIT_FILE_SIZE') return new HttpError(413, 'too-large', tooLargeMessage(limit + 1, limit).replace(/^The file is [\d.]+ MB;/, 'The file is too large:'));
  return new HttpError(400, 'bad-upload', `The upload could not be read (${error.code}). Drop one STEP file.`);
}
