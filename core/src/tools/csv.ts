import Papa from 'papaparse';
import { LengthError, parseLength } from '../units/length.ts';
import { COMMON_PROPERTIES, OWN_PROPERTIES, type ToolProperty } from './properties.ts';
import { toolSchema, type Tool } from './schema.ts';
import { shapeFaults } from './shape.ts';
import { sizeFromText } from './size.ts';

const NUMBERS: readonly ToolProperty[] = [...COMMON_PROPERTIES, ...OWN_PROPERTIES];
/** A column is headed by its symbol of ISO 13399, or by the property's own name where that has none. */
const headOf = (p: ToolProperty): string => p.symbol ?? p.field;

/** Text columns before the numbers, and those of threads after them; TDZ, TP and HAND are of ISO 13399. */
const HEAD = ['id', 'kind', 'number', 'description', 'size'] as const;
const TAIL = ['holder', 'cutter', 'TDZ', 'TP', 'major', 'HAND', 'lead', 'style'] as const;
const MILLED = ['form', 'rows', 'TPX', 'tapered'] as const;

const HANDS = { R: 'right', L: 'left' } as const;
const figure = (v: number): string => String(Math.round(v * 1e6) / 1e6);

/**
 * Tools as a table of comma-separated values (RFC 4180): a heading of ISO 13399 symbols, a row a tool, lengths in mm and angles in degrees.
 */
export function toolsToCsv(tools: readonly Tool[]): string {
  const rows = tools.map((t) => ({
    id: t.id,
    kind: t.kind,
    number: t.number ?? '',
    description: t.description,
    size: t.sizeName,
    ...Object.fromEntries(
      NUMBERS.map((p) => {
        const v = t[p.field];
        return [headOf(p), typeof v === 'number' ? figure(v) : ''];
      }),
    ),
    holder: t.holderId,
    cutter: t.cutterMaterial,
    TDZ: t.thread?.designation ?? '',
    TP: t.thread ? figure(t.thread.pitch) : t.threadForm ? figure(t.threadForm.pitch) : '',
    major: t.thread ? figure(t.thread.majorDiameter) : '',
    HAND: t.thread ? (t.thread.hand === 'left' ? 'L' : 'R') : '',
    lead: t.thread?.lead ?? '',
    style: t.thread?.style ?? '',
    form: t.threadForm?.angleDeg ?? '',
    rows: t.threadForm?.rows ?? '',
    TPX: t.threadForm?.pitchTo ?? '',
    tapered: t.threadForm ? (t.threadForm.tapered ? 'yes' : 'no') : '',
  }));
  return `${Papa.unparse(rows, { columns: [...HEAD, ...NUMBERS.map(headOf), ...TAIL, ...MILLED] })}\r\n`;
}

/** What a table of tools held: those that can be taken, and the rows that cannot, by their line in the file, each with the reason. */
export interface ReadTools {
  tools: Tool[];
  left: { row: number; message: string }[];
}

class RowError extends Error {}

/**
 * Tools from comma-, semicolon- or tab-separated values with a heading as {@link toolsToCsv} writes it; columns may stand in any order and
 * be missing. Lengths are mm unless they name another unit (`1/4in`). A bad row is named and left out, the rest is kept. `say` words a length.
 */
export function toolsFromCsv(text: string, say: (mm: number) => string): ReadTools {
  const parsed = Papa.parse<Record<string, string>>(text.replace(/^\ufeff/, ''), {
    header: true,
    skipEmptyLines: 'greedy',
    transformHeader: (h) => h.trim(),
  });
  const out: ReadTools = { tools: [], left: [] };
  const heads = parsed.meta.fields ?? [];
  if (!heads.includes('kind') || !(heads.includes('DC') || heads.includes('size')))
    return {
      tools: [],
      left: [{ row: 1, message: 'The first line must name the columns: at least kind and DC (or size).' }],
    };
  const ids = new Set<string>();
  parsed.data.forEach((cells, i) => {
    const row = i + 2;
    try {
      const broken = parsed.errors.find((e) => e.row === i && e.code === 'TooManyFields');
      if (broken) throw new RowError('it has more cells than the heading has columns');
      const tool = toolFromCells(cells, say);
      if (ids.has(tool.id)) throw new RowError(`the id ${tool.id} stands twice in this file`);
      ids.add(tool.id);
      out.tools.push(tool);
    } catch (e) {
      if (!(e instanceof RowError || e instanceof LengthError)) throw e;
      out.left.push({ row, message: e.message });
    }
  });
  return out;
}

function toolFromCells(cells: Record<string, string>, say: (mm: number) => string): Tool {
  const cell = (name: string): string => (cells[name] ?? '').trim();
  const value = (name: string, type: ToolProperty['type']): number | undefined => {
    const text = cell(name);
    if (text === '') return undefined;
    try {
      const v = type === 'length' ? parseLength(text, 'mm') : Number(text.replace(/[°\s]/g, ''));
      if (Number.isFinite(v)) return v;
    } catch (e) {
      if (e instanceof LengthError) throw new RowError(`${name}: ${e.message}`);
      throw e;
    }
    throw new RowError(`${name}: "${text}" is no number`);
  };
  const numbers: Record<string, number> = {};
  for (const p of NUMBERS) {
    const v = value(headOf(p), p.type);
    if (v !== undefined) numbers[p.field] = v;
  }
  const named = numbers['diameter'] === undefined && cell('size') ? sizeFromText(cell('size'), 'mm') : null;
  const diameter = numbers['diameter'] ?? named?.diameter;
  if (diameter === undefined) throw new RowError('DC: the diameter is missing');
  const hand = cell('HAND').toUpperCase();
  const kind = cell('kind');
  const document = {
    ...numbers,
    diameter,
    kind,
    id: cell('id') || `${kind}-${cell('size') || figure(diameter)}`.replace(/[^A-Za-z0-9.]+/g, '-'),
    number: cell('number') === '' ? null : Number(cell('number')),
    description: cell('description') || `${kind.replace(/-/g, ' ')} ⌀${cell('size') || figure(diameter)}`,
    sizeName: cell('size') || figure(diameter),
    shankDiameter: numbers['shankDiameter'] ?? diameter,
    holderId: cell('holder'),
    cutterMaterial: cell('cutter') || undefined,
    thread:
      cell('TDZ') === ''
        ? undefined
        : {
            designation: cell('TDZ'),
            pitch: value('TP', 'length'),
            majorDiameter: value('major', 'length') ?? diameter,
            hand: hand === 'L' ? HANDS.L : HANDS.R,
            lead: cell('lead') || 'plug',
            style: cell('style') || 'cutting',
          },
    threadForm:
      cell('rows') === ''
        ? undefined
        : {
            pitch: value('TP', 'length'),
            pitchTo: value('TPX', 'length'),
            angleDeg: value('form', 'angle') ?? 60,
            rows: value('rows', 'count'),
            tapered: cell('tapered').toLowerCase() === 'yes',
          },
  };
  const read = toolSchema.safeParse(document);
  if (!read.success) {
    const issue = read.error.issues[0];
    const field = String(issue?.path[0] ?? '');
    const property = NUMBERS.find((p) => p.field === field);
    throw new RowError(`${property ? headOf(property) : field}: ${issue?.message ?? 'cannot be read'}`);
  }
  const [fault] = shapeFaults(read.data, say);
  if (fault) throw new RowError(fault.message);
  return read.data;
}
