import { Router, type Request } from 'express';
import type { DataSource } from 'typeorm';
import type { Logger } from 'pino';
import { z } from 'zod';
import { LIST_NAMES, type ListName } from '@yellow-pin/core/plan/library-items';
import { HttpError } from '../errors.ts';
import { authorOf } from '../http/author.ts';
import { jsonBody } from '../http/json-door.ts';
import { noteChange } from '../people/changes.ts';
import { importItems, putItem, readLibrary, removeItem } from './service.ts';

/** One entry, and a whole list with all its entries, bytes. */
const itemBody = jsonBody(60_000);
const listBody = jsonBody(8_000_000);
const importSchema = z.object({ items: z.array(z.unknown()).min(1).max(5000) });

function listOf(request: Request): ListName {
  const list = LIST_NAMES.find((n) => n === request.params['list']);
  if (!list)
    throw new HttpError(404, 'not-found', `There is no such list. There are ${LIST_NAMES.join(', ')}.`);
  return list;
}

const idOf = (request: Request): string => z.string().min(1).max(120).parse(request.params['id']);

/** What an entry is called, to be said of it. */
const nameIn = (body: unknown): string => {
  const said = z.object({ name: z.string().optional(), description: z.string().optional() }).safeParse(body);
  return (said.data?.name ?? said.data?.description ?? 'an entry').slice(0, 80);
};

/** The shop's lists: read, changed one by one, taken in as a whole. Every change answers with the lists as they are now. */
export function libraryRoutes(database: DataSource, log: Logger): Router {
  const router = Router();
  const answer = () => readLibrary(database, log);
  router.get('/', async (_, response) => void response.json(await answer()));
  router.put('/:list/:id', ...itemBody, async (request, response) => {
    await putItem(database, listOf(request), idOf(request), request.body);
    await noteChange(database, authorOf(request), `stored ${nameIn(request.body)} in ${listOf(request)}`);
    response.json(await answer());
  });
  router.delete('/:list/:id', async (request, response) => {
    await removeItem(database, listOf(request), idOf(request));
    await noteChange(database, authorOf(request), `took ${idOf(request)} out of ${listOf(request)}`);
    response.json(await answer());
  });
  router.post('/:list/import', ...listBody, async (request, response) => {
    const { items } = importSchema.parse(request.body);
    const came = await importItems(database, listOf(request), items);
    await noteChange(database, authorOf(request), `took ${came.taken} ${listOf(request)} in from a file`);
    response.json({ ...came, library: await answer() });
  });
  return router;
}
