import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What can be looked for across jobs: tags, callouts, threads and tools of their plans. */
export class Find1760000000009 implements MigrationInterface {
  name = 'Find1760000000009';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`CREATE TABLE found_in (
      job_id uuid PRIMARY KEY REFERENCES jobs (id) ON DELETE CASCADE,
      plan_revision integer NOT NULL,
      part_revision integer NOT NULL,
      places jsonb NOT NULL,
      words text NOT NULL)`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE found_in');
  }
}
