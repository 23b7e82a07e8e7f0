import { Router, type Request, type RequestHandler } from 'express';
import session from 'express-session';
import connectPg from 'connect-pg-simple';
import { rateLimit } from 'express-rate-limit';
import pg from 'pg';
import type { DataSource } from 'typeorm';
import { z } from 'zod';
import { HttpError } from '../errors.ts';
import { jsonBody } from '../http/json-door.ts';
import { noteChange } from './changes.ts';
import {
  addPerson,
  changePerson,
  changePersonSchema,
  checkPassword,
  findPerson,
  listPeople,
  newPersonSchema,
  removePerson,
  type Person,
} from './people.ts';

declare module 'express-session' {
  interface SessionData {
    /** Id of who signed in. */
    person: string;
  }
}

/** Who asks; null where nobody signs in here. Kept beside the request, so that it can only come from its session. */
const askers = new WeakMap<Request, Person>();
export const askerOf = (request: Request): Person | null => askers.get(request) ?? null;

export interface SignInOptions {
  database: DataSource;
  /** The database's address, for the sessions' own connections. */
  databaseUrl: string;
  secret: string;
  /** On a network everybody signs in; on loopback it is open. */
  isRequired: boolean;
}

export interface SignIn {
  /** Before everything that is asked of the API. */
  handlers: RequestHandler[];
  routes: Router;
  close(): Promise<void>;
}

const WEEK = 7 * 24 * 3600_000;
/** Wrong tries that one address has in a quarter of an hour, and one name from any address. */
const TRIES = 10;
const WINDOW = 15 * 60_000;

const smallBody = jsonBody(4000);
const signInSchema = z.object({ name: z.string().min(1).max(200), password: z.string().min(1).max(400) });

/** Signing in with name and password: sessions in PostgreSQL, tries limited, roles kept apart. */
export function signIn({ database, databaseUrl, secret, isRequired }: SignInOptions): SignIn {
  const routes = Router();
  if (!isRequired) {
    routes.get('/me', (_, response) => void response.json({ isRequired: false, person: null }));
    return { handlers: [], routes, close: () => Promise.resolve() };
  }
  const pool = new pg.Pool({ connectionString: databaseUrl, max: 3 });
  pool.on('error', () => undefined);
  const Store = connectPg(session);
  const sessions = session({
    name: 'yellow_pin_person',
    secret,
    store: new Store({ pool, tableName: 'sessions', pruneSessionInterval: 3600 }),
    resave: false,
    saveUninitialized: false,
    rolling: true,
    cookie: { httpOnly: true, sameSite: 'strict', maxAge: WEEK },
  });
  const who: RequestHandler = async (request, _, next) => {
    const { person } = request.session;
    const found = person ? await findPerson(database, person) : null;
    if (found) askers.set(request, found);
    next();
  };
  routes.get(
    '/me',
    (request, response) => void response.json({ isRequired: true, person: askerOf(request) }),
  );
  routes.post('/sign-in', ...tries(), async (request, response) => {
    const { name, password } = signInSchema.parse(request.body);
    const person = await checkPassword(database, name, password);
    if (!person)
      throw new HttpError(
        401,
        'wrong-password',
        'Name or password is wrong. Try again, or ask a programmer.',
      );
    // Another session number than before: nobody can have laid one out beforehand.
    await new Promise<void>((resolve, reject) =>
      request.session.regenerate((e: unknown) => (e ? reject(e as Error) : resolve())),
    );
    request.session.person = person.id;
    response.json({ isRequired: true, person });
  });
  routes.post('/sign-out', async (request, response) => {
    await new Promise<void>((resolve) => request.session.destroy(() => resolve()));
    response.status(204).end();
  });
  routes.use('/people', onlyProgrammers, peopleRoutes(database));
  return { handlers: [sessions, who], routes, close: () => pool.end() };
}

function tries(): RequestHandler[] {
  const limit = (keyGenerator?: (request: Request) => string) =>
    rateLimit({
      windowMs: WINDOW,
      limit: TRIES,
      skipSuccessfulRequests: true,
      standardHeaders: false,
      legacyHeaders: false,
      validate: { xForwardedForHeader: false },
      ...(keyGenerator ? { keyGenerator } : {}),
      handler: () => {
        throw new HttpError(429, 'too-many-tries', 'Too many wrong tries. Wait a quarter of an hour.');
      },
    });
  return [limit(), ...smallBody, limit((r) => nameTried(r.body))];
}

const nameTried = (body: unknown): string => {
  const read = signInSchema.safeParse(body);
  return `name ${read.success ? read.data.name.trim().toLowerCase() : ''}`;
};

const onlyProgrammers: RequestHandler = (request, _, next) => {
  if (askerOf(request)?.role !== 'programmer')
    throw new HttpError(403, 'programmers-only', 'Only programmers may do that. Ask one of them.');
  next();
};

/** Lets nobody in who is not signed in, and operators only to what they need: to read, and to write notes. */
export const mayAsk =
  (isRequired: boolean): RequestHandler =>
  (request, _, next) => {
    if (!isRequired) return next();
    const person = askerOf(request);
    if (!person) throw new HttpError(401, 'sign-in', 'Sign in first.');
    const isRead = ['GET', 'HEAD'].includes(request.method);
    const isNote = request.method === 'POST' && /^\/api\/floor\/[^/]+\/notes$/.test(request.originalUrl);
    if (person.role === 'operator' && !isRead && !isNote)
      throw new HttpError(403, 'programmers-only', 'Only programmers may change that. Write a note instead.');
    next();
  };

function peopleRoutes(database: DataSource): Router {
  const router = Router();
  const idOf = (request: Request): string => z.uuid().parse(request.params['id']);
  const name = (request: Request): string | null => askerOf(request)?.name ?? null;
  router.get('/', async (_, response) => void response.json(await listPeople(database)));
  router.post('/', ...smallBody, async (request, response) => {
    const person = await addPerson(database, newPersonSchema.parse(request.body));
    await noteChange(database, name(request), `added ${person.name} as ${person.role}`);
    response.status(201).json(person);
  });
  router.patch('/:id', ...smallBody, async (request, response) => {
    const change = changePersonSchema.parse(request.body);
    const person = await changePerson(database, idOf(request), change);
    const what = [
      change.role && `made ${person.name} ${person.role}`,
      change.password && `gave ${person.name} another password`,
    ];
    await noteChange(database, name(request), what.filter(Boolean).join(' and '));
    response.json(person);
  });
  router.delete('/:id', async (request, response) => {
    const gone = await findPerson(database, idOf(request));
    await removePerson(database, idOf(request));
    if (gone) await noteChange(database, name(request), `took ${gone.name} away`);
    response.status(204).end();
  });
  return router;
}
