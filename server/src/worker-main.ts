import { onStop } from './on-stop.ts';
import { start } from './startup.ts';

/** Another worker for the same DATABASE_URL, on this or another machine. */
start(async ({ database, queue }) => {
  process.stdout.write('worker ready\n');
  onStop(async () => {
    await queue.close();
    await database.destroy();
  });
});
