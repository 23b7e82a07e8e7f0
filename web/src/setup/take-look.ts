import { type Feature, isHole } from '@yellow-pin/core/features/family';
import { along, distance, dot, scale, sub, type Vec3 } from '@yellow-pin/core/geometry/vec';
import { toFrame } from '@yellow-pin/core/geometry/frame';
import { attitudeFrom, attitudeName, upFromPoints, type Setup } from '@yellow-pin/core/setup/setup';
import type { SetupFrame } from '@yellow-pin/core/setup/setup-frame';
import type { Look } from '@yellow-pin/core/model/look';
import { changeSetup, correct, usePick, type Picking } from '../job/store.ts';
import { newId } from '../kit/new-id.ts';

/** What the banner over the part asks for. */
export function prompt(p: Picking): string {
  switch (p.for) {
    case 'up':
      return 'Click the face that is to be up.';
    case 'up-points':
      return `Click corner ${p.got.length + 1} of 3 of the plane that is to be up.`;
    case 'x':
      return 'Click beside a straight edge that X is to run along.';
    case 'x-points':
      return `Click the ${p.got.length === 0 ? 'first' : 'second'} of two corners: X runs from one to the other.`;
    case 'zero':
      return 'Click near a corner, a round rim or the middle of an edge: zero goes there.';
    case 'clamp':
      return 'Click where the clamp stands.';
    case 'hole':
      return 'Click a hollow round face, or a flat face beside a round rim: a hole is put there.';
    case 'edges':
      return `Click beside each edge that is to be broken. Chosen so far: ${p.got.length}.`;
  }
}

export interface LookContext {
  setup: Setup;
  frame: SetupFrame;
  features: { label: string; feature: Feature }[];
  /** Longest side of the part, mm: how near is near. */
  size: number;
}

/** Uses what was clicked for what is being picked. Says why where it cannot be used. */
export function takeLook(picking: Picking, look: Look, context: LookContext): void {
  const { pick } = usePick.getState();
  const said = outcome(picking, look, context);
  if (typeof said === 'string') pick({ pickSaid: said });
  else pick({ picking: said, pickSaid: null });
}

/** The next thing to pick, null when done, or why the click cannot be used. */
function outcome(
  p: Picking,
  look: Look,
  { setup, frame, features, size }: LookContext,
): Picking | null | string {
  const near = size * 0.06;
  const turnTo = (up: Vec3, x: Vec3): null | string => {
    const attitude = attitudeFrom(up, x) ?? attitudeFrom(up, setup.attitude.up);
    if (!attitude) return 'That direction is up already.';
    const isNamed = setup.name === attitudeName(setup.attitude) || setup.name === '';
    changeSetup(setup.id, { attitude, ...(isNamed ? { name: attitudeName(attitude) } : {}) });
    return null;
  };
  const corner = (): Vec3 | null => (look.vertex && look.vertex.away < near ? look.vertex.point : null);
  switch (p.for) {
    case 'up':
      return look.isPlane
        ? turnTo(look.normal, setup.attitude.x)
        : 'That face is not flat. Click a flat one, or use three points.';
    case 'up-points': {
      const point = corner();
      if (!point) return 'No corner is near enough there.';
      const got = [...p.got, point];
      if (got.length < 3) return { ...p, got };
      const up = upFromPoints(got as [Vec3, Vec3, Vec3], look.normal);
      return up ? turnTo(up, setup.attitude.x) : 'The three points lie in a line. Click another corner.';
    }
    case 'x': {
      const d = look.edge?.direction;
      if (!d || look.edge!.away > near) return 'No straight edge is near enough there.';
      // An edge has no sense: the one nearer to X as it is.
      return alongX(dot(d, setup.attitude.x) < 0 ? scale(d, -1) : d);
    }
    case 'x-points': {
      const point = corner();
      if (!point) return 'No corner is near enough there.';
      return p.got.length === 0 ? { ...p, got: [point] } : alongX(sub(point, p.got[0]!));
    }
    case 'zero': {
      const place = zeroPlace(look, near, features);
      if (!place) return 'No corner, round rim or edge middle is near enough there.';
      changeSetup(setup.id, { zero: { kind: 'point', ...place, offset: [0, 0, 0] } });
      return null;
    }
    case 'clamp': {
      const at = toFrame({ ...frame.frame, origin: [0, 0, 0] }, look.point);
      const count = setup.holding.keepOuts.length + 1;
      const box = {
        id: newId(8),
        name: `clamp ${count}`,
        kind: 'clamp' as const,
        min: [at[0] - 15, at[1] - 15, at[2]] as Vec3,
        max: [at[0] + 15, at[1] + 15, at[2] + 25] as Vec3,
      };
      changeSetup(setup.id, { holding: { ...setup.holding, keepOuts: [...setup.holding.keepOuts, box] } });
      return null;
    }
    case 'hole':
      return makeHole(look, near, setup.attitude.up);
    case 'edges': {
      if (!look.edge || look.edge.away > near) return 'No edge is near enough there.';
      const { edge } = look.edge;
      return { ...p, got: p.got.includes(edge) ? p.got.filter((e) => e !== edge) : [...p.got, edge] };
    }
  }

  function alongX(d: Vec3): null | string {
    const attitude = attitudeFrom(setup.attitude.up, d);
    if (!attitude) return 'That runs straight up: X must lie across it.';
    changeSetup(setup.id, { attitude });
    return null;
  }
}

function zeroPlace(
  look: Look,
  near: number,
  features: LookContext['features'],
): { point: Vec3; name: string } | null {
  const centre = look.edge?.centre ?? null;
  if (centre && look.edge!.away < near) {
    const owner = features.find(({ feature }) => isHole(feature) && distance(feature.entry, centre) < 0.05);
    return { point: centre, name: owner ? `centre of ${owner.label}` : 'centre of a round rim' };
  }
  const middle = look.edge && !look.edge.centre ? distance(look.edge.middle, look.point) : Infinity;
  const corner = look.vertex?.away ?? Infinity;
  if (corner < near && corner <= middle) return { point: look.vertex!.point, name: 'a corner of the part' };
  return middle < near ? { point: look.edge!.middle, name: 'the middle of an edge' } : null;
}

function makeHole(look: Look, near: number, up: Vec3): null | string {
  const { round } = look;
  if (round?.hollow) {
    const axis = dot(round.axis, up) < 0 ? scale(round.axis, -1) : round.axis;
    const sense = Math.sign(dot(axis, round.axis));
    const entry = along(round.origin, round.axis, sense > 0 ? round.high : round.low);
    correct({
      kind: 'made',
      feature: {
        family: 'hole',
        entry,
        axis,
        diameter: 2 * round.radius,
        depth: Math.max(0.01, round.high - round.low),
        through: false,
        faces: [look.face],
      },
    });
    return null;
  }
  const rim = look.edge?.centre;
  if (look.isPlane && rim && look.edge!.away < near) {
    correct({
      kind: 'made',
      feature: {
        family: 'hole',
        entry: rim,
        axis: look.normal,
        diameter: look.edge!.length / Math.PI,
        depth: 10,
        through: false,
        faces: [],
      },
    });
    return null;
  }
  return 'No hollow round face or round rim is there.';
}
