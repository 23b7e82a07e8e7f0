import type { DataSource } from 'typeorm';
import { librarySchema, type Library } from '@yellow-pin/core/job/library';
import { LibraryEntity, type LibraryKind } from './entity.ts';

const KINDS: readonly LibraryKind[] = ['tools', 'holders', 'materials', 'machines'];

/** The shop's lists, checked on the way out. */
export async function readLibrary(database: DataSource): Promise<Library> {
  const rows = await database.getRepository(LibraryEntity).find({ order: { kind: 'ASC', position: 'ASC' } });
  return librarySchema.parse(Object.fromEntries(KINDS.map((k) => [k, rows.filter((r) => r.kind === k).map((r) => r.data)])));
}

/** Fills empty lists once; what is there already stays. */
export async function seedLibrary(database: DataSource, library: Library): Promise<void> {
  const repository = database.getRepository(LibraryEntity);
  if ((await repository.count()) > 0) return;
  const rows = KINDS.flatMap((kind) => library[kind].map((data, position) => ({ kind, id: data.id, position, data })));
  await repository.insert(rows as never[]);
}
