import { describe, expect, it } from 'vitest';
import { featureSizes } from '../../../features/sets.ts';
import type { HoleFeature } from '../../../features/hole/schema.ts';
import { decisionFromCallout } from '../../../job/print.ts';
import { produceJob, proveText } from '../../../job/produce.ts';
import { BOUNDS, drill, endMill, hole, LIBRARY, plan, reamer, TOOLS } from '../../../testing/fixtures.ts';

function job(feature: HoleFeature, callout: string | null, method?: string) {
  const p = plan();
  const said = callout === null ? {} : decisionFromCallout(callout, 'mm');
  p.sizes[featureSizes([feature])[0]!.key] = { ...said, overrides: {}, method };
  const tools = [...TOOLS, drill(40, 7.8), reamer(41, 8), { ...endMill(42, 8), rampAngleDeg: undefined }];
  return { features: [feature], bounds: BOUNDS, plan: p, library: { ...LIBRARY, tools }, name: 'bored' };
}

/** Rules that find an error once the lines of a tool are changed. */
function after(given: ReturnType<typeof job>, tool: number, change: (lines: string) => string): string[] {
  const made = produceJob(given);
  expect(made.checks.filter((c) => c.severity === 'error')).toEqual([]);
  const parts = made.programs[0]!.text.split(/^(?=T\d+ M6)/m);
  const changed = parts.map((t) => (t.startsWith(`T${tool} M6`) ? change(t) : t)).join('');
  expect(changed).not.toBe(made.programs[0]!.text);
  return proveText(given, 's1', changed)
    .checks.filter((c) => c.severity === 'error')
    .map((c) => c.rule);
}

const reamed = () =>
  job(hole({ stack: [{ shape: 'cylinder', diameter: 8, length: 20 }] }), '\u23008 H7 \u21a720');
const through = () =>
  job(
    hole({
      kind: 'through',
      bottom: { shape: 'open' },
      stack: [{ shape: 'cylinder', diameter: 8, length: 20 }],
    }),
    '\u23008 H7 THRU',
  );
const floored = () =>
  job(
    hole({ bottom: { shape: 'flat' }, stack: [{ shape: 'cylinder', diameter: 8, length: 20 }] }),
    null,
    'drilled-flat-floor',
  );

describe('a reamer', () => {
  it('must not run into what the drill left', () =>
    expect(after(reamed(), 41, (t) => t.replace(/Z-19\.5/, 'Z-21.'))).toContain('floor-not-drilled'));
  it('runs in no tapping cycle', () =>
    expect(after(reamed(), 41, (t) => t.replace('G85', 'G84'))).toContain('tool-and-cycle'));
  it('goes through as far as planned, and not into what lies below', () =>
    expect(after(through(), 41, (t) => t.replace(/ Z-[\d.]+/, ' Z-60.'))).toContain('too-far-through'));
  it('does not come out at rapid for nothing: feeding out is what is written', () =>
    expect(produceJob(reamed()).programs[0]!.text).toMatch(/G85 X\S+ Y\S+ Z-19\.5/));
});

describe('a mill that plunges to a floor', () => {
  it('must not go below it', () =>
    expect(after(floored(), 42, (t) => t.replace(/Z-20\./, 'Z-21.'))).toContain('too-deep'));
});

describe('a bored hole', () => {
  const bar = {
    ...endMill(44, 24),
    id: 'bar',
    kind: 'boring-bar' as const,
    fluteLength: 3,
    neckDiameter: 18,
    neckLength: 60,
    stickOut: 65,
  };
  const bored = () => {
    const given = job(
      hole({ bottom: { shape: 'flat' }, stack: [{ shape: 'cylinder', diameter: 24, length: 20 }] }),
      '\u230024 F7 \u21a720',
    );
    const tools = [...given.library.tools, endMill(43, 16), { ...bar, diameter: 24.0305 }];
    return { ...given, library: { ...given.library, tools } };
  };

  it('is opened on a helix first, and proved', () => {
    const { programs, checks } = produceJob(bored());
    expect(checks.filter((c) => c.severity !== 'note')).toEqual([]);
    const { text } = programs[0]!;
    expect(text.indexOf('HELICAL BORE')).toBeLessThan(text.indexOf('A BORE'));
  });

  it('is not bored where nothing opened it', () => {
    const given = bored();
    const { text } = produceJob(given).programs[0]!;
    const rules = proveText(given, 's1', text.replace(/^G3 .*\n/gm, ''))
      .checks.filter((c) => c.severity === 'error')
      .map((c) => c.rule);
    expect(rules).toContain('boring-bar-without-hole');
  });
});
