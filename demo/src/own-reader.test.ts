import { describe, expect, it } from 'vitest';
import { recognise } from '@yellow-pin/core/features/recognise';
import { familyOf } from '@yellow-pin/core/features/registry';
import { meshModel, meshVolume } from '@yellow-pin/core/model/mesh';
import type { SolidModel } from '@yellow-pin/core/model/solid-model';
import { readStep } from '@yellow-pin/kernel';
import { distance } from '@yellow-pin/core/geometry/vec';
import { AREA_FIXTURES } from './area-parts.ts';
import { curvesAsComposites } from './curves-as-composites.ts';
import { curvesAsSplines } from './curves-as-splines.ts';
import { EDGE_FIXTURES } from './edge-parts.ts';
import { GROOVE_FIXTURES } from './groove-parts.ts';
import { DEMO_PARTS } from './jobs.ts';
import { encode } from './model-of.ts';
import { own, sampleText } from './own.ts';
import { prepare, stepText } from './solids.ts';
import { stored, WAYS } from './stored-parts.ts';
import { STRANGE } from './strange.ts';
import { withoutSeams } from './without-seams.ts';

const SOLIDS = DEMO_PARTS.filter((p) => p.endsWith('.step'));

/** All that two readers must agree on: faces in order with their surfaces, how edges turn, volume, box. */
function told(model: SolidModel) {
  const convexity: Record<string, number> = {};
  for (const e of model.edges) convexity[e.convexity] = (convexity[e.convexity] ?? 0) + 1;
  return {
    faces: model.faces.map(({ surface, reversed, loops }) => ({
      kind: surface.kind,
      numbers:
        surface.kind === 'freeform'
          ? []
          : Object.values(surface)
              .flat()
              .filter((v) => typeof v === 'number'),
      reversed: surface.kind === 'freeform' ? null : reversed,
      loops: loops.map((l) => l.length).sort(),
    })),
    convexity,
    solids: model.solids,
    units: model.sourceUnits,
    volume: meshVolume(meshModel(model)),
    box: [...model.bounds.min, ...model.bounds.max],
  };
}

function expectAlike(a: SolidModel, b: SolidModel, places = 6): void {
  const [x, y] = [told(a), told(b)];
  expect(x.faces.map((f) => [f.kind, f.reversed, f.loops])).toEqual(
    y.faces.map((f) => [f.kind, f.reversed, f.loops]),
  );
  x.faces.forEach((f, i) =>
    f.numbers.forEach((n, k) => expect(n).toBeCloseTo(y.faces[i]!.numbers[k]!, places)),
  );
  expect([x.convexity, x.solids, x.units]).toEqual([y.convexity, y.solids, y.units]);
  expect(Math.abs(x.volume / y.volume - 1)).toBeLessThan(1e-4);
  x.box.forEach((n, i) => expect(n).toBeCloseTo(y.box[i]!, 5));
}

describe('both readers tell the same', () => {
  it.each(SOLIDS)('of %s', async (part) => {
    expectAlike(own(sampleText(part)), await readStep(encode(sampleText(part)), { reader: 'kernel' }));
  });

  it.each([...AREA_FIXTURES, ...EDGE_FIXTURES, ...GROOVE_FIXTURES])(
    'of $name, stored in each way',
    async (f) => {
      await prepare();
      for (const way of WAYS) {
        const step = await stored(f.body(), way, f.splitX);
        expectAlike(own(step), await readStep(encode(step), { reader: 'kernel' }));
      }
    },
  );

  it.each(STRANGE)('of $name', async ({ bodies, name, unit }) => {
    await prepare();
    const step = await stepText(bodies(), name, unit);
    expectAlike(own(step), await readStep(encode(step), { reader: 'kernel' }));
  });
});

describe('edges stored as splines', () => {
  it.each(SOLIDS)('are lines and circles again: %s', (part) => {
    const text = sampleText(part);
    const [plain, splines] = [own(text), own(curvesAsSplines(text))];
    expect(splines.edges.map((e) => e.curve.kind)).toEqual(plain.edges.map((e) => e.curve.kind));
    splines.edges.forEach(({ curve, points }, i) => {
      const before = plain.edges[i]!;
      expect(points.length).toBe(before.points.length);
      points.forEach((p, k) => expect(distance(p, before.points[k]!)).toBeLessThan(1e-5));
      if (curve.kind === 'circle' && before.curve.kind === 'circle')
        expect(curve.radius).toBeCloseTo(before.curve.radius, 6);
    });
    expectAlike(splines, plain, 5);
  });
});

describe('edges on composite curves', () => {
  it.each(SOLIDS)('are lines and circles again: %s', (part) => {
    const text = sampleText(part);
    const composite = curvesAsComposites(text);
    const used = [...composite.matchAll(/^#(\d+)=COMPOSITE_CURVE\(/gm)].filter(([, id]) =>
      composite.includes(`,#${id}`),
    );
    expect(used.length).toBeGreaterThan(12);
    const [plain, made] = [own(text), own(composite)];
    expect(made.edges.map((e) => e.curve.kind)).toEqual(plain.edges.map((e) => e.curve.kind));
    expectAlike(made, plain, 5);
  });
});

describe('faces without seams', () => {
  /** What is found in a part, without places and ids. */
  const found = (text: string) => {
    const model = own(text);
    const volume = meshVolume(meshModel(model));
    const sizes = recognise(model).features.map((f) => `${f.family} ${familyOf(f).sizeKey(f, false)}`);
    return { volume: Number(volume.toFixed(3)), sizes: sizes.sort() };
  };

  it.each(SOLIDS)('are the same part: %s', (part) => {
    const text = sampleText(part);
    expect(withoutSeams(text)).not.toBe(text);
    expect(found(withoutSeams(text))).toEqual(found(text));
  });

  it.each(STRANGE)('are the same part: $name', async ({ bodies, name, unit }) => {
    await prepare();
    const text = await stepText(bodies(), name, unit);
    expect(found(withoutSeams(text))).toEqual(found(text));
  });
});
