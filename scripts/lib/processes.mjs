// Which processes are ours: a number alone may be another's by now.
import { existsSync, readFileSync } from 'node:fs';
import { sleep } from './run.mjs';

/** When a process began, in the system's own ticks; null where it is no more or the system does not tell. */
export function startOf(pid) {
  try {
    // The name in brackets may hold blanks and brackets itself.
    const fields = readFileSync(`/proc/${pid}/stat`, 'utf8').replace(/^.*\)/s, '').trim().split(' ');
    // Ended, and not yet taken note of by its parent.
    return fields[0] === 'Z' || fields[0] === 'X' ? null : (fields[19] ?? null);
  } catch {
    return null;
  }
}

/** A process with the moment it began, by which it is known again. */
export const known = (pid) => ({ pid, began: startOf(pid) });

const HAS_PROC = existsSync('/proc/self/stat');

/** It lives, and its number has not gone to another. */
export function isAlive(one) {
  if (!one?.pid) return false;
  try {
    process.kill(one.pid, 0);
  } catch (error) {
    if (error.code !== 'EPERM') return false;
  }
  const began = startOf(one.pid);
  return HAS_PROC ? began !== null && began === one.began : true;
}

/** Asks it to stop, waits, and ends it if it does not. Never touches a process that only has its number. */
export async function stopProcess(one, patienceMs = 15_000) {
  for (const [signal, wait] of [
    ['SIGTERM', patienceMs],
    ['SIGKILL', 2000],
  ]) {
    if (!isAlive(one)) return;
    process.kill(one.pid, signal);
    for (let waited = 0; waited < wait && isAlive(one); waited += 50) await sleep(50);
  }
}
