import type { Placement } from '../brep/geometry.ts';
import type { Matrix34 } from '../brep/matrix34.ts';
import { cross, length, normalize, reject, type Vec3 } from '../geometry/vec.ts';
import type { Entities } from './fields.ts';

/** Shorter than this a direction says nothing. */
const NOTHING = 1e-12;

/** Reads points, directions and placements (ISO 10303-42), in mm. */
export class Places {
  private readonly points = new Map<number, Vec3>();

  constructor(
    private readonly entities: Entities,
    private readonly mm: number,
  ) {}

  point(id: number): Vec3 {
    const before = this.points.get(id);
    if (before) return before;
    const f = this.entities.need(id, 'CARTESIAN_POINT');
    const [x = 0, y = 0, z = 0] = f.numbers(1);
    const p: Vec3 = [x * this.mm, y * this.mm, z * this.mm];
    this.points.set(id, p);
    return p;
  }

  /** A unit vector. */
  direction(id: number): Vec3 {
    const f = this.entities.need(id, 'DIRECTION');
    const [x = 0, y = 0, z = 0] = f.numbers(1);
    if (length([x, y, z]) < NOTHING) throw f.error('a direction without length');
    return normalize([x, y, z]);
  }

  /** A direction with its length, mm. */
  vector(id: number): Vec3 {
    const f = this.entities.need(id, 'VECTOR');
    const [x, y, z] = this.direction(f.ref(1));
    const l = f.number(2) * this.mm;
    if (!(Math.abs(l) > 0)) throw f.error('a vector without length');
    return [x * l, y * l, z * l];
  }

  /** AXIS1_PLACEMENT: a point and an axis. */
  axis(id: number): { origin: Vec3; axis: Vec3 } {
    const f = this.entities.need(id, 'AXIS1_PLACEMENT');
    const axis = f.refOrNone(2);
    return { origin: this.point(f.ref(1)), axis: axis === null ? [0, 0, 1] : this.direction(axis) };
  }

  /** AXIS2_PLACEMENT_3D: Z as given, X made square to it; what is left out is found as clause 4.5 has it. */
  placement(id: number): Placement {
    const f = this.entities.need(id, 'AXIS2_PLACEMENT_3D');
    const [axis, ref] = [f.refOrNone(2), f.refOrNone(3)];
    const z: Vec3 = axis === null ? [0, 0, 1] : this.direction(axis);
    let x = ref === null ? null : reject(this.direction(ref), z);
    if (x === null || length(x) < 1e-9) {
      if (ref !== null) throw f.error('both directions of a placement are one');
      x = reject(Math.abs(z[0]) < 1 - 1e-9 ? [1, 0, 0] : [0, 1, 0], z);
    }
    x = normalize(x);
    return { origin: this.point(f.ref(1)), z, x, y: cross(z, x) };
  }

  /** The same as a matrix from its own coordinates to the outer ones. */
  matrix(id: number): Matrix34 {
    const { origin: o, x, y, z } = this.placement(id);
    return [x[0], y[0], z[0], o[0], x[1], y[1], z[1], o[1], x[2], y[2], z[2], o[2]];
  }
}
