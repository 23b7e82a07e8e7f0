// The start of every work process: runs the module it is told, as work-process.ts asks for it.
import { Worker } from 'node:worker_threads';

// Only the server ends this process (by SIGKILL): a Ctrl-C or a stop of everything at once must not look like a
// crash over the file at hand.
for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => undefined);

// Deep in the kernel nothing of the main thread runs: a second thread sees to it that a server's death is followed.
new Worker(
  `const parent = ${process.ppid};
   setInterval(() => { if (process.ppid !== parent) process.kill(process.pid, 'SIGKILL'); }, 1000);`,
  { eval: true, execArgv: [] },
).unref();
process.on('disconnect', () => process.exit(0));

const { serve } = await import('./serve.ts');
const { work } = await import(process.argv[2]);
serve(work);
