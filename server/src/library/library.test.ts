import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { SHOP } from '@yellow-pin/demo/shop/index';
import { testServer, type TestServer } from '../testing.ts';
import { LibraryEntity } from './entity.ts';
import { readLibrary, seedLibrary } from './service.ts';

const base = process.env['DATABASE_URL'];
const LATE = ['end-mill', 'boring-bar'];

describe.skipIf(!base)('the shop’s lists', () => {
  let server: TestServer;
  beforeAll(async () => {
    server = await testServer(base!, 'library', 1048576);
  });
  afterAll(() => server?.close());

  it('come out as they went in, and a second start adds nothing', async () => {
    expect(await readLibrary(server.database)).toEqual(SHOP);
    await seedLibrary(server.database, SHOP);
    expect(await readLibrary(server.database)).toEqual(SHOP);
  });

  it('stored before mills were known get them and their cutting data once, on free numbers', async () => {
    const rows = server.database.getRepository(LibraryEntity);
    for (const t of SHOP.tools.filter((x) => LATE.includes(x.kind)))
      await rows.delete({ kind: 'tools', id: t.id });
    // One entry for each kind, as it was once; and a speed that this shop had changed.
    for (const m of SHOP.materials) {
      const known = m.cutting.filter((r) => !r.kinds.some((k) => LATE.includes(k)));
      const cutting = Object.fromEntries(
        known.flatMap(({ kinds, ...r }) => kinds.map((k) => [k, k === 'drill' ? { ...r, vc: 33 } : r])),
      );
      await rows.update({ kind: 'materials', id: m.id }, { data: { ...m, cutting } as never });
    }
    await seedLibrary(server.database, SHOP);
    const now = await readLibrary(server.database);
    const mills = now.tools.filter((t) => t.kind === 'end-mill');
    expect(mills.map((t) => t.id)).toEqual(SHOP.tools.filter((t) => t.kind === 'end-mill').map((t) => t.id));
    const numbers = now.tools.flatMap((t) => (t.number === null ? [] : [t.number]));
    expect(new Set(numbers).size).toBe(numbers.length);
    for (const m of now.materials) {
      expect(m.cutting.some((r) => r.kinds.includes('end-mill'))).toBe(true);
      expect(m.cutting.find((r) => r.kinds.includes('drill'))?.vc).toBe(33);
    }
    await seedLibrary(server.database, SHOP);
    expect(await readLibrary(server.database)).toEqual(now);
  });
});
