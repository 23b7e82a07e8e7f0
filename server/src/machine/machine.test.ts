import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { firstOther, sendPrograms } from './send.ts';
import { safeName, startStandIn, type StandIn } from './stand-in.ts';

const folder = mkdtempSync(join(tmpdir(), 'yellow-pin-machine-'));
let machine: StandIn;
beforeAll(async () => {
  machine = await startStandIn(folder);
});
afterAll(async () => {
  await machine.close();
  rmSync(folder, { recursive: true, force: true });
});

const long = `%\r\n${Array.from({ length: 3000 }, (_, i) => `N${i} G1 X${i}. F100.`).join('\r\n')}\r\n%\r\n`;

describe('a machine at the end of a line', () => {
  it('stores what it is sent and gives it back, however long, while it asks to wait', async () => {
    const sent = await sendPrograms(machine.port, [
      { name: 'a.nc', text: '%\nO1001\nM30\n%\n' },
      { name: 'long.nc', text: long },
    ]);
    expect(sent).toEqual([
      { name: 'a.nc', lines: 4, differs: null },
      { name: 'long.nc', lines: 3002, differs: null },
    ]);
    expect(readFileSync(join(folder, 'long.nc'), 'latin1')).toBe(long);
  });

  it('a program that came back otherwise is told by its line', async () => {
    expect(firstOther('A\nB\nC', 'A\nX\nC')).toBe(2);
    expect(firstOther('A\nB', 'A\nB\nC')).toBe(3);
    expect(firstOther('A\nB\nC', 'A')).toBe(2);
    expect(firstOther('A', 'A')).toBeNull();
    await sendPrograms(machine.port, [{ name: 'b.nc', text: 'G0 X1.\n' }]);
    writeFileSync(join(folder, 'b.nc'), 'G0 X9.\n');
    expect(firstOther('G0 X1.\n', readFileSync(join(folder, 'b.nc'), 'latin1'))).toBe(1);
  });

  it('a name never leads out of its folder', async () => {
    expect(safeName('../../etc/passwd')).toBe('__.._etc_passwd');
    expect(safeName('')).toBe('program');
    await sendPrograms(machine.port, [{ name: '../out.nc', text: 'M30\n' }]);
    expect(readdirSync(folder)).toContain('__out.nc');
  });

  it('one that is off, or goes dead, is said to be so', async () => {
    const dead = createServer((s) => s.once('data', () => s.destroy()));
    await new Promise<void>((r) => dead.listen(0, '127.0.0.1', r));
    const { port } = dead.address() as { port: number };
    await expect(sendPrograms(port, [{ name: 'a.nc', text: long }])).rejects.toThrow(/send it again/);
    await new Promise((r) => dead.close(r));
    await expect(sendPrograms(port, [{ name: 'a.nc', text: long }])).rejects.toThrow(/cannot be reached/);
  });
});
