import { EntitySchema } from 'typeorm';
import type { Feature } from '@yellow-pin/core/features/family';
import type { Drawing } from '@yellow-pin/core/drawing/read-dxf';
import type { Plan } from '@yellow-pin/core/plan/plan';
import type { ModelNote } from '@yellow-pin/core/model/solid-model';

/** Longest name of a job, letters. */
export const MAX_NAME = 120;
/** Longest name of a file that is kept, letters. */
export const MAX_FILE_NAME = 255;

export type JobStatus = 'reading' | 'ready' | 'failed' | 'cancelled';

export interface JobRow {
  id: string;
  name: string;
  fileName: string;
  status: JobStatus;
  /** 0 to 1 while reading, and what is being done. */
  progress: number;
  progressText: string;
  error: string | null;
  /** The revision of its part that the job works on. */
  partRevision: number;
  createdAt: Date;
  updatedAt: Date;
  deletedAt: Date | null;
  /** When its plan or name was last changed, and by whom as far as that was said. */
  changedAt: Date;
  changedBy: string | null;
}

export interface PartRow {
  jobId: string;
  revision: number;
  fileName: string;
  status: 'reading' | 'ready' | 'failed' | 'discarded';
  progress: number;
  progressText: string;
  error: string | null;
  /** The file, STEP or DXF: gzipped, or as it came in databases of before. */
  step: Buffer;
  /** The solid model as gzipped JSON; null until read. */
  model: Buffer | null;
  features: Feature[] | null;
  notes: ModelNote[] | null;
  /** What a DXF says; null for solids. */
  drawing: Drawing | null;
  /** Version of the recognisers that found the features. */
  recogniser: number;
  /** Who reads it now, and the last sign of life; see imports/claims.ts. */
  takenBy: string | null;
  heartbeatAt: Date | null;
  /** How often its reading was begun and not ended. */
  attempts: number;
  /** One of the shop's own sample parts, which starts with what its print says. */
  sample: boolean;
  /** A small picture of it, PNG; null until read. */
  picture: Buffer | null;
  /** SHA-256 of the file as it came, hex; null in databases of before. */
  fileHash: string | null;
  createdAt: Date;
}

export interface PlanRow {
  jobId: string;
  revision: number;
  plan: Plan;
  /** Who saved it, where that was said. */
  author: string | null;
  createdAt: Date;
}

export const JobEntity = new EntitySchema<JobRow>({
  name: 'job',
  tableName: 'jobs',
  columns: {
    id: { type: 'uuid', primary: true },
    name: { type: 'text' },
    fileName: { type: 'text', name: 'file_name' },
    status: { type: 'text' },
    progress: { type: 'real', default: 0 },
    progressText: { type: 'text', name: 'progress_text', default: '' },
    error: { type: 'text', nullable: true },
    partRevision: { type: 'integer', name: 'part_revision', default: 1 },
    createdAt: { type: 'timestamptz', name: 'created_at', createDate: true },
    updatedAt: { type: 'timestamptz', name: 'updated_at', updateDate: true },
    deletedAt: { type: 'timestamptz', name: 'deleted_at', nullable: true, deleteDate: true },
    changedAt: { type: 'timestamptz', name: 'changed_at', default: () => 'now()' },
    changedBy: { type: 'text', name: 'changed_by', nullable: true },
  },
});

export const PartEntity = new EntitySchema<PartRow>({
  name: 'part',
  tableName: 'parts',
  columns: {
    jobId: { type: 'uuid', name: 'job_id', primary: true },
    revision: { type: 'integer', primary: true },
    fileName: { type: 'text', name: 'file_name', default: '' },
    status: { type: 'text', default: 'ready' },
    progress: { type: 'real', default: 0 },
    progressText: { type: 'text', name: 'progress_text', default: '' },
    error: { type: 'text', nullable: true },
    step: { type: 'bytea' },
    model: { type: 'bytea', nullable: true },
    features: { type: 'jsonb', nullable: true },
    notes: { type: 'jsonb', nullable: true },
    drawing: { type: 'jsonb', nullable: true },
    recogniser: { type: 'integer', default: 1 },
    takenBy: { type: 'text', name: 'taken_by', nullable: true },
    heartbeatAt: { type: 'timestamptz', name: 'heartbeat_at', nullable: true },
    attempts: { type: 'integer', default: 0 },
    sample: { type: 'boolean', default: false },
    picture: { type: 'bytea', nullable: true },
    fileHash: { type: 'text', name: 'file_hash', nullable: true },
    createdAt: { type: 'timestamptz', name: 'created_at', createDate: true },
  },
});

export const PlanEntity = new EntitySchema<PlanRow>({
  name: 'plan',
  tableName: 'plans',
  columns: {
    jobId: { type: 'uuid', name: 'job_id', primary: true },
    revision: { type: 'integer', primary: true },
    plan: { type: 'jsonb' },
    author: { type: 'text', nullable: true },
    createdAt: { type: 'timestamptz', name: 'created_at', createDate: true },
  },
});
