import type { PartMesh } from '@yellow-pin/core/model/mesh';

/** Sides of triangles that no other triangle shares, corners joined by place. */
export function openSides(mesh: PartMesh): number {
  const ids = new Map<string, number>();
  const id = (i: number): number => {
    const key = [0, 1, 2].map((k) => Math.round(mesh.positions[3 * i + k]! * 1e4)).join();
    if (!ids.has(key)) ids.set(key, ids.size);
    return ids.get(key)!;
  };
  const uses = new Map<string, number>();
  for (let t = 0; t < mesh.triangles.length; t += 3) {
    const c = [0, 1, 2].map((k) => id(mesh.triangles[t + k]!));
    if (new Set(c).size < 3) continue;
    for (let k = 0; k < 3; k++) {
      const [a, b] = [c[k]!, c[(k + 1) % 3]!];
      const key = a < b ? `${a}/${b}` : `${b}/${a}`;
      uses.set(key, (uses.get(key) ?? 0) + (a < b ? 1 : -1));
    }
  }
  return [...uses.values()].filter((n) => n !== 0).length;
}
