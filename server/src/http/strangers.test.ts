import request from 'supertest';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { plateStep } from '@yellow-pin/demo/plate-step';
import { testServer, type TestServer } from '../testing.ts';

const base = process.env['DATABASE_URL'];
const LIMIT = 1048576;
const NOBODY = '00000000-0000-4000-8000-000000000000';

describe.skipIf(!base)('strangers and nonsense', () => {
  let server: TestServer;
  let id: string;
  let plan: Record<string, unknown>;
  let revision: number;
  beforeAll(async () => {
    server = await testServer(base!, 'strangers', LIMIT);
    id = (
      await server.client.post('/api/jobs').attach('file', Buffer.from(plateStep({ holes: 2 })), 'p.step')
    ).body.id;
    while ((await server.client.get(`/api/jobs/${id}`)).body.job.status === 'reading')
      await new Promise((r) => setTimeout(r, 200));
    ({ plan, revision } = (await server.client.get(`/api/jobs/${id}`)).body);
  });
  afterAll(() => server?.close());

  describe('who may ask', () => {
    it.each(['evil.example', 'evil.example:80', 'localhost.evil.example', '127.0.0.1.nip.example', ''])(
      'a name bound to this machine by somebody else is refused: "%s"',
      async (host) => {
        for (const path of ['/', '/api/jobs', '/api/health']) {
          const { status, body } = await request(server.app).get(path).set('Host', host);
          expect([status, body.code]).toEqual([403, 'wrong-host']);
        }
      },
    );

    it.each(['localhost:1234', 'LOCALHOST', '127.0.0.1:99', '[::1]:4600'])('%s is us', async (host) => {
      expect((await request(server.app).get('/api/health').set('Host', host)).status).toBe(200);
    });

    it('another page is refused, whatever it asks, with the cookie or not', async () => {
      const cases: Record<string, string>[] = [
        { Origin: 'http://evil.example' },
        { Origin: 'http://localhost:3000' },
        { Origin: 'null' },
        { Origin: 'file://' },
        { 'Sec-Fetch-Site': 'cross-site' },
        { 'Sec-Fetch-Site': 'same-site' },
      ];
      for (const headers of cases) {
        const read = await server.client.get('/api/jobs').set(headers);
        const write = await server.client.post(`/api/jobs/${id}/cancel`).set(headers);
        expect([read.status, read.body.code, write.status]).toEqual([403, 'wrong-origin', 403]);
      }
    });

    it.each(['/API/jobs', '/Api/jobs', '/api//jobs', '//api/jobs', '/%61pi/jobs', '/api%2fjobs'])(
      '%s is no way round',
      async (path) => {
        const cross = { Origin: 'http://evil.example' };
        const read = await request(server.app).get(path).set(cross);
        expect(read.headers['content-type'] ?? '').toMatch(read.status === 200 ? /html/ : /./);
        expect((await request(server.app).post(path).set(cross)).status).toBe(403);
        expect((await request(server.app).post(path)).status).toBe(403);
      },
    );

    it('our own page may, by its address', async () => {
      const answer = await server.client
        .patch(`/api/jobs/${id}`)
        .set({ Host: 'localhost:4600', Origin: 'http://localhost:4600', 'Sec-Fetch-Site': 'same-origin' })
        // The cookie is bound to the name in a browser; here it is sent along by hand.
        .set('Cookie', await cookie())
        .send({ name: 'mine' });
      expect([answer.status, answer.body.name]).toEqual([200, 'mine']);
    });

    const cookie = async (): Promise<string> =>
      (await request(server.app).get('/api/session')).headers['set-cookie']![0]!.split(';')[0]!;

    it('writes need the cookie, and a forged one is none', async () => {
      const real = await cookie();
      const asks = (cookies?: string) => {
        const ask = request(server.app).patch(`/api/jobs/${id}`).send({ name: 'n' });
        return cookies === undefined ? ask : ask.set('Cookie', cookies);
      };
      expect((await asks(real)).status).toBe(200);
      expect((await asks(`a=b; ${real}; c`)).status).toBe(200);
      const forged = [undefined, '', 'yellow_pin_session=', 'yellow_pin_session=a.b', `${real}x`, `x${real}`];
      for (const cookies of forged) {
        const { status, body } = await asks(cookies);
        expect([status, body.code]).toEqual([403, 'no-session']);
      }
      for (const [method, path] of [
        ['post', '/api/jobs'],
        ['put', `/api/jobs/${id}/plan`],
        ['delete', `/api/jobs/${id}`],
        ['post', `/api/jobs/${id}/retry`],
        ['post', `/api/jobs/${id}/revisions`],
      ] as const)
        expect((await request(server.app)[method](path)).status).toBe(403);
    });

    it('the cookie stays in the browser and on this site; answers are not stored', async () => {
      const { headers } = await request(server.app).get('/api/session');
      expect(headers['set-cookie']![0]).toMatch(/HttpOnly; SameSite=Strict/);
      for (const path of ['/api/jobs', `/api/jobs/${id}`, `/api/jobs/${id}/model`, '/api/nothing'])
        expect((await server.client.get(path)).headers['cache-control']).toBe('no-store');
    });
  });

  describe('nonsense', () => {
    const put = (body: string, type = 'application/json') =>
      server.client.put(`/api/jobs/${id}/plan`).set('Content-Type', type).send(body);

    it.each([
      ['a NUL in a text', '{"revision":1,"plan":{"materialId":"a\\u0000"}}', 400],
      ['half of a pair', '{"revision":1,"plan":"\\ud800"}', 400],
      ['a number beyond all', '{"revision":1e999,"plan":null}', 400],
      ['nothing', '', 400],
      ['half a document', '{"revision":', 400],
      [
        'setups of a format of before that are none',
        old('plan@1', [null, 7, 'x', { up: '+Q' }, { up: null }]),
        400,
      ],
      ['setups of the next format that are none', old('plan@2', { length: 2 }), 400],
      ['a document of 5 MB', JSON.stringify({ revision: 1, plan: 'x'.repeat(5_000_000) }), 413],
    ])('%s', async (_, body, status) => {
      const answer = await put(body);
      expect(answer.status).toBe(status);
      expect(answer.body.message.length).toBeGreaterThan(10);
    });

    function old(format: string, setups: unknown): string {
      const odd = { format: `yellow-pin/${format}`, units: 'mm', setups, sizes: 'abc', toolOrder: [1] };
      return JSON.stringify({ revision: 1, plan: odd });
    }

    it('JSON that is not called so, or in an alphabet nobody reads', async () => {
      const whole = JSON.stringify({ revision, plan });
      for (const [type, status] of [
        ['text/plain', 415],
        ['application/x-www-form-urlencoded', 415],
        ['application/json; charset=klingon', 415],
      ] as const)
        expect((await put(whole, type)).status).toBe(status);
    });

    it('plans of sizes that no part has', async () => {
      const many = (n: number, value: unknown) =>
        Object.fromEntries(Array.from({ length: n }, (_, i) => [`k${i}`, value]));
      for (const part of [
        { sizes: many(6000, { overrides: {} }) },
        { sizes: { a: { overrides: many(60, {}) } } },
        { toolOrders: { s1: Array.from({ length: 600 }, () => 'x') } },
        { toolOrders: many(20, []) },
        { materialId: 'm'.repeat(300) },
        { sizes: { ['k'.repeat(300)]: { overrides: {} } } },
      ]) {
        const { status, body } = await put(JSON.stringify({ revision, plan: { ...plan, ...part } }));
        expect([status, body.code]).toEqual([400, 'bad-request']);
      }
    });

    it.each([
      ['get', '/api/jobs/%E0%A4%A', 400],
      ['get', '/api/jobs/%00', 404],
      ['get', `/api/jobs/${'a'.repeat(300)}`, 404],
      ['get', `/api/jobs/${NOBODY}`, 404],
      ['post', `/api/jobs/${NOBODY}/retry`, 404],
      ['post', `/api/jobs/${NOBODY}/revisions/1/retry`, 404],
      ['get', `/api/jobs/${NOBODY}/model?revision=1e99`, 404],
      ['get', '/%2e%2e/%2e%2e/etc/passwd%', 400],
    ] as const)('%s %s: %i', async (method, path, status) => {
      const answer = await server.client[method](path);
      expect(answer.status).toBe(status);
      expect(answer.text).not.toMatch(/\n\s+at /);
    });

    it('uploads that are none, are cut, or lie about what they hold', async () => {
      const part = (body: string, type = 'multipart/form-data; boundary=b') =>
        server.client.post('/api/jobs').set('Content-Type', type).send(body);
      const file = 'Content-Disposition: form-data; name="file"; filename="a.step"\r\n\r\n';
      for (const [answer, code] of [
        [await part('x', 'multipart/form-data'), 'bad-upload'],
        [await part(`--b\r\n${file}ISO-10303-21;`), 'bad-upload'],
        [await part('--b\r\nnonsense\r\n--b--'), 'bad-upload'],
        [await part(`--b\r\n${file.replace('"file"', '"other"')}x\r\n--b--\r\n`), 'bad-upload'],
        [await part('--b--\r\n'), 'no-file'],
        [await part('{}', 'application/json'), 'no-file'],
        [await part(`--b\r\n${file}x\r\n--b--\r\n`), 'not-step'],
        [await part(`--b\r\n${file}${'9'.repeat(LIMIT + 10)}\r\n--b--\r\n`), 'too-large'],
      ] as const) {
        expect([answer.body.code, answer.status < 500]).toEqual([code, true]);
      }
    });

    it('names of files that cannot be stored are made so', async () => {
      const { status, body } = await server.client
        .post('/api/jobs')
        .attach('file', Buffer.from(plateStep({ holes: 1 })), { filename: 'a\u0085b.step' });
      expect([status, body.fileName]).toEqual([201, 'a b.step']);
    });
  });
});
