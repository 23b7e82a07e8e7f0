import type init from 'replicad-opencascadejs';
import type { FreeformMesh } from '@yellow-pin/core/model/solid-model';
import { noSolid, StepFileError } from '@yellow-pin/core/step/step-text';

type OpenCascade = Awaited<ReturnType<typeof init>>;
type Shape = InstanceType<OpenCascade['TopoDS_Shape']>;

let loading: Promise<OpenCascade> | null = null;

/** The kernel, loaded once per thread (some seconds when cold). */
export function openCascade(): Promise<OpenCascade> {
  loading ??= import('replicad-opencascadejs').then((module) => module.default());
  return loading;
}

export interface TransferredShape {
  /** The kernel's own text form of the whole shape. */
  text: string;
  meshFace(index: number): FreeformMesh | null;
  release(): void;
}

export type Progress = (share: number, what: string) => void;

/**
 * The kernel itself failed over a file. Its memory may be spoilt: who gets this throws the thread or process away
 * that holds the kernel, or good files after it are read wrongly and blamed.
 */
export class KernelFailure extends StepFileError {
  constructor(cause: unknown) {
    super(
      'unreadable',
      `The STEP file could not be turned into a solid (${describe(cause)}). Export the part again, as one closed solid.`,
    );
  }
}

const describe = (error: unknown): string =>
  error instanceof Error ? error.message.slice(0, 160) : 'kernel error';

/**
 * Objects of the kernel live on its own heap: whatever is made is deleted, the last first. Of a kernel that broke
 * nothing is asked any more.
 */
class Scope {
  private readonly made: { delete(): void }[] = [];

  keep<T extends { delete(): void }>(object: T): T {
    this.made.push(object);
    return object;
  }

  /** Does `work` and deletes what it made. Throws {@link KernelFailure} for what is no error of ours. */
  static within<T>(work: (scope: Scope) => T): T {
    const scope = new Scope();
    let result: T;
    try {
      result = work(scope);
    } catch (error) {
      if (!(error instanceof StepFileError)) throw new KernelFailure(error);
      if (!(error instanceof KernelFailure)) scope.end();
      throw error;
    }
    scope.end();
    return result;
  }

  private end(): void {
    try {
      for (const object of this.made.reverse()) object.delete();
    } catch (error) {
      throw new KernelFailure(error);
    }
  }
}

/**
 * Reads STEP text into a kernel shape. Throws {@link StepFileError} where the kernel can make nothing of it, and
 * {@link KernelFailure} where it broke over it.
 */
export async function transferStep(step: Uint8Array, progress: Progress): Promise<TransferredShape> {
  progress(0.02, 'loading the geometry kernel');
  const oc = await openCascade();
  return Scope.within((scope) => transfer(oc, scope, step, progress));
}

function transfer(oc: OpenCascade, scope: Scope, step: Uint8Array, progress: Progress): TransferredShape {
  const path = '/part.step';
  oc.FS.writeFile(path, step);
  scope.keep({ delete: () => oc.FS.unlink(path) });
  progress(0.1, 'reading the file');
  const reader = scope.keep(new oc.STEPControl_Reader());
  // The session and what it holds refer to each other: without this none of it is ever let go.
  const session = reader.WS();
  scope.keep({
    delete: () => {
      session.ClearData(7);
      session.ClearData(1);
      session.delete();
    },
  });
  const status = reader.ReadFile(path);
  if (status !== 'IFSelect_RetDone') {
    throw new StepFileError(
      'unreadable',
      'The STEP file could not be read: its entities do not follow ISO 10303-21. Export the part again.',
    );
  }
  progress(0.2, 'building the solid');
  reader.TransferRoots(scope.keep(new oc.Message_ProgressRange()));
  if (reader.NbShapes() === 0) throw noSolid();
  const shape = reader.OneShape();
  if (shape.IsNull()) {
    shape.delete();
    throw noSolid();
  }
  progress(0.8, 'taking over faces and edges');
  const text = oc.BRepToolsWrapper.Write(shape);
  return {
    text,
    meshFace: (index) => Scope.within((s) => meshFace(oc, s, shape, index)),
    release: () => shape.delete(),
  };
}

function meshFace(oc: OpenCascade, scope: Scope, shape: Shape, index: number): FreeformMesh | null {
  const explorer = scope.keep(new oc.TopExp_Explorer(shape, 'TopAbs_FACE'));
  for (let i = 0; i < index && explorer.More(); i++) explorer.Next();
  if (!explorer.More()) return null;
  const face = scope.keep(oc.TopoDS.Face(scope.keep(explorer.Current())));
  scope.keep(new oc.BRepMesh_IncrementalMesh(face, 0.05, false, 0.3, false));
  const location = scope.keep(new oc.TopLoc_Location());
  const triangulation = oc.BRep_Tool.Triangulation(face, location, 0);
  if (!triangulation) return null;
  scope.keep(triangulation);
  if (triangulation.NbTriangles() === 0) return null;
  const move = scope.keep(location.Transformation());
  const reversed = face.Orientation() === 'TopAbs_REVERSED';
  const positions: number[] = [];
  for (let i = 1; i <= triangulation.NbNodes(); i++) {
    const node = triangulation.Node(i);
    const p = node.Transformed(move);
    positions.push(p.X(), p.Y(), p.Z());
    p.delete();
    node.delete();
  }
  const triangles: number[] = [];
  for (let i = 1; i <= triangulation.NbTriangles(); i++) {
    const t = triangulation.Triangle(i);
    const corners = [t.Value(1) - 1, t.Value(2) - 1, t.Value(3) - 1];
    t.delete();
    triangles.push(...(reversed ? corners.reverse() : corners));
  }
  return { positions, triangles, normals: vertexNormals(positions, triangles) };
}

function vertexNormals(positions: number[], triangles: number[]): number[] {
  const normals = new Array<number>(positions.length).fill(0);
  const at = (i: number) => [positions[3 * i]!, positions[3 * i + 1]!, positions[3 * i + 2]!] as const;
  for (let t = 0; t < triangles.length; t += 3) {
    const [a, b, c] = [at(triangles[t]!), at(triangles[t + 1]!), at(triangles[t + 2]!)];
    const u = [b[0] - a[0], b[1] - a[1], b[2] - a[2]] as const;
    const v = [c[0] - a[0], c[1] - a[1], c[2] - a[2]] as const;
    const n = [u[1] * v[2] - u[2] * v[1], u[2] * v[0] - u[0] * v[2], u[0] * v[1] - u[1] * v[0]];
    for (let k = 0; k < 3; k++) for (let i = 0; i < 3; i++) normals[3 * triangles[t + k]! + i]! += n[i]!;
  }
  for (let i = 0; i < normals.length; i += 3) {
    const l = Math.hypot(normals[i]!, normals[i + 1]!, normals[i + 2]!) || 1;
    for (let k = 0; k < 3; k++) normals[i + k]! /= l;
  }
  return normals;
}
