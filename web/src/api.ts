import { z } from 'zod';
import type { Drawing } from '@yellow-pin/core/drawing/read-dxf';
import { featureSchema } from '@yellow-pin/core/features/schema';
import { librarySchema, type Library } from '@yellow-pin/core/job/library';
import { planSchema, type Plan } from '@yellow-pin/core/job/plan';

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

const notesSchema = z.array(z.object({ code: z.string(), message: z.string() }));

const openSchema = z.object({
  job: jobSchema,
  features: z.array(featureSchema),
  notes: notesSchema,
  plan: planSchema.nullable(),
  revision: z.number(),
  /** Made by our own server; its shape is the core's. */
  drawing: z.custom<Drawing>((v) => typeof v === 'object' && v !== null && 'outlines' in v).nullable(),
  pending: z.object({ revision: z.number(), fileName: z.string(), status: z.enum(['reading', 'ready', 'failed']) }).nullable(),
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

async function call<T>(path: string, schema: z.ZodType<T>, init?: RequestInit): Promise<T> {
  let response: Response;
  try {
    response = await fetch(path, init);
  } catch {
    throw new ApiError(0, 'offline', 'The server does not answer. Is npm start still running? Nothing was lost here.');
  }
  const body: unknown = response.status === 204 ? undefined : await response.json().catch(() => undefined);
  if (!response.ok) {
    const failure = failureSchema.safeParse(body);
    throw failure.success
      ? new ApiError(response.status, failure.data.code, failure.data.message)
      : new ApiError(response.status, 'unknown', `The server answered ${response.status}. Try again.`);
  }
  return schema.parse(body);
}

const json = (method: string, body: unknown): RequestInit => ({ method, headers: { 'Content-Type': 'application/json' }, body: JSON.stringify(body) });
const nothing = z.unknown();

export const api = {
  jobs: (): Promise<Job[]> => call('/api/jobs', z.array(jobSchema)),
  job: (id: string): Promise<OpenJob> => call(`/api/jobs/${id}`, openSchema),
  library: (): Promise<Library> => call('/api/library', librarySchema),
  upload: (file: File): Promise<Job> => {
    const body = new FormData();
    body.append('file', file);
    return call('/api/jobs', jobSchema, { method: 'POST', body });
  },
  savePlan: async (id: string, revision: number, plan: Plan): Promise<number> =>
    (await call(`/api/jobs/${id}/plan`, z.object({ revision: z.number() }), json('PUT', { revision, plan }))).revision,
  addRevision: async (id: string, file: File): Promise<number> => {
    const body = new FormData();
    body.append('file', file);
    return (await call(`/api/jobs/${id}/revisions`, z.object({ revision: z.number() }), { method: 'POST', body })).revision;
  },
  revision: (id: string, revision: number): Promise<PartRevision> => call(`/api/jobs/${id}/revisions/${revision}`, revisionSchema),
  acceptRevision: (id: string, part: number, revision: number, plan: Plan): Promise<unknown> =>
    call(`/api/jobs/${id}/revisions/${part}/accept`, nothing, json('POST', { revision, plan })),
  discardRevision: (id: string, part: number): Promise<unknown> => call(`/api/jobs/${id}/revisions/${part}`, nothing, { method: 'DELETE' }),
  remove: async (id: string): Promise<void> => void (await call(`/api/jobs/${id}`, nothing, { method: 'DELETE' })),
  restore: (id: string): Promise<Job> => call(`/api/jobs/${id}/restore`, jobSchema, { method: 'POST' }),
  cancel: (id: string): Promise<Job> => call(`/api/jobs/${id}/cancel`, jobSchema, { method: 'POST' }),
};
