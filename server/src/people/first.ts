import type { DataSource } from 'typeorm';
import type { Config } from '../config.ts';
import { addPerson, countPeople, newPersonSchema } from './people.ts';

/** On a network somebody must be able to sign in: the first is made by who starts the server. Throws where nobody can, with the mend. */
export async function needPeople(database: DataSource, first: Config['first']): Promise<void> {
  if ((await countPeople(database)) > 0) return;
  if (!first)
    throw new Error(
      "The setting HOST is refused: on a network everybody signs in, and nobody can yet. Set YELLOW_PIN_FIRST_PERSON and YELLOW_PIN_FIRST_PASSWORD to the first programmer's name and password for this one start, or leave HOST out.",
    );
  const read = newPersonSchema.safeParse({ ...first, role: 'programmer' });
  if (!read.success)
    throw new Error(`The first programmer cannot be made: ${read.error.issues[0]?.message ?? ''}.`);
  await addPerson(database, read.data);
}
