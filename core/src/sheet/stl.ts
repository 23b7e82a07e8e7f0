import { at } from '../lists.ts';
import type { MetalMesh } from '../metal/picture.ts';

const HEAD = 80;
const FACET = 50;

/** Quads of metal as a binary STL file, program coordinates, mm: two triangles a quad, each with its normal. */
export function metalStl(meshes: readonly MetalMesh[], name: string): Uint8Array<ArrayBuffer> {
  const quads = meshes.reduce((n, m) => n + m.positions.length / 12, 0);
  const bytes = new Uint8Array(HEAD + 4 + 2 * quads * FACET);
  // A file that begins with "solid" would be taken for the other kind of STL.
  const head = `binary STL, mm: ${name}`.slice(0, HEAD);
  for (let i = 0; i < head.length; i++) bytes[i] = head.charCodeAt(i) & 0x7f;
  const view = new DataView(bytes.buffer);
  view.setUint32(HEAD, 2 * quads, true);
  let offset = HEAD + 4;
  const put = (v: number): void => {
    view.setFloat32(offset, v, true);
    offset += 4;
  };
  for (const { positions, normals } of meshes)
    for (let q = 0; q < positions.length / 12; q++)
      for (const corners of [
        [0, 1, 2],
        [0, 2, 3],
      ]) {
        for (let k = 0; k < 3; k++) put(at(normals, 12 * q + k));
        for (const c of corners) for (let k = 0; k < 3; k++) put(at(positions, 12 * q + 3 * c + k));
        offset += 2;
      }
  return bytes;
}
