import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { proveText, produceJob } from '../job/produce.ts';
import { BOUNDS, endMill, hole, LIBRARY, plan, TOOLS } from '../testing/fixtures.ts';
import { wideTo } from './milled.ts';

const input = (through = true) => ({
  features: [
    hole({
      kind: through ? ('through' as const) : ('blind' as const),
      bottom: through ? { shape: 'open' as const } : { shape: 'flat' as const },
      depth: 20,
      stack: [{ shape: 'cylinder' as const, diameter: 30, length: 20 }],
    }),
  ],
  bounds: BOUNDS,
  plan: plan(),
  library: { ...LIBRARY, tools: [...TOOLS, endMill(50, 16)] },
  name: 'milled',
});

/** Rules that find an error once the program is changed. */
function after(change: (text: string) => string, through = true): string[] {
  const given = input(through);
  const { text } = produceJob(given).programs[0]!;
  const changed = change(text);
  expect(changed).not.toBe(text);
  return proveText(given, given.plan.setups[0]!.id, changed)
    .checks.filter((c) => c.severity === 'error')
    .map((c) => c.rule);
}

describe('a hole that is milled', () => {
  it('is proved from its text without a finding', () => {
    for (const through of [true, false]) {
      const { programs, checks } = produceJob(input(through));
      // Why no drill makes it is said, and nothing else.
      expect(checks).toMatchObject([{ rule: 'method-instead', severity: 'note' }]);
      const [made] = programs[0]!.milled;
      expect(made!.rounds.at(-1)!.diameter).toBeCloseTo(30, 3);
      expect(made!.rounds.at(-1)!.z).toBeCloseTo(through ? -20.5 : -20, 3);
    }
  });

  it('is not wider than the model’s', () => {
    // The finishing round of radius 7 a millimetre wider, with its way on and off.
    const wider = (t: string) =>
      t.replace(/I-7\. J0\./g, 'I-8. J0.').replace(/(X[\d.]+) I3\.5 J0\./, (_, x) => {
        const at = Number(String(x).slice(1));
        return `X${(at + 1).toFixed(3)} I4. J0.`;
      });
    expect(after(wider).length).toBeGreaterThan(0);
  });

  it('is not narrower than planned: a path on a smaller circle is found', () =>
    expect(
      after((t) => t.replace(/X27\. I3\.5/, 'X26.9 I3.45').replace(/I-7\. J0\./g, 'I-6.9 J0.')),
    ).toContain('milled-size'));

  it('does not go below a floor', () =>
    expect(after((t) => t.replace(/Z-20\./g, 'Z-21.'), false)).toContain('milled-too-deep'));

  it('goes as deep as planned', () =>
    expect(after((t) => t.replace(/Z-20\.5/g, 'Z-19.5'))).toContain('milled-short'));

  it('does not go on into what lies below an exit', () =>
    expect(after((t) => t.replace(/Z-20\.5/g, 'Z-40.'))).toContain('too-far-through'));

  it('is planned and must be in the program', () =>
    expect(after((t) => t.replace(/^G3 .*\n/gm, ''))).toContain('not-in-program'));

  it('is not sent a lost decimal point’s feed', () =>
    expect(after((t) => t.replace(/F(\d+)\./g, (_, f) => `F${Number(f) * 10}.`))).toContain('feed'));

  it('is not plunged into with a cutter that must not', () =>
    expect(after((t) => t.replace(/^G1 X\S+ Z0\.5 F/m, 'G1 Z-5. F100.\nG0 Z2.\n$&'))).toContain('plunges'));

  it('is not gone into on a helix that is too steep', () =>
    expect(after((t) => t.replace(/^G3 Z\S+ I\S+ J0\.\n(?:G3 Z\S+ I\S+ J0\.\n){3}/m, ''))).toContain(
      'ramp-too-steep',
    ));

  it('has no rapid into metal that stands yet', () =>
    expect(after((t) => t.replace(/^(G43 .*\n)(?:G0 )?Z2\./m, '$1G0 Z-4.'))).toContain('rapid-into-metal'));
});

describe('wideTo', () => {
  it('is the depth to which steps are that wide, cones by their slope', () => {
    const steps = [
      { shape: 'cone' as const, startDiameter: 24, endDiameter: 20, angle: 90, length: 2, top: 0, end: 2 },
      { shape: 'cylinder' as const, diameter: 20, length: 8, top: 2, end: 10 },
      { shape: 'cylinder' as const, diameter: 10, length: 5, top: 10, end: 15 },
    ];
    expect(wideTo(steps, 22, false, 0)).toBeCloseTo(1, 9);
    expect(wideTo(steps, 20, false)).toBe(10);
    expect(wideTo(steps, 10, false)).toBe(15);
    expect(wideTo(steps, 10, true)).toBe(Infinity);
    expect(wideTo(steps, 25, true)).toBe(0);
    fc.assert(
      fc.property(
        fc.double({ min: 1, max: 30, noNaN: true }),
        fc.double({ min: 1, max: 30, noNaN: true }),
        (a, b) => {
          if (a <= b) expect(wideTo(steps, a, false)).toBeGreaterThanOrEqual(wideTo(steps, b, false));
        },
      ),
    );
  });
});
