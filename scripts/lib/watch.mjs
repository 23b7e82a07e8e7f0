// Watches a start: when its standard input ends without "done", the starter was killed. Then what it started is
// stopped in order, as it would have done itself.
import { readInstance, releaseInstance } from './instance.mjs';
import { stopPostgres } from './postgres.mjs';
import { stopProcess } from './processes.mjs';

const { starter, database } = JSON.parse(process.argv[2]);
let text = '';
process.stdin.on('data', (chunk) => (text += chunk));
process.stdin.on('end', () => {
  if (text.includes('done')) process.exit(0);
  // The server may be another than at the start: it is begun again when it falls.
  const there = readInstance();
  const server = there?.starter?.pid === starter.pid ? there.server : null;
  stopProcess(server)
    .then(() => {
      if (database) stopPostgres(database);
      releaseInstance(starter);
    })
    .finally(() => process.exit(0));
});
