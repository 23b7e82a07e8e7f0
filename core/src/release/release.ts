import { textHash } from '../code/files/hash.ts';
import { filesOf } from '../job/files.ts';
import type { Row } from '../job/derive.ts';
import type { ProducedSetup } from '../job/produce.ts';
import { toolKind } from '../tools/kinds/registry.ts';
import type { Check } from '../proof/checks/check.ts';
import { floorSheets, type SheetInput } from '../sheet/sheet.ts';
import { formatLength } from '../units/length.ts';
import type { ReleaseContent, ReleasedRow } from './schema.ts';

export interface ReleaseInput extends SheetInput {
  checks: readonly Check[];
}

/** Why a job cannot be released, one sentence each; empty where it can. Errors must be mended or accepted first. */
export function releaseFaults({ programs, checks }: Pick<ReleaseInput, 'programs' | 'checks'>): string[] {
  if (programs.length === 0) return ['There is no program to release: none of its rows is planned.'];
  return checks.filter((c) => c.severity === 'error').map((c) => c.message);
}

/** Freezes a proved job: its files with their hashes, floor sheets, findings, and the plan in words. */
export function releaseOf(input: ReleaseInput): ReleaseContent {
  const { name, plan, job, programs, checks } = input;
  const files = programs.flatMap((p) =>
    filesOf(p, plan.splits, job.machine).map((f) => ({
      setupId: p.setup.setup.id,
      name: f.fileName,
      text: f.text,
      sha256: textHash(f.text),
    })),
  );
  const hashes = new Map(files.map((f) => [f.name, f.sha256]));
  const sheets = floorSheets({ ...input, hashOf: (f) => hashes.get(f.fileName) ?? null });
  return {
    format: 'yellow-pin/release@1',
    job: name,
    units: plan.units,
    machine: job.machine.name,
    material: job.material.name,
    files,
    sheets,
    rows: job.rows.filter((r) => r.state !== 'optional').map((r) => releasedRow(r, plan.units)),
    setups: sheets.map((s) => ({
      id: s.setupId,
      name: s.setup,
      words: [
        ['side', s.attitude],
        ['zero', `${s.workOffset} at ${s.zero}`],
        ['clearance', s.clearance],
        ['stock', s.stock],
        ['holding', s.holding],
        ['feeds', `${s.feedPercent} %`],
        ['tools', toolsInOrder(programs, s.setupId)],
      ],
    })),
    findings: checks.map((c) => ({
      severity: c.severity,
      message: c.message,
      accepted: c.accepted ?? null,
    })),
    sha256: releaseHash(files),
  };
}

/** One number for all files of a release: names and hashes, a line each. */
export const releaseHash = (files: readonly { name: string; sha256: string }[]): string =>
  textHash(files.map((f) => `${f.sha256}  ${f.name}\n`).join(''));

const toolsInOrder = (programs: readonly ProducedSetup[], setupId: string): string =>
  [
    ...new Set(
      programs
        .filter((p) => p.setup.setup.id === setupId)
        .flatMap((p) => p.setup.operations.map((o) => `T${o.tool.number ?? '–'}`)),
    ),
  ].join(' ');

function releasedRow(r: Row, units: 'mm' | 'inch'): ReleasedRow {
  const say = (v: number | string, type: string): string =>
    typeof v === 'string' ? v : type === 'length' || type === 'feed' ? formatLength(v, units) : String(v);
  return {
    key: r.size.key,
    tag: r.tag,
    callout: r.calloutText,
    count: r.size.features.length,
    state: r.state === 'planned' ? 'planned' : [r.state, ...r.reasons.slice(0, 1)].join(': '),
    operations: r.operations.map((o) => ({
      label: o.label,
      tool: `T${o.tool.number ?? '–'} ${o.tool.description || toolKind(o.tool.kind).label}`,
      values: o.parameters.map((p): [string, string] => [p.label, say(p.value, p.type)]),
    })),
  };
}
