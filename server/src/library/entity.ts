import { EntitySchema } from 'typeorm';

export type LibraryKind = 'tools' | 'holders' | 'materials' | 'machines' | 'methods';

export interface LibraryRow {
  kind: LibraryKind;
  id: string;
  /** Place in its list. */
  position: number;
  data: unknown;
}

export const LibraryEntity = new EntitySchema<LibraryRow>({
  name: 'library_item',
  tableName: 'library_items',
  columns: {
    kind: { type: 'text', primary: true },
    id: { type: 'text', primary: true },
    position: { type: 'integer' },
    data: { type: 'jsonb' },
  },
});
