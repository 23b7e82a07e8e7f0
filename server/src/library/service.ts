import type { DataSource, EntityManager } from 'typeorm';
import type { Logger } from 'pino';
import { readLibraryRows, type Library } from '@yellow-pin/core/plan/library';
import { LISTS, readItem, type ListName } from '@yellow-pin/core/plan/library-items';
import { HttpError, notFound } from '../errors.ts';
import { LibraryEntity, type LibraryKind } from './entity.ts';

const KINDS: readonly LibraryKind[] = ['tools', 'holders', 'materials', 'machines', 'methods'];

/** The shop's lists, checked on the way out; rows that this version does not understand are left out and said in the log. */
export async function readLibrary(database: DataSource, log?: Logger): Promise<Library> {
  const rows = await database.getRepository(LibraryEntity).find({ order: { kind: 'ASC', position: 'ASC' } });
  const of = (kind: LibraryKind): unknown[] => rows.filter((r) => r.kind === kind).map((r) => r.data);
  const { library, left } = readLibraryRows({
    tools: of('tools'),
    holders: of('holders'),
    materials: of('materials'),
    machines: of('machines'),
    methods: of('methods'),
  });
  if (left.length > 0) log?.warn({ left }, 'library rows that are not understood were left out');
  return library;
}

/**
 * Fills empty lists once; what is there already stays. Lists that were stored before some kinds of tool were known get them once: the tools
 * into the drawer, and their cutting data.
 */
export async function seedLibrary(database: DataSource, library: Library): Promise<void> {
  const repository = database.getRepository(LibraryEntity);
  if ((await repository.count()) === 0) {
    await repository.insert(
      KINDS.flatMap((kind) =>
        library[kind].map((data, position) => ({ kind, id: data.id, position, data })),
      ) as never[],
    );
    return;
  }
  const stored = await readLibrary(database);
  const isKnown = (kind: string): boolean =>
    stored.materials.some((m) => m.cutting.some((r) => r.kinds.includes(kind)));
  const late = [...new Set(library.tools.map((t) => t.kind))].filter((kind) => !isKnown(kind));
  if (late.length === 0) return;
  const materials = stored.materials.flatMap((m) => {
    const rows = (library.materials.find((x) => x.id === m.id)?.cutting ?? [])
      .map((r) => ({ ...r, kinds: r.kinds.filter((k) => !isKnown(k)) }))
      .filter((r) => r.kinds.length > 0);
    return rows.length > 0 ? [{ ...m, cutting: [...m.cutting, ...rows] }] : [];
  });
  const tools = [...stored.tools];
  const ids = new Set(tools.map((t) => t.id));
  for (const t of library.tools)
    if (late.includes(t.kind) && !ids.has(t.id)) tools.push({ ...t, number: null });
  const added = tools.slice(stored.tools.length);
  await database.transaction(async (manager) => {
    for (const data of materials)
      await manager.update(LibraryEntity, { kind: 'materials', id: data.id }, { data: data as never });
    if (added.length > 0)
      await manager.insert(
        LibraryEntity,
        added.map((data, i) => ({
          kind: 'tools',
          id: data.id,
          position: stored.tools.length + i,
          data,
        })) as never[],
      );
  });
}

/** One at a time changes the lists: what is checked against them is still so when it is stored. */
const LOCK = 7_210_044;

/** Takes one entry into a list, in place of the one with that id where there is one. Throws where it does not fit, with the reason. */
export async function putItem(
  database: DataSource,
  list: ListName,
  id: string,
  document: unknown,
): Promise<void> {
  await changeLists(database, async (library, manager) => {
    const read = readItem(list, document, library);
    if ('why' in read) throw new HttpError(422, 'bad-item', read.why);
    if (read.item.id !== id)
      throw new HttpError(
        422,
        'bad-item',
        `The address names "${id}", the ${LISTS[list].one} "${read.item.id}".`,
      );
    await store(manager, list, read.item);
  });
}

/** Takes an entry off a list; what something else needs stays, and the answer says what. */
export async function removeItem(database: DataSource, list: ListName, id: string): Promise<void> {
  await changeLists(database, async (library, manager) => {
    const item = library[list].find((i) => i.id === id);
    if (!item) throw notFound(LISTS[list].one);
    const why = keptFor(list, id, library);
    if (why !== null) throw new HttpError(409, 'needed', why);
    await manager.delete(LibraryEntity, { kind: list, id });
  });
}

const keptFor = <L extends ListName>(list: L, id: string, library: Library): string | null => {
  const item = library[list].find((i) => i.id === id);
  return item ? LISTS[list].kept(item, library) : null;
};

/** What came of taking in a list: how many were taken, and those that were not, by their place in it. */
export interface Imported {
  taken: number;
  left: { index: number; message: string }[];
}

/** Takes in many entries, each by itself: a bad one is named, the rest is kept. */
export async function importItems(
  database: DataSource,
  list: ListName,
  documents: readonly unknown[],
): Promise<Imported> {
  const out: Imported = { taken: 0, left: [] };
  await changeLists(database, async (before, manager) => {
    let library = before;
    for (const [index, document] of documents.entries()) {
      const read = readItem(list, document, library);
      if ('why' in read) {
        out.left.push({ index, message: read.why });
        continue;
      }
      const { item } = read;
      library = { ...library, [list]: [...library[list].filter((i) => i.id !== item.id), item] };
      await store(manager, list, item);
      out.taken++;
    }
  });
  return out;
}

async function changeLists(
  database: DataSource,
  change: (library: Library, manager: EntityManager) => Promise<void>,
): Promise<void> {
  await database.transaction(async (manager) => {
    await manager.query('select pg_advisory_xact_lock($1)', [LOCK]);
    await change(await readLibrary(database), manager);
  });
}

/** An entry keeps its place in its list; a new one goes to the end. */
async function store(manager: EntityManager, kind: ListName, data: { id: string }): Promise<void> {
  const where = { kind, id: data.id };
  const known = await manager.findOne(LibraryEntity, { where });
  if (known) {
    await manager.update(LibraryEntity, where, { data: data as never });
    return;
  }
  const last = await manager.maximum(LibraryEntity, 'position', { kind });
  await manager.insert(LibraryEntity, { ...where, position: (last ?? -1) + 1, data: data as never });
}
