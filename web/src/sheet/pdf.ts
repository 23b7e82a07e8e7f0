import type { jsPDF } from 'jspdf';
import type { FloorSheet, SheetTool, SheetView } from '@yellow-pin/core/sheet/schema';
import { sheetFacts, sheetRemarks } from '@yellow-pin/core/sheet/facts';
import { extentOf, PAPER_INK, type Paper } from '@yellow-pin/core/sheet/html';
import { clockTime } from '@yellow-pin/core/units/time';

const MARGIN = 14;
const { ink: INK, quiet: GREY, held: HELD } = PAPER_INK;

/** What the built-in faces of PDF do not have, in words that they have. */
export const plainSigns = (text: string): string =>
  text
    .replace(/[⌀∅]/g, 'Ø')
    .replace(/\s*↧\s*/g, ' deep ')
    .replace(/⌴\s*/g, 'cbore ')
    .replace(/⌵\s*/g, 'csk ')
    .replace(/[–—]/g, '-')
    .replace(/[’‘]/g, "'")
    .replace(/[^\x20-\xff]/g, '?')
    .trim();

/** Floor sheets as a PDF file, A4 or letter: each setup begins on a sheet of its own. */
export async function sheetPdf(
  sheets: readonly FloorSheet[],
  paper: Paper,
): Promise<Uint8Array<ArrayBuffer>> {
  const [{ jsPDF }, { autoTable }] = await Promise.all([import('jspdf'), import('jspdf-autotable')]);
  const doc = new jsPDF({ unit: 'mm', format: paper, compress: true });
  sheets.forEach((s, i) => {
    if (i > 0) doc.addPage(paper);
    new SheetPage(doc, autoTable, s).draw();
  });
  return new Uint8Array(doc.output('arraybuffer'));
}

type AutoTable = (typeof import('jspdf-autotable'))['autoTable'];

class SheetPage {
  private y = MARGIN;
  private readonly width: number;

  constructor(
    private readonly doc: jsPDF,
    private readonly autoTable: AutoTable,
    private readonly sheet: FloorSheet,
  ) {
    this.width = doc.internal.pageSize.getWidth() - 2 * MARGIN;
  }

  draw(): void {
    const { sheet: s } = this;
    const u = s.units === 'mm' ? 'mm' : 'in';
    this.text(s.job, 15, INK, 'bold');
    this.text(`${s.setup}, setup ${s.number} of ${s.of}`, 10, INK);
    this.facts();
    this.views();
    for (const { name, lines } of sheetRemarks(s)) this.list(name, lines);
    this.tools(u);
    if (s.holes.length > 0)
      this.table(
        'Holes',
        ['hole', 'callout', `X ${u}`, `Y ${u}`, `Z of entry ${u}`, `depth ${u}`],
        s.holes.map((h) => [h.label, h.callout, h.x, h.y, h.z, h.depth]),
        [2, 3, 4, 5],
      );
    this.table(
      'Program',
      ['file', 'lines', 'SHA-256'],
      s.files.map((f) => [f.name, String(f.lines), f.sha256 ?? 'not worked out']),
      [1],
    );
  }

  private text(text: string, size: number, colour: string, style: 'normal' | 'bold' = 'normal'): void {
    const { doc } = this;
    doc.setFont('helvetica', style).setFontSize(size).setTextColor(colour);
    const lines = doc.splitTextToSize(plainSigns(text), this.width) as string[];
    for (const line of lines) {
      this.room(size * 0.45);
      this.y += size * 0.42;
      doc.text(line, MARGIN, this.y);
    }
    this.y += 1;
  }

  /** Another sheet of paper where the rest of this one is too little, mm. */
  private room(needed: number): void {
    if (this.y + needed < this.doc.internal.pageSize.getHeight() - MARGIN) return;
    this.doc.addPage();
    this.y = MARGIN;
  }

  private facts(): void {
    const { sheet, doc } = this;
    doc.setFontSize(9.5);
    for (const [name, words] of sheetFacts(sheet)) {
      const lines = doc.splitTextToSize(plainSigns(words), this.width - 28) as string[];
      this.room(4.4 * lines.length);
      doc
        .setFont('helvetica', 'normal')
        .setTextColor(GREY)
        .text(name, MARGIN, this.y + 3.6);
      doc.setTextColor(INK).text(lines, MARGIN + 28, this.y + 3.6);
      this.y += 4.4 * lines.length;
    }
  }

  private views(): void {
    const { sheet: s, doc } = this;
    const wide = (this.width - 6) / 2;
    this.room(80);
    const high = Math.max(this.view(s.top, MARGIN, wide), this.view(s.front, MARGIN + wide + 6, wide));
    doc.setFontSize(8).setTextColor(GREY);
    doc.text(`from above; ${s.top.right} to the right, ${s.top.up} up`, MARGIN, this.y + high + 7);
    doc.text(
      `from the front; ${s.front.right} to the right, ${s.front.up} up`,
      MARGIN + wide + 6,
      this.y + high + 7,
    );
    this.y += high + 9;
  }

  /** Draws a view with its left at a place, as large as it fits; gives its height, mm. */
  private view(view: SheetView, left: number, wide: number): number {
    const { doc } = this;
    const { min, max } = extentOf(view);
    const k = Math.min(wide / (max[0] - min[0]), 70 / (max[1] - min[1]));
    const top = this.y + 3;
    const x = (v: number): number => left + (v - min[0]) * k;
    const y = (v: number): number => top + (max[1] - v) * k;
    const box = ([a, b]: SheetView['stock'], style: 'S' | 'F'): void =>
      void doc.rect(x(a[0]), y(b[1]), (b[0] - a[0]) * k, (b[1] - a[1]) * k, style);
    doc.setFillColor(HELD);
    for (const o of view.keepOuts) box(o.box, 'F');
    doc.setDrawColor(GREY).setLineWidth(0.2).setLineDashPattern([1.5, 0.8], 0);
    box(view.stock, 'S');
    doc.setDrawColor(INK).setLineDashPattern([], 0);
    for (const l of view.lines)
      for (let i = 2; i + 1 < l.length; i += 2) doc.line(x(l[i - 2]!), y(l[i - 1]!), x(l[i]!), y(l[i + 1]!));
    const arrow = 0.14 * Math.min(max[0] - min[0], max[1] - min[1]);
    doc.setLineWidth(0.45).circle(x(0), y(0), 1.2, 'S');
    doc.line(x(0), y(0), x(arrow), y(0)).line(x(0), y(0), x(0), y(arrow));
    doc.setFont('helvetica', 'bold').setFontSize(7).setTextColor(INK);
    doc.text(view.right, x(arrow) + 0.6, y(0) + 0.9).text(view.up, x(0) - 0.8, y(arrow) - 0.8);
    doc.setFont('helvetica', 'normal');
    for (const t of view.tags) doc.text(t.label, x(t.at[0]), y(t.at[1]) + 0.9, { align: 'center' });
    return (max[1] - min[1]) * k;
  }

  private list(name: string, lines: readonly string[]): void {
    this.head(name);
    for (const line of lines) this.text(`- ${line}`, 9, INK);
  }

  private head(name: string): void {
    this.room(16);
    this.y += 2;
    this.text(name, 11, INK, 'bold');
  }

  private tools(u: string): void {
    const { tools } = this.sheet;
    this.table(
      'Tools',
      ['', 'number', 'tool', `Ø ${u}`, `flute ${u}`, `stick-out ${u}`, 'makes', 'time'],
      tools.map((t) => [
        '',
        `T${t.number ?? '-'}`,
        t.description,
        t.diameter,
        t.flute,
        t.stickOut,
        t.makes,
        clockTime(t.seconds),
      ]),
      [3, 4, 5, 7],
      (row, left, top) => this.silhouette(tools[row]!, left + 3, top + 8.4),
    );
  }

  /** A tool's end, tip down, from its tip up. */
  private silhouette({ outline }: SheetTool, x: number, tip: number): void {
    const k = 2.6 / Math.max(...outline.map(([, r]) => r), 0.1);
    const points = outline.map(([z, r]): [number, number] => [Math.min(7.6, z * k), r * k]);
    this.doc.setDrawColor(INK).setLineWidth(0.2);
    let last: [number, number] = [0, 0];
    for (const [z, r] of points) {
      for (const side of [1, -1]) this.doc.line(x + side * last[1], tip - last[0], x + side * r, tip - z);
      last = [z, r];
    }
  }

  private table(
    name: string,
    head: readonly string[],
    rows: readonly (readonly string[])[],
    numbers: readonly number[],
    picture?: (row: number, left: number, top: number) => void,
  ): void {
    this.head(name);
    this.autoTable(this.doc, {
      startY: this.y,
      margin: { left: MARGIN, right: MARGIN, top: MARGIN, bottom: MARGIN },
      theme: 'plain',
      head: [head.map(plainSigns)],
      body: rows.map((r) => r.map(plainSigns)),
      styles: {
        fontSize: 8.5,
        cellPadding: { top: 0.7, bottom: 0.7, left: 0.5, right: 1.5 },
        textColor: INK,
      },
      headStyles: { fontStyle: 'bold', lineWidth: { bottom: 0.2 }, lineColor: INK },
      bodyStyles: picture ? { minCellHeight: 9 } : {},
      columnStyles: Object.fromEntries([
        ...numbers.map((n) => [n, { halign: 'right' as const }] as const),
        ...(picture ? [[0, { cellWidth: 8 }] as const] : []),
      ]),
      didParseCell: (d) => {
        if (d.section === 'head' && numbers.includes(d.column.index)) d.cell.styles.halign = 'right';
      },
      didDrawCell: (d) => {
        if (picture && d.section === 'body' && d.column.index === 0) picture(d.row.index, d.cell.x, d.cell.y);
      },
      didDrawPage: (d) => {
        this.y = (d.cursor?.y ?? this.y) + 2;
      },
    });
  }
}
