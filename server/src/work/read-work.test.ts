import { readFileSync } from 'node:fs';
import { gunzipSync, gzipSync } from 'node:zlib';
import { afterAll, describe, expect, it } from 'vitest';
import { featureSchema } from '@yellow-pin/core/features/schema';
import { demoPartPath } from '@yellow-pin/demo/jobs';
import { chance, mutate } from '@yellow-pin/demo/mutate';
import { plateStep } from '@yellow-pin/demo/plate-step';
import type { ReadPart, ReadRequest } from './read-request.ts';
import { WorkError, WorkProcess } from './work-process.ts';

const reader = new WorkProcess<ReadRequest, ReadPart | null>(new URL('./read-work.ts', import.meta.url), {
  heapMb: 1500,
  memoryMb: 3000,
  idleMb: 1500,
});
const read = (text: string | Buffer, fileName = 'p.step', seconds = 30) =>
  reader.run({ kind: 'file', packed: gzipSync(text), fileName, sizeLimit: 1e8 }, { seconds });
const refusal = async (text: string, fileName?: string): Promise<WorkError> => {
  const error: unknown = await read(text, fileName).catch((e: unknown) => e);
  expect(error).toBeInstanceOf(WorkError);
  return error as WorkError;
};
const GOOD = plateStep({ holes: 4 });
const holesOf = (part: ReadPart | null) => part?.features.filter((f) => f.family === 'hole').length;

describe('reading parts in a process of its own', () => {
  afterAll(() => reader.close());

  it('reads solids and drawings, packed or as they were stored before', async () => {
    expect(holesOf(await read(GOOD))).toBe(4);
    const drawing = await read(readFileSync(demoPartPath('gasket-plate.dxf')), 'gasket.dxf');
    expect(drawing?.drawing?.outlines.length).toBeGreaterThan(3);
    const unpacked = Buffer.from(GOOD);
    const request = { kind: 'file', packed: unpacked, fileName: 'p.step', sizeLimit: 1e8 } as const;
    expect(holesOf(await reader.run(request, { seconds: 30 }))).toBe(4);
  });

  it('asks the reader alone that the setting names', async () => {
    const unknown = GOOD.replace(/=PLANE\(/g, '=FLAT_SHEET(');
    const before = process.env['YELLOW_PIN_READER'];
    process.env['YELLOW_PIN_READER'] = 'own';
    const own = new WorkProcess<ReadRequest, ReadPart | null>(new URL('./read-work.ts', import.meta.url), {
      heapMb: 1500,
      memoryMb: 3000,
      idleMb: 1500,
    });
    try {
      const request = {
        kind: 'file',
        packed: gzipSync(unknown),
        fileName: 'p.step',
        sizeLimit: 1e8,
      } as const;
      const error: unknown = await own.run(request, { seconds: 30 }).catch((e: unknown) => e);
      expect((error as WorkError).message).toContain('FLAT_SHEET is not known as a surface');
    } finally {
      await own.close();
      if (before === undefined) delete process.env['YELLOW_PIN_READER'];
      else process.env['YELLOW_PIN_READER'] = before;
    }
  });

  it('gets ready without an answer, and reads after it', async () => {
    for (const step of [0, 1]) expect(await reader.run({ kind: 'warm', step }, { seconds: 30 })).toBeNull();
    expect(holesOf(await read(GOOD))).toBe(4);
  });

  it('looks at a stored model again', async () => {
    const first = await read(GOOD);
    const again = await reader.run({ kind: 'model', model: first!.model! }, { seconds: 30 });
    expect(again).toMatchObject({ model: null, features: first!.features });
  });

  it.each([
    ['1E308 for a coordinate', GOOD.replace('(0.,0.,', '(1E308,0.,'), 'odd-number'],
    ['NaN for a coordinate', GOOD.replace('(0.,0.,', '(NaN,0.,'), 'odd-number'],
    ['no solid', GOOD.replace(/CLOSED_SHELL/g, 'CLOSED_SHELF'), 'no-solid'],
    ['half a file', GOOD.slice(0, 2000), 'truncated'],
  ])('refuses %s with a word, and reads on in the same process', async (_, text, code) => {
    await read(GOOD);
    const { pid } = reader;
    expect(await refusal(text)).toMatchObject({ failure: 'refused', code });
    expect(holesOf(await read(GOOD))).toBe(4);
    expect(reader.pid).toBe(pid);
  });

  it('a packed file that unpacks beyond the limit is refused', async () => {
    const packed = gzipSync(Buffer.alloc(50_000_000, 65));
    const request = { kind: 'file', packed, fileName: 'p.step', sizeLimit: 1e6 } as const;
    await expect(reader.run(request, { seconds: 30 })).rejects.toBeInstanceOf(WorkError);
  });

  it('keeps nothing of what it has read', async () => {
    const memory = (): number =>
      Number(/VmRSS:\s*(\d+)/.exec(readFileSync(`/proc/${reader.pid}/status`, 'utf8'))![1]);
    const many = async (count: number): Promise<number> => {
      for (let i = 0; i < count; i++) await read(GOOD);
      return memory();
    };
    const early = await many(40);
    expect((await many(80)) / early).toBeLessThan(1.2);
  });

  it('mutated files are read, refused or ended, never an error of ours; good ones read after each', async () => {
    for (let seed = 1; seed <= 30; seed++) {
      const text = mutate(GOOD, chance(seed));
      try {
        const part = await read(text, 'p.step', 15);
        for (const f of part!.features) featureSchema.parse(f);
        expect(gunzipSync(part!.model!).toString()).not.toMatch(/null,null|NaN/);
      } catch (error) {
        expect(error, `seed ${seed}`).toBeInstanceOf(WorkError);
        expect((error as WorkError).code, `seed ${seed}: ${(error as Error).message}`).not.toBe('internal');
      }
      if (seed % 5 === 0) expect(holesOf(await read(GOOD))).toBe(4);
    }
  });
});
