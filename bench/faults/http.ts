import { connect } from 'node:net';
import { chance } from '@yellow-pin/demo/mutate';
import { plateStep } from '@yellow-pin/demo/plate-step';
import { KILLERS } from './killers.ts';
import { atMost, type Figure } from './report.ts';
import { settled, sleep, startServer, upload, watch, type RunningServer } from './server.ts';

/** Slowest answer of the health while files are looked at and read, ms. */
const CALM = 1000;

/** Every single killer by HTTP: answered, and the server answers throughout. */
export async function killersByHttp(databaseUrl: string): Promise<Figure[]> {
  const server = await startServer(databaseUrl, { YELLOW_PIN_READ_SECONDS: '20' });
  const calm = watch(server);
  let [stuck, wrong] = [0, 0];
  for (const { what, name, text } of KILLERS) {
    const { status, body } = await upload(server, text(), name);
    if (status >= 500 || (status !== 201 && !body.code)) {
      wrong++;
      console.log(`     ${what}: ${status} ${JSON.stringify(body)}`);
    }
    if (body.id && (await settled(server, body.id)) === 'stuck') {
      stuck++;
      console.log(`     ${what}: stuck`);
    }
  }
  const good = await upload(server, plateStep({ holes: 4 }));
  const last = await settled(server, good.body.id ?? '');
  const { slowest, missing } = await calm();
  await server.stop();
  return [
    atMost(`${KILLERS.length} killers by HTTP: not answered with a word`, wrong, 0),
    atMost('  imports that never end', stuck, 0),
    atMost('  good file after them not read', last === 'ready' ? 0 : 1, 0),
    atMost('  health answers missing', missing, 0),
    atMost('  slowest health answer', Math.round(slowest), CALM, 'ms'),
  ];
}

/** Eight files of 99 MB at once. */
export async function manyLarge(databaseUrl: string, count: number): Promise<Figure[]> {
  const size = 99 * 1048576;
  // Text that hardly packs, so that the worst is seen: as a whole file, which is stored.
  const random = chance(1);
  const bytes = new Uint8Array(size);
  bytes.set(new TextEncoder().encode('ISO-10303-21;DATA;#1=X();'));
  for (let i = 32; i < size; i++) bytes[i] = 48 + Math.floor(random() * 10);
  bytes.set(new TextEncoder().encode('\nEND-ISO-10303-21;'), size - 18);
  const file = new Blob([bytes]);
  const server = await startServer(databaseUrl);
  await sleep(3000);
  const before = server.memory();
  const calm = watch(server);
  const answers = await Promise.all(Array.from({ length: count }, () => upload(server, file)));
  const { slowest, missing, memory } = await calm();
  for (const { body } of answers)
    if (body.id)
      await fetch(`${server.url}/api/jobs/${body.id}`, { method: 'DELETE', headers: server.headers });
  await server.stop();
  const bad = answers.filter((a) => a.status >= 500).length;
  return [
    atMost(`${count} files of 99 MB at once: answered with a server's error`, bad, 0),
    atMost('  memory above idle, server and its processes', Math.round(memory - before), 1200, 'MB'),
    atMost('  health answers missing', missing, 0),
    atMost('  slowest health answer', Math.round(slowest), CALM, 'ms'),
  ];
}

/** A request as it goes over the wire: what no client library would send. */
function raw(server: RunningServer, text: string | Buffer): Promise<string> {
  const { port } = new URL(server.url);
  return new Promise((resolve) => {
    const socket = connect(Number(port), '127.0.0.1');
    let answer = '';
    const done = (): void => {
      socket.destroy();
      resolve(answer);
    };
    socket.setTimeout(5000, done);
    socket.on('data', (chunk: Buffer) => {
      answer += chunk.toString('latin1');
      if (answer.includes('\r\n\r\n')) setTimeout(done, 20);
    });
    socket.on('error', done);
    socket.on('close', done);
    socket.write(text);
  });
}

const METHODS = ['GET', 'POST', 'PUT', 'PATCH', 'DELETE', 'OPTIONS', 'HEAD', 'TRACE', 'PROPFIND'];
const TYPES = [
  'application/json',
  'application/json; charset=utf-8',
  'application/json; charset=klingon',
  'text/plain',
  'multipart/form-data; boundary=b',
  'multipart/form-data',
  'application/x-www-form-urlencoded',
  'application/json-patch+json',
  '',
];
const BODIES = [
  '',
  '{',
  'null',
  '"x"',
  '[]',
  '{}',
  '{"name":"a\\u0000b"}',
  '{"name":"\\ud800"}',
  '{"name":{"$gt":""}}',
  '{"__proto__":{"x":1},"name":"n"}',
  `{"name":"${'x'.repeat(20_000)}"}`,
  `${'['.repeat(9000)}${']'.repeat(9000)}`,
  '{"revision":1,"plan":{"format":"yellow-pin/plan@1","units":"mm","setups":[null,7,"x",{"up":"+Q"}]}}',
  '{"revision":1e999,"plan":null}',
  '{"revision":-1,"plan":{"format":"yellow-pin/plan@2","setups":{"length":3},"sizes":"abc","toolOrder":[1]}}',
  '--b\r\nContent-Disposition: form-data; name="file"; filename="a.step"\r\n\r\nISO-10303-21;',
  '--b\r\nContent-Disposition: form-data; name="file"; filename="a\\0.step"\r\n\r\nx\r\n--b--\r\n',
  '--b\r\nContent-Disposition: form-data; name="other"; filename="../../etc/x"\r\n\r\nx\r\n--b--\r\n',
  '--b\r\nnonsense\r\n--b--',
  '\xff\xfe\x00',
];

/** Nonsense of every kind: always an answer below 500, never a stack. */
export async function hostileRequests(databaseUrl: string, count: number): Promise<Figure[]> {
  const server = await startServer(databaseUrl);
  const { body } = await upload(server, plateStep({ holes: 2 }));
  const id = body.id ?? '';
  await settled(server, id);
  const open = (await (await fetch(`${server.url}/api/jobs/${id}`)).json()) as {
    plan: unknown;
    revision: number;
  };
  const oddPlans = oddPlansOf(open.plan as Record<string, unknown>);
  const paths = [
    '/api/jobs',
    '/api/jobs/',
    `/api/jobs/${id}`,
    `/api/jobs/${id}/plan`,
    `/api/jobs/${id}/model?revision=1e99`,
    `/api/jobs/${id}/model?revision=1&revision=2`,
    `/api/jobs/${id}/revisions`,
    `/api/jobs/${id}/revisions/0/accept`,
    `/api/jobs/${id}/revisions/99999/accept`,
    `/api/jobs/${id}/revisions/1/retry`,
    `/api/jobs/${id}/cancel`,
    `/api/jobs/${id}/restore`,
    `/api/jobs/${id}/retry`,
    '/api/jobs/00000000-0000-4000-8000-000000000000/plan',
    '/api/jobs/%00',
    '/api/jobs/%E0%A4%A',
    '/api/jobs/%ff%fe/plan',
    `/api/jobs/${'a'.repeat(5000)}`,
    '/api/library',
    '/api/session',
    '/api/../../etc/passwd',
    '/%2e%2e/%2e%2e/etc/passwd',
    '/assets/..%2f..%2fpackage.json',
    '/%',
    '/api/nothing?%=%',
  ];
  const random = chance(7);
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!;
  let [failed, stacks, silent] = [0, 0, 0];
  const judge = (what: string, answer: string): void => {
    const status = Number(/^HTTP\/1\.1 (\d+)/.exec(answer)?.[1] ?? 0);
    if (status === 0) silent++;
    if (status >= 500) failed++;
    if (/\n\s+at |node_modules/.test(answer)) stacks++;
    if (status >= 500 || status === 0) console.log(`     ${status} for ${what.slice(0, 160)}`);
  };
  let left = count;
  const lane = async (): Promise<void> => {
    while (left-- > 0) await ask();
  };
  const ask = async (): Promise<void> => {
    const payload = Buffer.from(
      random() < 0.15 ? JSON.stringify({ revision: open.revision, plan: pick(oddPlans) }) : pick(BODIES),
      'latin1',
    );
    const type = pick(TYPES);
    const [method, path] = [pick(METHODS), pick(paths)];
    const head = [
      `${method} ${path} HTTP/1.1`,
      `Host: ${new URL(server.url).host}`,
      'Connection: close',
      ...(random() < 0.9 ? [`Cookie: ${server.headers['cookie']}`] : ['Cookie: yellow_pin_session=a.b; %%%']),
      ...(type ? [`Content-Type: ${type}`] : []),
      ...(random() < 0.1 ? ['Content-Encoding: gzip'] : []),
      ...(random() < 0.05 ? ['Content-Encoding: zebra'] : []),
      ...(random() < 0.1 ? ['Accept-Encoding: identity;q=0'] : []),
      ...(random() < 0.05 ? ['Range: bytes=9-1'] : []),
      ...(random() < 0.05 ? ['If-None-Match: "\x01"'] : []),
      `Content-Length: ${payload.length}`,
    ].join('\r\n');
    judge(
      `${method} ${path} ${type} ${payload.toString('latin1').slice(0, 60)}`,
      await raw(server, Buffer.concat([Buffer.from(`${head}\r\n\r\n`, 'latin1'), payload])),
    );
  };
  await Promise.all(Array.from({ length: 8 }, lane));
  const health = await fetch(`${server.url}/api/health`).then((r) => r.ok);
  await server.stop();
  return [
    atMost(`${count} hostile requests: answered with a server's error`, failed, 0),
    atMost('  not answered at all', silent, 0),
    atMost('  answers with a stack', stacks, 0),
    atMost('  server gone afterwards', health ? 0 : 1, 0),
  ];
}

/** A plan with one of its values replaced by what is none. */
function oddPlansOf(plan: Record<string, unknown>): unknown[] {
  const odd = [null, -1, 1e308, 'x', [], {}, [null], { a: null }, 'y'.repeat(1000), true];
  return Object.keys(plan)
    .flatMap((key) => odd.map((value) => ({ ...plan, [key]: value }) as unknown))
    .concat([
      {
        ...plan,
        sizes: Object.fromEntries(Array.from({ length: 20_000 }, (_, i) => [`k${i}`, { overrides: {} }])),
      },
      { ...plan, toolOrders: { s1: Array.from({ length: 50_000 }, () => 'x') } },
      { ...plan, materialId: 'm'.repeat(1e6) },
    ]);
}
