import { blind, box, cutAll, prepare, turned } from '../demo/src/solids.ts';
import { jobOf, proved } from '../demo/src/trial.ts';
import { NAMED_THREADS } from '../core/src/threads/more.ts';
await prepare();
const ask = process.argv.slice(2);
for (const c of ask) {
  const [callout, d, depth] = c.split('@');
  const t = NAMED_THREADS.find((n) => callout!.startsWith(n.designation));
  const dia = d ? Number(d) : t!.tapDrill;
  const body = cutAll(box([0, 0, -60], [90, 90, 0]), [turned(blind(dia, Number(depth ?? 35)), [45, 45, 0], [0, 0, 1])]);
  const job = await jobOf(body, { [dia]: callout! }, (p) => { if (process.env.M) for (const s of Object.values(p.sizes)) s.method = process.env.M; });
  const { checks, metal } = job.texts.length ? proved(job) : { checks: [], metal: null };
  const { produceJob } = await import('@yellow-pin/core/job/produce');
  const row = produceJob(job.input).job.rows[0]!;
  console.log('==', callout, row.operations.map((o) => `${o.kind}:${o.tool.description}`).join(' | '), row.reasons, row.remarks.map((r) => r.message));
  console.log(checks.filter((k) => k.severity !== 'note').map((k) => k.message), metal?.overcutVolume);
}
