import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { SHOP } from '@yellow-pin/demo/shop/index';
import { SHIPPED_METHODS } from '@yellow-pin/core/methods/shipped';
import { testServer, type TestServer } from '../testing.ts';
import { LibraryEntity } from './entity.ts';
import { readLibrary, seedLibrary } from './service.ts';

const base = process.env['DATABASE_URL'];
/** Kinds that came after the first lists were stored. */
const LATE = [
  ...['end-mill', 'boring-bar', 'core-drill', 'centre-drill', 'thread-mill', 't-cutter', 'dovetail-cutter'],
  ...['chamfer-mill', 'back-chamfer-cutter', 'corner-rounding-cutter', 'lollipop'],
];

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

  it('stored before mills were known get them and their cutting data once, into the drawer', async () => {
    const rows = server.database.getRepository(LibraryEntity);
    for (const t of SHOP.tools.filter((x) => LATE.includes(x.kind)))
      await rows.delete({ kind: 'tools', id: t.id });
    // One entry for each kind, as it was once; and a speed that this shop had changed.
    for (const m of SHOP.materials) {
      const cutting = Object.fromEntries(
        m.cutting.flatMap(({ kinds, ...r }) =>
          kinds
            .filter((k) => !LATE.includes(k))
            .map((k) => [k, k === 'drill' ? { ...r, vc: 33 } : r] as const),
        ),
      );
      await rows.update({ kind: 'materials', id: m.id }, { data: { ...m, cutting } as never });
    }
    await seedLibrary(server.database, SHOP);
    const now = await readLibrary(server.database);
    const mills = now.tools.filter((t) => t.kind === 'end-mill');
    expect(mills.map((t) => t.id)).toEqual(SHOP.tools.filter((t) => t.kind === 'end-mill').map((t) => t.id));
    expect(mills.every((t) => t.number === null)).toBe(true);
    for (const m of now.materials) {
      expect(m.cutting.some((r) => r.kinds.includes('end-mill'))).toBe(true);
      expect(m.cutting.find((r) => r.kinds.includes('drill'))?.vc).toBe(33);
    }
    await seedLibrary(server.database, SHOP);
    expect(await readLibrary(server.database)).toEqual(now);
  });
});

describe.skipIf(!base)('changing the shop’s lists', () => {
  let server: TestServer;
  beforeAll(async () => {
    server = await testServer(base!, 'library_changes', 1048576);
  });
  afterAll(() => server?.close());

  const sample = SHOP.tools[20]!;
  const put = (path: string, body: object) => server.client.put(`/api/library/${path}`).send(body);
  const remove = (path: string) => server.client.delete(`/api/library/${path}`);
  const idsNow = async (): Promise<string[]> => (await readLibrary(server.database)).tools.map((t) => t.id);

  it('adds, changes and takes away a tool, and answers with the lists as they are', async () => {
    const mine = { ...sample, id: 'mine', number: null };
    const added = await put('tools/mine', mine);
    expect(added.status).toBe(200);
    expect((added.body as typeof SHOP).tools.at(-1)).toEqual(mine);
    await put('tools/mine', { ...mine, description: 'changed' });
    expect((await readLibrary(server.database)).tools.at(-1)?.description).toBe('changed');
    expect((await remove('tools/mine')).status).toBe(200);
    expect(await idsNow()).not.toContain('mine');
    expect((await remove('tools/mine')).status).toBe(404);
  });

  it('refuses a clash of numbers, a wrong shape, another id and an unknown list, and changes nothing', async () => {
    const before = await readLibrary(server.database);
    for (const [path, body, status, words] of [
      ['tools/mine', { ...sample, id: 'mine', number: SHOP.tools[0]!.number }, 422, 'is free'],
      ['tools/mine', { ...sample, id: 'mine', number: null, fluteLength: 999 }, 422, 'longer than'],
      ['tools/other', { ...sample, id: 'mine', number: null }, 422, 'The address names'],
      ['spoons/mine', sample, 404, 'no such list'],
    ] as const) {
      const response = await put(path, body);
      expect(response.status).toBe(status);
      expect((response.body as { message: string }).message).toContain(words);
    }
    const held = await remove(`holders/${sample.holderId}`);
    expect(held.status).toBe(409);
    expect((held.body as { message: string }).message).toContain('stand in it');
    expect(await readLibrary(server.database)).toEqual(before);
  });

  it('has no two machines of one name: programs are chosen by it', async () => {
    const twin = await put('machines/twin', { ...SHOP.machines[0]!, id: 'twin' });
    expect([twin.status, JSON.stringify(twin.body)]).toEqual([
      422,
      expect.stringContaining('a name of its own'),
    ]);
  });

  it('has a place for entries of each of its lists', async () => {
    const methods = { ...SHIPPED_METHODS[0]!, id: 'own', name: 'our own' };
    for (const [list, item] of [
      ['methods', methods],
      ['holders', { ...SHOP.holders[0]!, id: 'own' }],
      ['materials', { ...SHOP.materials[0]!, id: 'own' }],
      ['machines', { ...SHOP.machines[0]!, id: 'own', name: 'our own mill' }],
    ] as const) {
      const stored = await put(`${list}/own`, item);
      expect([list, stored.status]).toEqual([list, 200]);
      expect((await readLibrary(server.database))[list].at(-1)).toEqual(item);
      expect((await remove(`${list}/own`)).status).toBe(200);
    }
  });

  it('takes in many: the good ones are kept, the bad ones named by their place', async () => {
    const items = [
      { ...sample, id: 'i1', number: null },
      { ...sample, id: 'i2', number: 55 },
      { ...sample, id: 'i3', number: 55 },
      { nonsense: true },
    ];
    const response = await server.client.post('/api/library/tools/import').send({ items });
    const came = response.body as { taken: number; left: { index: number; message: string }[] };
    expect(came.taken).toBe(2);
    expect(came.left.map((l) => l.index)).toEqual([2, 3]);
    expect(came.left[0]!.message).toContain('T55');
    expect(await idsNow()).toEqual(expect.arrayContaining(['i1', 'i2']));
  });

  it('lets one of two who want the same number have it', async () => {
    const answers = await Promise.all(
      ['r1', 'r2', 'r3'].map((id) => put(`tools/${id}`, { ...sample, id, number: 58 })),
    );
    expect(answers.map((a) => a.status).sort()).toEqual([200, 422, 422]);
  });
});
