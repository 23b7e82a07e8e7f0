import type { Shape3D } from 'replicad';
import { beforeAll, describe, expect, it } from 'vitest';
import type { Feature } from '@yellow-pin/core/features/family';
import { featureSizes } from '@yellow-pin/core/features/sets';
import type { Plan } from '@yellow-pin/core/plan/plan';
import { chooseDirections, setupsFor } from '@yellow-pin/core/setup/choose-setups';
import { circle, filleted, rectangle } from './cut-shapes.ts';
import { stored, type Way } from './stored-parts.ts';
import { box, capsule, cutAll, prepare, prism, stepText, straight, turned } from './solids.ts';
import { errors, jobOfText, proved, type Trial } from './trial.ts';

beforeAll(prepare);

/** A sawn block so much larger on every side, turned over as often as it takes. */
const inBlock =
  (w: number) =>
  (p: Plan, features: Feature[]): void => {
    p.setups = setupsFor(chooseDirections(features, true));
    p.setups.forEach((s, i) => {
      const sides = { xLow: w, xHigh: w, yLow: w, yHigh: w, zLow: w, zHigh: w };
      s.stock = { ...s.stock, ...sides, kind: i === 0 ? 'block' : 'left-over' };
    });
  };

const AREAS = ['pocket', 'step', 'outline', 'face'];
const open = ({ job }: Trial): string[] =>
  job.rows.flatMap((r) => (AREAS.includes(r.size.family) ? r.reasons : []));

/** Made whole: no open area, nothing cut that is to stand, nothing left, no error. */
async function finished(
  text: string,
  w = 3,
  more: (p: Plan, features: Feature[]) => void = () => undefined,
): Promise<Trial> {
  const trial = await jobOfText(text, {
    change: (p, features) => {
      inBlock(w)(p, features);
      more(p, features);
    },
  });
  expect(open(trial)).toEqual([]);
  const { checks, metal } = proved(trial);
  expect(checks.filter((c) => c.severity === 'error')).toEqual([]);
  expect(metal.largestOvercut).toBeLessThanOrEqual(0.005);
  expect(metal.places.filter((p) => p.kind === 'left-over' && p.depth > 0.02).map((p) => p.volume)).toEqual(
    [],
  );
  return trial;
}

describe('from a sawn block', () => {
  it.each<Way>(['as modelled', 'tilted, in inches'])(
    'pockets, one in another, one round an island, one through: finished in two setups, %s',
    async (way) => {
      const island = prism(rectangle(12, 10, 2, 30, 22), -7, -2.5);
      const body = (
        cutAll(prism(rectangle(90, 50, 8, 45, 25), 0, -14), [
          prism(rectangle(44, 36, 5.2, 26, 24), 1, -7),
          prism(rectangle(26, 28, 5.2, 70, 24), 1, -20),
        ]).fuse(island) as Shape3D
      ).cut(prism(rectangle(14, 15, 5.2, 14, 24), -6, -10.4)) as Shape3D;
      const trial = await finished(await stored(body, way, 30));
      expect(trial.setups).toHaveLength(2);
    },
    60_000,
  );

  it('steps, a notch with round corners, slots and holes come out of 5 mm of stock', async () => {
    const body = cutAll(prism(rectangle(120, 80, 7, 60, 40), 0, -26), [
      box([-1, -1, -6], [25, 81, 1]),
      prism(rectangle(34, 50, 6, 80, 0), 1, -9),
      prism(capsule(30, 8, [80, 60]), 1, -7),
      turned(straight(6, 40), [12, 40, 0], [0, 0, 1]),
    ]);
    const trial = await finished(await stepText([body], 'steps'), 5);
    // What lies in a step waits for it.
    const order = trial.job.setups[0]!.operations.map((o) => o.kind);
    expect(order.indexOf('face-mill')).toBeLessThan(order.indexOf('area-mill'));
    expect(order.indexOf('area-mill')).toBeLessThan(order.indexOf('drill'));
  }, 60_000);

  it('steps within a pocket go from the highest down, each begun where the one before ended', async () => {
    const body = cutAll(prism(rectangle(140, 70, 8, 70, 35), 0, -30), [
      prism(rectangle(120, 44, 6.2, 70, 35), 1, -5),
      prism(rectangle(80, 44, 6.2, 90, 35), 1, -10),
      prism(rectangle(40, 44, 6.2, 110, 35), 1, -20),
    ]);
    const { job } = await finished(await stepText([body], 'stairs'));
    const depths = job.setups[0]!.operations.filter((o) => o.kind === 'area-mill');
    expect(depths.map((o) => o.work[0]!.z)).toEqual([-8, -13, -23]);
    // Three layers of the lowest are gone with the higher two.
    const layers = depths.map(({ work: [w] }) => {
      const moves = w!.motion.kind === 'path' ? w!.motion.passes.flatMap((p) => p.moves) : [];
      return new Set(moves.flatMap((m) => (m.kind !== 'dwell' && m.feed === 'cut' ? [m.to[2]] : [])));
    });
    expect(Math.max(...layers[1]!)).toBeLessThan(-8);
    expect(Math.max(...layers[2]!)).toBeLessThan(-13);
  }, 60_000);

  it('what lies in a step that is typed less deep begins where that ends', async () => {
    const body = cutAll(prism(rectangle(110, 70, 8, 55, 35), 0, -22), [
      prism(rectangle(90, 44, 6.2, 55, 35), 1, -5),
      prism(rectangle(45, 44, 6.2, 77.5, 35), 1, -14),
    ]);
    const { job } = await jobOfText(await stepText([body], 'shallow'), {
      change: (p, features) => {
        inBlock(3)(p, features);
        const step = featureSizes(features).find((s) => s.family === 'step')!;
        p.sizes[step.key] = { overrides: { 'area-mill': { depth: 4 } } };
      },
    });
    const [pocket] = job.rows.find((r) => r.size.family === 'pocket')!.areas;
    expect(pocket!.startZ).toBeCloseTo(-7, 6);
  }, 60_000);

  it('a floor that a lower channel divides is cleared once, and followed along its walls on both sides', async () => {
    const body = cutAll(prism(rectangle(100, 70, 8, 50, 35), 0, -22), [
      prism(rectangle(70, 44, 6.2, 50, 35), 1, -8),
      prism(rectangle(12, 44, 5.5, 50, 35), -1, -12),
    ]);
    const { job } = await finished(await stepText([body], 'divided'));
    const step = job.rows.find((r) => r.size.family === 'step')!;
    expect(step.size.features).toHaveLength(2);
    const [a, b] = step.operations[0]!.work.map((w) =>
      w.motion.kind === 'path' ? w.motion.passes.flatMap((p) => p.moves).length : 0,
    );
    expect(b!).toBeLessThan(a! / 4);
  }, 60_000);

  it('a wide cutter clears what small corners let it, and a narrow one the corners alone', async () => {
    const body = cutAll(prism(rectangle(140, 100, 8, 70, 50), 0, -30), [
      prism(rectangle(90, 70, 3.2, 55, 50), 1, -14),
      prism(rectangle(60, 160, 3.2, 140, 100), 1, -9),
    ]);
    const { job } = await finished(await stepText([body], 'corners'));
    const made = (family: string): (readonly [string, number])[] =>
      job.rows
        .filter((r) => r.size.family === family)
        .flatMap((r) => r.operations.map((o) => [o.kind, o.tool.diameter] as const));
    expect(made('pocket')).toEqual([
      ['area-mill', 20],
      ['corner-mill', 6],
    ]);
    expect(made('step').map(([kind]) => kind)).toEqual(['area-mill', 'corner-mill']);
    // The narrow one is nowhere but in the four corners.
    const corners = job.rows.find((r) => r.size.family === 'pocket')!.operations[1]!;
    const [work] = corners.work;
    const fed = work!.motion.kind === 'path' ? work!.motion.passes.flatMap((p) => p.moves) : [];
    for (const m of fed) {
      if (m.kind === 'dwell') continue;
      const away = [55 - 70, 50 - 50].map((o, i) => Math.abs(m.to[i]! - o));
      expect(Math.min(45 - away[0]!, 35 - away[1]!)).toBeLessThan(15);
      expect(Math.max(45 - away[0]!, 35 - away[1]!)).toBeLessThan(20);
    }
  }, 60_000);

  describe.each([
    ['pocket-by-hole', {}, ['entry-hole', 'area-mill', 'corner-mill']],
    ['pocket-corner-holes', {}, ['corner-hole', 'area-mill']],
    ['pocket', { 'area-mill': { entry: 'helix' } }, ['area-mill', 'corner-mill']],
    ['pocket', { 'area-mill': { rough: 'narrow steps' } }, ['area-mill', 'corner-mill']],
  ])('by the method %s, %j', (method, overrides, kinds) => {
    it.each([
      ['blind', -14],
      ['through', -40],
    ])(
      'a pocket is finished, %s',
      async (_, bottom) => {
        const body = cutAll(prism(rectangle(110, 80, 8, 55, 40), 0, -22), [
          prism(rectangle(80, 52, 5.2, 55, 40), 1, bottom),
        ]);
        const text = await stepText([body], 'entered');
        const trial = await finished(text, 3, (p, features) => {
          for (const s of featureSizes(features))
            if (s.family === 'pocket') p.sizes[s.key] = { method, overrides };
        });
        const row = trial.job.rows.find((r) => r.size.family === 'pocket')!;
        expect(row.operations.map((o) => o.kind)).toEqual(kinds);
        expect(row.operations[0]!.work).toHaveLength(kinds[0] === 'corner-hole' ? 4 : 1);
      },
      60_000,
    );
  });

  it('an outline over a vise is milled as far down as its jaws let it, and the rest said in lengths', async () => {
    const body = prism(rectangle(90, 60, 6, 45, 30), 0, -30);
    const trial = await jobOfText(await stepText([body], 'held'), {
      change: (p, features) => {
        inBlock(3)(p, features);
        const vise = { sides: 'front-back', grip: 8, jawHeight: 30, jawWidth: 100 } as const;
        p.setups = p.setups.slice(0, 1).map((s) => ({ ...s, holding: { ...s.holding, vise } }));
      },
    });
    const outline = trial.job.rows.find((r) => r.size.family === 'outline')!;
    // The block stands from Z -36 to 0; its jaws reach up to -28.
    expect(outline.operations[0]!.work[0]!.z).toBeCloseTo(-27, 6);
    expect(outline.remarks.find((r) => r.rule === 'over-the-holding')?.message).toMatch(/6 mm of its height/);
    expect(errors(proved(trial).checks)).toEqual([]);
  }, 60_000);

  it('an outline over a vise is milled from both sides, each over its jaws', async () => {
    const body = prism(rectangle(90, 60, 6, 45, 30), 0, -30);
    const vise = { sides: 'front-back', grip: 8, jawHeight: 30, jawWidth: 100 } as const;
    const trial = await finished(await stepText([body], 'held twice'), 3, (p) => {
      p.setups = p.setups.map((s) => ({ ...s, holding: { ...s.holding, vise } }));
    });
    const row = trial.job.rows.find((r) => r.size.family === 'outline')!;
    expect(row.operations.map((o) => o.setupId)).toEqual(trial.job.setups.map((s) => s.setup.id));
    expect(row.remarks.map((r) => r.rule)).not.toContain('over-the-holding');
  }, 60_000);

  it('an outline deeper than any cutter is long is milled half from each side', async () => {
    const body = prism(rectangle(60, 40, 6, 30, 20), 0, -104);
    const trial = await finished(await stepText([body], 'deep'));
    const row = trial.job.rows.find((r) => r.size.family === 'outline')!;
    expect(row.operations).toHaveLength(2);
    for (const o of row.operations) expect(o.work[0]!.entryZ - o.work[0]!.z).toBeLessThan(60);
  }, 60_000);

  it('a fillet at the foot of a pocket is cut by a cutter of its radius, with no ridge left between its ways', async () => {
    const plain = cutAll(prism(rectangle(100, 70, 8, 50, 35), 0, -22), [
      prism(rectangle(70, 44, 8.2, 50, 35), 1, -12),
    ]);
    const { job } = await finished(await stepText([filleted(plain, 2, { z: -12 })], 'foot'));
    const [mill] = job.rows.find((r) => r.size.family === 'pocket')!.operations;
    expect(mill!.tool).toMatchObject({ diameter: 16, cornerRadius: 2 });
  }, 60_000);

  it('bosses stand where they are, and the way onto one keeps clear of the other', async () => {
    const body = prism(rectangle(120, 80, 9, 60, 40), -20, -32)
      .fuse(prism(circle(14, 30, 40), 0, -20))
      .fuse(prism(rectangle(30, 24, 3, 85, 45), -6, -20)) as Shape3D;
    await finished(await stepText([body], 'bosses'));
  }, 60_000);

  it('nothing of the stock stands beside a flange, or beside edges that are rounded', async () => {
    const flange = prism(rectangle(90, 70, 12, 45, 35), -20, -30).fuse(
      prism(circle(25, 45, 35), 0, -20),
    ) as Shape3D;
    await finished(await stepText([flange], 'flange'));
    const bevelled = prism(rectangle(80, 60, 10, 40, 30), 0, -14).fillet(1.5, (e) =>
      e.inPlane('XY', 0),
    ) as Shape3D;
    const trial = await jobOfText(await stepText([bevelled], 'rounded'), { change: inBlock(3) });
    const { checks, metal } = proved(trial);
    expect(errors(checks)).toEqual([]);
    const left = metal.places.filter((p) => p.kind === 'left-over');
    const edges = trial.job.rows.filter((r) => r.size.family === 'rounded-edge').map((r) => r.tag);
    expect(left.length).toBeGreaterThan(0);
    expect(left.filter((p) => !edges.includes(p.tag ?? ''))).toEqual([]);
  }, 60_000);

  it('a sharp inside corner is milled as far as a round cutter goes, and said', async () => {
    const body = cutAll(box([0, 0, -30], [90, 60, 0]), [box([50, 30, -12], [91, 61, 1])]);
    const trial = await jobOfText(await stepText([body], 'sharp'), { change: inBlock(3) });
    expect(open(trial)).toEqual([]);
    const { checks, metal } = proved(trial);
    expect(errors(checks)).toEqual([]);
    expect(checks.map((c) => c.rule)).toEqual(expect.arrayContaining(['sharp-corner', 'left-over']));
    expect(metal.largestOvercut).toBe(0);
  }, 60_000);
});

describe('one size', () => {
  const sizes = async (second: Shape3D): Promise<number> => {
    const body = cutAll(box([0, 0, -30], [140, 60, 0]), [prism(rectangle(40, 30, 6, 30, 30), 1, -9), second]);
    const { job } = await jobOfText(await stepText([body], 'two'));
    return job.rows.filter((r) => r.size.family === 'pocket').length;
  };

  it('is one shape and one foot: a fillet, or another outline in the same box, is another size', async () => {
    const plain = prism(rectangle(40, 30, 6, 100, 30), 1, -9);
    expect(await sizes(plain)).toBe(1);
    const rounded = filleted(plain.clone() as Shape3D, 2, { z: -9 });
    expect(await sizes(rounded)).toBe(2);
    const waisted = plain.clone().cut(prism(rectangle(16, 12, 5.9, 100, 15), 2, -10)) as Shape3D;
    expect(await sizes(waisted)).toBe(2);
  });
});

describe('prepared stock', () => {
  const plate = async (): Promise<string> =>
    stepText(
      [
        cutAll(box([0, 0, -30], [120, 80, 0]), [
          prism(rectangle(60, 40, 6.3, 45, 40), 1, -11),
          prism(circle(4, 100, 40), 1, -31),
        ]) as Shape3D,
      ],
      'plate',
    );

  it('has its areas already: their rows are optional and count for nothing', async () => {
    const { job } = await jobOfText(await plate());
    const areas = job.rows.filter((r) => AREAS.includes(r.size.family));
    expect(areas.map((r) => r.state)).toEqual(areas.map(() => 'optional'));
    expect(areas.map((r) => r.size.family).sort()).toEqual(['face', 'face', 'outline', 'pocket']);
    expect(job.coverage).toEqual({ planned: 1, total: 1 });
  });

  it('a pocket for which a method is chosen is milled out of the full metal', async () => {
    const trial = await jobOfText(await plate(), {
      change: (p, features) => {
        for (const s of featureSizes(features))
          if (s.family === 'pocket') p.sizes[s.key] = { method: 'pocket', overrides: {} };
      },
    });
    const row = trial.job.rows.find((r) => r.size.family === 'pocket')!;
    expect(row.state).toBe('planned');
    const { checks, metal } = proved(trial);
    expect(errors(checks)).toEqual([]);
    expect(metal.largestOvercut).toBeLessThanOrEqual(0.005);
    expect(metal.leftoverVolume).toBe(0);
    // A layer less than planned leaves metal, and it is seen.
    const short = proved(trial, (t) => t.replaceAll(/Z-11\./g, 'Z-10.'));
    expect(errors(short.checks)).toContain('milled-short');
    expect(short.metal.leftoverVolume).toBeGreaterThan(1000);
    // A wall that is cut into is, too.
    const deep = proved(trial, (t) => t.replaceAll(/Z-11\./g, 'Z-12.'));
    expect(errors(deep.checks)).toContain('into-part');
    expect(deep.metal.largestOvercut).toBeGreaterThan(0.9);
  }, 60_000);
});
