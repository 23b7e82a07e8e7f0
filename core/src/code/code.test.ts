import { cycleOf } from '../motion/work.ts';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { parseCallout } from '../callout/callout.ts';
import { featureSizes } from '../features/sets.ts';
import type { HoleFeature } from '../features/hole/schema.ts';
import { newPlan } from '../plan/plan.ts';
import { fileName, produceJob } from '../job/produce.ts';
import { BOUNDS, hole, LIBRARY } from '../testing/fixtures.ts';
import { RIGID_TAP_BUILT_IN as PROFILE } from './profiles/shipped.ts';
import { readProgram } from './read/read.ts';
import { asciiComment } from './write/words.ts';

const START = 'G21 G17 G90 G94 G54\nT1 M6\nS1000 M3\nG0 X0. Y0.\nG43 H1 Z25.\n';
const run = (text: string) => readProgram(START + text, PROFILE);
const path = (text: string) =>
  run(text)
    .motions.filter((m) => m.line > 5)
    .map((m) => `${m.kind} ${m.to.map((v) => Math.round(v! * 1000) / 1000).join(' ')}`);
const rules = (text: string) => run(text).problems.map((p) => p.rule);

describe('cycles, by the table', () => {
  it('G81', () =>
    expect(path('G98 G81 X10. Y5. Z-8. R2. F100.')).toEqual([
      'rapid 10 5 25',
      'rapid 10 5 2',
      'feed 10 5 -8',
      'rapid 10 5 2',
      'rapid 10 5 25',
    ]));

  it('G82 dwells at the bottom: whole P in milliseconds, with a point in seconds', () => {
    const seconds = (p: string) =>
      run(`G98 G82 X1. Y1. Z-2. R2. P${p} F100.`).motions.find((m) => m.kind === 'dwell')!.seconds;
    expect(seconds('500')).toBe(0.5);
    expect(seconds('0.5')).toBe(0.5);
  });

  it('G83 comes out to R and goes back to 0.5 above the last depth', () => {
    expect(path('G99 G83 X0. Y0. Z-7. R1. Q4. F100.')).toEqual([
      'rapid 0 0 1',
      'feed 0 0 -3',
      'rapid 0 0 1',
      'rapid 0 0 -2.5',
      'feed 0 0 -7',
      'rapid 0 0 1',
    ]);
  });

  it('G73 backs off by 0.25', () => {
    expect(path('G99 G73 X0. Y0. Z-7. R1. Q4. F100.')).toEqual([
      'rapid 0 0 1',
      'feed 0 0 -3',
      'rapid 0 0 -2.75',
      'feed 0 0 -7',
      'rapid 0 0 1',
    ]);
  });

  it('G84 goes in and out in step with the spindle', () => {
    expect(path('G98 G84 X0. Y0. Z-10. R4. F1250.')).toEqual([
      'rapid 0 0 4',
      'tap 0 0 -10',
      'tap 0 0 4',
      'rapid 0 0 25',
    ]);
  });

  it('G85 and G89 feed out, G86 comes out at rapid, G76 shifts off the wall', () => {
    expect(path('G99 G85 X0. Y0. Z-5. R1. F100.').at(-1)).toBe('feed 0 0 1');
    expect(path('G99 G89 X0. Y0. Z-5. R1. P100 F100.').at(-1)).toBe('feed 0 0 1');
    expect(path('G99 G86 X0. Y0. Z-5. R1. F100.').at(-1)).toBe('rapid 0 0 1');
    expect(path('G99 G76 X0. Y0. Z-5. R1. Q0.2 F100.').slice(1)).toEqual([
      'feed 0 0 -5',
      'rapid 0.2 0 -5',
      'rapid 0.2 0 1',
      'rapid 0 0 1',
    ]);
  });

  it('keeps words until G80', () => {
    expect(rules('G99 G81 X0. Y0. Z-3. R2. F100.\nG80\nX5.')).toContain('no-motion-word');
  });

  it('takes the worse of the two ways up to a higher R, unless the profile knows', () => {
    const text = 'G99 G81 X0. Y0. Z-30. R-20. F100.\nX10. R2. Z-8.';
    expect(path(text).slice(3)).toEqual(['rapid 10 0 -20', 'rapid 10 0 2', 'feed 10 0 -8', 'rapid 10 0 2']);
    const { motions, calls } = readProgram(START + text, { ...PROFILE, riseOrder: 'up-first' });
    expect(motions.filter((m) => m.line > 6).map((m) => m.to.join(' '))).toEqual([
      '0 0 2',
      '10 0 2',
      '10 0 -8',
      '10 0 2',
    ]);
    expect(calls.map((c) => c.rises)).toEqual([false, true]);
  });

  it('drills at the present place where X and Y are not said, and only stores where nothing is', () => {
    expect(path('G99 G81 Z-3. R2. F100.')).toEqual(['rapid 0 0 2', 'feed 0 0 -3', 'rapid 0 0 2']);
    expect(path('G99 G81 Z-3. R2. F100. K0')).toEqual([]);
    expect(path('G99 G81 Z-3. R2. F100. L0\nX5.\nP100')).toEqual([
      'rapid 5 0 25',
      'rapid 5 0 2',
      'feed 5 0 -3',
      'rapid 5 0 2',
    ]);
  });

  it('states everything again for another cycle', () =>
    expect(rules('G99 G81 X0. Y0. Z-3. R2. F100.\nG83 X5. Y0. Q1.')).toEqual(
      expect.arrayContaining(['missing-r']),
    ));

  it('reads inches as millimetres', () => {
    const calls = readProgram(
      START.replace('G21', 'G20').replace('Z25.', 'Z1.') + 'G98 G81 X1. Y0. Z-0.5 R0.1 F10.',
      PROFILE,
    ).calls;
    expect(calls[0]).toMatchObject({ x: 25.4, z: -12.7, r: 2.54, feed: 254 });
  });
});

describe('what is wrong is said with its line', () => {
  it.each([
    ['G98 G83 X0. Y0. Z-9. R2. F100.', 'missing-peck'],
    ['G98 G83 X0. Y0. Z-9. R2. Q0.0001 F100.', 'too-many-pecks'],
    ['G98 G81 X0. Y0. Z-9. F100.', 'missing-r'],
    ['G98 G81 X0. Y0. R2. F100.', 'missing-z'],
    ['G98 G81 X0. Y0. Z5. R2. F100.', 'depth-above-r'],
    ['G0 G1 X5.', 'two-of-a-group'],
    ['G1 X#101 F100.', 'unreadable'],
    ['G1 X[1+2] F100.', 'unreadable'],
    ['G187 P1', 'unknown-word'],
    ['G1 A90. F100.', 'unknown-word'],
    ['G2 X10. Y0. I4. J0. F100.', 'broken-arc'],
    ['G2 X10. Y0. F100.', 'broken-arc'],
    ['G1 X5. X6. F100.', 'word-twice'],
    ['M5\nG1 X5. F100.', 'spindle-off'],
    ['G49\nG1 X5. F100.', 'no-length-offset'],
    ['(open\nG1 X5. F100.', 'unreadable'],
  ])('%s', (text, rule) => {
    const { problems } = run(text);
    const found = problems.find((p) => p.rule === rule);
    expect(found, problems.map((p) => p.rule).join()).toBeDefined();
    expect(found!.line).toBeGreaterThan(5);
  });

  it('reads arcs by centre and by radius, full turns too', () => {
    const arc = (text: string) => run(text).motions.find((m) => m.kind === 'arc')!;
    expect(arc('G2 X10. Y0. I5. J0. F100.')).toMatchObject({ clockwise: true, turns: 0 });
    expect(arc('G3 X0. Y0. I5. F100.').turns).toBe(1);
    expect(arc('G3 X10. Y0. R5. F100.').centre![0]).toBeCloseTo(5);
  });

  it('never prints a place it does not know', () => {
    const { motions } = run('G53 G0 Z0.\nG28 X0.\nG0 X5. Y5.');
    expect(motions.at(-1)!.to).toEqual([5, 5, null]);
  });

  it('survives any text', () => {
    fc.assert(
      fc.property(
        fc.string({ maxLength: 200 }),
        (text) => void expect(run(text).lineCount).toBeGreaterThan(0),
      ),
    );
    const words = fc
      .array(
        fc
          .tuple(fc.constantFrom(...'GMXYZRQPFIJKTSHDN%;()/'), fc.integer({ min: -99, max: 99 }))
          .map(([l, n]) => `${l}${n}`),
        { maxLength: 60 },
      )
      .map((w) => w.join(' '));
    fc.assert(fc.property(words, (text) => void run(text)));
  });
});

const sizes = fc.constantFrom(4, 5, 5.5, 6, 6.6, 6.8, 8, 8.5, 10);
const anyHole = fc
  .record({
    d: sizes,
    // Far enough apart that no hole opens into another's mouth.
    x: fc.constantFrom(10, 30, 50, 70, 90),
    y: fc.constantFrom(10, 30, 50, 70),
    z: fc.constantFrom(0, -5, -12.5),
    depth: fc.double({ min: 3, max: 17, noNaN: true }),
    through: fc.boolean(),
  })
  .map(({ d, x, y, z, depth, through }): HoleFeature => {
    const deep = through ? 30 + z : depth;
    return hole({
      kind: through ? 'through' : 'blind',
      entry: [x, y, z],
      depth: deep,
      stack: [{ shape: 'cylinder', diameter: d, length: deep }],
    });
  });

describe('written and read back', () => {
  it('agrees with the plan to 0.001 mm, for any plan, in both units', () => {
    fc.assert(
      fc.property(
        fc.uniqueArray(anyHole, {
          minLength: 1,
          maxLength: 14,
          selector: (h) => `${h.entry[0]}/${h.entry[1]}`,
        }),
        fc.constantFrom('mm', 'inch' as const),
        fc.boolean(),
        (features, units, numbered) => {
          const plan = newPlan(units, 'alu', PROFILE.id);
          plan.codeOptions = { lineNumbers: numbered, commentStyle: numbered ? 'semicolon' : 'parentheses' };
          const m8 = parseCallout('M8x1.25', 'mm').thread!;
          for (const s of featureSizes(features))
            if (
              s.features.some(
                (f) =>
                  f.family === 'hole' && f.stack.some((c) => c.shape === 'cylinder' && c.diameter === 6.8),
              )
            )
              plan.sizes[s.key] = { overrides: {}, thread: m8 };
          const { programs, job } = produceJob({
            features,
            bounds: BOUNDS,
            plan,
            library: LIBRARY,
            name: 'any',
          });
          for (const p of programs) {
            expect(p.read.problems).toEqual([]);
            const planned = p.setup.operations.flatMap((o) => o.work.map((h) => ({ ...h, o })));
            expect(p.read.calls).toHaveLength(planned.length);
            p.read.calls.forEach((c, i) => {
              const h = planned[i]!;
              for (const [a, b] of [
                [c.x, h.x],
                [c.y, h.y],
                [c.z, h.z],
                [c.r, h.r],
              ] as const)
                expect(Math.abs(a - b)).toBeLessThanOrEqual(units === 'mm' ? 0.00051 : 0.00128);
              expect(c.how).toBe(cycleOf([h])!.how);
              expect(c.tool).toBe(h.o.tool.number);
              if (h.o.kind === 'tap') expect(Math.abs(c.feed - c.speed * 1.25) / c.feed).toBeLessThan(1e-4);
            });
            expect(p.checks.filter((c) => c.severity === 'error')).toEqual([]);
            for (const o of p.operations)
              for (const [line] of o.holeLines) expect(line >= o.firstLine && line <= o.lastLine).toBe(true);
          }
          expect(job.coverage.total).toBe(features.length);
        },
      ),
      { numRuns: 120 },
    );
  });
});

describe('what leaves the house', () => {
  it('is ASCII, with a decimal point in every place and no bracket in a bracket', () => {
    const { programs } = produceJob({
      features: [hole()],
      bounds: BOUNDS,
      plan: newPlan('mm', 'alu', PROFILE.id),
      library: LIBRARY,
      name: 'Größe (b) ⌀ 部品',
    });
    const { text } = programs[0]!;
    expect(text).toMatch(/^[\x20-\x7e\n]*$/);
    for (const line of text.split('\n')) {
      expect(line.replace(/\([^()]*\)/g, '')).not.toMatch(/[()]/);
      for (const [, letter, number] of line.replace(/\(.*\)/, '').matchAll(/([XYZRQF])(\S+)/g))
        expect(number, `${letter}${number}`).toContain('.');
    }
  });

  it('names files plainly', () => {
    expect(fileName('Manifold block TW-114', null)).toBe('manifold-block-tw-114.nc');
    expect(fileName('../../etc/passwd', 'top')).toBe('etc-passwd-top.nc');
    expect(fileName('部品', null)).toBe('program.nc');
    expect(asciiComment('⌀8.5 90° (x)')).toBe('D8.5 90 DEG X');
  });
});
