import { z } from 'zod';
import type { Drawing } from '@yellow-pin/core/drawing/read-dxf';
import { featureSchema } from '@yellow-pin/core/features/schema';
import { findableSchema } from '@yellow-pin/core/job/findable';
import { librarySchema, type Library } from '@yellow-pin/core/plan/library';
import type { ListName } from '@yellow-pin/core/plan/library-items';
import { planSchema, type Plan } from '@yellow-pin/core/plan/plan';
import type { ReleaseDifference } from '@yellow-pin/core/release/difference';
import { releaseContentSchema, type ReleaseContent } from '@yellow-pin/core/release/schema';

const jobSchema = z.object({
  id: z.string(),
  name: z.string(),
  fileName: z.string(),
  status: z.enum(['reading', 'ready', 'failed', 'cancelled']),
  progress: z.number(),
  progressText: z.string(),
  error: z.string().nullable(),
  partRevision: z.number(),
  createdAt: z.string(),
});
export type Job = z.infer<typeof jobSchema>;

const listedSchema = jobSchema.extend({
  changedAt: z.string(),
  changedBy: z.string().nullable(),
  deletedAt: z.string().nullable(),
  planned: z.number().nullable(),
  total: z.number().nullable(),
  proof: z.enum(['nothing', 'open', 'wrong', 'proved']).nullable(),
  hasPicture: z.boolean(),
  /** Where in its plan the words of the search stand. */
  found: z.array(findableSchema),
});
/** A job as the list shows it. */
export type ListedJob = z.infer<typeof listedSchema>;

const pageSchema = z.object({
  jobs: z.array(listedSchema),
  total: z.number(),
  page: z.number(),
  pageSize: z.number(),
});
export type JobsOnPage = z.infer<typeof pageSchema>;

/** What is asked of the list of jobs. */
export interface ListQuery {
  search: string;
  sort: 'name' | 'file' | 'state' | 'made' | 'changed';
  order: 'up' | 'down';
  page: number;
  bin: boolean;
}

const uploadedSchema = jobSchema.extend({
  /** Another job whose part came from the very same file. */
  same: z.object({ id: z.string(), name: z.string() }).nullable(),
});
export type UploadedJob = z.infer<typeof uploadedSchema>;

const notesSchema = z.array(z.object({ code: z.string(), message: z.string() }));

const openSchema = z.object({
  job: jobSchema,
  features: z.array(featureSchema),
  notes: notesSchema,
  plan: planSchema.nullable(),
  revision: z.number(),
  /** Made by our own server; its shape is the core's. */
  drawing: z.custom<Drawing>((v) => typeof v === 'object' && v !== null && 'outlines' in v).nullable(),
  pending: z
    .object({ revision: z.number(), fileName: z.string(), status: z.enum(['reading', 'ready', 'failed']) })
    .nullable(),
});
export type OpenJob = z.infer<typeof openSchema>;

const revisionSchema = z.object({
  revision: z.number(),
  fileName: z.string(),
  status: z.enum(['reading', 'ready', 'failed']),
  progress: z.number(),
  progressText: z.string(),
  error: z.string().nullable(),
  features: z.array(featureSchema),
  notes: notesSchema,
});
export type PartRevision = z.infer<typeof revisionSchema>;

const importSchema = z.object({
  taken: z.number(),
  left: z.array(z.object({ index: z.number(), message: z.string() })),
  library: librarySchema,
});
/** What became of a list that was taken in: bad entries by their place in it. */
export type ImportAnswer = z.infer<typeof importSchema>;

const personSchema = z.object({ id: z.string(), name: z.string(), role: z.enum(['programmer', 'operator']) });
/** Somebody who may sign in. */
export type Person = z.infer<typeof personSchema>;
const meSchema = z.object({ isRequired: z.boolean(), person: personSchema.nullable() });
/** Whether one signs in here, and who did. */
export type Me = z.infer<typeof meSchema>;

const changeSchema = z.object({
  at: z.string(),
  who: z.string().nullable(),
  what: z.string(),
  jobId: z.string().nullable(),
  job: z.string().nullable(),
});
export type Change = z.infer<typeof changeSchema>;

const releaseSchema = z.object({
  number: z.number(),
  planRevision: z.number(),
  partRevision: z.number(),
  status: z.enum(['proving', 'ready', 'failed', 'cancelled']),
  progress: z.number(),
  progressText: z.string(),
  error: z.string().nullable(),
  author: z.string().nullable(),
  remark: z.string(),
  createdAt: z.string(),
  sha256: z.string().nullable(),
  isOutOfDate: z.boolean(),
});
export type Release = z.infer<typeof releaseSchema>;

const noteSchema = z.object({
  id: z.string(),
  release: z.number().nullable(),
  setup: z.string().nullable(),
  text: z.string(),
  author: z.string().nullable(),
  createdAt: z.string(),
  doneAt: z.string().nullable(),
  doneBy: z.string().nullable(),
});
/** What somebody at the machine wrote. */
export type FloorNote = z.infer<typeof noteSchema>;

const onFloorSchema = z.object({
  id: z.string(),
  name: z.string(),
  number: z.number(),
  createdAt: z.string(),
  author: z.string().nullable(),
  remark: z.string(),
  machine: z.string(),
  setups: z.number(),
});
/** A job that is released, as the floor's list shows it. */
export type OnFloor = z.infer<typeof onFloorSchema>;

const floorJobSchema = z.object({
  release: releaseSchema,
  content: releaseContentSchema,
  notes: z.array(noteSchema),
});
export type FloorJob = z.infer<typeof floorJobSchema>;

const sentSchema = z.object({ name: z.string(), lines: z.number(), differs: z.number().nullable() });
/** What became of a file that was sent to the machine: the first line that came back otherwise, or none. */
export type SentFile = z.infer<typeof sentSchema>;

/** Made by our own server; its shape is the core's. */
const differenceSchema = z.custom<ReleaseDifference>(
  (v) => typeof v === 'object' && v !== null && 'plan' in v,
);

/** What went wrong, in the server's own words. */
export class ApiError extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    message: string,
  ) {
    super(message);
  }
}

const failureSchema = z.object({ code: z.string(), message: z.string() });

/** Where the name is kept that changes are signed with, in this browser. */
const AUTHOR = 'yellow-pin/author';
export const author = {
  get: (): string => localStorage.getItem(AUTHOR) ?? '',
  set: (name: string): void => localStorage.setItem(AUTHOR, name),
};

function withAuthor(init: RequestInit | undefined): RequestInit | undefined {
  const name = author.get();
  if (!init?.method || name === '') return init;
  return { ...init, headers: { ...init.headers, 'X-Yellow-Pin-Author': encodeURIComponent(name) } };
}

/** One request and its answer; throws {@link ApiError} when there is no answer. */
async function ask(path: string, init?: RequestInit): Promise<{ response: Response; body: unknown }> {
  try {
    const response = await fetch(path, withAuthor(init));
    const body: unknown = response.status === 204 ? undefined : await response.json().catch(() => undefined);
    return { response, body };
  } catch {
    throw new ApiError(
      0,
      'offline',
      'The server does not answer. Is npm start still running? Nothing was lost here.',
    );
  }
}

async function call<T>(path: string, schema: z.ZodType<T>, init?: RequestInit): Promise<T> {
  let { response, body } = await ask(path, init);
  if (codeOf(body) === 'no-session') {
    // The browser has forgotten the server's cookie, or this is another database: a fresh one, and once more.
    await ask('/api/session');
    ({ response, body } = await ask(path, init));
  }
  if (!response.ok) {
    const failure = failureSchema.safeParse(body);
    throw failure.success
      ? new ApiError(response.status, failure.data.code, failure.data.message)
      : new ApiError(response.status, 'unknown', `The server answered ${response.status}. Try again.`);
  }
  return schema.parse(body);
}

const codeOf = (body: unknown): string | undefined => failureSchema.safeParse(body).data?.code;

const json = (method: string, body: unknown): RequestInit => ({
  method,
  headers: { 'Content-Type': 'application/json' },
  body: JSON.stringify(body),
});
const nothing = z.unknown();

/** Sends a file as a new job and tells how much of it is gone, 0 to 1: what `fetch` cannot do. */
function uploadWith(
  file: File,
  onProgress: (share: number) => void,
  signal: AbortSignal,
  isSecond = false,
): Promise<UploadedJob> {
  return new Promise((resolve, reject) => {
    const request = new XMLHttpRequest();
    const body = new FormData();
    body.append('file', file);
    request.open('POST', '/api/jobs');
    if (author.get()) request.setRequestHeader('X-Yellow-Pin-Author', encodeURIComponent(author.get()));
    request.upload.onprogress = (e) => e.lengthComputable && onProgress(e.loaded / e.total);
    request.onerror = () =>
      reject(new ApiError(0, 'offline', 'The server does not answer. Is npm start still running?'));
    request.onabort = () => reject(new ApiError(0, 'cancelled', 'Sending was cancelled.'));
    request.onload = () => {
      const answer = parsed(request.responseText);
      if (codeOf(answer) === 'no-session' && !isSecond) {
        ask('/api/session')
          .then(() => uploadWith(file, onProgress, signal, true))
          .then(resolve, reject);
        return;
      }
      const job = uploadedSchema.safeParse(answer);
      if (job.success && request.status < 300) return resolve(job.data);
      const failure = failureSchema.safeParse(answer).data;
      reject(
        new ApiError(
          request.status,
          failure?.code ?? 'unknown',
          failure?.message ?? `The server answered ${request.status}. Try again.`,
        ),
      );
    };
    signal.addEventListener('abort', () => request.abort());
    request.send(body);
  });
}

function parsed(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return undefined;
  }
}

export const api = {
  jobs: ({ search, sort, order, page, bin }: ListQuery): Promise<JobsOnPage> =>
    call(
      `/api/jobs?${new URLSearchParams({ search, sort, order, page: String(page), bin: bin ? '1' : '0' }).toString()}`,
      pageSchema,
    ),
  jobNames: (): Promise<{ id: string; name: string }[]> =>
    call('/api/jobs/names', z.array(z.object({ id: z.string(), name: z.string() }))),
  summary: (
    id: string,
    summary: { revision: number; planned: number; total: number; proof: NonNullable<ListedJob['proof']> },
  ): Promise<unknown> => call(`/api/jobs/${id}/summary`, nothing, json('PUT', summary)),
  rename: (id: string, name: string): Promise<Job> =>
    call(`/api/jobs/${id}`, jobSchema, json('PATCH', { name })),
  copy: (id: string): Promise<Job> => call(`/api/jobs/${id}/copy`, jobSchema, { method: 'POST' }),
  purge: (id: string): Promise<unknown> => call(`/api/jobs/${id}?forever=1`, nothing, { method: 'DELETE' }),
  job: (id: string): Promise<OpenJob> => call(`/api/jobs/${id}`, openSchema),
  library: (): Promise<Library> => call('/api/library', librarySchema),
  putItem: (list: ListName, item: { id: string }): Promise<Library> =>
    call(`/api/library/${list}/${encodeURIComponent(item.id)}`, librarySchema, json('PUT', item)),
  removeItem: (list: ListName, id: string): Promise<Library> =>
    call(`/api/library/${list}/${encodeURIComponent(id)}`, librarySchema, { method: 'DELETE' }),
  importItems: (list: ListName, items: readonly unknown[]): Promise<ImportAnswer> =>
    call(`/api/library/${list}/import`, importSchema, json('POST', { items })),
  upload: (file: File): Promise<UploadedJob> => {
    const body = new FormData();
    body.append('file', file);
    return call('/api/jobs', uploadedSchema, { method: 'POST', body });
  },
  uploadWith,
  savePlan: async (id: string, revision: number, plan: Plan): Promise<number> =>
    (await call(`/api/jobs/${id}/plan`, z.object({ revision: z.number() }), json('PUT', { revision, plan })))
      .revision,
  addRevision: async (id: string, file: File): Promise<number> => {
    const body = new FormData();
    body.append('file', file);
    return (
      await call(`/api/jobs/${id}/revisions`, z.object({ revision: z.number() }), { method: 'POST', body })
    ).revision;
  },
  revision: (id: string, revision: number): Promise<PartRevision> =>
    call(`/api/jobs/${id}/revisions/${revision}`, revisionSchema),
  acceptRevision: (id: string, part: number, revision: number, plan: Plan): Promise<unknown> =>
    call(`/api/jobs/${id}/revisions/${part}/accept`, nothing, json('POST', { revision, plan })),
  retryRevision: (id: string, part: number): Promise<unknown> =>
    call(`/api/jobs/${id}/revisions/${part}/retry`, nothing, { method: 'POST' }),
  discardRevision: (id: string, part: number): Promise<unknown> =>
    call(`/api/jobs/${id}/revisions/${part}`, nothing, { method: 'DELETE' }),
  remove: async (id: string): Promise<void> =>
    void (await call(`/api/jobs/${id}`, nothing, { method: 'DELETE' })),
  restore: (id: string): Promise<Job> => call(`/api/jobs/${id}/restore`, jobSchema, { method: 'POST' }),
  retry: (id: string): Promise<Job> => call(`/api/jobs/${id}/retry`, jobSchema, { method: 'POST' }),
  cancel: (id: string): Promise<Job> => call(`/api/jobs/${id}/cancel`, jobSchema, { method: 'POST' }),
  me: (): Promise<Me> => call('/api/me', meSchema),
  signIn: (name: string, password: string): Promise<Me> =>
    call('/api/sign-in', meSchema, json('POST', { name, password })),
  signOut: (): Promise<unknown> => call('/api/sign-out', nothing, { method: 'POST' }),
  people: (): Promise<Person[]> => call('/api/people', z.array(personSchema)),
  addPerson: (person: { name: string; password: string; role: Person['role'] }): Promise<Person> =>
    call('/api/people', personSchema, json('POST', person)),
  changePerson: (id: string, change: { role?: Person['role']; password?: string }): Promise<Person> =>
    call(`/api/people/${id}`, personSchema, json('PATCH', change)),
  removePerson: (id: string): Promise<unknown> => call(`/api/people/${id}`, nothing, { method: 'DELETE' }),
  changes: (): Promise<Change[]> => call('/api/changes', z.array(changeSchema)),
  presence: async (id: string, tab: string): Promise<(string | null)[]> =>
    (
      await call(`/api/jobs/${id}/presence/${tab}`, z.object({ others: z.array(z.string().nullable()) }), {
        method: 'POST',
      })
    ).others,
  leave: (id: string, tab: string): Promise<unknown> =>
    call(`/api/jobs/${id}/presence/${tab}/leave`, nothing, { method: 'POST', keepalive: true }),
  releases: (id: string): Promise<Release[]> => call(`/api/jobs/${id}/releases`, z.array(releaseSchema)),
  release: (id: string, remark: string): Promise<{ number: number }> =>
    call(`/api/jobs/${id}/releases`, z.object({ number: z.number() }), json('POST', { remark })),
  cancelRelease: (id: string, number: number): Promise<unknown> =>
    call(`/api/jobs/${id}/releases/${number}/cancel`, nothing, { method: 'POST' }),
  releaseContent: async (id: string, number: number): Promise<ReleaseContent> =>
    (await call(`/api/jobs/${id}/releases/${number}`, z.object({ content: releaseContentSchema }))).content,
  releaseDifference: (id: string, newer: number, older: number): Promise<ReleaseDifference> =>
    call(`/api/jobs/${id}/releases/${newer}/since/${older}`, differenceSchema),
  sendRelease: (id: string, number: number): Promise<SentFile[]> =>
    call(`/api/jobs/${id}/releases/${number}/send`, z.array(sentSchema), { method: 'POST' }),
  notes: (id: string): Promise<FloorNote[]> => call(`/api/jobs/${id}/notes`, z.array(noteSchema)),
  settleNote: (id: string, note: string, isDone: boolean): Promise<unknown> =>
    call(`/api/jobs/${id}/notes/${note}`, nothing, json('PATCH', { isDone })),
  floor: (): Promise<OnFloor[]> => call('/api/floor', z.array(onFloorSchema)),
  floorJob: (id: string): Promise<FloorJob> => call(`/api/floor/${id}`, floorJobSchema),
  addNote: (id: string, note: { text: string; setup: string | null; release: number }): Promise<FloorNote> =>
    call(`/api/floor/${id}/notes`, noteSchema, json('POST', note)),
};
