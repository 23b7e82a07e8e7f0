import { readFile } from 'node:fs/promises';
import { gzipSync } from 'node:zlib';
import type { DataSource } from 'typeorm';
import { DEMO_PARTS, demoPartPath } from '@yellow-pin/demo/jobs';
import { SHOP } from '@yellow-pin/demo/shop';
import { createJob } from './jobs/service.ts';
import { JobEntity } from './jobs/entity.ts';
import { seedLibrary } from './library/service.ts';
import type { ImportQueue } from './imports/queue.ts';

/** The sample shop's lists and jobs, once: a database that has jobs (deleted ones too) is left alone. */
export async function seed(database: DataSource, queue: ImportQueue, demo: boolean): Promise<void> {
  await seedLibrary(database, SHOP);
  if (!demo || (await database.getRepository(JobEntity).count({ withDeleted: true })) > 0) return;
  for (const fileName of DEMO_PARTS) {
    const step = gzipSync(await readFile(demoPartPath(fileName)));
    await createJob(database, queue, { fileName, step, sample: true });
  }
}
