import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Who may sign in, their sessions, what was changed by whom, and who has a job open. */
export class People1760000000007 implements MigrationInterface {
  name = 'People1760000000007';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`CREATE TABLE people (
      id uuid PRIMARY KEY,
      name text NOT NULL,
      role text NOT NULL CHECK (role IN ('programmer', 'operator')),
      password text NOT NULL,
      created_at timestamptz NOT NULL DEFAULT now())`);
    await runner.query('CREATE UNIQUE INDEX people_name ON people (lower(name))');
    // As connect-pg-simple wants it.
    await runner.query(`CREATE TABLE sessions (
      sid text PRIMARY KEY,
      sess json NOT NULL,
      expire timestamp(6) NOT NULL)`);
    await runner.query('CREATE INDEX sessions_expire ON sessions (expire)');
    await runner.query(`CREATE TABLE changes (
      id bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
      at timestamptz NOT NULL DEFAULT now(),
      who text,
      what text NOT NULL,
      job_id uuid REFERENCES jobs (id) ON DELETE SET NULL)`);
    await runner.query('CREATE INDEX changes_job ON changes (job_id, id DESC)');
    await runner.query(`CREATE TABLE presence (
      job_id uuid NOT NULL REFERENCES jobs (id) ON DELETE CASCADE,
      tab text NOT NULL,
      who text,
      at timestamptz NOT NULL DEFAULT now(),
      PRIMARY KEY (job_id, tab))`);
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const table of ['presence', 'changes', 'sessions', 'people'])
      await runner.query(`DROP TABLE ${table}`);
  }
}
