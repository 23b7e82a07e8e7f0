/** Chains of lines and arcs in a plane. Lengths in mm, angles in radians. */
export type Vec2 = [number, number];

export type Segment =
  | { kind: 'line'; from: Vec2; to: Vec2 }
  /** `turn`: how far it goes round, counter-clockwise positive; a full circle is ±2π with equal ends. */
  | { kind: 'arc'; from: Vec2; to: Vec2; centre: Vec2; radius: number; turn: number };

export const sub2 = (a: Vec2, b: Vec2): Vec2 => [a[0] - b[0], a[1] - b[1]];
export const dot2 = (a: Vec2, b: Vec2): number => a[0] * b[0] + a[1] * b[1];
export const cross2 = (a: Vec2, b: Vec2): number => a[0] * b[1] - a[1] * b[0];
/** Length of a vector by its parts. Math.hypot guards against numbers that no part has, at ten times the cost. */
export const length2 = (x: number, y: number): number => Math.sqrt(x * x + y * y);
export const distance2 = (a: Vec2, b: Vec2): number => length2(a[0] - b[0], a[1] - b[1]);
export const middle2 = (a: Vec2, b: Vec2): Vec2 => [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2];

/** Length of a segment, mm. */
export const segmentLength = (s: Segment): number =>
  s.kind === 'line' ? distance2(s.from, s.to) : s.radius * Math.abs(s.turn);
export const pathLength = (path: Segment[]): number => path.reduce((sum, s) => sum + segmentLength(s), 0);

/** Unit direction of a line segment. */
export function lineDirection(s: Extract<Segment, { kind: 'line' }>): Vec2 {
  const l = distance2(s.from, s.to) || 1;
  return [(s.to[0] - s.from[0]) / l, (s.to[1] - s.from[1]) / l];
}

/** The same segment run the other way. */
export const reverseSegment = (s: Segment): Segment =>
  s.kind === 'line'
    ? { kind: 'line', from: s.to, to: s.from }
    : { ...s, from: s.to, to: s.from, turn: -s.turn };
export const reversePath = (path: Segment[]): Segment[] => path.map(reverseSegment).reverse();

/** Point at a share (0 to 1) of the segment. */
export function segmentPoint(s: Segment, share: number): Vec2 {
  if (s.kind === 'line')
    return [s.from[0] + share * (s.to[0] - s.from[0]), s.from[1] + share * (s.to[1] - s.from[1])];
  const a = Math.atan2(s.from[1] - s.centre[1], s.from[0] - s.centre[0]) + share * s.turn;
  return [s.centre[0] + s.radius * Math.cos(a), s.centre[1] + s.radius * Math.sin(a)];
}

/** The point at half the length of a path. */
export function pathMiddle(path: Segment[]): Vec2 {
  let rest = pathLength(path) / 2;
  for (const s of path) {
    const l = segmentLength(s);
    if (rest <= l) return segmentPoint(s, l > 0 ? rest / l : 0);
    rest -= l;
  }
  return path[path.length - 1]!.to;
}

const CARRIER = 4e-3;

/** True where both lie on one line or circle and run the same way round. */
export function isSameCarrier(a: Segment, b: Segment): boolean {
  if (a.kind === 'line' && b.kind === 'line') {
    const d = lineDirection(a);
    return (
      dot2(d, lineDirection(b)) > 1 - 1e-6 &&
      Math.abs(cross2(d, sub2(b.from, a.from))) < CARRIER &&
      Math.abs(cross2(d, sub2(b.to, a.from))) < CARRIER
    );
  }
  return (
    a.kind === 'arc' &&
    b.kind === 'arc' &&
    a.turn * b.turn > 0 &&
    distance2(a.centre, b.centre) < CARRIER &&
    Math.abs(a.radius - b.radius) < CARRIER
  );
}

/** Joins two segments of one carrier, the first before the second. */
export function joinSegments(a: Segment, b: Segment): Segment {
  if (a.kind === 'line' || b.kind === 'line') return { kind: 'line', from: a.from, to: b.to };
  return { ...a, to: b.to, turn: a.turn + angleFrom(a, a.to, b.from) + b.turn };
}

/** How far round from `p` to `q` about the arc's centre in the arc's own sense; nothing for equal points. */
function angleFrom(a: Extract<Segment, { kind: 'arc' }>, p: Vec2, q: Vec2): number {
  if (distance2(p, q) < 1e-6) return 0;
  return turnBetween(a.centre, p, q, a.turn > 0);
}

/** Angle from `p` to `q` about `centre`, positive counter-clockwise, in (0, 2π] of the given sense. */
export function turnBetween(centre: Vec2, p: Vec2, q: Vec2, counterClockwise: boolean): number {
  let t = Math.atan2(q[1] - centre[1], q[0] - centre[0]) - Math.atan2(p[1] - centre[1], p[0] - centre[0]);
  if (counterClockwise) while (t <= 1e-9) t += 2 * Math.PI;
  else while (t >= -1e-9) t -= 2 * Math.PI;
  return t;
}

/** Largest angle between tangents that count as one, radians. */
const TANGENT = 2e-3;
/** Largest kink in a wall that still flows on, radians. */
const KINK = 0.02;

/**
 * The line half-way between two walls that run the same way, the left wall's parallel curve at `width` being the right one: lines and
 * arcs exactly. Null where the walls are not parallel. Where a round outer corner has a sharp inner one, the outer corner leads.
 * Both walls may be cut at different places at their ends (a mouth at an angle): the centre line ends half-way.
 */
export function centreLine(left: Segment[], right: Segment[], width: number): Segment[] | null {
  const out: { piece: Segment; leads: boolean }[] = [];
  let [i, k] = [0, 0];
  while (i < left.length || k < right.length) {
    const [a, b] = [left[i], right[k]];
    const pair = a && b ? pairOf(a, b, width) : null;
    const corner = pair ? null : ((a && outerCorner(a, width, -1)) ?? null);
    const other = pair || corner ? null : ((b && outerCorner(b, width, 1)) ?? null);
    const piece = pair ?? corner ?? other;
    if (!piece) return null;
    out.push({ piece, leads: !pair });
    if (pair || corner) i++;
    if (pair || other) k++;
  }
  // A sharp inner corner lies beyond the outer corner's ends: its neighbours end where the outer corner says.
  const closed =
    out.length > 1 &&
    distance2(left[0]!.from, left[left.length - 1]!.to) < 0.01 &&
    distance2(right[0]!.from, right[right.length - 1]!.to) < 0.01;
  const n = out.length;
  for (let m = 0; m < n; m++) {
    if (!out[m]!.leads) continue;
    const { piece } = out[m]!;
    const [before, after] = [m > 0 ? m - 1 : closed ? n - 1 : -1, m < n - 1 ? m + 1 : closed ? 0 : -1];
    if (before >= 0) out[before]!.piece = endAt(out[before]!.piece, 'to', piece.from);
    if (after >= 0) out[after]!.piece = endAt(out[after]!.piece, 'from', piece.to);
  }
  const joints = closed ? n : n - 1;
  for (let m = 0; m < joints; m++) {
    const [p, q] = [out[m]!, out[(m + 1) % n]!];
    if (distance2(p.piece.to, q.piece.from) > 0.02) return null;
    if (Math.abs(angleBetween(tangentAt(p.piece, 'to'), tangentAt(q.piece, 'from'))) > KINK) return null;
  }
  return out.map((o) => o.piece).filter((p) => segmentLength(p) > 1e-6);
}

/** An arc of the outer wall of a bend whose inner wall is a sharp corner. `sense`: the way the outer wall turns. */
function outerCorner(s: Segment, width: number, sense: 1 | -1): Segment | null {
  if (
    s.kind !== 'arc' ||
    Math.sign(s.turn) !== sense ||
    s.radius > width + CARRIER ||
    s.radius < width / 2 - CARRIER
  )
    return null;
  const radius = Math.max(s.radius - width / 2, 1e-9);
  return { ...s, radius, from: toward(s.centre, s.from, radius), to: toward(s.centre, s.to, radius) };
}

function endAt(s: Segment, end: 'from' | 'to', p: Vec2): Segment {
  if (s.kind === 'line') return { ...s, [end]: p };
  const moved = { ...s, [end]: toward(s.centre, p, s.radius) };
  return { ...moved, turn: turnBetween(s.centre, moved.from, moved.to, s.turn > 0) };
}

/** Unit direction of travel at an end. */
export function tangentAt(s: Segment, end: 'from' | 'to'): Vec2 {
  if (s.kind === 'line') return lineDirection(s);
  const sense = Math.sign(s.turn);
  const p = s[end];
  const l = distance2(p, s.centre) || 1;
  return [(-sense * (p[1] - s.centre[1])) / l, (sense * (p[0] - s.centre[0])) / l];
}

const angleBetween = (a: Vec2, b: Vec2): number => Math.atan2(cross2(a, b), dot2(a, b));

const toward = (centre: Vec2, p: Vec2, radius: number): Vec2 => {
  const l = distance2(centre, p) || 1;
  return [centre[0] + ((p[0] - centre[0]) * radius) / l, centre[1] + ((p[1] - centre[1]) * radius) / l];
};

function pairOf(a: Segment, b: Segment, width: number): Segment | null {
  if (a.kind === 'line' && b.kind === 'line') {
    const d = lineDirection(a);
    if (dot2(d, lineDirection(b)) < Math.cos(TANGENT)) return null;
    // `b` lies to the right of `a`.
    if (
      Math.abs(cross2(d, sub2(b.from, a.from)) + width) > CARRIER ||
      Math.abs(cross2(d, sub2(b.to, a.to)) + width) > CARRIER
    )
      return null;
    return { kind: 'line', from: middle2(a.from, b.from), to: middle2(a.to, b.to) };
  }
  if (a.kind !== 'arc' || b.kind !== 'arc' || a.turn * b.turn <= 0 || distance2(a.centre, b.centre) > CARRIER)
    return null;
  const expected = a.turn > 0 ? a.radius + width : a.radius - width;
  if (Math.abs(b.radius - expected) > CARRIER) return null;
  const radius = (a.radius + b.radius) / 2;
  const full = Math.abs(Math.abs(a.turn) - 2 * Math.PI) < 1e-6;
  const from = toward(
    a.centre,
    middle2(toward(a.centre, a.from, radius), toward(a.centre, b.from, radius)),
    radius,
  );
  const to = full
    ? from
    : toward(a.centre, middle2(toward(a.centre, a.to, radius), toward(a.centre, b.to, radius)), radius);
  return {
    kind: 'arc',
    centre: a.centre,
    radius,
    from,
    to,
    turn: full ? a.turn : turnBetween(a.centre, from, to, a.turn > 0),
  };
}

/** Width between two walls judged at their first pair of like segments (left wall first), or null. */
export function widthBetween(left: Segment, right: Segment): number | null {
  if (left.kind === 'line' && right.kind === 'line') {
    const d = lineDirection(left);
    if (dot2(d, lineDirection(right)) < Math.cos(TANGENT)) return null;
    const w = -cross2(d, sub2(middle2(right.from, right.to), left.from));
    return w > 1e-3 ? w : null;
  }
  if (
    left.kind !== 'arc' ||
    right.kind !== 'arc' ||
    distance2(left.centre, right.centre) > CARRIER ||
    left.turn * right.turn <= 0
  )
    return null;
  const w = left.turn > 0 ? right.radius - left.radius : left.radius - right.radius;
  return w > 1e-3 ? w : null;
}
