import type { Shape3D } from 'replicad';
import { beforeAll, describe, expect, it } from 'vitest';
import { targetOf } from '@yellow-pin/core/corrections/apply';
import type { Feature } from '@yellow-pin/core/features/family';
import { featureSizes } from '@yellow-pin/core/features/sets';
import type { Plan } from '@yellow-pin/core/plan/plan';
import { proveText } from '@yellow-pin/core/job/produce';
import { newSetup } from '@yellow-pin/core/setup/setup';
import { chamfered, filleted, rectangle } from './cut-shapes.ts';
import { box, cutAll, prepare, prism, stepText, straight, turned } from './solids.ts';
import { UP } from './stored-parts.ts';
import { errors, jobOf, jobOfText, proved, type Trial } from './trial.ts';

/** A plate with a pocket, a ridge across its end that an edge runs into, a ledge 1.5 below the front edge, and two holes. */
const body = (): Shape3D =>
  cutAll(box([0, 0, -20], [100, 60, 0]).fuse(box([80, 0, 0], [100, 60, 12]) as Shape3D) as Shape3D, [
    prism(rectangle(40, 24, 5, 40, 34), 1, -8),
    box([-1, -1, -1.5], [80, 6, 1]),
    turned(straight(8, 30), [70, 50, 0], UP),
    turned(straight(4, 30), [12, 52, 0], UP),
  ]);
const WIDTH = 0.3;
/** The plate's top, below the ridge's. */
const TOP = -12;

const broken =
  (overrides: Record<string, number | string> = {}) =>
  (p: Plan, features: Feature[]): void => {
    p.edgeBreak = WIDTH;
    p.setups = [newSetup('s1', 'top up', '+Z')];
    for (const s of featureSizes(features))
      if (s.family === 'sharp-edge') p.sizes[s.key] = { overrides: { 'edge-mill': overrides } };
  };

let text: string;
let trial: Trial;
beforeAll(async () => {
  await prepare();
  text = await stepText([body()], 'edges');
  trial = await jobOfText(text, { change: broken() });
}, 60_000);

/** Operations on edges, with what they cut. */
const edgeWork = (t: Trial) =>
  t.job.rows.flatMap((r) =>
    r.operations
      .filter((o) => o.work.some((w) => w.edges))
      .flatMap((o) => o.work.map((work) => ({ r, o, work }))),
  );
/** The lines of one row's operation on edges. */
const blockOf = (program: string, tag: string): string => {
  const lines = program.split('\n');
  const from = lines.findIndex((l) => l.startsWith(`(${tag} EDGE`));
  const isEnd = (l: string): boolean => l.startsWith('(') || l.startsWith('M9');
  const begins = lines.findIndex((l, i) => i > from && !l.startsWith('('));
  const to = lines.findIndex((l, i) => i > begins && isEnd(l));
  return lines.slice(from, to).join('\n');
};
const changed =
  (tag: string, change: (block: string) => string) =>
  (program: string): string => {
    const block = blockOf(program, tag);
    expect(change(block)).not.toBe(block);
    return program.replace(block, change(block));
  };
/** Errors that the text itself shows, without taking the metal off. */
const rules = (edit: (t: string) => string): string[] => [
  ...new Set(errors(proveText(trial.input, trial.setups[0]!, edit(trial.texts[0]!)).checks)),
];
/** All Z words below the part's top, moved. */
const deeper =
  (by: number) =>
  (block: string): string =>
    block.replace(/Z-(\d*\.?\d+)/g, (_, z: string) => `Z${(-Number(z) - by).toFixed(3)}`);
/** The tag of an edge's row by the middle of one of its pieces, program coordinates. */
const tagAt = (x: number, y: number, z: number): string => {
  const found = edgeWork(trial).find(({ work }) =>
    work.edges!.some(
      (e) =>
        Math.abs(e.top - z) < 0.01 &&
        e.path.some((s) => Math.hypot((s.from[0] + s.to[0]) / 2 - x, (s.from[1] + s.to[1]) / 2 - y) < 0.6),
    ),
  );
  return found!.r.tag;
};

describe('broken edges', () => {
  it('are proved without an error, and nothing beyond them is cut', () => {
    const { checks, metal } = proved(trial);
    expect(errors(checks)).toEqual([]);
    expect(metal).toMatchObject({ overcutVolume: 0, leftoverVolume: 0 });
    expect(metal.places.some((p) => p.kind === 'wanted' && p.volume > 1)).toBe(true);
    expect(edgeWork(trial).length).toBeGreaterThanOrEqual(6);
  });

  it('that are not made say why, each', () => {
    for (const r of trial.job.rows.filter((x) => x.size.family === 'sharp-edge'))
      if (r.state !== 'planned') expect(r.reasons.join()).toMatch(/No setup looks at it|room|flutes|holder/);
  });

  it('0.02 too wide or too narrow are found by their line', () => {
    for (const tag of new Set(edgeWork(trial).map(({ r }) => r.tag))) {
      expect(rules(changed(tag, deeper(0.02)))).toContain('edge-too-wide');
      expect(rules(changed(tag, deeper(-0.02)))).toContain('edge-too-narrow');
    }
  });

  it('whose cutter stands in the floor below are found', () => {
    // Of the ledge's upper edge: the tip goes through it.
    const tag = tagAt(-10, -24, TOP);
    expect(rules(changed(tag, deeper(1.5)))).toEqual(expect.arrayContaining(['edge-too-wide']));
    const { checks } = proved(trial, changed(tag, deeper(1.5)));
    expect(checks.some((c) => c.rule === 'over-cut' || c.rule === 'into-part')).toBe(true);
  });

  it('run on into a wall that rises at their end, or on the wrong side of the edge, are found', () => {
    const open = edgeWork(trial).find(({ work }) => work.edges!.some((e) => !e.closed && e.left.length > 0))!;
    const on = changed(open.r.tag, (b) =>
      b.replace(/^X-?[\d.]+ F/m, 'X45. F').replace(/^X-?[\d.]+$/m, 'X45.'),
    );
    expect(errors(proved(trial, on).checks).length).toBeGreaterThan(0);
    const { r } = edgeWork(trial).find(({ work: w }) => w.edges!.some((e) => e.closed))!;
    const inside = changed(r.tag, (b) =>
      b.replace(/Y(-?)([\d.]+)/g, (_, s: string, y: string) => `Y${s}${(Number(y) - 2.5).toFixed(3)}`),
    );
    expect(errors(proved(trial, inside).checks).length).toBeGreaterThan(0);
  });

  it('that are left out of the text are missed, whole or in part', () => {
    const [one] = edgeWork(trial);
    expect(rules((t) => t.replace(blockOf(t, one!.r.tag), ''))).toContain('not-in-program');
    const pocket = tagAt(-10, -8, TOP);
    const part = changed(pocket, (b) =>
      b
        .split('\n')
        .filter((_, i, all) => i < 5 || i > all.length - 4)
        .join('\n'),
    );
    expect(rules(part).length).toBeGreaterThan(0);
  });
});

describe('widths', () => {
  it('along the slope are w/sin a across the top', async () => {
    const t = await jobOfText(text, { change: broken({ measured: 'along the slope', width: 0.5 }) });
    for (const { work } of edgeWork(t))
      for (const e of work.edges!) expect(e.inset).toBeCloseTo(0.5 * Math.SQRT1_2, 6);
    expect(errors(proved(t).checks)).toEqual([]);
  });

  it('of more than a pass are cut in several of as much metal each, to the same end', async () => {
    const t = await jobOfText(text, { change: broken({ width: 1, perPass: 0.6 }) });
    const [first] = edgeWork(t).filter(({ work }) => work.motion.kind === 'path');
    const passes = first!.work.motion.kind === 'path' ? first!.work.motion.passes : [];
    expect(passes).toHaveLength(2);
    const lows = passes.map((p) =>
      Math.min(...p.moves.flatMap((m) => (m.kind === 'dwell' ? [] : [m.to[2]]))),
    );
    expect(lows[0]! - lows[1]!).toBeCloseTo(1 - Math.SQRT1_2, 6);
    expect(errors(proved(t).checks)).toEqual([]);
  });

  it('for which the tip clearance leaves no chamfer are refused, with what would do', async () => {
    const t = await jobOfText(text, { change: broken({ clearance: 9 }) });
    const reasons = t.job.rows.flatMap((r) => [...r.reasons, ...r.blocked.map((b) => b.reason)]).join('\n');
    expect(reasons).toMatch(/a tip clearance of 9 mm would leave no chamfer: the flank of .* is .* high/);
    expect(reasons).toMatch(/Use [\d.]+ mm at the most, or a cutter with a smaller tip/);
  });

  it('run off an open end by as much as is typed, each end its own', async () => {
    const t = await jobOfText(text, { change: broken({ pastStart: 7, pastEnd: 3 }) });
    const open = edgeWork(t).find(({ work }) => work.edges!.some((e) => !e.closed));
    expect(open).toBeDefined();
    expect(errors(proved(t).checks)).toEqual([]);
  });
});

describe('hole rims', () => {
  it('that a spot has broken are done; others are led round, or cut straight down where the hole is small', async () => {
    const rims = trial.job.rows.filter((r) => r.size.group === 'Sharp hole rims');
    expect(rims.every((r) => r.state === 'planned' || r.state === 'unreachable')).toBe(true);
    // The spots leave 0.2.
    const little = await jobOfText(text, {
      change: (p, features) => {
        broken()(p, features);
        p.edgeBreak = 0.2;
      },
    });
    const done = little.job.rows.filter((r) => r.madeBy.length > 0);
    expect(done.map((r) => r.size.group)).toContain('Sharp hole rims');
    expect(done.every((r) => r.state === 'planned' && r.operations.length === 0)).toBe(true);
    const t = await jobOfText(text, {
      change: (p, features) => {
        broken()(p, features);
        for (const s of featureSizes(features))
          if (s.family === 'sharp-edge') p.sizes[s.key] = { overrides: {}, method: 'edge-break' };
      },
    });
    const small = edgeWork(t).filter(({ work }) => work.motion.kind === 'cycle');
    expect(small.length).toBeGreaterThan(0);
    for (const { work, o } of small)
      expect(work.edges![0]!.top - work.z).toBeGreaterThan(o.tool.tipDiameter / 2);
    // What the spot has cut wider already is wider: nothing else is wrong.
    expect(errors(proved(t).checks).filter((r) => r !== 'done-twice')).toEqual([]);
  });
});

describe('rounded edges and chamfers of the model', () => {
  it('are made by the cutter of their own radius and angle, and refused where there is none', async () => {
    const t = await jobOf(filleted(box([0, 0, -20], [60, 40, 0]), 2, { z: 0 }));
    expect(edgeWork(t).map(({ o }) => o.tool.description)).toEqual(['corner-rounding cutter R2']);
    const { checks, metal } = proved(t);
    expect(errors(checks)).toEqual([]);
    expect(metal).toMatchObject({ overcutVolume: 0, leftoverVolume: 0 });
    const odd = await jobOf(filleted(box([0, 0, -20], [60, 40, 0]), 2.3, { z: 0 }));
    const row = odd.job.rows.find((r) => r.size.family === 'rounded-edge')!;
    expect(row).toMatchObject({ state: 'open', notMade: 'no tool' });
    expect(row.reasons.join()).toContain('No corner-rounding cutter R2.3');
    expect(row.wants[0]).toMatchObject({ profileRadius: 2.3 });
    const steep = await jobOf(
      chamfered(
        box([0, 0, -20], [60, 40, 0]),
        {
          distances: [1, 0.5],
          selectedFace: (f: never) => (f as { inPlane(p: string, z: number): unknown }).inPlane('XY', 0),
        },
        { z: 0 },
      ) as Shape3D,
    );
    const chamfers = steep.job.rows.filter((r) => r.size.family === 'chamfer');
    expect(chamfers.length).toBeGreaterThan(0);
    for (const r of chamfers) expect(r.reasons.join()).toMatch(/No chamfer mill \d+° in the tool list/);
  });

  it('of 45° are cut to the model, with corners at a mitre', async () => {
    const t = await jobOf(chamfered(box([0, 0, -20], [60, 40, 0]), 1.5, { z: 0 }) as Shape3D);
    const { checks, metal } = proved(t);
    expect(errors(checks)).toEqual([]);
    expect(metal).toMatchObject({ overcutVolume: 0, leftoverVolume: 0 });
    const shallow = proved(t, (program) => deeper(-0.1)(program));
    expect(errors(shallow.checks)).toContain('edge-too-narrow');
  });
});

describe('an edge that looks away', () => {
  const behind = (p: Plan, features: Feature[]): void => {
    p.edgeBreak = WIDTH;
    p.setups = [newSetup('s1', 'top up', '+Z')];
    p.corrections = features
      .filter((f) => f.family === 'sharp-edge' && f.axis[2] < -0.9)
      .map((f, i) => ({ id: `c${i}`, kind: 'approach', targets: [targetOf(f)], from: [0, 0, 1] }));
  };

  it('is broken from behind past the wall, and the operator is told what goes below', async () => {
    const t = await jobOf(box([0, 0, -20], [60, 40, 0]), {}, behind);
    const own = edgeWork(t).filter(({ o }) => o.kind === 'edge-behind');
    expect(own).toHaveLength(1);
    expect(own[0]!.o.remarks.map((r) => r.rule)).toContain('below-the-part');
    const { checks, metal } = proved(t);
    expect(errors(checks)).toEqual([]);
    expect(metal).toMatchObject({ overcutVolume: 0, leftoverVolume: 0 });
    const high = proved(t, (program) => program.replace('Z-22.8', 'Z-22.7'));
    expect(errors(high.checks)).toContain('edge-too-wide');
  });

  it('is refused where something of the part stands lower than it', async () => {
    const t = await jobOf(
      box([0, 0, -20], [60, 40, 0]).fuse(box([60, 0, -40], [90, 40, 0]) as Shape3D) as Shape3D,
      {},
      behind,
    );
    const reasons = t.job.rows.flatMap((r) => [...r.reasons, ...r.blocked.map((b) => b.reason)]).join();
    expect(reasons).toContain('something of the part stands lower');
  });
});
