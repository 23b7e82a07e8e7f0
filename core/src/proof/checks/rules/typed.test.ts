import { describe, expect, it } from 'vitest';
import type { HoleFeature } from '../../../features/hole/schema.ts';
import { featureSizes } from '../../../features/sets.ts';
import { produceJob } from '../../../job/produce.ts';
import { BOUNDS, counterbored, hole, LIBRARY, plan } from '../../../testing/fixtures.ts';

/** What is found in a plan whose operations have typed numbers, notes aside. */
function found(feature: HoleFeature, overrides: Record<string, Record<string, number>>) {
  const p = plan();
  p.sizes[featureSizes([feature])[0]!.key] = { overrides };
  return produceJob({
    features: [feature],
    bounds: BOUNDS,
    plan: p,
    library: LIBRARY,
    name: 'typed',
  }).checks.filter((c) => c.severity !== 'note');
}

const countersunk = () =>
  hole({
    kind: 'through',
    role: 'countersunk',
    stack: [
      { shape: 'cone', startDiameter: 12, endDiameter: 6.6, angle: 90, length: 2.7 },
      { shape: 'cylinder', diameter: 6.6, length: 27.3 },
    ],
  });
describe('numbers typed for one operation that another contradicts', () => {
  it('nothing is found where nothing is typed', () => {
    expect(found(countersunk(), {})).toEqual([]);
    expect(found(counterbored({ floor: 6 }), {})).toEqual([]);
    expect(found(counterbored({ floor: 6 }, { kind: 'blind' }), {})).toEqual([]);
  });

  it('a spot typed wider than the countersink that follows', () => {
    const [first] = found(countersunk(), { spot: { rim: 14 } });
    expect(first).toMatchObject({ rule: 'spot-too-deep', severity: 'warning' });
    expect(first!.message).toMatch(/⌀1[34].* ⌀12/);
  });

  it('a spot typed so wide that its cone goes on below a shallow counterbore', () => {
    const [first] = found(counterbored({ floor: 1 }), { spot: { rim: 10.9 } });
    expect(first).toMatchObject({ rule: 'spot-too-deep', severity: 'warning' });
    expect(first!.message).toContain('6.6');
    expect(found(counterbored({ floor: 6 }), { spot: { rim: 6 } })).toEqual([]);
  });

  it('a counterbore typed below the depth typed for its drill', () => {
    const typed = { drill: { depth: 8 }, counterbore: { depth: 9 } };
    const first = found(counterbored({ floor: 6 }, { kind: 'blind' }), typed).find(
      (c) => c.rule === 'floor-not-drilled',
    );
    expect(first).toMatchObject({ severity: 'error' });
    expect(first!.message).toMatch(/Z-8\./);
  });

  it('a countersink typed deeper than its drill', () => {
    const shallow = hole({
      role: 'countersunk',
      depth: 12,
      stack: [
        { shape: 'cone', startDiameter: 12, endDiameter: 6.6, angle: 90, length: 2.7 },
        { shape: 'cylinder', diameter: 6.6, length: 9.3 },
      ],
    });
    const typed = { drill: { depth: 3 }, countersink: { rim: 15.5 } };
    expect(found(shallow, typed).map((c) => c.rule)).toContain('floor-not-drilled');
    expect(found(shallow, { countersink: { rim: 12.4 } }).map((c) => c.rule)).not.toContain(
      'floor-not-drilled',
    );
  });
});
