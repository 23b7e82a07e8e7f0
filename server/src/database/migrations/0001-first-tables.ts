import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Jobs with their parts and plan revisions, and the shop's lists. */
export class FirstTables1760000000001 implements MigrationInterface {
  name = 'FirstTables1760000000001';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`CREATE TABLE jobs (
      id uuid PRIMARY KEY,
      name text NOT NULL,
      file_name text NOT NULL,
      status text NOT NULL CHECK (status IN ('reading', 'ready', 'failed', 'cancelled')),
      progress real NOT NULL DEFAULT 0,
      progress_text text NOT NULL DEFAULT '',
      error text,
      created_at timestamptz NOT NULL DEFAULT now(),
      updated_at timestamptz NOT NULL DEFAULT now(),
      deleted_at timestamptz
    )`);
    await runner.query(`CREATE TABLE parts (
      job_id uuid PRIMARY KEY REFERENCES jobs (id) ON DELETE CASCADE,
      step bytea NOT NULL,
      model bytea,
      features jsonb,
      notes jsonb
    )`);
    await runner.query(`CREATE TABLE plans (
      job_id uuid NOT NULL REFERENCES jobs (id) ON DELETE CASCADE,
      revision integer NOT NULL,
      plan jsonb NOT NULL,
      created_at timestamptz NOT NULL DEFAULT now(),
      PRIMARY KEY (job_id, revision)
    )`);
    await runner.query(`CREATE TABLE library_items (
      kind text NOT NULL CHECK (kind IN ('tools', 'holders', 'materials', 'machines')),
      id text NOT NULL,
      position integer NOT NULL,
      data jsonb NOT NULL,
      PRIMARY KEY (kind, id)
    )`);
    await runner.query('CREATE INDEX jobs_by_date ON jobs (created_at DESC) WHERE deleted_at IS NULL');
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const table of ['library_items', 'plans', 'parts', 'jobs'])
      await runner.query(`DROP TABLE ${table}`);
  }
}
