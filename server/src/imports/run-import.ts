import type { DataSource } from 'typeorm';
import type { Logger } from 'pino';
import { isAway, isNoRoom } from '../database/errors.ts';
import { PartEntity, type PartRow } from '../jobs/entity.ts';
import type { ReadPart, ReadRequest } from '../work/read-request.ts';
import { WorkError, type WorkProcess } from '../work/work-process.ts';
import { beat, MOST_ATTEMPTS, release, takeClaim, type ImportKey } from './claims.ts';
import { ReadingSteps } from './steps.ts';
import { failImport, finishImport, tellProgress } from './store.ts';

export interface ImportParts {
  database: DataSource;
  reader: WorkProcess<ReadRequest, ReadPart | null>;
  log: Logger;
  /** Our name in claims. */
  me: string;
  /** Largest file, bytes. */
  sizeLimit: number;
  /** A read may take this long, s, and {@link SECONDS_PER_MB} more for each MB. */
  readSeconds: number;
  /** Aborted when the server stops. */
  closing: AbortSignal;
  /** Asks for another try. */
  again(key: ImportKey): Promise<void>;
}

/** How often a reader shows that it lives, and looks whether it was cancelled, ms. */
const BEAT = 500;
/** Far above what the largest sample part takes on a slow machine. */
const SECONDS_PER_MB = 20;
/** Between two tries to reach the database, ms: doubled up to the longest. */
const [FIRST_WAIT, LONGEST_WAIT] = [250, 5000];

/** Reads one part to its end: stored, failed with a sentence, cancelled, or let go for another to take up. */
export async function runImport(d: ImportParts, key: ImportKey): Promise<void> {
  const claim = await takeClaim(d.database, key, d.me);
  if (!claim) return;
  const cancel = new AbortController();
  const steps = new ReadingSteps((share, text) => {
    tellProgress(d.database, key, d.me, share, text).catch(() => undefined);
  });
  const timer = setInterval(() => {
    steps.tick(performance.now());
    beat(d.database, key, d.me).then(
      (isOurs) => isOurs || cancel.abort(),
      // The database is away for a moment: the reading goes on.
      () => undefined,
    );
  }, BEAT);
  try {
    const part = await d.database.getRepository(PartEntity).findOneByOrFail({ ...key });
    const request = requestOf(part, d.sizeLimit);
    const seconds = d.readSeconds + SECONDS_PER_MB * megabytes(request);
    const read = await d.reader.run(request, {
      seconds,
      signal: cancel.signal,
      onProgress: (share, what) => steps.step(share, what, performance.now()),
    });
    if (read) await whenThere(d, () => finishImport(d.database, key, d.me, read));
  } catch (error) {
    await settle(d, key, claim.attempts, error);
  } finally {
    clearInterval(timer);
  }
}

type PartRequest = Exclude<ReadRequest, { kind: 'warm' }>;

function requestOf(part: PartRow, sizeLimit: number): PartRequest {
  return part.model
    ? { kind: 'model', model: part.model }
    : { kind: 'file', packed: part.step, fileName: part.fileName, sizeLimit };
}

/** Size of what is packed, MB: gzip keeps it in its last four bytes. */
function megabytes(request: PartRequest): number {
  const bytes = request.kind === 'model' ? request.model : request.packed;
  const isPacked = bytes[0] === 0x1f && bytes[1] === 0x8b && bytes.length > 18;
  const size = isPacked
    ? new DataView(bytes.buffer, bytes.byteOffset + bytes.length - 4, 4).getUint32(0, true)
    : bytes.length;
  return size / 1048576;
}

/** Does what needs the database as soon as it is there: what was read is not lost because it was away. */
async function whenThere(d: ImportParts, act: () => Promise<void>): Promise<void> {
  for (let wait = FIRST_WAIT; ; wait = Math.min(LONGEST_WAIT, 2 * wait)) {
    try {
      return await act();
    } catch (error) {
      if (!isAway(error) || d.closing.aborted) throw error;
      d.log.warn({ wait }, 'the database is away; what was read is stored when it is back');
      await new Promise((resolve) => setTimeout(resolve, wait));
    }
  }
}

async function settle(d: ImportParts, key: ImportKey, attempts: number, error: unknown): Promise<void> {
  const failure = error instanceof WorkError ? error.failure : null;
  if (failure === 'cancelled') return;
  try {
    if (failure === 'stopped' || d.closing.aborted)
      return await release(d.database, key, d.me, { counts: false });
    if ((failure === 'crashed' && attempts < MOST_ATTEMPTS - 1) || isAway(error)) {
      return await whenThere(d, async () => {
        await release(d.database, key, d.me, { counts: true });
        await d.again(key);
      });
    }
    if (!(error instanceof WorkError)) d.log.error({ err: error, ...key }, 'import failed');
    await whenThere(d, () => failImport(d.database, key, d.me, messageOf(error)));
  } catch (also) {
    // Nothing is lost: whoever starts next finds the part claimed by a dead process and takes it up.
    d.log.error({ err: also, ...key }, 'the end of an import could not be stored');
  }
}

function messageOf(error: unknown): string {
  if (error instanceof WorkError) return error.message;
  return isNoRoom(error)
    ? 'The part was read, but the disk is full: nothing could be stored. Make room, then read it again.'
    : 'The part was read but could not be stored. Read it again; if it fails twice, keep the file.';
}
