import { describe, expect, it } from 'vitest';
import { existsSync, readdirSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { DEMO_PARTS } from './jobs.ts';
import { produceSample, sampleJob } from './sample-job.ts';

/**
 * The programs of all sample parts, and what is said of them, as committed under `demo/golden/`. A change to them is looked
 * at line by line: `npx vitest run demo/src/golden -u` writes them anew.
 */
const folder = (part: string): string =>
  fileURLToPath(new URL(`../golden/${part.replace(/\.[^.]*$/, '')}/`, import.meta.url));

describe.each(DEMO_PARTS)('golden programs of %s', (part) => {
  it('are what they were', async () => {
    const produced = produceSample(await sampleJob(part), part);
    const wanted = [...produced.programs.map((p) => p.fileName), 'findings.txt'];
    for (const p of produced.programs) await expect(p.text).toMatchFileSnapshot(folder(part) + p.fileName);
    const rows = produced.job.rows
      .filter((r) => r.state !== 'optional')
      .map((r) => `${r.tag} x${r.size.features.length} ${r.calloutText}: ${r.state}`);
    const findings = produced.checks.map((c) => `${c.severity} ${c.rule}: ${c.message}`);
    const times = produced.programs.map((p) => `${p.fileName}: ${p.time.total.toFixed(1)} s`);
    const text = [...rows, '', ...findings, '', ...times, ''].join('\n');
    await expect(text).toMatchFileSnapshot(`${folder(part)}findings.txt`);
    // A program that is no longer written must not stay behind.
    if (existsSync(folder(part))) expect(readdirSync(folder(part)).sort()).toEqual(wanted.sort());
  });
});
