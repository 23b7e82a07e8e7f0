// The database for as long as a command needs it: one that runs already is left running, one that was started is stopped.
import { isServed } from './instance.mjs';

export async function withDatabase(needPostgres, act) {
  const wasServed = isServed();
  const database = await needPostgres('postgres', { keep: true });
  try {
    return await act(database.url);
  } finally {
    if (!wasServed) database.stop();
  }
}
