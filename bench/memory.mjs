// A process of its own, for what others take of memory is not this one's: a part, from its bytes to its features, by the server's work as it is
// built; `ready`: after the steps by which the server's reading process gets ready.
import { readFileSync } from 'node:fs';
import { gzipSync } from 'node:zlib';
import { work } from '../server/dist/read-work.mjs';

const [path, state, steps] = process.argv.slice(2);
const packed = gzipSync(readFileSync(path), { level: 1 });
for (let step = 0; state === 'ready' && step < Number(steps); step++)
  await work({ kind: 'warm', step }, () => {});
const start = performance.now();
let seconds = 0;
await work({ kind: 'file', packed, fileName: 'plate.step', sizeLimit: 1e9 }, (_, what) => {
  // That comes after the features.
  if (what === 'drawing its picture') seconds = (performance.now() - start) / 1000;
});
const all = (performance.now() - start) / 1000;
process.stdout.write(JSON.stringify({ seconds, all, megabytes: process.resourceUsage().maxRSS / 1024 }));
