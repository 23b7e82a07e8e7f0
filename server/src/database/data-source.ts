import 'reflect-metadata';
import { DataSource } from 'typeorm';
import { JobEntity, PartEntity, PlanEntity } from '../jobs/entity.ts';
import { LibraryEntity } from '../library/entity.ts';
import { describeError, isAway } from './errors.ts';
import { FirstTables1760000000001 } from './migrations/0001-first-tables.ts';
import { PartRevisions1760000000002 } from './migrations/0002-part-revisions.ts';
import { Imports1760000000003 } from './migrations/0003-imports.ts';
import { JobList1760000000004 } from './migrations/0004-job-list.ts';
import { ShopMethods1760000000005 } from './migrations/0005-shop-methods.ts';
import { Machines1760000000006 } from './migrations/0006-machines.ts';
import { People1760000000007 } from './migrations/0007-people.ts';
import { Floor1760000000008 } from './migrations/0008-floor.ts';
import { Find1760000000009 } from './migrations/0009-find.ts';

const MIGRATIONS = [
  FirstTables1760000000001,
  PartRevisions1760000000002,
  Imports1760000000003,
  JobList1760000000004,
  ShopMethods1760000000005,
  Machines1760000000006,
  People1760000000007,
  Floor1760000000008,
  Find1760000000009,
];

/** Connects and brings the tables up to date. The schema changes through migrations only. Errors are sentences. */
export async function openDatabase(url: string): Promise<DataSource> {
  const source = new DataSource({
    type: 'postgres',
    url,
    entities: [JobEntity, PartEntity, PlanEntity, LibraryEntity],
    migrations: MIGRATIONS,
    migrationsTransactionMode: 'all',
    synchronize: false,
    // A database that hangs must not hang its clients with it.
    connectTimeoutMS: 5000,
    poolErrorHandler: () => undefined,
  });
  try {
    await source.initialize();
  } catch (error) {
    const { host } = new URL(url);
    throw new Error(
      isAway(error)
        ? `The database at ${host} does not answer (${describeError(error)}). Start it, or set DATABASE_URL to one that runs.`
        : `The database at ${host} cannot be opened (${describeError(error)}). Check name, user and password in DATABASE_URL.`,
      { cause: error },
    );
  }
  try {
    await refuseNewer(source);
    await source.runMigrations();
    return source;
  } catch (error) {
    await source.destroy();
    throw error;
  }
}

/** Tables that a newer version has changed would be written wrongly by this one. */
async function refuseNewer(source: DataSource): Promise<void> {
  const [table] = (await source.query(`SELECT to_regclass('migrations') AS name`)) as {
    name: string | null;
  }[];
  if (!table?.name) return;
  const done = (await source.query('SELECT name FROM migrations')) as { name: string }[];
  const known = new Set(MIGRATIONS.map((m) => m.name));
  const unknown = done.filter((m) => !known.has(m.name)).map((m) => m.name);
  if (unknown.length > 0)
    throw new Error(
      `The database was last used by a newer Yellow Pin (${unknown.join(', ')}): this one would spoil it. Update Yellow Pin, or set DATABASE_URL to another database. Nothing was changed.`,
    );
}
