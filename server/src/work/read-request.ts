import type { DrawingDepths } from '@yellow-pin/core/drawing/depths';
import type { Drawing } from '@yellow-pin/core/drawing/read-dxf';
import type { Feature } from '@yellow-pin/core/features/family';
import type { ModelNote } from '@yellow-pin/core/model/solid-model';

/** Steps in which the reading process is made quick, each about a second at the most. */
export const WARM_STEPS = 12;

/** A part to be read from its file, or looked at again from its stored model; or a step of getting ready for the first of them. */
export type ReadRequest =
  | { kind: 'warm'; step: number }
  | { kind: 'file'; packed: Uint8Array; fileName: string; sizeLimit: number }
  | { kind: 'model'; model: Uint8Array };

export interface ReadPart {
  /** The solid model as gzipped JSON; null where the stored one was looked at again. */
  model: Uint8Array | null;
  name: string;
  units: 'mm' | 'inch';
  features: Feature[];
  notes: ModelNote[];
  /** A 2D drawing and the depths that it starts with; null for solids. */
  drawing: Drawing | null;
  depths: DrawingDepths | null;
  /** A small picture of it, PNG. */
  picture: Uint8Array;
}
