import { plateStep } from '@yellow-pin/demo/plate-step';
import { recognise } from '@yellow-pin/core/features/recognise';
import { meshOf } from '@yellow-pin/core/model/mesh';
import { readStep } from '@yellow-pin/kernel';

// A process of its own, for what others take of memory is not this one's: a plate, from its bytes to its features.
const bytes = new TextEncoder().encode(plateStep({ holes: Number(process.argv[2]) }));
const start = performance.now();
const model = await readStep(bytes, { reader: 'own' });
recognise(model, { mesh: meshOf(model) });
const seconds = (performance.now() - start) / 1000;
process.stdout.write(JSON.stringify({ seconds, megabytes: process.resourceUsage().maxRSS / 1024 }));
