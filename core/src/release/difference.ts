import { hunksOf } from '../code/edits/find-edits.ts';
import { linesOf } from '../code/write/numbering.ts';
import type { ReleaseContent, ReleasedRow } from './schema.ts';

/** Lines of a file that are others: where they begin in the newer one (from 1), which they were, which they are. */
export interface FileChange {
  name: string;
  hunks: { line: number; before: string[]; after: string[] }[];
}

/** What a newer release has otherwise than an older one. */
export interface ReleaseDifference {
  /** The plan in words, a line each. */
  plan: string[];
  files: FileChange[];
  findings: { gone: string[]; come: string[] };
}

/** What a newer release has otherwise than an older one: plan in words, code by its lines, findings. */
export function releaseDifference(older: ReleaseContent, newer: ReleaseContent): ReleaseDifference {
  const words = (r: ReleaseContent): Set<string> =>
    new Set(
      r.findings.map((f) => (f.accepted === null ? f.message : `${f.message} Accepted: ${f.accepted}`)),
    );
  const [was, is] = [words(older), words(newer)];
  return {
    plan: [
      ...changed('machine', older.machine, newer.machine),
      ...changed('material', older.material, newer.material),
      ...setupsChanged(older, newer),
      ...rowsChanged(older.rows, newer.rows),
    ],
    files: filesChanged(older, newer),
    findings: { gone: [...was].filter((w) => !is.has(w)), come: [...is].filter((w) => !was.has(w)) },
  };
}

const changed = (what: string, was: string | undefined, is: string | undefined): string[] =>
  was === is ? [] : [`${what}: ${was ?? 'none'} → ${is ?? 'none'}`];

function setupsChanged(older: ReleaseContent, newer: ReleaseContent): string[] {
  return paired(older.setups, newer.setups, (s) => s.id).flatMap(([, was, is]) => {
    const name = is?.name ?? was?.name ?? '';
    if (!was) return [`setup ${name} is new`];
    if (!is) return [`setup ${name} is gone`];
    return [
      ...changed('setup', was.name, is.name),
      ...pairs(was.words, is.words).flatMap(([what, a, b]) => changed(`${name}, ${what}`, a, b)),
    ];
  });
}

function rowsChanged(older: readonly ReleasedRow[], newer: readonly ReleasedRow[]): string[] {
  return paired(older, newer, (r) => r.key).flatMap(([, was, is]) => {
    if (!was || !is) {
      const row = was ?? is;
      return row ? [`${row.tag} ${row.callout} ×${row.count} is ${is ? 'new' : 'gone'}`] : [];
    }
    const name = is.tag === was.tag ? is.tag : `${is.tag} (was ${was.tag})`;
    return [
      ...changed(`${name} callout`, was.callout, is.callout),
      ...changed(`${name} how many`, String(was.count), String(is.count)),
      ...changed(name, was.state, is.state),
      ...operationsChanged(name, was, is),
    ];
  });
}

/** Operations of a row by their place among those of the same name. */
function operationsChanged(name: string, was: ReleasedRow, is: ReleasedRow): string[] {
  const numbered = (row: ReleasedRow) => {
    const seen = new Map<string, number>();
    return row.operations.map((o) => {
      const n = (seen.get(o.label) ?? 0) + 1;
      seen.set(o.label, n);
      return { ...o, name: n === 1 ? o.label : `${o.label} ${n}` };
    });
  };
  return paired(numbered(was), numbered(is), (o) => o.name).flatMap(([label, a, b]) => {
    if (!a) return [`${name} ${label} is new, with ${b?.tool ?? ''}`];
    if (!b) return [`${name} ${label} is gone`];
    return [
      ...changed(`${name} ${label}, tool`, a.tool, b.tool),
      ...pairs(a.values, b.values).flatMap(([what, x, y]) => changed(`${name} ${label}, ${what}`, x, y)),
    ];
  });
}

const pairs = (a: readonly [string, string][], b: readonly [string, string][]) =>
  paired(a, b, ([key]) => key).map(([key, x, y]) => [key, x?.[1], y?.[1]] as const);

/** Entries of two lists by their names: those of the first in their order, then those that only the second has. */
function paired<T>(
  a: readonly T[],
  b: readonly T[],
  nameOf: (t: T) => string,
): [string, T | undefined, T | undefined][] {
  const [first, second] = [new Map(a.map((t) => [nameOf(t), t])), new Map(b.map((t) => [nameOf(t), t]))];
  return [...new Set([...first.keys(), ...second.keys()])].map((n) => [n, first.get(n), second.get(n)]);
}

function filesChanged(older: ReleaseContent, newer: ReleaseContent): FileChange[] {
  return paired(older.files, newer.files, (f) => f.name).flatMap(([name, was, is]) => {
    if (was?.sha256 === is?.sha256) return [];
    let shift = 0;
    const hunks = hunksOf(was ? linesOf(was.text) : [], is ? linesOf(is.text) : []).map(
      ({ from, count, after }) => {
        const before = (was ? linesOf(was.text) : []).slice(from, from + count);
        const line = from + shift + 1;
        shift += after.length - count;
        return { line, before, after };
      },
    );
    return [{ name, hunks }];
  });
}
