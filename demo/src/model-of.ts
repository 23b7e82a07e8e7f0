import type { Shape3D } from 'replicad';
import { isHole } from '@yellow-pin/core/features/family';
import type { HoleFeature } from '@yellow-pin/core/features/hole/schema';
import { recognise } from '@yellow-pin/core/features/recognise';
import type { SolidModel } from '@yellow-pin/core/model/solid-model';
import { readStep } from '@yellow-pin/kernel';
import { stepText } from './solids.ts';

export const encode = (text: string): Uint8Array<ArrayBuffer> => new TextEncoder().encode(text);

/** Solids as they are read back from their STEP file. */
export async function modelOf(bodies: Shape3D[], unit: 'MM' | 'INCH' = 'MM'): Promise<SolidModel> {
  return readStep(encode(await stepText(bodies, 'fixture', unit)));
}

/** The holes that are found in them. */
export async function holesOf(bodies: Shape3D[], unit: 'MM' | 'INCH' = 'MM'): Promise<HoleFeature[]> {
  return recognise(await modelOf(bodies, unit)).features.filter(isHole);
}
