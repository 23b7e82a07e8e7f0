import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Releases of a job to the floor, and what the floor writes back. */
export class Floor1760000000008 implements MigrationInterface {
  name = 'Floor1760000000008';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`CREATE TABLE releases (
      job_id uuid NOT NULL REFERENCES jobs (id) ON DELETE CASCADE,
      number integer NOT NULL,
      plan_revision integer NOT NULL,
      part_revision integer NOT NULL,
      status text NOT NULL CHECK (status IN ('proving', 'ready', 'failed', 'cancelled')),
      progress real NOT NULL DEFAULT 0,
      progress_text text NOT NULL DEFAULT '',
      error text,
      content jsonb,
      author text,
      remark text NOT NULL DEFAULT '',
      created_at timestamptz NOT NULL DEFAULT now(),
      PRIMARY KEY (job_id, number))`);
    await runner.query(`CREATE TABLE floor_notes (
      id uuid PRIMARY KEY,
      job_id uuid NOT NULL REFERENCES jobs (id) ON DELETE CASCADE,
      release integer,
      setup text,
      text text NOT NULL,
      author text,
      created_at timestamptz NOT NULL DEFAULT now(),
      done_at timestamptz,
      done_by text)`);
    await runner.query('CREATE INDEX floor_notes_job ON floor_notes (job_id, created_at DESC)');
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE floor_notes');
    await runner.query('DROP TABLE releases');
  }
}
