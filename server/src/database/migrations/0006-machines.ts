import type { MigrationInterface, QueryRunner } from 'typeorm';
import { PROFILES } from '@yellow-pin/core/code/profiles/shipped';

/** The profiles that ship now stand beside those that a shop has; what it has stays as it is. */
export class Machines1760000000006 implements MigrationInterface {
  name = 'Machines1760000000006';

  async up(runner: QueryRunner): Promise<void> {
    // A shop that is new gets its whole list when it is first opened.
    const [row] = (await runner.query(
      `SELECT count(*)::int AS n FROM library_items WHERE kind = 'machines'`,
    )) as {
      n: number;
    }[];
    if (!row?.n) return;
    for (const [i, p] of PROFILES.entries())
      await runner.query(
        `INSERT INTO library_items (kind, id, position, data) VALUES ('machines', $1, $2, $3) ON CONFLICT DO NOTHING`,
        [p.id, row.n + i, JSON.stringify(p)],
      );
  }

  async down(): Promise<void> {
    // What was added may be in use: it stays.
  }
}
