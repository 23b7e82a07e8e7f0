import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Imports are claimed by who reads them, with a heartbeat, so that a killed server's are taken up by the next. */
export class Imports1760000000003 implements MigrationInterface {
  name = 'Imports1760000000003';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE parts
      ADD COLUMN taken_by text,
      ADD COLUMN heartbeat_at timestamptz,
      ADD COLUMN attempts integer NOT NULL DEFAULT 0,
      ADD COLUMN sample boolean NOT NULL DEFAULT false`);
    // A first part's state stood in its job alone.
    await runner.query(`UPDATE parts SET status = CASE WHEN jobs.status = 'reading' THEN 'reading' ELSE 'failed' END
      FROM jobs WHERE jobs.id = parts.job_id AND parts.revision = 1 AND jobs.status <> 'ready'`);
    await runner.query(`CREATE INDEX parts_reading ON parts (job_id, revision) WHERE status = 'reading'`);
    await runner.query('CREATE TABLE settings (key text PRIMARY KEY, value text NOT NULL)');
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE settings');
    await runner.query('DROP INDEX parts_reading');
    await runner.query(
      `UPDATE parts SET status = 'ready' WHERE revision = 1 AND status IN ('reading', 'failed')`,
    );
    await runner.query(
      'ALTER TABLE parts DROP COLUMN taken_by, DROP COLUMN heartbeat_at, DROP COLUMN attempts, DROP COLUMN sample',
    );
  }
}
