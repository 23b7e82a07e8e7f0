import type { MigrationInterface, QueryRunner } from 'typeorm';

/** A job's part may be read again from a newer file: parts are kept by revision. 2D drawings are kept beside the model made from them. */
export class PartRevisions1760000000002 implements MigrationInterface {
  name = 'PartRevisions1760000000002';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE parts
      ADD COLUMN revision integer NOT NULL DEFAULT 1,
      ADD COLUMN file_name text NOT NULL DEFAULT '',
      ADD COLUMN status text NOT NULL DEFAULT 'ready' CHECK (status IN ('reading', 'ready', 'failed', 'discarded')),
      ADD COLUMN progress real NOT NULL DEFAULT 0,
      ADD COLUMN progress_text text NOT NULL DEFAULT '',
      ADD COLUMN error text,
      ADD COLUMN drawing jsonb,
      ADD COLUMN recogniser integer NOT NULL DEFAULT 1,
      ADD COLUMN created_at timestamptz NOT NULL DEFAULT now()`);
    await runner.query('ALTER TABLE parts DROP CONSTRAINT parts_pkey');
    await runner.query('ALTER TABLE parts ADD PRIMARY KEY (job_id, revision)');
    await runner.query(
      'UPDATE parts SET file_name = (SELECT file_name FROM jobs WHERE jobs.id = parts.job_id)',
    );
    await runner.query('ALTER TABLE jobs ADD COLUMN part_revision integer NOT NULL DEFAULT 1');
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(
      'DELETE FROM parts USING jobs WHERE parts.job_id = jobs.id AND parts.revision <> jobs.part_revision',
    );
    await runner.query('ALTER TABLE jobs DROP COLUMN part_revision');
    await runner.query('ALTER TABLE parts DROP CONSTRAINT parts_pkey');
    await runner.query(`ALTER TABLE parts
      DROP COLUMN revision, DROP COLUMN file_name, DROP COLUMN status, DROP COLUMN progress, DROP COLUMN progress_text,
      DROP COLUMN error, DROP COLUMN drawing, DROP COLUMN recogniser, DROP COLUMN created_at`);
    await runner.query('ALTER TABLE parts ADD PRIMARY KEY (job_id)');
  }
}
