import { randomUUID } from 'node:crypto';
import { hash, verify } from '@node-rs/argon2';
import type { DataSource } from 'typeorm';
import { z } from 'zod';
import { HttpError } from '../errors.ts';

export const ROLES = ['programmer', 'operator'] as const;
export type Role = (typeof ROLES)[number];

/** Somebody who may sign in. */
export interface Person {
  id: string;
  name: string;
  role: Role;
}

/** Fewer letters than this are guessed. */
const SHORTEST = 10;

const nameSchema = z.string().trim().min(1, 'a name is needed').max(60, 'a name has 60 letters at most');
const passwordSchema = z
  .string()
  .min(SHORTEST, `a password has ${SHORTEST} letters at least`)
  .max(200, 'a password has 200 letters at most');
export const newPersonSchema = z.object({ name: nameSchema, password: passwordSchema, role: z.enum(ROLES) });
export const changePersonSchema = z
  .object({ role: z.enum(ROLES), password: passwordSchema })
  .partial()
  .refine((c) => c.role !== undefined || c.password !== undefined, 'a role or a password is needed');

export const countPeople = async (database: DataSource): Promise<number> => {
  const [row] = (await database.query('SELECT count(*)::int AS n FROM people')) as { n: number }[];
  return row?.n ?? 0;
};

export const listPeople = async (database: DataSource): Promise<Person[]> =>
  (await database.query('SELECT id, name, role FROM people ORDER BY lower(name)')) as Person[];

export async function findPerson(database: DataSource, id: string): Promise<Person | null> {
  const [row] = (await database.query('SELECT id, name, role FROM people WHERE id = $1', [id])) as Person[];
  return row ?? null;
}

/** Adds somebody; the password is kept as its Argon2id hash alone. */
export async function addPerson(
  database: DataSource,
  { name, password, role }: z.infer<typeof newPersonSchema>,
): Promise<Person> {
  const person = { id: randomUUID(), name, role };
  const [added] = (await database.query(
    `INSERT INTO people (id, name, role, password) VALUES ($1, $2, $3, $4) ON CONFLICT DO NOTHING RETURNING id`,
    [person.id, name, role, await hash(password)],
  )) as unknown[];
  if (!added)
    throw new HttpError(409, 'name-taken', `Somebody is called "${name}" already. Take another name.`);
  return person;
}

/** A hash that no password has: somebody who is not there takes as long to refuse as a wrong password. */
const nobody = hash(randomUUID());

/** Who that is, by name and password; null where either is wrong. */
export async function checkPassword(
  database: DataSource,
  name: string,
  password: string,
): Promise<Person | null> {
  const [row] = (await database.query(
    'SELECT id, name, role, password FROM people WHERE lower(name) = lower($1)',
    [name.trim()],
  )) as (Person & { password: string })[];
  const isRight = await verify(row?.password ?? (await nobody), password);
  return row && isRight ? { id: row.id, name: row.name, role: row.role } : null;
}

/** Another role or password; whoever has a session by the old password loses it. */
export async function changePerson(
  database: DataSource,
  id: string,
  { role, password }: z.infer<typeof changePersonSchema>,
): Promise<Person> {
  await database.transaction(async (tx) => {
    await tx.query('LOCK TABLE people IN SHARE ROW EXCLUSIVE MODE');
    if (role !== undefined) await tx.query('UPDATE people SET role = $2 WHERE id = $1', [id, role]);
    if (password !== undefined) {
      await tx.query('UPDATE people SET password = $2 WHERE id = $1', [id, await hash(password)]);
      await tx.query(`DELETE FROM sessions WHERE sess->>'person' = $1`, [id]);
    }
    await refuseWithoutProgrammer(tx);
  });
  const person = await findPerson(database, id);
  if (!person) throw new HttpError(404, 'not-found', 'There is nobody of that name any more.');
  return person;
}

/** Takes somebody away, with their sessions; what they have changed keeps their name. */
export async function removePerson(database: DataSource, id: string): Promise<void> {
  await database.transaction(async (tx) => {
    await tx.query('LOCK TABLE people IN SHARE ROW EXCLUSIVE MODE');
    await tx.query('DELETE FROM people WHERE id = $1', [id]);
    await tx.query(`DELETE FROM sessions WHERE sess->>'person' = $1`, [id]);
    await refuseWithoutProgrammer(tx);
  });
}

async function refuseWithoutProgrammer(tx: Pick<DataSource, 'query'>): Promise<void> {
  const [row] = (await tx.query(`SELECT count(*)::int AS n FROM people WHERE role = 'programmer'`)) as {
    n: number;
  }[];
  if (!row?.n)
    throw new HttpError(
      409,
      'last-programmer',
      'Nobody would be left who may add people. Make another one a programmer first.',
    );
}
