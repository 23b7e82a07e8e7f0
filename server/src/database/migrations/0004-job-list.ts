import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What the list of jobs shows: a picture of the part, how far the plan is, who changed it last; and which file a part came from. */
export class JobList1760000000004 implements MigrationInterface {
  name = 'JobList1760000000004';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE jobs
      ADD COLUMN changed_at timestamptz NOT NULL DEFAULT now(),
      ADD COLUMN changed_by text,
      ADD COLUMN planned integer,
      ADD COLUMN total integer,
      ADD COLUMN proof text`);
    await runner.query(`UPDATE jobs SET changed_at = updated_at`);
    await runner.query(`ALTER TABLE parts ADD COLUMN picture bytea, ADD COLUMN file_hash text`);
    await runner.query('ALTER TABLE plans ADD COLUMN author text');
    await runner.query('CREATE INDEX jobs_by_change ON jobs (changed_at DESC) WHERE deleted_at IS NULL');
    await runner.query('CREATE INDEX parts_by_file ON parts (file_hash) WHERE file_hash IS NOT NULL');
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP INDEX parts_by_file');
    await runner.query('DROP INDEX jobs_by_change');
    await runner.query('ALTER TABLE plans DROP COLUMN author');
    await runner.query('ALTER TABLE parts DROP COLUMN picture, DROP COLUMN file_hash');
    await runner.query(
      'ALTER TABLE jobs DROP COLUMN changed_at, DROP COLUMN changed_by, DROP COLUMN planned, DROP COLUMN total, DROP COLUMN proof',
    );
  }
}
