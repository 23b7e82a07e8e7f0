import type { DataSource } from 'typeorm';
import type { Logger } from 'pino';
import { readLibraryRows, type Library } from '@yellow-pin/core/plan/library';
import { freeNumber } from '@yellow-pin/core/tools/usual';
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
 * Fills empty lists once; what is there already stays. Lists that were stored before mills were known get them once: the tools on numbers
 * that are free, and their cutting data.
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
    const rows = library.materials.find((x) => x.id === m.id)?.cutting.filter((r) => !r.kinds.some(isKnown));
    return rows && rows.length > 0 ? [{ ...m, cutting: [...m.cutting, ...rows] }] : [];
  });
  const tools = [...stored.tools];
  const ids = new Set(tools.map((t) => t.id));
  for (const t of library.tools)
    if (late.includes(t.kind) && !ids.has(t.id)) tools.push({ ...t, number: freeNumber(tools) });
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
