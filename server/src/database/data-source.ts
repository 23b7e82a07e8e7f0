import 'reflect-metadata';
import { DataSource } from 'typeorm';
import { JobEntity, PartEntity, PlanEntity } from '../jobs/entity.ts';
import { LibraryEntity } from '../library/entity.ts';
import { FirstTables1760000000001 } from './migrations/0001-first-tables.ts';
import { PartRevisions1760000000002 } from './migrations/0002-part-revisions.ts';

/** Connects and brings the tables up to date. The schema changes through migrations only. */
export async function openDatabase(url: string): Promise<DataSource> {
  const source = new DataSource({
    type: 'postgres',
    url,
    entities: [JobEntity, PartEntity, PlanEntity, LibraryEntity],
    migrations: [FirstTables1760000000001, PartRevisions1760000000002],
    migrationsTransactionMode: 'all',
    synchronize: false,
  });
  await source.initialize();
  await source.runMigrations();
  return source;
}
