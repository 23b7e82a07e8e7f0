import { cross, dot, length, normalize, reject, scale, sub, type Vec3 } from '../geometry/vec.ts';
import { recoverSurface, type SurfaceSample } from '../model/recover-surface.ts';
import { surfaceNormal } from '../model/surface.ts';
import type { Surface } from '../model/solid-model.ts';
import type { BrepSurface, Placement } from './geometry.ts';
import type { Matrix34 } from './matrix34.ts';
import { domainNormal, surfaceDomain, transformDirection, transformPoint } from './evaluate.ts';

export interface ExactSurface {
  surface: Surface;
  /** True where the surface's own dU×dV points against {@link surfaceNormal}. */
  flipped: boolean;
  recovered: boolean;
}

/** The neutral surface of a kernel surface; null where it is free-form and no exact one fits it. */
export function exactSurface(s: BrepSurface, m: Matrix34 | null): ExactSurface | null {
  if ('at' in s) return analytic(s, s.at, m);
  if (s.kind === 'revolution' && s.basis.kind === 'line') {
    const named = revolvedLine(s.origin, normalize(s.axis), s.basis.origin, normalize(s.basis.direction));
    if (named) return placed(named.surface, named.flipped, m, true);
  }
  const domain = surfaceDomain(s);
  if (!domain) return null;
  const samples: SurfaceSample[] = [];
  const n = 9;
  for (let i = 0; i <= n; i++) {
    for (let j = 0; j <= n; j++) {
      const u = domain.u[0] + ((domain.u[1] - domain.u[0]) * i) / n;
      const v = domain.v[0] + ((domain.v[1] - domain.v[0]) * j) / n;
      const normal = domainNormal(domain, u, v);
      if (length(normal) > 0.5) samples.push({ point: domain.point(u, v), normal });
    }
  }
  const surface = recoverSurface(samples);
  const first = samples[Math.floor(samples.length / 2)];
  if (!surface || !first) return null;
  return placed(surface, dot(surfaceNormal(surface, first.point), first.normal) < 0, m, true);
}

function analytic(
  s: Extract<BrepSurface, { at: Placement }>,
  at: Placement,
  m: Matrix34 | null,
): ExactSurface {
  const flipped = dot(cross(at.x, at.y), at.z) < 0;
  const origin = at.origin;
  const axis = normalize(at.z);
  switch (s.kind) {
    case 'plane':
      return placed({ kind: 'plane', origin, normal: normalize(cross(at.x, at.y)) }, false, m, false);
    case 'cylinder':
      return placed({ kind: 'cylinder', origin, axis, radius: s.radius }, flipped, m, false);
    case 'cone': {
      const outward = s.semiAngle >= 0 ? axis : scale(axis, -1);
      return placed(
        { kind: 'cone', origin, axis: outward, radius: s.radius, semiAngle: Math.abs(s.semiAngle) },
        flipped,
        m,
        false,
      );
    }
    case 'sphere':
      return placed({ kind: 'sphere', origin, radius: s.radius }, flipped, m, false);
    case 'torus':
      return placed(
        { kind: 'torus', origin, axis, majorRadius: s.major, minorRadius: s.minor },
        flipped,
        m,
        false,
      );
  }
}

/** A line turned about an axis is a cylinder (parallel), a plane (square) or a cone (crossing); otherwise null. */
function revolvedLine(
  origin: Vec3,
  axis: Vec3,
  p: Vec3,
  d: Vec3,
): { surface: Surface; flipped: boolean } | null {
  const c = dot(d, axis);
  const radial = reject(sub(p, origin), axis);
  const r = length(radial);
  if (Math.abs(dot(normalize(cross(axis, d)), radial)) > 1e-6) return null;
  const tangent = normalize(cross(axis, r > 1e-9 ? radial : reject(d, axis)));
  const natural = cross(tangent, d);
  let surface: Surface;
  if (Math.abs(c) < 1e-9) surface = { kind: 'plane', origin: p, normal: normalize(natural) };
  else if (Math.abs(c) > 1 - 1e-12) surface = { kind: 'cylinder', origin, axis, radius: r };
  else {
    const growth = dot(reject(d, axis), r > 1e-9 ? normalize(radial) : normalize(reject(d, axis))) / c;
    const along = dot(sub(p, origin), axis);
    const base: Vec3 = [
      origin[0] + axis[0] * along,
      origin[1] + axis[1] * along,
      origin[2] + axis[2] * along,
    ];
    surface = {
      kind: 'cone',
      origin: base,
      axis: growth > 0 ? axis : scale(axis, -1),
      radius: r,
      semiAngle: Math.atan(Math.abs(growth)),
    };
  }
  return { surface, flipped: r > 1e-9 && dot(natural, surfaceNormal(surface, p)) < 0 };
}

function placed(s: Surface, flipped: boolean, m: Matrix34 | null, recovered: boolean): ExactSurface {
  if (!m) return { surface: s, flipped, recovered };
  const moved = { ...s } as Surface;
  if ('origin' in moved && 'origin' in s) moved.origin = transformPoint(m, s.origin);
  if ('axis' in moved && 'axis' in s) moved.axis = normalize(transformDirection(m, s.axis));
  if (moved.kind === 'plane' && s.kind === 'plane') moved.normal = normalize(transformDirection(m, s.normal));
  return { surface: moved, flipped, recovered };
}
