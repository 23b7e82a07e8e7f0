// One Yellow Pin for each data folder: who has it, and what is done about those who left it behind.
import { linkSync, mkdirSync, readFileSync, renameSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { isAlive, known, stopProcess } from './processes.mjs';
import { DATA, say } from './run.mjs';

const LOCK = join(DATA, 'running.json');

function read(path) {
  try {
    return JSON.parse(readFileSync(path, 'utf8'));
  } catch (error) {
    // Half a file is as good as none: whoever wrote it is gone, or writes it whole in a moment.
    return error.code === 'ENOENT' ? null : {};
  }
}

/** What is noted about the instance that runs: its starter, its server, its address; null where none is. */
export const readInstance = () => read(LOCK);

/** Whether somebody's start has this data folder now. */
export const isServed = () => isAlive(read(LOCK)?.starter);

/** Replaces the note as a whole. */
function write(note) {
  const own = `${LOCK}.${process.pid}`;
  writeFileSync(own, JSON.stringify(note), { mode: 0o600 });
  renameSync(own, LOCK);
}

/**
 * Takes the data folder for this process. Gives { other } when a living starter has it, else { note, release }.
 * What a killed starter left running is stopped first.
 */
export async function takeInstance() {
  mkdirSync(DATA, { recursive: true });
  const mine = { starter: known(process.pid) };
  const own = `${LOCK}.${process.pid}`;
  for (;;) {
    writeFileSync(own, JSON.stringify(mine), { mode: 0o600 });
    try {
      // A link is made by one only.
      linkSync(own, LOCK);
      break;
    } catch (error) {
      if (error.code !== 'EEXIST') throw error;
    } finally {
      rmSync(own, { force: true });
    }
    const there = read(LOCK);
    if (there === null) continue;
    if (isAlive(there.starter)) return { other: there };
    // Only one takes it away: another may just have put a fresh one there.
    const aside = `${LOCK}.stale.${process.pid}`;
    try {
      renameSync(LOCK, aside);
    } catch (error) {
      if (error.code === 'ENOENT') continue;
      throw error;
    }
    const taken = read(aside) ?? {};
    if (isAlive(taken.starter)) {
      try {
        linkSync(aside, LOCK);
      } catch {
        // A third was quicker; the one we moved aside sees that it is not alone when it notes its server.
      }
      rmSync(aside, { force: true });
      return { other: taken };
    }
    rmSync(aside, { force: true });
    if (isAlive(taken.server)) {
      say('stopping what an earlier start left running');
      await stopProcess(taken.server);
    }
  }
  return {
    note: (more) => write(Object.assign(mine, more)),
    release: releaseInstance,
  };
}

/** Gives the folder free, if it is the given starter's. */
export function releaseInstance(starter = known(process.pid)) {
  const there = read(LOCK);
  if (there?.starter?.pid === starter.pid && there.starter.began === starter.began)
    rmSync(LOCK, { force: true });
}
