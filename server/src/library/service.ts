import type { DataSource } from 'typeorm';
import type { Logger } from 'pino';
import { readLibraryRows, type Library } from '@yellow-pin/core/job/library';
import { LibraryEntity, type LibraryKind } from './entity.ts';

const KINDS: readonly LibraryKind[] = ['tools', 'holders', 'materials', 'machines'];

/** The shop's lists, checked on the way out; rows that this version does not understand are left out and said in the log. */
export async function readLibrary(database: DataSource, log?: Logger): Promise<Library> {
  const rows = await database.getRepository(LibraryEntity).find({ order: { kind: 'ASC', position: 'ASC' } });
  const of = (kind: LibraryKind): unknown[] => rows.filter((r) => r.kind === kind).map((r) => r.data);
  const { library, left } = readLibraryRows({
    tools: of('tools'),
    holders: of('holders'),
    materials: of('materials'),
    machines: of('machines'),
  });
  if (left.length > 0) log?.warn({ left }, 'library rows that are not understood were left out');
  return library;
}

/** Fills empty lists once; what is there already stays. */
export async function seedLibrary(database: DataSource, library: Library): Promise<void> {
  const repository = database.getRepository(LibraryEntity);
  if ((await repository.count()) > 0) return;
  const rows = KINDS.flatMap((kind) =>
    library[kind].map((data, position) => ({ kind, id: data.id, position, data })),
  );
  await repository.insert(rows as never[]);
}
