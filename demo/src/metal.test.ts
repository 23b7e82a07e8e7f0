import { featureSizes } from '@yellow-pin/core/features/sets';
import { beforeAll, describe, expect, it } from 'vitest';
import { setupsFor } from '@yellow-pin/core/setup/choose-setups';
import type { Shape3D } from 'replicad';
import { chance } from './mutate.ts';
import { blind, box, counterbored, cutAll, prepare, straight, turned, type Point } from './solids.ts';
import { errors, jobOf, proved, withoutAreas, type Trial } from './trial.ts';

const UP: Point = [0, 0, 1];

/** A plate with two sorts of blind holes, a counterbored one, and a boss that stands up beside one of them. */
const plate = (): Shape3D =>
  cutAll(box([0, 0, -30], [90, 60, 0]).fuse(box([40, 20, 0], [60, 40, 35])), [
    turned(blind(6.8, 22), [15, 15, 0], UP),
    turned(blind(6.8, 22), [15, 45, 0], UP),
    turned(blind(5, 12), [75, 15, 0], UP),
    turned(counterbored(straight(6.6, 30), 11, 6.8), [75, 45, 0], UP),
  ]);

let job: Trial;
beforeAll(async () => {
  await prepare();
  job = await jobOf(plate(), { 6.8: 'M8x1.25 ↧14' });
}, 60_000);

/** The part of a text that one tool runs, changed. */
const inTool = (text: string, words: RegExp, change: (part: string) => string): string => {
  const parts = text.split(/(?=^\(T\d+ [^\n]*\)\n(?:G53 G0 Z0\.\n)?T\d+ M6)/m);
  expect(parts.some((p) => words.test(p.split('\n')[0]!))).toBe(true);
  return parts.map((p) => (words.test(p.split('\n')[0]!) ? change(p) : p)).join('');
};

describe('a clean job', () => {
  it('is left without a finding: no false over-cut at threads and spotted rims, nothing left', () => {
    const { checks, metal } = proved(job);
    expect(checks.filter((c) => c.severity !== 'note')).toEqual([]);
    expect(metal).toMatchObject({ overcutVolume: 0, leftoverVolume: 0, notCounted: [] });
    // Threads and rims are known, and said.
    expect(metal.places.some((p) => p.kind === 'wanted' && p.volume > 1)).toBe(true);
  });

  it('an unmade hole is left over by its volume', () => {
    const { metal } = proved(job, (t) =>
      inTool(t, /DRILL D5 /, (p) => p.replace(/^G99 G8[^\n]*\n|^G98 G8[^\n]*\n/gm, '')),
    );
    const exact = (Math.PI / 4) * 25 * 12;
    const left = metal.places.filter((p) => p.kind === 'left-over');
    expect(left).toHaveLength(1);
    expect(left[0]!.volume).toBeGreaterThan(0.85 * exact);
    expect(left[0]!.volume).toBeLessThan(1.3 * exact);
  });
});

describe('planted mistakes are found by what the text does', () => {
  it('a drill too deep: how much, where, by which tool and line', () => {
    const text = (t: string): string => inTool(t, /DRILL D5 /, (p) => p.replace(/ Z-4[\d.]+/, ' Z-53.'));
    const { metal, checks } = proved(job, text);
    const [place] = metal.places.filter((p) => p.kind === 'over-cut');
    // The tip goes to 18; the model's point ends 12 + 1.502 below the face: 4.5 deeper, seen from the side at most 2.5 away.
    expect(place).toMatchObject({ tag: expect.any(String) as string, depth: 2 });
    expect(Math.hypot(place!.at[0] - 75, place!.at[1] - 15)).toBeLessThan(2.5);
    expect(place!.volume).toBeCloseTo((Math.PI / 4) * 25 * (18 - 12 - 1.502), -1);
    expect(place!.line).not.toBeNull();
    expect(errors(checks)).toContain('too-deep');
  });

  it('swapped tools: the wider drill where the narrow one belongs', () => {
    const swapped = (t: string): string => {
      const [a, b] = [/^T(\d+) M6\n(?=[^M]*DRILL)/m, /DRILL D5 /];
      expect(a.test(t) && b.test(t)).toBe(true);
      const narrow = /\(T(\d+) DRILL D5 /.exec(t)![1]!;
      const wide = /\(T(\d+) DRILL D6\.8 /.exec(t)![1]!;
      return t
        .replaceAll(`T${narrow} M6`, 'T@ M6')
        .replaceAll(`T${wide} M6`, `T${narrow} M6`)
        .replaceAll('T@ M6', `T${wide} M6`)
        .replaceAll(`H${narrow} `, 'H@ ')
        .replaceAll(`H${wide} `, `H${narrow} `)
        .replaceAll('H@ ', `H${wide} `);
    };
    const { metal } = proved(job, swapped);
    const over = metal.places.filter((p) => p.kind === 'over-cut');
    // Its wall all round by half of 6.8 - 5, and its floor by more: all of it the wider drill's.
    expect(over).toHaveLength(1);
    expect(over[0]).toMatchObject({ tag: 'A', tool: 13 });
    expect(over[0]!.depth).toBeGreaterThan(0.89);
    expect(metal.places.some((p) => p.kind === 'left-over' && Math.abs(p.depth - 0.9) < 0.05)).toBe(true);
  });

  it('another zero: every hole is somewhere else', () => {
    const shifted = (t: string): string =>
      t.replace(/X(-?[\d.]+) Y/g, (_, x: string) => `X${(Number(x) + 3).toFixed(3)} Y`);
    const { checks, metal } = proved(job, shifted);
    expect(metal.places.filter((p) => p.kind === 'over-cut').length).toBeGreaterThan(0);
    expect(metal.leftoverVolume).toBeGreaterThan(50);
    expect(errors(checks)).toContain('over-cut');
  });

  it('coming down from home into metal: where it came from is not said, and it passed what lies above', () => {
    const text = (t: string): string =>
      inTool(t, /DRILL D5 /, (p) => p.replace(/(G43 H\d+) Z25\./, '$1 Z-45.'));
    const { checks } = proved(job, text);
    const told = checks.filter((c) => /^rapid-into/.test(c.rule) || c.rule === 'over-cut');
    expect(told.map((c) => [c.rule, c.severity])).toEqual([['rapid-into-part', 'error']]);
  });

  it('a spot 0.1 mm deeper than planned: by as much as it is deeper, not by all of its cone', () => {
    const text = (t: string): string =>
      inTool(t, /SPOT DRILL/, (p) =>
        p.replace(/ Z(-36\.\d+)/, (_, z: string) => ` Z${(Number(z) - 0.1).toFixed(3)}`),
      );
    const { metal } = proved(job, text);
    const over = metal.places.filter((p) => p.kind === 'over-cut');
    expect(over).toHaveLength(1);
    expect(over[0]!.depth).toBeGreaterThan(0.04);
    // Along the wall it reaches 0.1 · tan 60° beyond the planned cone, square to the cone less; all of it would be 0.5.
    expect(over[0]!.depth).toBeLessThan(0.18);
  });

  it('rapid below the face, into metal', () => {
    const text = (t: string): string => inTool(t, /DRILL D5 /, (p) => p.replace(/ R-33\./, ' R-40.'));
    expect(errors(proved(job, text).checks).some((r) => /rapid/.test(r))).toBe(true);
  });

  it('a way across through the boss, where a lift was needed', () => {
    const across = (t: string): string =>
      inTool(t, /DRILL D5 /, (p) => p.replace('G80', 'G80\nG0 Z-20.\nG0 Y0.\nG0 X-30.'));
    const { checks } = proved(job, across);
    const hit = checks.find((c) => /rapid-into/.test(c.rule));
    expect(hit).toMatchObject({ severity: 'error' });
    expect(hit!.line).toBeGreaterThan(0);
  });

  it('a holder led into the boss, above a cut that the part itself allows', () => {
    const short = (t: string): string =>
      t.replace(
        '\nM30\n',
        '\n(T42 END MILL D6)\nT42 M6\nS5000 M3\nG54 G0 X25. Y-15.\nG43 H42 Z25.\nG1 Z-34.5 F300.\nG0 Z25.\nM5\nG53 G0 Z0.\nM30\n',
      );
    const found = proved(job, short).checks.filter((c) => c.severity === 'error');
    expect(found.map((c) => c.rule)).toEqual([expect.stringMatching(/holder-into-metal|into-part/)]);
    expect(found[0]!.message).toMatch(/holder of T42/);
    expect(found[0]!.line).toBeGreaterThan(0);
  });

  it('a tap before its drill: metal that the drill should have taken', () => {
    const early = (t: string): string => {
      const parts = t.split(/(?=^\(T\d+ [^\n]*\)\n(?:G53 G0 Z0\.\n)?T\d+ M6)/m);
      const tap = parts.findIndex((p) => / TAP /.test(p.split('\n')[0]!));
      const drill = parts.findIndex((p) => /DRILL D6\.8 /.test(p.split('\n')[0]!));
      const [moved] = parts.splice(tap, 1);
      parts.splice(drill, 0, moved!);
      return parts.join('');
    };
    expect(errors(proved(job, early).checks)).toContain('tap-without-hole');
  });
});

describe('a text that somebody has spoilt', () => {
  it('is proved to its end whatever its numbers say: never a crash, never a wait without end', () => {
    const random = chance(20261126);
    for (let n = 0; n < 12; n++) {
      const spoilt = (t: string): string =>
        t.replace(/([XYZRQFP])(-?[\d.]+)/g, (word, letter: string, value: string) => {
          if (random() > 0.06) return word;
          const change = [value.replace('.', ''), `-${value}`, `${value}99`, '99999.', '0.', '.'];
          return `${letter}${change[Math.floor(random() * change.length)]}`;
        });
      const { metal } = proved(job, spoilt);
      expect(metal.overcutVolume).not.toBeNaN();
      expect(metal.leftoverVolume).not.toBeNaN();
    }
  }, 60_000);
});

describe('a slot milled by hand in a program of holes', () => {
  let slotted: Trial;
  beforeAll(async () => {
    slotted = await jobOf(
      cutAll(box([0, 0, -20], [80, 40, 0]), [
        turned(blind(5, 12), [15, 10, 0], UP),
        box([-1, 22, -4], [81, 28, 1]),
      ]),
      {},
      (p, features) => {
        for (const s of featureSizes(features))
          if (s.features.some((f) => 'ends' in f)) p.sizes[s.key] = { leftOut: 'by hand', overrides: {} };
      },
    );
  }, 30_000);
  /** End mill ⌀6 through the middle of the slot (Y 5 from the part's), `deep` below the face, `aside` of its middle. */
  const milled =
    (deep: number, aside = 0) =>
    (t: string) =>
      t.replace(
        '\nM30\n',
        [
          '',
          '(T42 END MILL D6)',
          'T42 M6',
          'S5000 M3',
          `G54 G0 X-45. Y${(5 + aside).toFixed(3)}`,
          'G43 H42 Z25.',
          `G0 Z-${deep.toFixed(3)}`,
          'G1 X45. F300.',
          'G0 Z25.',
          'M5',
          'G53 G0 Z0.',
          'M30',
          '',
        ].join('\n'),
      );

  it('is known as made where the cutter is as wide as the slot, without a finding at its walls', () => {
    const { checks, metal } = proved(slotted, milled(4));
    expect(errors(checks)).toEqual([]);
    expect(metal).toMatchObject({ overcutVolume: 0, leftoverVolume: 0 });
    expect(proved(slotted).metal.leftoverVolume).toBeGreaterThan(0.95 * 80 * 6 * 4);
  });

  it('is found 0.05 mm too deep, and 0.1 mm beside its place, by its tag and line', () => {
    const deep = proved(slotted, milled(4.05));
    expect(deep.metal.largestOvercut).toBeCloseTo(0.05, 3);
    expect(deep.metal.overcutVolume).toBeCloseTo(80 * 6 * 0.05, 0);
    expect(errors(deep.checks)).toEqual(['milled-too-deep']);
    const beside = proved(slotted, milled(4, 0.1));
    expect(errors(beside.checks).length).toBeGreaterThan(0);
    expect(beside.checks.find((c) => c.severity === 'error')!.line).toBeGreaterThan(0);
    expect(beside.metal.places.some((p) => p.kind === 'left-over')).toBe(true);
  });

  it('is found where its lead-in goes through the wall, with how far and its line', () => {
    const lead = (t: string): string =>
      milled(4)(t).replace('G54 G0 X-45. Y5.000', 'G54 G0 X-45. Y-8.').replace(
        'G1 X45. F300.',
        // On to the slot's middle from the left of its wall: the arc of the lead is right, the wall is in its way.
        'G41 D42 G1 X-36. Y-4. F300.\nG3 X-27. Y5. R9.\nG40 G1 X-20. Y5.\nX45.',
      );
    const { checks, metal } = proved(slotted, lead);
    const over = checks.find((c) => c.rule === 'over-cut')!;
    expect(over.severity).toBe('error');
    expect(lead(slotted.texts[0]!).split('\n')[over.line! - 1]).toMatch(/^G41|^G3/);
    expect(over.at).toBeDefined();
    expect(metal.overcutVolume).toBeGreaterThan(50);
    // All of it is hatched on the part, and nothing where the part is as it should be.
    const painted = metal.paint.filter((p) => p.kind === 'over-cut');
    const blocks = painted.flatMap(({ blocks, side }) =>
      Array.from(
        { length: blocks.length / 4 },
        (_, n) => side * side * (blocks[4 * n + 3]! - blocks[4 * n + 2]!),
      ),
    );
    expect(blocks.reduce((a, b) => a + b, 0)).toBeGreaterThan(0.9 * metal.overcutVolume!);
    expect(painted.every(({ blocks }) => blocks.every((v, n) => n % 4 !== 0 || v < -15))).toBe(true);
  });

  it('is found 0.03 mm beside its place, though no cell of the grid is so narrow', () => {
    const { metal, checks } = proved(slotted, milled(4, 0.03));
    expect(metal.cell).toBeGreaterThan(0.1);
    expect(metal.largestOvercut).toBeCloseTo(0.03, 2);
    expect(errors(checks)).toEqual(['over-cut']);
  });
});

describe('a second setup', () => {
  it('begins with what the first left: a hole from both sides meets, and without the first its metal is still there', async () => {
    const two = await jobOf(
      cutAll(box([0, 0, -40], [50, 40, 0]), [
        turned(blind(8, 15), [20, 20, 0], UP),
        turned(straight(6, 40), [38, 20, 0], UP),
        turned(blind(10, 12), [20, 20, -40], [0, 0, -1]),
      ]),
    );
    expect(two.texts).toHaveLength(2);
    const { metal, checks } = proved(two);
    expect(checks.filter((c) => c.severity === 'error')).toEqual([]);
    expect(metal).toMatchObject({ overcutVolume: 0, leftoverVolume: 0 });
    // The second goes down through what the first has drilled; where the first forgot to, there is metal.
    const through = (t: string): string =>
      t.replace(
        '\nM30\n',
        '\n(T10 DRILL D5.5)\nT10 M6\nS2000 M3\nG55 G0 X13. Y0.\nG43 H10 Z25.\nG0 Z-35.\nG0 Z25.\nM5\nG53 G0 Z0.\nM30\n',
      );
    const goesDown = (_: string, i: number): string => (i === 1 ? through(two.texts[1]!) : two.texts[0]!);
    expect(errors(proved(two, goesDown).checks).filter((r) => /rapid/.test(r))).toEqual([]);
    const forgot = proved(two, (t, i) =>
      i === 1 ? through(t) : inTool(t, /DRILL D6 /, (p) => p.replace(/^G9[89] G8[^\n]*\n/gm, '')),
    );
    const hit = forgot.checks.find((c) => c.rule === 'rapid-into-metal')!;
    expect(hit).toMatchObject({ severity: 'error', setupId: two.setups[1] });
    expect(through(two.texts[1]!).split('\n')[hit.line! - 1]).toBe('G0 Z-35.');
  }, 30_000);
});

describe('a third setup', () => {
  it('knows what the first took, though another came between', async () => {
    const three = await jobOf(
      cutAll(box([0, 0, -40], [60, 50, 0]), [
        turned(straight(6, 40), [20, 25, 0], UP),
        // Its wide end is made from below, last.
        turned(
          [
            [0, 5.5],
            [6, 5.5],
            [6, 0],
          ],
          [20, 25, -40],
          [0, 0, -1],
        ),
        turned(blind(8, 12), [60, 25, -20], [1, 0, 0]),
      ]),
      {},
      (p) => {
        p.setups = setupsFor([
          [0, 0, 1],
          [1, 0, 0],
          [0, 0, -1],
        ]);
      },
    );
    expect(three.texts).toHaveLength(3);
    const { metal, checks } = proved(three);
    expect(checks.filter((c) => c.severity === 'error')).toEqual([]);
    expect(metal).toMatchObject({ overcutVolume: 0, leftoverVolume: 0 });
  }, 30_000);
});

describe('stock that stands over the part', () => {
  it('is taken into account: a block 3 mm larger leaves its allowance, said by volume', async () => {
    const sawn = await jobOf(
      cutAll(box([0, 0, -20], [40, 30, 0]), [turned(blind(6, 10), [20, 15, 0], UP)]),
      {},
      (p, features) => {
        const [s] = p.setups;
        withoutAreas(p, features);
        s!.stock = { ...s!.stock, kind: 'block', xLow: 3, xHigh: 3, yLow: 3, yHigh: 3, zLow: 3, zHigh: 3 };
      },
    );
    const { metal } = proved(sawn);
    const exact = 46 * 36 * 26 - 40 * 30 * 20;
    // The hole goes through 3 mm of allowance, too.
    expect(metal.leftoverVolume).toBeGreaterThan(exact - 200);
    expect(metal.leftoverVolume).toBeLessThan(1.02 * exact);
    expect(metal.overcutVolume).toBe(0);
  }, 30_000);
});
