import { inspectStep } from '@yellow-pin/core/step/step-text';
import { Part21File } from '@yellow-pin/core/part21/file';
import { Entities } from '@yellow-pin/core/step/fields';
import { assemble } from '@yellow-pin/core/step/assembly';
import { buildModel } from '@yellow-pin/core/brep/build-model';
import { faultOf } from '@yellow-pin/core/step/health';
import { orientLoops } from '@yellow-pin/core/brep/orient-loops';
import { meshOf } from '@yellow-pin/core/model/mesh';
import { recognise } from '@yellow-pin/core/features/recognise';
import { plateStep } from '../demo/src/plate-step.ts';
const b = new TextEncoder().encode(plateStep({ holes: 2000 }));
for (let k = 0; k < 3; k++) {
  let t = performance.now();
  const t0 = t;
  let line = '';
  const lap = (w: string) => { const n = performance.now(); line += `${w} ${(n - t).toFixed(0)}  `; t = n; };
  const facts = inspectStep(b); lap('inspect');
  const f = new Part21File(b); lap('scan');
  const e = new Entities(f);
  const { document } = assemble(e); lap('assemble');
  const m = buildModel(document, facts, () => null); lap('build');
  orientLoops(m); lap('orient');
  const mesh = meshOf(m); lap('mesh');
  faultOf(m); lap('health');
  recognise(m, { mesh }); lap('recognise');
  console.log(line, 'all', (performance.now() - t0).toFixed(0));
}
