import type { FloorSheet, SheetTool, SheetView } from './schema.ts';
import { clockTime } from '../units/time.ts';
import { sheetFacts, sheetRemarks } from './facts.ts';

export const PAPERS = { a4: 'A4', letter: 'letter' } as const;
export type Paper = keyof typeof PAPERS;

/** What is printed with: paper has one theme. */
export const PAPER_INK = { ink: '#1f2226', quiet: '#595f66', held: '#e9e6df', tool: '#d8d5cd' } as const;
const { ink, quiet, held, tool: metal } = PAPER_INK;

/** Sides of a drawing on paper, mm. */
const WIDE = 92;
const HIGH = 74;

const ESCAPES: Record<string, string> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' };
const safe = (text: string): string => text.replace(/[&<>"]/g, (c) => ESCAPES[c] ?? c);

/** Floor sheets as one page of HTML that needs nothing else, a setup to a sheet of paper. */
export function sheetHtml(sheets: readonly FloorSheet[], paper: Paper): string {
  const title = sheets[0] ? `${sheets[0].job}, floor sheets` : 'Floor sheets';
  return `<!doctype html>
<html lang="en"><head><meta charset="utf-8"><title>${safe(title)}</title><style>
@page{size:${PAPERS[paper]};margin:12mm}
body{font:10pt/1.35 system-ui,sans-serif;color:${ink};margin:0 auto;max-width:186mm}
section{break-after:page}section:last-child{break-after:auto}
h1{font-size:15pt;margin:0 0 1mm}h2{font-size:11pt;margin:5mm 0 1mm}
dl{display:grid;grid-template-columns:26mm 1fr;gap:.6mm 3mm;margin:0}dt{color:${quiet}}dd{margin:0}
.views{display:flex;gap:4mm;margin-top:3mm}figure{margin:0;flex:1}figcaption{color:${quiet};font-size:8.5pt}
table{border-collapse:collapse;width:100%}th{text-align:left;font-weight:600;border-bottom:1px solid ${ink}}
td,th{padding:.6mm 2mm .6mm 0;vertical-align:top}tr{break-inside:avoid}thead{display:table-header-group}
.n{text-align:right;font-variant-numeric:tabular-nums}ul{margin:0;padding-left:5mm}code{font-size:8pt;overflow-wrap:anywhere}
</style></head><body>
${sheets.map(section).join('\n')}
</body></html>
`;
}

const section = (s: FloorSheet): string => {
  const u = s.units === 'mm' ? 'mm' : 'in';
  return `<section><h1>${safe(s.job)}</h1><p>${safe(s.setup)}, setup ${s.number} of ${s.of}</p>
<dl>${sheetFacts(s)
    .map(([name, v]) => `<dt>${name}</dt><dd>${safe(v)}</dd>`)
    .join('')}</dl>
<div class="views">${figure(s.top, 'from above')}${figure(s.front, 'from the front')}</div>
${sheetRemarks(s)
  .map((r) => list(r.name, r.lines))
  .join('\n')}
<h2>Tools</h2>${table(
    ['', 'number', 'tool', `⌀ ${u}`, `flute ${u}`, `stick-out ${u}`, 'makes', 'time'],
    [3, 4, 5, 7],
    s.tools.map((t) => [
      silhouette(t),
      `T${t.number ?? '–'}`,
      ...[t.description, t.diameter, t.flute, t.stickOut, t.makes, clockTime(t.seconds)].map(safe),
    ]),
  )}
${
  s.holes.length === 0
    ? ''
    : `<h2>Holes</h2>${table(
        ['hole', 'callout', `X ${u}`, `Y ${u}`, `Z of entry ${u}`, `depth ${u}`],
        [2, 3, 4, 5],
        s.holes.map((h) => [h.label, h.callout, h.x, h.y, h.z, h.depth].map(safe)),
      )}`
}
<h2>Program</h2>${table(
    ['file', 'lines', 'SHA-256'],
    [1],
    s.files.map((f) => [safe(f.name), String(f.lines), `<code>${safe(f.sha256 ?? 'not worked out')}</code>`]),
  )}</section>`;
};

const list = (name: string, lines: readonly string[]): string =>
  `<h2>${name}</h2><ul>${lines.map((l) => `<li>${safe(l)}</li>`).join('')}</ul>`;

function table(
  head: readonly string[],
  numbers: readonly number[],
  rows: readonly (readonly string[])[],
): string {
  const cell = (tag: 'td' | 'th', v: string, i: number): string =>
    `<${tag}${numbers.includes(i) ? ' class="n"' : ''}>${v}</${tag}>`;
  return `<table><thead><tr>${head.map((h, i) => cell('th', safe(h), i)).join('')}</tr></thead><tbody>${rows
    .map((r) => `<tr>${r.map((v, i) => cell('td', v, i)).join('')}</tr>`)
    .join('')}</tbody></table>`;
}

/** What a view covers, mm, with room round it. */
export function extentOf({ lines, stock, keepOuts }: SheetView): {
  min: [number, number];
  max: [number, number];
} {
  const xs = [0, ...lines.flatMap((l) => l.filter((_, i) => i % 2 === 0))];
  const ys = [0, ...lines.flatMap((l) => l.filter((_, i) => i % 2 === 1))];
  for (const [a, b] of [stock, ...keepOuts.map((k) => k.box)]) {
    xs.push(a[0], b[0]);
    ys.push(a[1], b[1]);
  }
  const least = (v: readonly number[]): number => v.reduce((a, b) => Math.min(a, b), Infinity);
  const most = (v: readonly number[]): number => v.reduce((a, b) => Math.max(a, b), -Infinity);
  // Zero's arrows are seen whole.
  const arrow = 0.2 * Math.min(most(xs) - least(xs), most(ys) - least(ys));
  xs.push(arrow);
  ys.push(arrow);
  const room = 0.06 * Math.max(most(xs) - least(xs), most(ys) - least(ys), 1);
  return { min: [least(xs) - room, least(ys) - room], max: [most(xs) + room, most(ys) + room] };
}

function figure(view: SheetView, words: string): string {
  return `<figure>${viewSvg(view)}<figcaption>${words}; ${view.right} to the right, ${view.up} up</figcaption></figure>`;
}

/** A view as an SVG picture: stock dashed, holding hatched lightly, the part in lines, zero with its axes, tags. */
export function viewSvg(view: SheetView): string {
  const { min, max } = extentOf(view);
  const [w, h] = [max[0] - min[0], max[1] - min[1]];
  const k = Math.min(WIDE / w, HIGH / h);
  const x = (v: number): string => ((v - min[0]) * k).toFixed(2);
  const y = (v: number): string => ((max[1] - v) * k).toFixed(2);
  const box = ([a, b]: SheetView['stock'], style: string): string =>
    `<rect x="${x(a[0])}" y="${y(b[1])}" width="${((b[0] - a[0]) * k).toFixed(2)}" height="${((b[1] - a[1]) * k).toFixed(2)}" ${style}/>`;
  const path = view.lines
    .map((l) => {
      const points: string[] = [];
      for (let i = 0; i + 1 < l.length; i += 2) points.push(`${x(l[i] ?? 0)} ${y(l[i + 1] ?? 0)}`);
      return `M${points.join('L')}`;
    })
    .join('');
  const arrow = 0.14 * Math.min(w, h);
  const tags = view.tags
    .map(
      (t) =>
        `<text x="${x(t.at[0])}" y="${y(t.at[1])}" style="font-size:2.6px" text-anchor="middle" dominant-baseline="central" paint-order="stroke" stroke="#fff" stroke-width=".8" fill="${ink}">${safe(t.label)}</text>`,
    )
    .join('');
  return `<svg viewBox="0 0 ${(w * k).toFixed(2)} ${(h * k).toFixed(2)}" width="${(w * k).toFixed(1)}mm" height="${(h * k).toFixed(1)}mm" role="img" aria-label="${safe(`${view.right} to the right, ${view.up} up`)}">
${view.keepOuts.map((o) => box(o.box, `fill="${held}" stroke="${quiet}" stroke-width=".2"`)).join('')}
${box(view.stock, `fill="none" stroke="${quiet}" stroke-width=".3" stroke-dasharray="2 1"`)}
<path d="${path}" fill="none" stroke="${ink}" stroke-width=".3"/>
<g stroke="${ink}" stroke-width=".5" fill="none"><circle cx="${x(0)}" cy="${y(0)}" r="1.4"/><path d="M${x(0)} ${y(0)}H${x(arrow)}M${x(0)} ${y(0)}V${y(arrow)}"/></g>
<text x="${x(arrow)}" y="${y(0)}" dx=".6" style="font-size:3px" dominant-baseline="central">${view.right}</text><text x="${x(0)}" y="${y(arrow)}" dy="-.8" style="font-size:3px" text-anchor="middle">${view.up}</text>
${tags}</svg>`;
}

/** A tool's end, tip down, 8 mm wide on paper. */
function silhouette({ outline }: SheetTool): string {
  const widest = Math.max(...outline.map(([, r]) => r), 0.1);
  const k = 3.6 / widest;
  const tall = 12;
  const points = outline.map(([z, r]) => [Math.min(tall, z * k), r * k] as const);
  const right = points.map(([z, r]) => `${(4 + r).toFixed(2)} ${(tall - z).toFixed(2)}`);
  const left = [...points].reverse().map(([z, r]) => `${(4 - r).toFixed(2)} ${(tall - z).toFixed(2)}`);
  return `<svg viewBox="0 0 8 ${tall}" width="6mm" height="9mm" aria-hidden="true"><path d="M4 ${tall}L${right.join('L')}L${left.join('L')}Z" fill="${metal}" stroke="${ink}" stroke-width=".3"/></svg>`;
}
