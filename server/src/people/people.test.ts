import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import request from 'supertest';
import { testServer, type TestServer } from '../testing.ts';
import { createJob } from '../jobs/service.ts';
import { needPeople } from './first.ts';

const FIRST = { name: 'Ada', password: 'a long password' };
const base = process.env['DATABASE_URL'];
let server: TestServer;

/** A browser of its own, signed in where a password is given. */
async function browser(name?: string, password = FIRST.password) {
  const agent = request.agent(server.app);
  await agent.get('/api/session');
  if (name !== undefined) await agent.post('/api/sign-in').send({ name, password }).expect(200);
  return agent;
}

describe.skipIf(!base)('on a network', () => {
  beforeAll(async () => {
    server = await testServer(base!, 'people', 1e6, true);
  });
  afterAll(() => server?.close());

  it('the first is made by who starts it; without one it does not start', async () => {
    await expect(needPeople(server.database, null)).rejects.toThrow(/YELLOW_PIN_FIRST_PERSON/);
    await expect(needPeople(server.database, { ...FIRST, password: 'short' })).rejects.toThrow(/10 letters/);
    await needPeople(server.database, FIRST);
    // Later starts need none, and change nobody's password.
    await needPeople(server.database, { name: 'Eve', password: 'another password' });
    await (
      await browser()
    )
      .post('/api/sign-in')
      .send({ name: 'Eve', password: 'another password' })
      .expect(401);
  });

  it('nothing is told or taken before somebody signs in', async () => {
    const stranger = await browser();
    expect((await stranger.get('/api/me').expect(200)).body).toEqual({ isRequired: true, person: null });
    for (const path of ['/api/jobs', '/api/library', '/api/changes', '/api/jobs/names'])
      await stranger.get(path).expect(401);
    await stranger.post('/api/jobs').expect(401);
    await stranger.get('/api/people').expect(403);
    await stranger.get('/api/health').expect(200);
  });

  it('name and password let one in, whatever the letters’ size, and out again', async () => {
    const ada = await browser('ADA ');
    expect((await ada.get('/api/me')).body.person).toMatchObject({ name: 'Ada', role: 'programmer' });
    await ada.get('/api/jobs').expect(200);
    await ada.post('/api/sign-out').expect(204);
    await ada.get('/api/jobs').expect(401);
  });

  it('the session’s number is another after signing in, and no script reads it', async () => {
    const agent = await browser();
    const answer = await agent.post('/api/sign-in').send(FIRST).expect(200);
    expect(String(answer.headers['set-cookie'])).toMatch(/yellow_pin_person=.*HttpOnly.*SameSite=Strict/);
    expect(JSON.stringify(answer.body)).not.toContain('argon2');
  });

  it('another site’s page can neither sign in nor write', async () => {
    const ada = await browser('Ada');
    await ada.post('/api/sign-in').set('Origin', 'http://evil.example').send(FIRST).expect(403);
    await ada.post('/api/jobs').set('Sec-Fetch-Site', 'cross-site').expect(403);
    await request(server.app).post('/api/sign-in').send(FIRST).expect(403);
  });

  it('operators read and write no more than notes; programmers add people', async () => {
    const ada = await browser('Ada');
    const wrong = await ada
      .post('/api/people')
      .send({ name: 'Bo', password: 'short', role: 'operator' })
      .expect(400);
    expect(wrong.body.message).toContain('10 letters');
    const added = await ada
      .post('/api/people')
      .send({ name: 'Bo', password: 'bo at the mill', role: 'operator' })
      .expect(201);
    await ada
      .post('/api/people')
      .send({ name: 'bo', password: 'bo at the mill', role: 'operator' })
      .expect(409);
    const bo = await browser('Bo', 'bo at the mill');
    await bo.get('/api/jobs').expect(200);
    await bo.delete('/api/library/tools/x').expect(403);
    await bo.get('/api/people').expect(403);
    // Another password ends the sessions of the old one.
    await ada.patch(`/api/people/${added.body.id}`).send({ password: 'bo at the lathe' }).expect(200);
    await bo.get('/api/jobs').expect(401);
    await ada.delete(`/api/people/${added.body.id}`).expect(204);
    expect((await ada.get('/api/people')).body).toHaveLength(1);
  });

  it('somebody always stays who may add people', async () => {
    const ada = await browser('Ada');
    const [{ id }] = (await ada.get('/api/people')).body as [{ id: string }];
    await ada.patch(`/api/people/${id}`).send({ role: 'operator' }).expect(409);
    await ada.delete(`/api/people/${id}`).expect(409);
    await ada.get('/api/jobs').expect(200);
  });

  it('who changed what is kept, by the name that signed in and no other', async () => {
    const ada = await browser('Ada');
    const holder = (await ada.get('/api/library')).body.holders[0] as { id: string };
    await ada
      .put(`/api/library/holders/${holder.id}`)
      .set('x-yellow-pin-author', 'Mallory')
      .send(holder)
      .expect(200);
    const [last] = (await ada.get('/api/changes')).body as [{ who: string; what: string }];
    expect(last).toMatchObject({
      who: 'Ada',
      what: expect.stringMatching(/^stored .* in holders$/) as string,
    });
  });

  it('who has a job open is told to the others, until they leave', async () => {
    const job = await createJob(server.database, server.queue, {
      fileName: 'a.step',
      step: Buffer.from('x'),
    });
    const ada = await browser('Ada');
    const at = (tab: string) => ada.post(`/api/jobs/${job.id}/presence/${tab}`);
    expect((await at('one')).body).toEqual({ others: [] });
    expect((await at('two')).body).toEqual({ others: ['Ada'] });
    await ada.post(`/api/jobs/${job.id}/presence/two/leave`).expect(204);
    expect((await at('one')).body).toEqual({ others: [] });
    await at('no tab').expect(400);
  });

  it('after ten wrong tries one waits', async () => {
    const agent = await browser();
    const codes: number[] = [];
    for (let i = 0; i < 11; i++)
      codes.push((await agent.post('/api/sign-in').send({ name: 'Ada', password: 'wrong' })).status);
    expect(codes.slice(0, 8)).toEqual(Array(8).fill(401));
    expect(codes.at(-1)).toBe(429);
  });
});

describe.skipIf(!base)('on loopback', () => {
  it('it is open, as nobody is asked', async () => {
    const open = await testServer(base!, 'open', 1e6);
    expect((await open.client.get('/api/me')).body).toEqual({ isRequired: false, person: null });
    await open.client.get('/api/jobs').expect(200);
    await open.client.get('/api/people').expect(404);
    await open.close();
  }, 60_000);
});
