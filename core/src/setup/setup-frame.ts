import { at } from '../lists.ts';
import { frameFrom, fromFrame, toFrame, type Frame } from '../geometry/frame.ts';
import { add, sub, type Vec3 } from '../geometry/vec.ts';
import { boundsOf, type Bounds } from '../model/solid-model.ts';
import { sideOf, type Setup } from './setup.ts';

/** The part's box along any axes: corners measured from the file's origin along the frame's directions. */
export type PartBox = (axes: Frame) => Bounds;

/** From the part's box alone: exact for axes along the file's, too large for others. */
export function boxFromBounds(bounds: Bounds): PartBox {
  return (axes) => boundsOf(cornersOf(bounds).map((c) => toFrame({ ...axes, origin: [0, 0, 0] }, c)));
}

/** From the part's points (flat x, y, z): right for axes of any direction. */
export function boxFromPoints(bounds: Bounds, positions: Float32Array | Float64Array | number[]): PartBox {
  const plain = boxFromBounds(bounds);
  const known = new Map<string, Bounds>();
  return (axes) => {
    if (sideOf(axes.z) && sideOf(axes.x)) return plain(axes);
    const key = [...axes.z, ...axes.x].map((v) => v.toFixed(7)).join();
    let box = known.get(key);
    if (!box) {
      const points: Vec3[] = [];
      for (let i = 0; i + 2 < positions.length; i += 3)
        points.push(
          toFrame({ ...axes, origin: [0, 0, 0] }, [
            at(positions, i),
            at(positions, i + 1),
            at(positions, i + 2),
          ]),
        );
      box = boundsOf(points);
      known.set(key, box);
    }
    return box;
  };
}

function cornersOf({ min, max }: Bounds): Vec3[] {
  return Array.from({ length: 8 }, (_, i): Vec3 => [
    i & 1 ? max[0] : min[0],
    i & 2 ? max[1] : min[1],
    i & 4 ? max[2] : min[2],
  ]);
}

/** The stock as it stands in the machine, program coordinates. */
export interface StockBody {
  box: Bounds;
  shape: 'box' | 'cylinder' | 'outline' | 'solid';
  /** Cylinder: the axis it lies along. */
  along: 'x' | 'y' | 'z';
  radius: number;
  /** Metal may stand above a feature's own level: feeding starts above the stock. */
  standsProud: boolean;
}

export interface KeepOutBox extends Bounds {
  name: string;
}

export interface SetupFrame {
  /** Program coordinates: origin at work zero, in the part file's frame. */
  frame: Frame;
  /** Boxes in program coordinates. */
  part: Bounds;
  stock: Bounds;
  body: StockBody;
  /** Jaws, clamps and other boxes that tools keep out of. */
  keepOuts: KeepOutBox[];
  /** Highest place of part, stock and holding. */
  top: number;
}

/** Program zero, axes, stock and holding of a setup. `before` is the setup before it, for what that leaves. */
export function setupFrame(
  setup: Setup,
  part: Bounds | PartBox,
  before: SetupFrame | null = null,
): SetupFrame {
  const axes = frameFrom([0, 0, 0], setup.attitude.up, setup.attitude.x);
  const partBox = (typeof part === 'function' ? part : boxFromBounds(part))(axes);
  const raw = stockBody(setup, partBox, axes, before);
  const zero = add(zeroPlace(setup, partBox, raw.box, axes), setup.zero.offset);
  const shift = (b: Bounds): Bounds => ({ min: sub(b.min, zero), max: sub(b.max, zero) });
  // An allowance on top is metal over every hole, whatever the rest of the stock is like.
  const standsProud = raw.standsProud || raw.box.max[2] > partBox.max[2] + 1e-6;
  const body = { ...raw, box: shift(raw.box), standsProud };
  const keepOuts = keepOutBoxes(setup, raw.box).map((k) => ({ ...shift(k), name: k.name }));
  const partHere = shift(partBox);
  const top = Math.max(partHere.max[2], body.box.max[2], ...keepOuts.map((k) => k.max[2]));
  return {
    frame: { ...axes, origin: fromFrame(axes, zero) },
    part: partHere,
    stock: body.box,
    body,
    keepOuts,
    top,
  };
}

/** The frames of all setups in order, each with what the one before leaves. */
export function setupFrames(setups: readonly Setup[], part: Bounds | PartBox): SetupFrame[] {
  const out: SetupFrame[] = [];
  for (const s of setups) out.push(setupFrame(s, part, out[out.length - 1] ?? null));
  return out;
}

/** The stock along the setup's axes, measured from the file's origin. */
function stockBody(setup: Setup, part: Bounds, axes: Frame, before: SetupFrame | null): StockBody {
  const s = setup.stock;
  const block: Bounds = {
    min: [part.min[0] - s.xLow, part.min[1] - s.yLow, part.min[2] - s.zLow],
    max: [part.max[0] + s.xHigh, part.max[1] + s.yHigh, part.max[2] + s.zHigh],
  };
  const plain: StockBody = {
    box: block,
    shape: 'box',
    along: 'z',
    radius: 0,
    standsProud: s.kind !== 'prepared',
  };
  if (s.kind === 'left-over') return before ? leftOver(before, axes) : plain;
  if (s.kind === 'round-bar') {
    const i = 'xyz'.indexOf(s.barAxis);
    const box: Bounds = { min: [...block.min], max: [...block.max] };
    for (const k of [0, 1, 2].filter((n) => n !== i)) {
      const middle = (at(part.min, k) + at(part.max, k)) / 2;
      box.min[k] = middle - s.diameter / 2;
      box.max[k] = middle + s.diameter / 2;
    }
    return { ...plain, box, shape: 'cylinder', along: s.barAxis, radius: s.diameter / 2 };
  }
  if (s.kind === 'outline') {
    const box: Bounds = {
      min: [part.min[0] - s.margin, part.min[1] - s.margin, block.min[2]],
      max: [part.max[0] + s.margin, part.max[1] + s.margin, block.max[2]],
    };
    return { ...plain, box, shape: 'outline' };
  }
  if (s.kind === 'solid' && s.solid)
    return {
      ...plain,
      box: boundsOf(cornersOf(s.solid.bounds).map((c) => toFrame(axes, c))),
      shape: 'solid',
    };
  return plain;
}

/** The stock of the setup before, as this setup sees it. */
function leftOver(before: SetupFrame, axes: Frame): StockBody {
  const { body, frame } = before;
  const box = boundsOf(cornersOf(body.box).map((c) => toFrame(axes, fromFrame(frame, c))));
  const old = { x: frame.x, y: frame.y, z: frame.z }[body.along];
  const now = (['x', 'y', 'z'] as const).find(
    (k) => Math.abs(old[0] * axes[k][0] + old[1] * axes[k][1] + old[2] * axes[k][2]) > 0.999,
  );
  // A bar or an outline that no longer lies along an axis is bounded by its box.
  return {
    ...body,
    box,
    along: now ?? 'z',
    shape: now && (body.shape !== 'outline' || now === 'z') ? body.shape : 'box',
  };
}

function zeroPlace(setup: Setup, part: Bounds, stock: Bounds, axes: Frame): Vec3 {
  const { zero } = setup;
  if (zero.kind === 'point') return toFrame(axes, zero.point);
  const box = zero.of === 'stock' ? stock : part;
  return [zero.x, zero.y, zero.z].map((k, i) =>
    k < 0 ? at(box.min, i) : k > 0 ? at(box.max, i) : (at(box.min, i) + at(box.max, i)) / 2,
  ) as Vec3;
}

/** Thickness of a vise jaw as drawn and kept clear of, mm. */
const JAW = 25;

/** Jaws and boxes along the setup's axes, measured from the file's origin. */
function keepOutBoxes({ holding }: Setup, stock: Bounds): KeepOutBox[] {
  const out: KeepOutBox[] = holding.keepOuts.map((k) => ({
    name: k.name,
    min: low(k.min, k.max),
    max: high(k.min, k.max),
  }));
  if (!holding.vise) return out;
  const { sides, grip, jawHeight, jawWidth } = holding.vise;
  const across = sides === 'front-back' ? 1 : 0;
  const along = 1 - across;
  const top = stock.min[2] + grip;
  const middle = (at(stock.min, along) + at(stock.max, along)) / 2;
  for (const [name, from, to] of [
    [sides === 'front-back' ? 'front jaw' : 'left jaw', at(stock.min, across) - JAW, at(stock.min, across)],
    [sides === 'front-back' ? 'back jaw' : 'right jaw', at(stock.max, across), at(stock.max, across) + JAW],
  ] as const) {
    const box: KeepOutBox = { name, min: [0, 0, top - jawHeight], max: [0, 0, top] };
    [box.min[across], box.max[across]] = [from, to];
    [box.min[along], box.max[along]] = [middle - jawWidth / 2, middle + jawWidth / 2];
    out.push(box);
  }
  return out;
}

const low = (a: Vec3, b: Vec3): Vec3 => [0, 1, 2].map((i) => Math.min(at(a, i), at(b, i))) as Vec3;
const high = (a: Vec3, b: Vec3): Vec3 => [0, 1, 2].map((i) => Math.max(at(a, i), at(b, i))) as Vec3;

/** The stock in words, for the head of a program: "block 100 x 80 x 31 mm". */
export function stockInWords(setup: Setup, { stock, body }: SetupFrame, say: (mm: number) => string): string {
  const [x, y, z] = [0, 1, 2].map((i) => say(at(stock.max, i) - at(stock.min, i))) as [
    string,
    string,
    string,
  ];
  const kind = {
    prepared: 'prepared, outer faces made,',
    block: 'block',
    'round-bar': `bar ${say(2 * body.radius)} across,`,
    outline: 'outline',
    solid: `solid ${setup.stock.solid?.name ?? ''},`,
    'left-over': 'as the setup before leaves it,',
  }[setup.stock.kind];
  return `${kind} ${x} x ${y} x ${z}`;
}

/** The holding in words: "vise, front and back jaw, grip 10 mm; 2 clamps". */
export function holdingInWords({ holding }: Setup, say: (mm: number) => string): string {
  const parts: string[] = [];
  if (holding.vise)
    parts.push(
      `vise, ${holding.vise.sides === 'front-back' ? 'front and back' : 'left and right'} jaw, grip ${say(holding.vise.grip)}`,
    );
  const clamps = holding.keepOuts.filter((k) => k.kind === 'clamp').length;
  const boxes = holding.keepOuts.length - clamps;
  if (clamps > 0) parts.push(`${clamps} ${clamps === 1 ? 'clamp' : 'clamps'}`);
  if (boxes > 0) parts.push(`${boxes} keep-out ${boxes === 1 ? 'box' : 'boxes'}`);
  return parts.length > 0 ? parts.join('; ') : 'not said';
}

/** Smallest bar round a part's box that lies along one of its axes, mm. */
export function barDiameter(part: Bounds, along: 'x' | 'y' | 'z'): number {
  const sides = [0, 1, 2]
    .filter((i) => i !== 'xyz'.indexOf(along))
    .map((i) => at(part.max, i) - at(part.min, i));
  return Math.hypot(...sides);
}

/** The zero in words, for the bench and the floor sheet: "right face, centre of width, top of stock". */
export function zeroInWords(
  { zero }: Pick<Setup, 'zero'>,
  say: (mm: number) => string = (mm) => `${+mm.toFixed(3)}`,
): string {
  const moved = zero.offset
    .flatMap((v, i) =>
      Math.abs(v) > 1e-9 ? [`${say(Math.abs(v))} toward ${v > 0 ? '+' : '-'}${'XYZ'[i]}`] : [],
    )
    .join(', ');
  const from = zero.kind === 'point' ? zero.name : boxInWords(zero);
  return moved ? `${from}; ${moved}` : from;
}

function boxInWords({ x, y, z, of }: Extract<Setup['zero'], { kind: 'box' }>): string {
  const name = (v: number, lowName: string, middle: string, highName: string): string =>
    v < 0 ? lowName : v > 0 ? highName : middle;
  const height = `${name(z, 'bottom', 'mid-height', 'top')} of ${of}`;
  if (x === 0 && y === 0) return `centre, ${height}`;
  if (x !== 0 && y !== 0)
    return `${name(x, 'left', '', 'right')} ${name(y, 'front', '', 'back')} corner, ${height}`;
  return x !== 0
    ? `${name(x, 'left', '', 'right')} face, centre of width, ${height}`
    : `${name(y, 'front', '', 'back')} face, centre of length, ${height}`;
}
