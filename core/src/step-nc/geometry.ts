import type { Frame } from '../geometry/frame.ts';
import { segmentPoint, type Segment, type Vec2 } from '../geometry/path.ts';
import type { Vec3 } from '../geometry/vec.ts';
import { FALSE, Item, TRUE, type Ref } from '../part21/value.ts';
import { Part21Writer } from '../part21/write.ts';

/** Rounds what arithmetic left behind: 1e-9 mm. */
const clean = (x: number): number => Math.round(x * 1e9) / 1e9 + 0;

/** Writes the geometry that ISO 14649 borrows from ISO 10303-42. Lengths in mm. */
export class GeometryWriter extends Part21Writer {
  private readonly directions = new Map<string, Ref>();

  point(p: readonly number[]): Ref {
    return this.add('CARTESIAN_POINT', '', p.map(clean));
  }

  direction(d: Vec3): Ref {
    const key = d.map(clean).join();
    const known = this.directions.get(key) ?? this.add('DIRECTION', '', d.map(clean));
    this.directions.set(key, known);
    return known;
  }

  placement(name: string, f: Frame): Ref {
    return this.add(
      'AXIS2_PLACEMENT_3D',
      name,
      this.point(f.origin),
      this.direction(f.z),
      this.direction(f.x),
    );
  }

  /** The plane square to a placement's axis, at a height above it. */
  levelPlane(name: string, z: number): Ref {
    return this.add(
      'PLANE',
      name,
      this.placement(name, { origin: [0, 0, z], x: [1, 0, 0], y: [0, 1, 0], z: [0, 0, 1] }),
    );
  }

  /** A length without limits that are known. */
  length(mm: number): Ref {
    return this.add('TOLERANCED_LENGTH_MEASURE', clean(mm), null);
  }

  /** Lines and arcs in the plane of a placement, at a height: a COMPOSITE_CURVE. */
  path(segments: readonly Segment[], z: number): Ref {
    const pieces = segments.flatMap((s) => this.bounded(s, z));
    return this.add(
      'COMPOSITE_CURVE',
      '',
      pieces.map((p) => this.add('COMPOSITE_CURVE_SEGMENT', new Item('CONTINUOUS'), TRUE, p)),
      FALSE,
    );
  }

  /** A line or an arc; a whole circle in two halves, for trims that meet say nothing. */
  private bounded(s: Segment, z: number): Ref[] {
    const at = (p: Vec2) => this.point([p[0], p[1], z]);
    if (s.kind === 'line') return [this.add('POLYLINE', '', [at(s.from), at(s.to)])];
    const circle = this.add(
      'CIRCLE',
      '',
      this.placement('', { origin: [s.centre[0], s.centre[1], z], x: [1, 0, 0], y: [0, 1, 0], z: [0, 0, 1] }),
      clean(s.radius),
    );
    const stops = Math.abs(s.turn) > Math.PI ? [0, 0.5, 1] : [0, 1];
    return stops.slice(1).map((to, i) => {
      const ends = [stops[i] ?? 0, to].map((share) => [at(segmentPoint(s, share))]);
      return this.add(
        'TRIMMED_CURVE',
        '',
        circle,
        ends[0] ?? [],
        ends[1] ?? [],
        s.turn > 0 ? TRUE : FALSE,
        new Item('CARTESIAN'),
      );
    });
  }
}
