/** The file is no DXF, or holds nothing to work from; the message says what and the mend. */
export class DxfError extends Error {}

/** An entity as its group codes and values, in order; a POLYLINE's vertices are entities of their own. */
export interface DxfEntity {
  type: string;
  codes: number[];
  values: string[];
  vertices: DxfEntity[];
}

export interface DxfBlock {
  base: [number, number];
  entities: DxfEntity[];
}

export interface DxfFile {
  /** $INSUNITS; null where the header does not say. */
  units: number | null;
  entities: DxfEntity[];
  blocks: Map<string, DxfBlock>;
}

/** The first value of a group as a number; `otherwise` where it is missing or no number. */
export function numberOf(e: DxfEntity, code: number, otherwise = 0): number {
  const i = e.codes.indexOf(code);
  const v = i < 0 ? NaN : Number(e.values[i]);
  return Number.isFinite(v) ? v : otherwise;
}

/** All values of a group as numbers. */
export const numbersOf = (e: DxfEntity, code: number): number[] =>
  e.codes.flatMap((c, i) => (c === code ? [Number(e.values[i])] : []));

export const textOf = (e: DxfEntity, code: number): string | undefined => {
  const i = e.codes.indexOf(code);
  return i < 0 ? undefined : e.values[i];
};

/**
 * Splits an ASCII DXF into entities: header unit, blocks and model space. Each pair of lines is looked at once, so that a file cut anywhere
 * ends the reading and never holds it up.
 */
export function readGroups(text: string): DxfFile {
  if (text.includes('\0')) throw new DxfError('The DXF is a binary one. Save it again as an ASCII DXF.');
  const out: DxfFile = { units: null, entities: [], blocks: new Map() };
  let section = '';
  let variable = '';
  let block: { name: string; entities: DxfEntity[]; head: DxfEntity } | null = null;
  let entity: DxfEntity | null = null;
  let polyline: DxfEntity | null = null;
  let pairs = 0;
  const closeBlock = (): void => {
    if (!block) return;
    const name = textOf(block.head, 2);
    if (name !== undefined)
      out.blocks.set(name, {
        base: [numberOf(block.head, 10), numberOf(block.head, 20)],
        entities: block.entities,
      });
    block = null;
  };
  const begin = (type: string): void => {
    entity = null;
    if (type === 'SECTION' || type === 'ENDSEC' || type === 'EOF') {
      closeBlock();
      section = type === 'SECTION' ? '?' : '';
      polyline = null;
      return;
    }
    const fresh: DxfEntity = { type, codes: [], values: [], vertices: [] };
    if (section === 'BLOCKS' && type === 'BLOCK') {
      closeBlock();
      block = { name: '', entities: [], head: fresh };
      entity = fresh;
      return;
    }
    if (section === 'BLOCKS' && type === 'ENDBLK') return closeBlock();
    if (section !== 'ENTITIES' && !block) return;
    if (type === 'SEQEND') {
      polyline = null;
      return;
    }
    entity = fresh;
    if (type === 'VERTEX' && polyline) {
      polyline.vertices.push(fresh);
      return;
    }
    polyline = type === 'POLYLINE' ? fresh : null;
    (block ? block.entities : out.entities).push(fresh);
  };
  for (let at = 0; at < text.length;) {
    const [code, next] = lineAt(text, at);
    const [value, after] = lineAt(text, next);
    at = after;
    const c = Number(code);
    if (code === '' && value === '' && at >= text.length) break;
    if (!Number.isInteger(c) || code === '') {
      if (pairs === 0 || at < text.length)
        throw new DxfError(
          `The DXF cannot be read: "${code.slice(0, 40)}" stands where a group code should (pair ${pairs + 1}). Save it again as an ASCII DXF.`,
        );
      break;
    }
    pairs++;
    if (c === 0) begin(value);
    else if (section === '?' && c === 2) section = value;
    else if (section === 'HEADER' && c === 9) variable = value;
    else if (section === 'HEADER' && c === 70 && variable === '$INSUNITS') out.units = Number(value);
    else add(entity, c, value);
  }
  return out;
}

function add(entity: DxfEntity | null, code: number, value: string): void {
  if (!entity) return;
  entity.codes.push(code);
  entity.values.push(value);
}

/** A line without its blanks, and where the next one begins. */
function lineAt(text: string, at: number): [string, number] {
  if (at >= text.length) return ['', text.length];
  const end = text.indexOf('\n', at);
  return end < 0 ? [text.slice(at).trim(), text.length] : [text.slice(at, end).trim(), end + 1];
}
