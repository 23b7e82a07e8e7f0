import { readFile } from 'node:fs/promises';
import type { DataSource } from 'typeorm';
import { DEMO_PARTS, demoPartPath } from '@yellow-pin/demo/jobs';
import { SHOP } from '@yellow-pin/demo/shop';
import { createJob } from './jobs/service.ts';
import { JobEntity } from './jobs/entity.ts';
import { seedLibrary } from './library/service.ts';
import type { ImportQueue } from './queue/import-queue.ts';

/** The sample shop's lists and jobs, once: a database that has jobs (deleted ones too) is left alone. */
export async function seed(database: DataSource, queue: ImportQueue, demo: boolean): Promise<void> {
  await seedLibrary(database, SHOP);
  if (!demo || (await database.getRepository(JobEntity).count({ withDeleted: true })) > 0) return;
  for (const fileName of DEMO_PARTS) {
    const job = await createJob(database, { fileName, step: await readFile(demoPartPath(fileName)) });
    await queue.add(job.id, { sample: true });
  }
}
