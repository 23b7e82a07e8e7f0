import { describe, expect, it } from 'vitest';
import { frameFrom, fromFrame, toFrame } from '@yellow-pin/core/geometry/frame';
import type { Vec3 } from '@yellow-pin/core/geometry/vec';
import { meshModel, meshVolume } from '@yellow-pin/core/model/mesh';
import { boundsOf } from '@yellow-pin/core/model/solid-model';
import { assemblyText, PUTTINGS, type Placed } from './assembly-text.ts';
import { own, sampleText } from './own.ts';

const text = sampleText('vent-cap.step');
const part = own(text);
const STRAIGHT: Placed = [
  [0, 0, 0],
  [0, 0, 1],
  [1, 0, 0],
];
const TURNED: Placed = [
  [10, -20, 5],
  [0.6, 0, 0.8],
  [0.8, 0, -0.6],
];
const ASIDE: Placed = [
  [300, 40, -7],
  [0, 1, 0],
  [0, 0, 1],
];

/** Where a point of the part comes to: into the first placement's coordinates, and out of the second's. */
const moved = (p: Vec3, from: Placed, to: Placed): Vec3 =>
  fromFrame(frameFrom(to[0], to[1], to[2]), toFrame(frameFrom(from[0], from[1], from[2]), p));

const corners = part.edges.flatMap((e) => e.points);
const volume = meshVolume(meshModel(part));

describe.each(PUTTINGS)('an assembly by %s', (putting) => {
  it.each([
    ['of one part where it is', [{ from: STRAIGHT, to: STRAIGHT }], null],
    ['of a part whose own placement is turned', [{ from: TURNED, to: ASIDE }], null],
    [
      'of one part twice',
      [
        { from: STRAIGHT, to: ASIDE },
        { from: TURNED, to: STRAIGHT },
      ],
      null,
    ],
    [
      'of an assembly',
      [
        { from: STRAIGHT, to: ASIDE },
        { from: TURNED, to: TURNED },
      ],
      TURNED,
    ],
  ] as [string, { from: Placed; to: Placed }[], Placed | null][])('%s', (_, uses, nested) => {
    const model = own(assemblyText(text, uses, putting, nested));
    expect(model.solids).toHaveLength(uses.length);
    expect(model.faces).toHaveLength(uses.length * part.faces.length);
    expect(meshVolume(meshModel(model)) / (uses.length * volume)).toBeCloseTo(1, 6);
    const wanted = uses.flatMap(({ from, to }) =>
      corners.map((p) => (nested ? moved(moved(p, from, to), STRAIGHT, nested) : moved(p, from, to))),
    );
    const found = boundsOf(model.edges.flatMap((e) => e.points));
    const box = boundsOf(wanted);
    for (const k of [0, 1, 2] as const) {
      expect(found.min[k]).toBeCloseTo(box.min[k], 6);
      expect(found.max[k]).toBeCloseTo(box.max[k], 6);
    }
  });
});

it('an assembly that contains itself is an error with its entity', () => {
  const twice = assemblyText(text, [{ from: STRAIGHT, to: ASIDE }], 'mapped item', TURNED);
  const [inner, outer] = [...twice.matchAll(/REPRESENTATION_MAP\((#\d+),(#\d+)\)/g)].map((m) => m[2]!) as [
    string,
    string,
  ];
  const looped = twice.replace(new RegExp(`(REPRESENTATION_MAP\\(#\\d+,)${inner}`), `$1${outer}`);
  expect(() => own(looped)).toThrow(/#\d+: an assembly/);
});
