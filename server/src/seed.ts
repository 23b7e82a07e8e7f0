import { readFile } from 'node:fs/promises';
import { gzipSync } from 'node:zlib';
import type { DataSource } from 'typeorm';
import { DEMO_PARTS, demoPartPath, demoShopPath } from '@yellow-pin/demo/jobs';
import { librarySchema } from '@yellow-pin/core/plan/library';
import { createJob } from './jobs/service.ts';
import { JobEntity } from './jobs/entity.ts';
import { seedLibrary } from './library/service.ts';
import type { ImportQueue } from './imports/queue.ts';

/** The sample shop's lists and jobs, once: a database that has jobs (deleted ones too) is left alone. */
export async function seed(database: DataSource, queue: ImportQueue, demo: boolean): Promise<void> {
  const shop = librarySchema.parse(JSON.parse(await readFile(demoShopPath(), 'utf8')));
  await seedLibrary(database, shop);
  if (!demo || (await database.getRepository(JobEntity).count({ withDeleted: true })) > 0) return;
  for (const fileName of DEMO_PARTS) {
    const step = gzipSync(await readFile(demoPartPath(fileName)));
    await createJob(database, queue, { fileName, step, sample: true });
  }
}
