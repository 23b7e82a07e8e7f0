import type { Vec3 } from '../geometry/vec.ts';
import type { BrepCurve, BrepSurface } from './geometry.ts';
import type { Matrix34 } from './matrix34.ts';

/** A use of a shape: where, and whether it is turned round. */
export interface ShapeRef {
  shape: number;
  reversed: boolean;
  location: Matrix34 | null;
}

export type BrepShape =
  | { type: 'vertex'; point: Vec3; children: ShapeRef[] }
  | {
      type: 'edge';
      curve: BrepCurve | null;
      location: Matrix34 | null;
      first: number;
      last: number;
      degenerate: boolean;
      children: ShapeRef[];
      /** Its vertices, where they are known apart from its curve: edges that meet there end in the same point. */
      ends?: [Vec3, Vec3];
    }
  | {
      type: 'face';
      surface: BrepSurface;
      location: Matrix34 | null;
      children: ShapeRef[];
      /** Its number in the file, where that is known. */
      entity?: number;
    }
  | {
      type: 'wire' | 'shell' | 'solid' | 'compound';
      closed: boolean;
      children: ShapeRef[];
      /** Of a wire without edges: the point that it is, a cone's apex or another pole. */
      pole?: Vec3;
    };

/** The numbers in the file of all faces, in the order in which a model has them; 0 where one is not known. */
export function faceEntities({ shapes, root }: BrepDocument): number[] {
  const out: number[] = [];
  const visit = (ref: ShapeRef): void => {
    const shape = shapes[ref.shape];
    if (shape?.type === 'face') out.push(shape.entity ?? 0);
    else if (shape && shape.type !== 'edge' && shape.type !== 'vertex' && shape.type !== 'wire')
      for (const child of shape.children) visit(child);
  };
  visit(root);
  return out;
}

/** A boundary representation as a file or a kernel has it: shapes that refer to each other by place in the list. */
export interface BrepDocument {
  shapes: BrepShape[];
  root: ShapeRef;
}
