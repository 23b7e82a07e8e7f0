import { mkdtempSync, readdirSync, rmSync } from 'node:fs';
import { mkdir, rm, stat } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Request, Response } from 'express';
import multer from 'multer';
import { tooLargeMessage } from '@yellow-pin/kernel/read-step';
import { HttpError } from '../errors.ts';
import { isNoRoom } from '../database/errors.ts';
import type { Looked, LookRequest } from '../work/look-work.ts';
import { isRunning } from '../work/is-running.ts';
import { WorkError, WorkProcess } from '../work/work-process.ts';
import { Gate } from './gate.ts';
import { printable } from './json-door.ts';

/** A file that was taken in: looked at, and packed as it is stored. */
export interface TakenFile {
  fileName: string;
  step: Buffer;
  /** SHA-256 of the file as it came, hex. */
  fileHash: string;
}

/** Files sent at once, and how many more wait: what is in memory at a time is one packed file for each. */
const [AT_ONCE, IN_LINE] = [4, 32];
/** Looking at a file may take this long, s, and a little more for each MB. */
const [LOOK_SECONDS, LOOK_SECONDS_PER_MB] = [20, 0.5];
/** A multipart frame around the file, bytes. */
const FRAME = 65536;
const PREFIX = 'yellow-pin-uploads-';

/** Takes files in: streamed to disk, looked at in a process of its own, gone from the disk when stored. */
export class Uploads {
  private readonly folder: string;
  private readonly gate = new Gate(AT_ONCE, IN_LINE);
  private readonly look = new WorkProcess<LookRequest, Looked>(
    new URL('../work/look-work.ts', import.meta.url),
    { heapMb: 1500, memoryMb: 2500, idleMb: 500 },
  );
  private readonly receive: ReturnType<ReturnType<typeof multer>['single']>;

  /** `sizeLimit`: largest file, bytes. */
  constructor(private readonly sizeLimit: number) {
    sweep();
    this.folder = mkdtempSync(join(tmpdir(), `${PREFIX}${process.pid}-`));
    this.receive = multer({
      storage: multer.diskStorage({
        // Temporary folders are swept by others too.
        destination: (_, __, done) =>
          void mkdir(this.folder, { recursive: true, mode: 0o700 }).then(
            () => done(null, this.folder),
            (error: Error) => done(error, ''),
          ),
      }),
      limits: { fileSize: sizeLimit, files: 1, fields: 4, fieldSize: 1000, parts: 6 },
      defParamCharset: 'utf8',
    }).single('file');
  }

  /** Receives the one file of a request and hands it on. Throws {@link HttpError} for what is no part. */
  async take<T>(
    request: Request,
    response: Response,
    missing: string,
    store: (file: TakenFile) => Promise<T>,
  ): Promise<T> {
    if (!request.is('multipart/form-data')) throw new HttpError(400, 'no-file', missing);
    if (Number(request.headers['content-length'] ?? 0) > this.sizeLimit + FRAME) throw this.tooLarge();
    const gone = new AbortController();
    request.on('close', () => request.complete || gone.abort());
    const leave = await this.gate.enter(gone.signal);
    let path: string | undefined;
    try {
      await this.received(request, response);
      if (!request.file) throw new HttpError(400, 'no-file', missing);
      path = request.file.path;
      const fileName = printable(request.file.originalname) || 'part';
      return await store({ fileName, ...(await this.looked({ path, fileName }, gone.signal)) });
    } finally {
      leave();
      if (path) await rm(path, { force: true });
    }
  }

  private received(request: Request, response: Response): Promise<void> {
    return new Promise((resolve, reject) => {
      this.receive(request, response, (error: unknown) => {
        if (error === undefined || error === null) resolve();
        else reject(this.inWords(error));
      });
    });
  }

  private async looked(
    request: LookRequest,
    signal: AbortSignal,
  ): Promise<Pick<TakenFile, 'step' | 'fileHash'>> {
    const { size } = await stat(request.path);
    const seconds = LOOK_SECONDS + (LOOK_SECONDS_PER_MB * size) / 1048576;
    try {
      const { packed, fileHash } = await this.look.run(request, { seconds, signal });
      return { step: Buffer.from(packed), fileHash };
    } catch (error) {
      if (!(error instanceof WorkError)) throw error;
      if (error.failure === 'stopped') throw new HttpError(503, 'stopping', error.message);
      throw new HttpError(422, error.code, error.message);
    }
  }

  private inWords(error: unknown): Error {
    if (isNoRoom(error)) return error as Error;
    if (error instanceof multer.MulterError && error.code === 'LIMIT_FILE_SIZE') return this.tooLarge();
    const why = printable(error instanceof Error ? error.message : String(error)).slice(0, 100);
    return new HttpError(400, 'bad-upload', `The upload could not be read (${why}). Send one file again.`);
  }

  private tooLarge(): HttpError {
    return new HttpError(413, 'too-large', tooLargeMessage(this.sizeLimit));
  }

  async close(): Promise<void> {
    await this.look.close();
    rmSync(this.folder, { recursive: true, force: true });
  }
}

/** Deletes what servers left behind that were killed. */
function sweep(): void {
  for (const name of readdirSync(tmpdir())) {
    const pid = new RegExp(`^${PREFIX}(\\d+)-`).exec(name)?.[1];
    if (pid === undefined || isRunning(Number(pid))) continue;
    try {
      rmSync(join(tmpdir(), name), { recursive: true, force: true });
    } catch {
      // Another user's: that user's next server takes it away.
    }
  }
}
