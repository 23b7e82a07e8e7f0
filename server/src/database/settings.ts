import { randomBytes } from 'node:crypto';
import type { DataSource } from 'typeorm';

/** The key that signs our cookies: made once, the same for every server on this database and over restarts. */
export async function sessionSecret(database: DataSource): Promise<string> {
  await database.query(
    `INSERT INTO settings (key, value) VALUES ('session-secret', $1) ON CONFLICT DO NOTHING`,
    [randomBytes(32).toString('base64url')],
  );
  const [row] = (await database.query(`SELECT value FROM settings WHERE key = 'session-secret'`)) as {
    value: string;
  }[];
  return row!.value;
}
