import type { Feature, FamilyName, FeatureOf } from '@yellow-pin/core/features/family';
import { poly, rect, type Dimension, type View } from './view.ts';
import { areaViews, chainView, standingView } from './plan-views.ts';

type Views<N extends FamilyName> = (f: FeatureOf<N>) => View[];

const line = (a: [number, number], b: [number, number]): string => `M${a[0]} ${a[1]}L${b[0]} ${b[1]}`;

/** A cavity in cross-section: half-widths by level, from the top down, mirrored about the middle. */
function section(
  profile: [number, number][],
  depth: number,
  through: boolean,
  dimensions: Dimension[],
): View {
  const widest = Math.max(...profile.map(([x]) => x));
  const [half, under] = [
    widest + Math.max(depth * 0.5, widest * 0.8),
    through ? 0 : Math.max(depth * 0.45, widest * 0.4),
  ];
  const right = profile.map(([x, y]) => [x, y] as [number, number]);
  const left = [...profile].reverse().map(([x, y]) => [-x, y] as [number, number]);
  const box = { x: -half, y: -depth - under, w: 2 * half, h: depth + under };
  return {
    title: 'section',
    metal: rect(box.x, box.y, box.w, box.h),
    cut: poly(...right, ...left),
    centre: line([0, 0.12 * depth], [0, -depth * 1.1]),
    box,
    dimensions,
  };
}

const across = (w: number, y: number, side: Dimension['side']): Dimension => ({
  from: [-w / 2, y],
  to: [w / 2, y],
  text: w,
  side,
});
const down = (x: number, from: number, to: number, side: Dimension['side'] = 'right'): Dimension => ({
  from: [x, from],
  to: [x, to],
  text: Math.abs(to - from),
  side,
});

/** A cavity with upright walls in cross-section. */
const straight = (f: { width: number; depth: number }, through: boolean): View =>
  section(
    [
      [f.width / 2, 0],
      [f.width / 2, -f.depth],
    ],
    f.depth,
    through,
    [across(f.width, 0, 'above'), down(f.width / 2, 0, -f.depth)],
  );

/** Straight cavity from above: `round` ends left and right. */
function plan(length: number, width: number, round: [boolean, boolean]): View {
  const [a, r] = [length / 2, width / 2];
  const end = (sign: 1 | -1, isRound: boolean): string =>
    isRound
      ? `L${sign * (a - r)} ${sign * -r}A${r} ${r} 0 0 ${1} ${sign * (a - r)} ${sign * r}`
      : `L${sign * a} ${sign * -r}L${sign * a} ${sign * r}`;
  const cut = `M0 ${-r}${end(1, round[0])}L0 ${r}${end(-1, round[1])}Z`;
  const box = {
    x: -a - (round[1] ? r : 0),
    y: -r * 2.4,
    w: length + (round[0] ? r : 0) + (round[1] ? r : 0),
    h: r * 4.8,
  };
  return {
    title: 'plan',
    metal: rect(box.x, box.y, box.w, box.h),
    cut,
    centre: line([-a, 0], [a, 0]),
    box,
    dimensions: [{ from: [-a, -r], to: [a, -r], text: length, side: 'below' }],
  };
}

/** A corner of metal with its edge broken: top on the left, wall on the right. */
function corner(cutPath: string, size: number, dimensions: Dimension[]): View {
  const s = Math.max(size * 3, 0.6);
  return {
    title: 'section',
    metal: rect(-s, -s, s, s),
    cut: cutPath,
    centre: '',
    box: { x: -s, y: -s, w: s * 1.5, h: s * 1.4 },
    dimensions,
  };
}

/** What each family looks like cut open, and from above where that says more. Holes have a drawing of their own. */
const VIEWS: { [N in Exclude<FamilyName, 'hole'>]: Views<N> } = {
  slot: (f) => [
    straight(f, f.bottom === 'open'),
    plan(f.length, f.width, [f.kind !== 'open-both-ends', f.kind === 'closed']),
  ],
  't-slot': (f) => {
    const [m, h, d] = [f.mouthWidth / 2, f.headWidth / 2, f.mouthDepth];
    const depth = d + f.headHeight;
    return [
      section(
        [
          [m, 0],
          [m, -d],
          [h, -d],
          [h, -depth],
        ],
        depth,
        false,
        [
          across(f.mouthWidth, 0, 'above'),
          across(f.headWidth, -depth, 'below'),
          down(h, 0, -d),
          down(h, -d, -depth),
        ],
      ),
      plan(f.length, f.headWidth, [f.openEnds < 2, f.openEnds < 1]),
    ];
  },
  dovetail: (f) => [
    section(
      [
        [f.mouthWidth / 2, 0],
        [f.bottomWidth / 2, -f.depth],
      ],
      f.depth,
      false,
      [
        across(f.mouthWidth, 0, 'above'),
        across(f.bottomWidth, -f.depth, 'below'),
        down(f.bottomWidth / 2, 0, -f.depth),
      ],
    ),
  ],
  'face-groove': (f) => [straight(f, false), chainView(f.centreline, f.axis, f.width)],
  channel: (f) => [straight(f, f.bottom === 'open'), chainView(f.centreline, f.axis, f.width)],
  'bore-groove': (f) => {
    const [b, g, w] = [f.boreDiameter / 2, f.grooveDiameter / 2, f.width];
    const top = Math.max(w * 1.2, g * 0.25);
    return [
      section(
        [
          [b, 0],
          [b, -top],
          [g, -top],
          [g, -top - w],
          [b, -top - w],
          [b, -2 * top - w],
        ],
        2 * top + w,
        true,
        [
          across(f.boreDiameter, 0, 'above'),
          down(g, -top, -top - w),
          across(f.grooveDiameter, -top - w, 'below'),
        ],
      ),
    ];
  },
  'wall-groove': (f) => {
    const [w, d] = [f.width, f.depth];
    const m = Math.max(w, d);
    return [
      {
        title: 'section',
        metal: rect(-2.4 * d - m, -w / 2 - m, 2.4 * d + m, w + 2 * m),
        cut: rect(-d, -w / 2, d + 0.001, w),
        centre: line([-1.3 * d, 0], [0.5 * d, 0]),
        box: { x: -2.4 * d - m, y: -w / 2 - m, w: 2.9 * d + 1.6 * m, h: w + 2 * m },
        dimensions: [down(0, w / 2, -w / 2), { from: [-d, -w / 2], to: [0, -w / 2], text: d, side: 'below' }],
      },
    ];
  },
  chamfer: (f) => {
    const drop = f.width * Math.tan((f.angle * Math.PI) / 180);
    return [
      corner(poly([-f.width, 0.001], [0.001, 0.001], [0.001, -drop]), Math.max(f.width, drop), [
        { from: [-f.width, 0], to: [0, 0], text: f.width, side: 'above' },
        { from: [0, 0], to: [0, -drop], text: `${+f.angle.toFixed(2)}°`, side: 'right' },
      ]),
    ];
  },
  'rounded-edge': (f) => {
    const r = f.radius;
    return [
      corner(`M${-r} 0.001L0.001 0.001L0.001 ${-r}A${r} ${r} 0 0 1 ${-r} 0.001Z`, r, [
        { from: [-r, 0], to: [0, 0], text: r, side: 'above' },
      ]),
    ];
  },
  'sharp-edge': () => [corner('', 1, [])],
  'rising-edge': () => [corner('', 1, [])],
  pocket: (f) => areaViews(f, f.depth),
  step: (f) => areaViews(f, f.depth),
  face: (f) => areaViews(f, 0),
  outline: (f) => [standingView(f)],
  boss: (f) => {
    const [r, h] = [f.diameter / 2, f.height];
    const c = f.chamfer ?? { length: 0, diameter: f.diameter };
    const foot = Math.max(h * 0.3, 2);
    return [
      {
        title: 'section',
        metal: poly(
          [-c.diameter / 2, 0],
          [c.diameter / 2, 0],
          [r, -c.length],
          [r, -h],
          ...(f.bottom === 'open'
            ? []
            : ([
                [1.6 * r, -h],
                [1.6 * r, -h - foot],
                [-1.6 * r, -h - foot],
                [-1.6 * r, -h],
              ] as [number, number][])),
          [-r, -h],
          [-r, -c.length],
        ),
        cut: '',
        centre: line([0, 0.1 * h], [0, -1.1 * h]),
        box: { x: -1.8 * r, y: -h - foot, w: 3.6 * r, h: h + 1.5 * foot },
        dimensions: [across(f.diameter, 0, 'above'), down(r, 0, -h)],
      },
    ];
  },
};

/** The views of a feature that is no hole. */
export function viewsOf(f: Exclude<Feature, { family: 'hole' }>): View[] {
  return (VIEWS[f.family] as (f: Feature) => View[])(f);
}
