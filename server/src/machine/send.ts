import { connect, type Socket } from 'node:net';
import { HttpError } from '../errors.ts';
import { ACK, ENQ, EOT, LF, NAK, SOH, XOFF, XON } from './line.ts';

/** What became of a program that was sent. */
export interface Sent {
  name: string;
  lines: number;
  /** The first line that came back otherwise, from 1; null where all came back as it was sent. */
  differs: number | null;
}

/** Bytes that are sent before the line is looked at again. */
const PIECE = 256;
/** Silence after which the line counts as dead, ms. */
const SILENCE = 5000;

/** Sends programs over the line, one after the other, and reads each back to compare it. Throws in a sentence where the line is dead. */
export async function sendPrograms(
  port: number,
  programs: readonly { name: string; text: string }[],
): Promise<Sent[]> {
  const line = await Line.open(port);
  try {
    const out: Sent[] = [];
    for (const { name, text } of programs) {
      const sent = Buffer.from(text, 'latin1');
      await line.send(name, sent);
      out.push({
        name,
        lines: text.trimEnd().split('\n').length,
        differs: firstOther(text, await line.fetch(name)),
      });
    }
    return out;
  } finally {
    line.close();
  }
}

/** The first line of two texts that is another, from 1; null where they are the same. */
export function firstOther(sent: string, back: string): number | null {
  if (sent === back) return null;
  const [a, b] = [sent.split('\n'), back.split('\n')];
  const at = a.findIndex((l, i) => l !== b[i]);
  return at < 0 ? a.length + 1 : at + 1;
}

class Line {
  private mayWrite = true;
  private readonly got: number[] = [];
  private wake: () => void = () => undefined;
  private dead: string | null = null;

  private constructor(private readonly socket: Socket) {
    socket.setTimeout(SILENCE, () => this.end('The machine does not answer any more.'));
    socket.on('error', (e) => this.end(`The line to the machine broke (${e.message}).`));
    socket.on('close', () => this.end('The machine closed the line.'));
    socket.on('data', (chunk) => {
      for (const byte of chunk) {
        if (byte === XOFF) this.mayWrite = false;
        else if (byte === XON) this.mayWrite = true;
        else this.got.push(byte);
      }
      this.wake();
    });
  }

  static open(port: number): Promise<Line> {
    return new Promise((resolve, reject) => {
      const socket = connect({ host: '127.0.0.1', port });
      socket.once('connect', () => {
        socket.removeAllListeners('error');
        resolve(new Line(socket));
      });
      socket.once('error', (e) =>
        reject(
          new HttpError(
            502,
            'no-machine',
            `The machine cannot be reached (${e.message}). Is it switched on?`,
          ),
        ),
      );
    });
  }

  async send(name: string, bytes: Buffer): Promise<void> {
    await this.write(Buffer.concat([Buffer.from([SOH]), Buffer.from(name), Buffer.from([LF])]));
    for (let at = 0; at < bytes.length; at += PIECE) await this.write(bytes.subarray(at, at + PIECE));
    await this.write(Buffer.from([EOT]));
    if ((await this.next()) !== ACK)
      throw new HttpError(
        502,
        'not-stored',
        `The machine did not store ${name}. Make room in it, and send it again.`,
      );
  }

  async fetch(name: string): Promise<string> {
    await this.write(Buffer.concat([Buffer.from([ENQ]), Buffer.from(name), Buffer.from([LF])]));
    const out: number[] = [];
    for (;;) {
      const byte = await this.next();
      if (byte === EOT) return Buffer.from(out).toString('latin1');
      if (byte === NAK) throw new HttpError(502, 'not-there', `The machine does not have ${name} any more.`);
      out.push(byte);
    }
  }

  close(): void {
    this.socket.removeAllListeners();
    this.socket.on('error', () => undefined);
    this.socket.destroy();
  }

  private end(why: string): void {
    this.dead ??= why;
    this.wake();
  }

  /** Until something comes, or the line is dead. */
  private async wait(): Promise<void> {
    if (this.dead !== null)
      throw new HttpError(502, 'line-dead', `${this.dead} What was sent is not complete: send it again.`);
    await new Promise<void>((resolve) => (this.wake = resolve));
  }

  private async write(bytes: Buffer): Promise<void> {
    while (!this.mayWrite) await this.wait();
    if (this.dead !== null) await this.wait();
    if (!this.socket.write(bytes))
      await new Promise<void>((resolve) => {
        this.socket.once('drain', resolve);
        // A line that breaks is never drained.
        this.wake = resolve;
      });
    // What the machine says meanwhile is heard before the next piece.
    await new Promise((resolve) => setImmediate(resolve));
  }

  private async next(): Promise<number> {
    while (this.got.length === 0) await this.wait();
    return this.got.shift() ?? NAK;
  }
}
