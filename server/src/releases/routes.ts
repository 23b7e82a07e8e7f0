import { Router, type Request } from 'express';
import type { DataSource } from 'typeorm';
import { z } from 'zod';
import { releaseDifference } from '@yellow-pin/core/release/difference';
import { HttpError, notFound } from '../errors.ts';
import { authorOf } from '../http/author.ts';
import { jsonBody } from '../http/json-door.ts';
import { sendPrograms } from '../machine/send.ts';
import { noteChange } from '../people/changes.ts';
import type { ReleaseDesk } from './desk.ts';
import { addNote, listNotes, settleNote } from './notes.ts';
import { listReleases, readRelease } from './service.ts';

const smallBody = jsonBody(10_000);
const beginSchema = z.object({ remark: z.string().trim().max(300).default('') });
const noteSchema = z.object({
  text: z.string().trim().min(1, 'a note needs words').max(2000),
  setup: z.string().max(200).nullable().default(null),
  release: z.number().int().positive().nullable().default(null),
});
const settleSchema = z.object({ isDone: z.boolean() });
const numberSchema = z.coerce.number().int().positive().max(1e6);

const idOf = (request: Request): string => {
  const id = z.uuid().safeParse(request.params['id']);
  if (!id.success) throw notFound('job');
  return id.data;
};
const numberOf = (request: Request, name = 'number'): number => {
  const number = numberSchema.safeParse(request.params[name]);
  if (!number.success) throw notFound('release');
  return number.data;
};

/** Releases of a job and the notes that came back: under /api/jobs. */
export function releaseRoutes(database: DataSource, desk: ReleaseDesk, machinePort: number | null): Router {
  const router = Router();
  router.get('/:id/releases', async (request, response) => {
    response.json(await listReleases(database, idOf(request)));
  });
  router.post('/:id/releases', ...smallBody, async (request, response) => {
    const { remark } = beginSchema.parse(request.body);
    const author = authorOf(request);
    const number = await desk.begin(idOf(request), { author, remark });
    await noteChange(database, author, `released it as ${number}`, idOf(request));
    response.status(202).json({ number });
  });
  router.get('/:id/releases/:number', async (request, response) => {
    response.json(await readRelease(database, idOf(request), numberOf(request)));
  });
  router.post('/:id/releases/:number/cancel', async (request, response) => {
    await desk.cancel(idOf(request), numberOf(request));
    response.status(204).end();
  });
  router.get('/:id/releases/:number/since/:older', async (request, response) => {
    const [newer, older] = await Promise.all([
      readRelease(database, idOf(request), numberOf(request)),
      readRelease(database, idOf(request), numberOf(request, 'older')),
    ]);
    response.json(releaseDifference(older.content, newer.content));
  });
  router.post('/:id/releases/:number/send', async (request, response) => {
    const { content } = await readRelease(database, idOf(request), numberOf(request));
    if (machinePort === null)
      throw new HttpError(
        502,
        'no-machine',
        'The simulated machine is switched off: the folder that it keeps programs in cannot be had. The server’s first lines say why.',
      );
    const sent = await sendPrograms(machinePort, content.files);
    await noteChange(
      database,
      authorOf(request),
      `sent release ${numberOf(request)} to the machine`,
      idOf(request),
    );
    response.json(sent);
  });
  router.get('/:id/notes', async (request, response) => {
    response.json(await listNotes(database, idOf(request)));
  });
  router.patch('/:id/notes/:note', ...smallBody, async (request, response) => {
    const { isDone } = settleSchema.parse(request.body);
    const note = z.uuid().safeParse(request.params['note']);
    if (!note.success) throw notFound('note');
    await settleNote(database, idOf(request), note.data, isDone, authorOf(request));
    response.status(204).end();
  });
  return router;
}

/** What the floor sees: jobs that are released, the newest release of each, and its notes. Under /api/floor. */
export function floorRoutes(database: DataSource): Router {
  const router = Router();
  router.get('/', async (_, response) => {
    response.json(
      await database.query(
        `SELECT j.id, j.name, r.number, r.created_at AS "createdAt", r.author, r.remark,
           r.content->>'machine' AS machine, jsonb_array_length(r.content->'sheets') AS setups
         FROM jobs j JOIN LATERAL (
           SELECT * FROM releases WHERE job_id = j.id AND status = 'ready' ORDER BY number DESC LIMIT 1) r ON true
         WHERE j.deleted_at IS NULL ORDER BY r.created_at DESC LIMIT 200`,
      ),
    );
  });
  router.get('/:id', async (request, response) => {
    const id = idOf(request);
    const [newest] = (await listReleases(database, id)).filter((r) => r.status === 'ready');
    if (!newest)
      throw new HttpError(
        404,
        'not-released',
        'This job is not released to the floor yet. Ask its programmer.',
      );
    const { content, ...head } = await readRelease(database, id, newest.number);
    response.json({ release: head, content, notes: await listNotes(database, id) });
  });
  router.post('/:id/notes', ...smallBody, async (request, response) => {
    const note = noteSchema.parse(request.body);
    response.status(201).json(await addNote(database, idOf(request), { ...note, author: authorOf(request) }));
  });
  return router;
}
