import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { RIGID_TAP_BUILT_IN } from '../code/profiles/shipped.ts';
import { featureSizes } from '../features/sets.ts';
import { decisionFromCallout } from '../job/print.ts';
import { produceJob } from '../job/produce.ts';
import { BOUNDS, endMill, hole, LIBRARY, made, plan, rowOf } from '../testing/fixtures.ts';

const plain = () => hole({ stack: [{ shape: 'cylinder', diameter: 8.5, length: 20 }] });
const drilled = (typed: Record<string, number> = {}) =>
  made(rowOf(plain(), { typed: { drill: typed } }), 'drill');
const of = (o: ReturnType<typeof made>, key: string) => o.parameters.find((p) => p.key === key);

describe('speed and feed of an operation', () => {
  it('come from the table and say so', () => {
    const usual = drilled();
    expect(of(usual, 'speed')).toMatchObject({ value: usual.speed, source: 'table', editable: true });
    expect(of(usual, 'feed')).toMatchObject({ value: usual.feed, source: 'table' });
  });

  it('can be typed: a feed that is not typed follows the speed', () => {
    const usual = drilled();
    fc.assert(
      fc.property(fc.integer({ min: 200, max: 6000 }), (speed) => {
        const o = drilled({ speed });
        expect(o.speed).toBe(speed);
        expect(o.feed / o.speed).toBeCloseTo(usual.feed / usual.speed, 9);
        expect(of(o, 'speed')?.source).toBe('typed');
      }),
    );
    expect(drilled({ feed: 123 })).toMatchObject({ speed: usual.speed, feed: 123 });
  });

  it('are never past the machine’s limits, and far from the table they are looked at', () => {
    const { maxSpeed, maxFeed } = RIGID_TAP_BUILT_IN;
    const fast = rowOf(plain(), { typed: { drill: { speed: 50_000, feed: 90_000 } } });
    expect(made(fast, 'drill')).toMatchObject({ speed: maxSpeed, feed: maxFeed });
    const rules = fast.remarks.map((r) => `${r.rule} ${r.severity}`);
    expect(rules.filter((r) => r === 'machine-limit warning')).toHaveLength(2);
    expect(rules).toContain('far-off-table warning');
    expect(drilled({ speed: 1000 }).remarks.map((r) => r.rule)).not.toContain('far-off-table');
  });

  it('a tap’s feed is pitch × speed, whatever is typed', () => {
    const tapped = made(
      rowOf(hole({ stack: [{ shape: 'cylinder', diameter: 6.8, length: 25 }], depth: 25 }), {
        callout: 'M8x1.25 ↧16',
        typed: { tap: { speed: 450, feed: 9 } },
      }),
      'tap',
    );
    expect(tapped).toMatchObject({ speed: 450, feed: 450 * 1.25 });
    expect(of(tapped, 'feed')).toBeUndefined();
  });

  it('a first part may run slow: every feed at a share, a tap turning slower, and the program says so', () => {
    const features = [hole({ stack: [{ shape: 'cylinder', diameter: 6.8, length: 25 }], depth: 25 })];
    const job = (feedPercent?: number) => {
      const p = plan();
      p.codeOptions = { feedPercent };
      p.sizes[featureSizes(features)[0]!.key] = {
        ...decisionFromCallout('M8x1.25 ↧16', 'mm'),
        overrides: {},
      };
      return produceJob({ features, bounds: BOUNDS, plan: p, library: LIBRARY, name: 'slow' });
    };
    const [usual, slow] = [job(), job(40)].map((j) => j.job.rows[0]!.operations);
    slow!.forEach((o, i) => {
      const was = usual![i]!;
      if (o.kind === 'tap')
        expect(o).toMatchObject({ speed: Math.round(0.4 * was.speed), feed: o.speed * 1.25 });
      else expect(o).toMatchObject({ speed: was.speed, feed: 0.4 * was.feed });
    });
    expect(job(40).programs[0]!.text).toContain('ALL FEEDS AT 40 PERCENT');
    expect(job().programs[0]!.text).not.toContain('PERCENT');
    expect(job(40).checks.filter((c) => c.severity !== 'note')).toEqual([]);
  });

  it('all feeds of a path follow what is typed', () => {
    const wide = hole({
      bottom: { shape: 'flat' },
      stack: [{ shape: 'cylinder', diameter: 30, length: 20 }],
    });
    const bore = (typed: Record<string, number>) =>
      made(rowOf(wide, { more: [endMill(50, 16)], typed: { 'helical-bore': typed } }), 'helical-bore');
    const [usual, slow] = [bore({}), bore({ feed: 100 })];
    expect(slow.feeds?.ramp).toBeCloseTo((usual.feeds!.ramp! * 100) / usual.feed, 9);
  });
});
