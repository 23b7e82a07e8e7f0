import { plateStep } from '@yellow-pin/demo/plate-step';
import { recognise } from '@yellow-pin/core/features/recognise';
import { meshOf } from '@yellow-pin/core/model/mesh';
import { readStep } from '@yellow-pin/kernel';
import { WARM_STEPS } from '@yellow-pin/server/work/read-request';
import { work } from '@yellow-pin/server/work/read-work';

// A process of its own, for what others take of memory is not this one's: a plate, from its bytes to its features; `ready`: after the steps by
// which the server's reading process gets ready.
const [holes, isReady] = [Number(process.argv[2]), process.argv[3] === 'ready'];
const bytes = new TextEncoder().encode(plateStep({ holes }));
for (let step = 0; isReady && step < WARM_STEPS; step++) await work({ kind: 'warm', step }, () => undefined);
const start = performance.now();
const model = await readStep(bytes, { reader: 'own' });
recognise(model, { mesh: meshOf(model) });
const seconds = (performance.now() - start) / 1000;
process.stdout.write(JSON.stringify({ seconds, megabytes: process.resourceUsage().maxRSS / 1024 }));
