import { readFileSync } from 'node:fs';
import type { SolidModel } from '@yellow-pin/core/model/solid-model';
import { readStepModel } from '@yellow-pin/core/step/read';
import { demoPartPath } from './jobs.ts';
import { encode } from './model-of.ts';

/** A STEP text as our own reader reads it. */
export const own = (text: string): SolidModel => readStepModel(encode(text));
/** The text of a sample part. */
export const sampleText = (part: string): string => readFileSync(demoPartPath(part), 'utf8');
