import { clockTime } from '../units/time.ts';
import type { FloorSheet } from './schema.ts';

/** What a sheet says at its head, name by name: where it runs, of what, how it stands, from where it counts, how long it takes. */
export function sheetFacts(s: FloorSheet): [string, string][] {
  return [
    ['machine', s.machine],
    ['material', s.material],
    ['side', s.attitude],
    ['zero', `${s.workOffset} at ${s.zero}`],
    ['clearance', s.clearance],
    ['stock', s.stock],
    ...(s.saw === null ? [] : [['to saw', s.saw] as [string, string]]),
    ['holding', s.holding],
    ...(s.feedPercent === 100 ? [] : [['feeds', `all at ${s.feedPercent} %`] as [string, string]]),
    ['time', clockTime(s.seconds)],
  ];
}

/** What whoever runs it must know, under its headings; those without a line are left away. */
export function sheetRemarks(s: FloorSheet): { name: string; lines: string[] }[] {
  return [
    { name: 'To know', lines: s.toKnow.map((k) => `${k.what}: ${k.text}`) },
    { name: 'Not made here', lines: s.notMade },
    { name: 'Typed by hand in the program', lines: s.handEdits },
    { name: 'Accepted as it is', lines: s.accepted.map((a) => `${a.message} Accepted: ${a.reason}`) },
  ].filter((r) => r.lines.length > 0);
}
