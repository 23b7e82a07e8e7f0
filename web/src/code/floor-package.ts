import type * as Comlink from 'comlink';
import { filesOf } from '@yellow-pin/core/job/files';
import type { DerivedJob } from '@yellow-pin/core/job/derive';
import type { WrittenSetup } from '@yellow-pin/core/job/produce';
import type { Plan } from '@yellow-pin/core/plan/plan';
import { sheetHtml, type Paper } from '@yellow-pin/core/sheet/html';
import { plainName } from '@yellow-pin/core/code/files/plain-name';
import { stepNc } from '@yellow-pin/core/step-nc/write';
import { toolsToCsv } from '@yellow-pin/core/tools/csv';
import type { JobWorker } from '../workers/job.worker.ts';

export interface PackageInput {
  jobName: string;
  programs: readonly WrittenSetup[];
  plan: Plan;
  job: DerivedJob;
  remote: Comlink.Remote<JobWorker>;
}

/** Everything that goes to the floor as one ZIP file: programs, workplan (ISO 14649), tools, floor sheets, and the stock after each setup. */
export async function floorPackage(
  { jobName, programs, plan, job, remote }: PackageInput,
  tell: (doing: string) => void,
): Promise<Uint8Array<ArrayBuffer>> {
  const { strToU8, zipSync } = await import('fflate');
  const files: Record<string, Uint8Array> = {};
  for (const p of programs)
    for (const f of filesOf(p, plan.splits, job.machine)) files[f.fileName] = strToU8(f.text);
  const name = plainName(jobName, 'job');
  files[`${name}-workplan.stpnc`] = strToU8(
    stepNc({
      name: jobName,
      time: new Date().toISOString().slice(0, 19),
      job,
      setups: programs.map((p) => p.setup),
    }),
  );
  files['tools.csv'] = strToU8(toolsToCsv(toolsOf(programs)));
  tell('drawing the floor sheets');
  const sheets = await remote.sheets();
  if (sheets) {
    const paper: Paper = plan.units === 'inch' ? 'letter' : 'a4';
    files['floor-sheets.html'] = strToU8(sheetHtml(sheets, paper));
    const { sheetPdf } = await import('../sheet/pdf.ts');
    files['floor-sheets.pdf'] = await sheetPdf(sheets, paper);
  }
  for (const p of programs) {
    tell(`taking metal off, ${p.setup.setup.name}`);
    const program = p.fileName.replace(/\.nc$/, '');
    const stl = await remote.stockStl(p.setup.setup.id, program);
    if (stl) files[`${program}-stock-after.stl`] = stl;
  }
  return new Uint8Array(zipSync(files));
}

/** The tools of all programs, each once, by number. */
const toolsOf = (programs: readonly WrittenSetup[]) =>
  [
    ...new Map(programs.flatMap((p) => p.setup.operations.map((o) => [o.tool.id, o.tool] as const))).values(),
  ].sort((a, b) => (a.number ?? Infinity) - (b.number ?? Infinity));
