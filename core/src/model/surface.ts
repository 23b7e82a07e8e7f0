import { length2 } from '../geometry/path.ts';
import { along, cross, dot, length, normalize, reject, scale, sub, type Vec3 } from '../geometry/vec.ts';
import type { Face, Surface } from './solid-model.ts';

/** Of length `k` from the line through `origin` square to it toward `p`; in one step, for every corner of a mesh asks for it. */
function radialDirection({ origin: o, axis: a }: { origin: Vec3; axis: Vec3 }, p: Vec3, k = 1): Vec3 {
  const h = (p[0] - o[0]) * a[0] + (p[1] - o[1]) * a[1] + (p[2] - o[2]) * a[2];
  const x = p[0] - o[0] - h * a[0];
  const y = p[1] - o[1] - h * a[1];
  const z = p[2] - o[2] - h * a[2];
  const r = Math.sqrt(x * x + y * y + z * z);
  return r > 0 ? [(k * x) / r, (k * y) / r, (k * z) / r] : [0, 0, 0];
}

/** The surface's own unit normal at (the foot of) `p`, before the face's orientation is applied. */
export function surfaceNormal(s: Surface, p: Vec3): Vec3 {
  switch (s.kind) {
    case 'plane':
      return s.normal;
    case 'cylinder':
      return radialDirection(s, p);
    case 'cone': {
      const radial = radialDirection(s, p, Math.cos(s.semiAngle));
      return normalize(along(radial, s.axis, -Math.sin(s.semiAngle)));
    }
    case 'sphere':
      return normalize(sub(p, s.origin));
    case 'torus':
      return normalize(sub(p, along(s.origin, radialDirection(s, p), s.majorRadius)));
    case 'freeform':
      return nearestMeshNormal(s.mesh, p);
  }
}

/** Unit normal pointing away from the material. */
export function outwardNormal(face: Face, p: Vec3): Vec3 {
  const { surface, reversed } = face;
  if (surface.kind === 'cylinder') return radialDirection(surface, p, reversed ? -1 : 1);
  const n = surfaceNormal(surface, p);
  return reversed ? scale(n, -1) : n;
}

/** Signed distance of `p` from an exact surface, mm; free-form surfaces give NaN. */
export function distanceToSurface(s: Surface, p: Vec3): number {
  switch (s.kind) {
    case 'plane':
      return dot(sub(p, s.origin), s.normal);
    case 'cylinder':
      return length(reject(sub(p, s.origin), s.axis)) - s.radius;
    case 'cone': {
      const d = sub(p, s.origin);
      const h = dot(d, s.axis);
      return (length(reject(d, s.axis)) - s.radius - h * Math.tan(s.semiAngle)) * Math.cos(s.semiAngle);
    }
    case 'sphere':
      return length(sub(p, s.origin)) - s.radius;
    case 'torus': {
      const d = sub(p, s.origin);
      const h = dot(d, s.axis);
      return length2(length(reject(d, s.axis)) - s.majorRadius, h) - s.minorRadius;
    }
    case 'freeform':
      return NaN;
  }
}

function nearestMeshNormal(mesh: { positions: number[]; normals: number[] }, p: Vec3): Vec3 {
  let best = 0;
  let bestDistance = Infinity;
  for (let i = 0; i < mesh.positions.length; i += 3) {
    const d = Math.hypot(
      mesh.positions[i]! - p[0],
      mesh.positions[i + 1]! - p[1],
      mesh.positions[i + 2]! - p[2],
    );
    if (d < bestDistance) {
      bestDistance = d;
      best = i;
    }
  }
  return [mesh.normals[best]!, mesh.normals[best + 1]!, mesh.normals[best + 2]!];
}

/** Apex of a cone. */
export function coneApex(s: Extract<Surface, { kind: 'cone' }>): Vec3 {
  return along(s.origin, s.axis, -s.radius / Math.tan(s.semiAngle));
}

/** Perpendicular unit pair for angles about `axis`. */
export function angleBasis(axis: Vec3): [Vec3, Vec3] {
  const helper: Vec3 = Math.abs(axis[0]) < 0.9 ? [1, 0, 0] : [0, 1, 0];
  const x = normalize(reject(helper, axis));
  return [x, cross(axis, x)];
}
