import { mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { createServer, type Socket } from 'node:net';
import { join } from 'node:path';
import { ACK, ENQ, EOT, LF, NAK, SOH, XOFF, XON } from './line.ts';

/** After so many bytes it asks the sender to wait, as a control with a small memory does. */
const BUFFER = 512;
/** How long it takes to put them away, ms. */
const BUSY = 2;
/** Longest program that it stores, bytes. */
const MOST = 20_000_000;

export interface StandIn {
  port: number;
  folder: string;
  close(): Promise<void>;
}

/**
 * A stand-in for a machine: a port on loopback that behaves like a serial line with a control behind it, and a folder with the programs that
 * it was sent. It stops the sender while it is busy (XOFF, XON), and gives programs back.
 */
export async function startStandIn(folder: string, port = 0): Promise<StandIn> {
  mkdirSync(folder, { recursive: true });
  const open = new Set<Socket>();
  const server = createServer((socket) => {
    open.add(socket);
    socket.on('close', () => open.delete(socket));
    new Control(socket, folder).listen();
  });
  await new Promise<void>((resolve, reject) => {
    server.once('error', reject);
    server.listen(port, '127.0.0.1', resolve);
  });
  const address = server.address();
  return {
    port: typeof address === 'object' && address ? address.port : port,
    folder,
    close: () =>
      new Promise((resolve) => {
        for (const s of open) s.destroy();
        server.close(() => resolve());
      }),
  };
}

/** Whatever it is called, a program stays in the folder. */
export const safeName = (name: string): string =>
  name
    .replace(/[^A-Za-z0-9._-]/g, '_')
    .replace(/^\.+/, '_')
    .slice(0, 120) || 'program';

class Control {
  private state: 'idle' | 'name' | 'asked' | 'program' = 'idle';
  private name = '';
  private readonly stored: number[] = [];

  constructor(
    private readonly socket: Socket,
    private readonly folder: string,
  ) {}

  listen(): void {
    this.socket.on('error', () => this.socket.destroy());
    this.socket.on('data', (chunk) => this.take(chunk));
  }

  private take(chunk: Buffer): void {
    const before = Math.floor(this.stored.length / BUFFER);
    for (const byte of chunk) this.byte(byte);
    if (Math.floor(this.stored.length / BUFFER) === before) return;
    this.socket.write(Buffer.from([XOFF]));
    setTimeout(() => !this.socket.destroyed && this.socket.write(Buffer.from([XON])), BUSY);
  }

  private byte(byte: number): void {
    if (this.state === 'program') {
      if (byte === EOT) this.store();
      else if (this.stored.length < MOST) this.stored.push(byte);
    } else if (this.state === 'name' || this.state === 'asked') {
      if (byte !== LF) this.name += String.fromCharCode(byte);
      else if (this.state === 'name') this.state = 'program';
      else this.give();
    } else if (byte === SOH || byte === ENQ) {
      [this.state, this.name] = [byte === SOH ? 'name' : 'asked', ''];
      this.stored.length = 0;
    }
  }

  private store(): void {
    this.state = 'idle';
    const isWhole = this.stored.length < MOST;
    if (isWhole) writeFileSync(join(this.folder, safeName(this.name)), Buffer.from(this.stored));
    this.socket.write(Buffer.from([isWhole ? ACK : NAK]));
  }

  private give(): void {
    this.state = 'idle';
    try {
      this.socket.write(readFileSync(join(this.folder, safeName(this.name))));
      this.socket.write(Buffer.from([EOT]));
    } catch {
      this.socket.write(Buffer.from([NAK]));
    }
  }
}
