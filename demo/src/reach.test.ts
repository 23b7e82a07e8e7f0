import { beforeAll, describe, expect, it } from 'vitest';
import type { Shape3D } from 'replicad';
import type { Feature } from '@yellow-pin/core/features/family';
import { recognise } from '@yellow-pin/core/features/recognise';
import { newPlan, type Plan } from '@yellow-pin/core/plan/plan';
import { withDrawerLoaded } from '@yellow-pin/core/job/magazine';
import { produceJob, proveText, type ProducedJob, type ProduceInput } from '@yellow-pin/core/job/produce';
import { decisionFromCallout } from '@yellow-pin/core/job/print';
import { newSetup } from '@yellow-pin/core/setup/setup';
import { featureSizes } from '@yellow-pin/core/features/sets';
import { meshModel } from '@yellow-pin/core/model/mesh';
import type { Tool } from '@yellow-pin/core/tools/schema';
import { readStep } from '@yellow-pin/kernel';
import { SHOP } from './shop/index.ts';
import { withoutAreas } from './trial.ts';
import {
  blind,
  box,
  capsule,
  counterbored,
  cutAll,
  prepare,
  prism,
  stepText,
  straight,
  turned,
  type Point,
} from './solids.ts';

const UP: Point = [0, 0, 1];
type Inputs = {
  plan?: (p: Plan, features: Feature[]) => void;
  tools?: (t: Tool[]) => Tool[];
  ups?: Parameters<typeof newSetup>[2][];
};

async function inputOf(
  body: Shape3D,
  { plan: change, tools, ups = ['+Z'] }: Inputs = {},
): Promise<ProduceInput> {
  const model = await readStep(new TextEncoder().encode(await stepText([body], 'fixture')));
  const mesh = meshModel(model);
  const plan = newPlan('mm', SHOP.materials[0]!.id, SHOP.machines[0]!.id);
  plan.setups = ups.map((up, i) =>
    newSetup(`s${i + 1}`, `side ${i + 1}`, up, (['G54', 'G55', 'G56'] as const)[i]),
  );
  const { features } = recognise(model, { mesh });
  change?.(plan, features);
  return withDrawerLoaded({
    features,
    bounds: model.bounds,
    mesh,
    plan,
    library: { ...SHOP, tools: tools ? tools(SHOP.tools) : SHOP.tools },
    name: 'fixture',
  });
}

const errors = (p: ProducedJob) => p.checks.filter((c) => c.severity === 'error');
const operations = (p: ProducedJob) => p.programs.flatMap((s) => s.setup.operations);
const without = (kind: Tool['kind'], keep: (t: Tool) => boolean) => (tools: Tool[]) =>
  tools.filter((t) => t.kind !== kind || keep(t));

/** Lines of a program whose R lies below a level, from the text. */
const lowR = (p: ProducedJob, level: number) =>
  p.programs.flatMap((s) => s.read.calls.filter((c) => c.r < level).map((c) => c.line));

beforeAll(prepare);

/** The slot is made elsewhere, and later. */
const slotLeftOut = (p: Plan, features: Feature[]): void => {
  for (const s of featureSizes(features))
    if (s.features.some((f) => 'ends' in f)) p.sizes[s.key] = { leftOut: 'by hand', overrides: {} };
};

describe('a hole in the floor of a slot', () => {
  // An 8 mm slot, 10 deep, with a ⌀5 hole in its floor.
  const body = () =>
    cutAll(box([0, 0, -40], [80, 40, 0]), [
      prism(capsule(50, 8, [40, 20]), 1, -10),
      turned(blind(5, 12), [40, 20, -10], UP),
    ]);

  it('waits for the slot, and starts on its floor', async () => {
    const produced = produceJob(await inputOf(body()));
    expect(produced.checks.filter((c) => c.severity !== 'note')).toEqual([]);
    expect(operations(produced).map((o) => o.kind)).toEqual(['slot-mill', 'spot', 'drill']);
    const holes = operations(produced).slice(1);
    for (const w of holes.flatMap((o) => o.work)) expect(w.r).toBeCloseTo(-8, 6);
  });

  it('starts above the slot’s metal where that is not made before, and says so', async () => {
    const produced = produceJob(await inputOf(body(), { plan: slotLeftOut }));
    expect(errors(produced)).toEqual([]);
    expect(operations(produced).map((o) => o.kind)).toEqual(['spot', 'drill']);
    expect(lowR(produced, 0)).toEqual([]);
    expect(produced.checks.map((c) => c.rule)).toContain('starts-in-metal');
  });

  it('takes a spot that has room between the walls, or refuses with the reason', async () => {
    const narrow = produceJob(
      await inputOf(body(), { plan: slotLeftOut, tools: without('spot-drill', (t) => t.diameter !== 6) }),
    );
    const row = narrow.job.rows.find((r) => r.size.family === 'hole')!;
    const spot = row.operations.find((o) => o.kind === 'spot');
    // Ten millimetres down, a ⌀10 cone would stand in both walls: it only starts the drill at the top.
    if (spot) expect(Math.min(...spot.work.map((h) => h.z))).toBeGreaterThan(-3);
    expect(errors(narrow)).toEqual([]);
  });

  it('finds an R that was put into the slot by hand', async () => {
    const input = await inputOf(body(), { plan: slotLeftOut });
    const { text } = produceJob(input).programs[0]!;
    const low = text.replace(/R2\./g, 'R-8.');
    expect(low).not.toBe(text);
    const found = proveText(input, 's1', low).checks.filter((c) => c.severity === 'error');
    expect(found.map((c) => c.rule)).toContain('rapid-into-metal');
  });
});

describe('a fork', () => {
  // Two cheeks 10 thick with 20 of air between; ⌀8 through both.
  const fork = () =>
    cutAll(box([0, 0, -40], [60, 40, 0]), [
      box([-1, -1, -30], [40, 41, -10]),
      turned(straight(8, 41), [20, 20, 0], UP),
    ]);

  it('is drilled through both cheeks from above, and no spot goes through the upper one', async () => {
    const produced = produceJob(await inputOf(fork()));
    expect(errors(produced)).toEqual([]);
    const spots = operations(produced)
      .filter((o) => o.kind === 'spot')
      .flatMap((o) => o.work);
    expect(spots).toHaveLength(1);
    expect(spots[0]!.z).toBeGreaterThan(-5);
    const drilled = operations(produced)
      .filter((o) => o.kind === 'drill')
      .flatMap((o) => o.work);
    expect(drilled).toHaveLength(2);
    expect(lowR(produced, 0)).toEqual([]);
  });

  it('finds a spot sent through the upper cheek', async () => {
    const input = await inputOf(fork());
    const { text } = produceJob(input).programs[0]!;
    const deep = text.replace(/^(G9[89] G82 X\S+ Y\S+ )Z\S+/m, '$1Z-32.');
    const rules = proveText(input, 's1', deep)
      .checks.filter((c) => c.severity === 'error')
      .map((c) => c.rule);
    expect(rules).toContain('into-part');
  });

  it('does not let a drill through the upper cheek run into the lower one', async () => {
    // Only the upper cheek has a hole; the point must not reach the lower one, 2 mm below.
    const body = cutAll(box([0, 0, -40], [60, 40, 0]), [
      box([-1, -1, -12], [40, 41, -10]),
      turned(straight(8, 11), [20, 20, 0], UP, 5),
    ]);
    const produced = produceJob(await inputOf(body));
    const row = produced.job.rows.find((r) => r.size.family === 'hole')!;
    expect(row.state).toBe('open');
    expect(row.reasons.join()).toMatch(/would stand in the part/);
  });
});

describe('stock above the part', () => {
  const plate = () => cutAll(box([0, 0, -30], [60, 40, 0]), [turned(blind(6, 20), [20, 20, 0], UP)]);

  it('R stands above an allowance on top, prepared or not, and what is left inherits it', async () => {
    for (const kind of ['prepared', 'block'] as const) {
      const input = await inputOf(plate(), {
        ups: ['+Z', '+Z'],
        plan: (p, features) => {
          withoutAreas(p, features);
          p.setups[0]!.stock = { ...p.setups[0]!.stock, kind, zHigh: 5 };
          p.setups[1]!.stock = { ...p.setups[1]!.stock, kind: 'left-over' };
          // Zero on the part's top, so that the stock's stands at +5.
          for (const s of p.setups) s.zero = { kind: 'box', of: 'part', x: 0, y: 0, z: 1, offset: [0, 0, 0] };
        },
      });
      const produced = produceJob(input);
      expect(errors(produced), kind).toEqual([]);
      expect(Math.min(...operations(produced).flatMap((o) => o.work.map((h) => h.r)))).toBe(7);
    }
  });

  it('counts against the flutes: 28 mm of block above the entry', async () => {
    const low = cutAll(box([0, 0, -40], [60, 40, 0]), [
      box([-1, -1, -28], [40, 41, 1]),
      turned(straight(6, 13), [20, 20, -28], UP, 1),
    ]);
    const block = (p: Plan, features: Feature[]): void => {
      withoutAreas(p, features);
      p.setups[0]!.stock = { ...p.setups[0]!.stock, kind: 'block' };
    };
    const short = (tools: Tool[]) =>
      tools.map((t) => (t.kind === 'drill' && t.diameter === 6 ? { ...t, fluteLength: 20 } : t));
    const refused = produceJob(await inputOf(low, { plan: block, tools: short }));
    expect(refused.job.rows.find((r) => r.size.family === 'hole')!.reasons.join()).toMatch(
      /No drill .* reaches 41 mm/,
    );
    const made = produceJob(await inputOf(low, { plan: block }));
    expect(errors(made)).toEqual([]);
    // A clean program proved with a shorter tool on the same number.
    const input = await inputOf(low, { plan: block, tools: short });
    const found = proveText(input, 's1', made.programs[0]!.text).checks.filter((c) => c.severity === 'error');
    expect(found.map((c) => c.rule)).toContain('flute-length');
  });
});

describe('shank and holder', () => {
  // A ⌀6 hole 8 deep beside a wall 60 high, 12 from its axis.
  const corner = () =>
    cutAll(box([0, 0, -80], [80, 40, 0]), [
      box([20, -1, -60], [81, 41, 1]),
      turned(blind(6, 8), [32, 20, -60], UP),
    ]);

  it('a holder that would stand in a wall is not planned', async () => {
    const produced = produceJob(await inputOf(corner()));
    const row = produced.job.rows.find((r) => r.size.family === 'hole')!;
    expect(row.state).toBe('open');
    expect(row.reasons.join()).toMatch(/holder of .* would stand in the part/);
  });

  it('one that sticks out far enough is, and the same line with a short one is found', async () => {
    const long = (tools: Tool[]) =>
      tools.map((t) =>
        (t.kind === 'drill' && t.diameter === 6) || t.kind === 'spot-drill' ? { ...t, stickOut: 120 } : t,
      );
    const made = produceJob(await inputOf(corner(), { tools: long }));
    expect(errors(made)).toEqual([]);
    const input = await inputOf(corner());
    const rules = proveText(input, 's1', made.programs[0]!.text)
      .checks.filter((c) => c.severity === 'error')
      .map((c) => c.rule);
    expect(rules).toContain('into-part');
  });

  it('links stay low only where the whole outline passes', async () => {
    // Two holes on a terrace that is open in front, with or without a rib between that stands 20 above it.
    const valley = (rib: boolean) =>
      cutAll(box([0, 0, -60], [120, 80, 0]), [
        ...(rib
          ? [
              box([-1, -1, -30], [55, 50, 1]),
              box([65, -1, -30], [121, 50, 1]),
              box([54, -1, -10], [66, 50, 1]),
            ]
          : [box([-1, -1, -30], [121, 50, 1])]),
        turned(blind(6, 10), [30, 20, -30], UP),
        turned(blind(6, 10), [90, 20, -30], UP),
      ]);
    const first = async (rib: boolean) =>
      produceJob(await inputOf(valley(rib))).programs[0]!.text.match(/^(G9[89]) G8\d/m)![1];
    expect(await first(false)).toBe('G99');
    expect(await first(true)).toBe('G98');
  });
});

describe('holes in other holes', () => {
  // A ⌀20 counterbore 10 deep on a ⌀8 hole, and beside its axis in the same floor a ⌀3 hole.
  const nested = () =>
    cutAll(box([0, 0, -40], [60, 40, 0]), [
      turned(counterbored(blind(8, 25), 22, 12), [30, 20, 0], UP),
      turned(blind(3, 6), [37.5, 20, -12], UP),
    ]);

  it('wait for the one that they start in', async () => {
    const produced = produceJob(await inputOf(nested()));
    expect(errors(produced)).toEqual([]);
    const order = operations(produced).map((o) => `${o.tag} ${o.kind}`);
    const [outer, inner] = produced.job.rows
      .filter((r) => r.size.family === 'hole')
      .sort((a, b) => b.operations.length - a.operations.length);
    expect(order.indexOf(`${inner!.tag} spot`)).toBeGreaterThan(order.indexOf(`${outer!.tag} counterbore`));
    expect(inner!.holes[0]!.metalZ).toBeCloseTo(-12, 6);
  });

  it('run into metal where the order was changed by hand', async () => {
    const input = await inputOf(nested());
    const { text } = produceJob(input).programs[0]!;
    // The counterbore's stretch is taken out: what starts in its floor goes at rapid into metal.
    const cut = text.replace(/\n\(T\d+ COUNTERBORE[^)]*\)\nT\d+ M6[\s\S]*?G53 G0 Z0\.\n/, '\n');
    expect(cut).not.toBe(text);
    const rules = proveText(input, 's1', cut)
      .checks.filter((c) => c.severity === 'error')
      .map((c) => c.rule);
    expect(rules).toEqual(expect.arrayContaining(['rapid-into-metal', 'not-in-program']));
  });

  it('two levels on one axis are each paired with their own lines', async () => {
    const step = cutAll(box([0, 0, -60], [60, 40, 0]), [
      box([-1, -1, -40], [41, 41, -20]),
      turned(blind(10, 14), [20, 20, 0], UP),
      turned(straight(6, 21), [20, 20, -40], UP, 40),
      turned(straight(10, 21), [20, 20, 0], UP),
    ]);
    const produced = produceJob(await inputOf(step));
    expect(errors(produced)).toEqual([]);
    expect(produced.programs).toHaveLength(1);
  });
});

describe('prints on real parts', () => {
  it('a depth on a through hole is drilled as printed', async () => {
    const body = cutAll(box([0, 0, -30], [60, 40, 0]), [turned(straight(6, 40), [20, 20, 0], UP)]);
    const input = await inputOf(body);
    const [size] = featureSizes(input.features.filter((f) => f.family === 'hole'));
    input.plan.sizes[size!.key] = { ...decisionFromCallout('⌀6 ↧12', 'mm'), overrides: {} };
    const produced = produceJob(input);
    const drill = operations(produced).find((o) => o.kind === 'drill')!;
    expect(drill.work[0]!.z).toBeCloseTo(-12 - 3 / Math.tan((59 * Math.PI) / 180), 3);
    expect(produced.checks.map((c) => c.rule)).toContain('print-and-model');
    expect(errors(produced)).toEqual([]);
  });
});
