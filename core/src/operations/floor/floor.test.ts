import { describe, expect, it } from 'vitest';
import { produceJob } from '../../job/produce.ts';
import { BOUNDS, endMill, hole, LIBRARY, made, plan, rowOf, TOOLS } from '../../testing/fixtures.ts';
import { featureSizes } from '../../features/sets.ts';
import { floorKind } from './index.ts';

const flat = () =>
  hole({ bottom: { shape: 'flat' }, depth: 15, stack: [{ shape: 'cylinder', diameter: 10, length: 15 }] });
const method = 'drilled-flat-floor';
const rowWith = (...mills: number[]) =>
  rowOf(flat(), {
    method,
    more: mills.map((d, i) => ({ ...endMill(60 + i, d), rampAngleDeg: d === 10 ? undefined : 5 })),
  });

describe('a flat floor', () => {
  it('is left pointed with a warning until somebody asks for it', () => {
    const row = rowOf(flat(), { more: [endMill(60, 8)] });
    expect(row.operations.map((o) => o.kind)).toEqual(['spot', 'drill']);
    expect(row.remarks.map((r) => r.rule)).toContain('flat-bottom');
    expect(row.methods.map((m) => m.id)).toContain(method);
  });

  it('is milled to the wall and to its depth, and nothing is said of a cone then', () => {
    const row = rowWith(6, 8);
    expect(row.reasons).toEqual([]);
    expect(row.remarks.map((r) => r.rule)).not.toContain('flat-bottom');
    const floor = made(row, 'floor');
    expect(floor.tool.diameter).toBe(8);
    expect(floor.work[0]!.z).toBeCloseTo(-15, 9);
    expect(floor.parameters.find((p) => p.key === 'diameter')?.value).toBeCloseTo(10 - 0.04, 9);
  });

  it('is plunged with a cutter of the hole’s own diameter', () => {
    const { work } = made(rowWith(10), 'floor');
    expect(work[0]!.motion).toMatchObject({ kind: 'cycle', how: { how: 'dwell' } });
  });

  it('is not plunged with one that must not: a narrower one circles', () => {
    const mills = [endMill(60, 10), endMill(61, 8)];
    expect(made(rowOf(flat(), { method, more: mills }), 'floor').tool.diameter).toBe(8);
  });

  it('keeps the row open where every cutter would leave a core', () => {
    const row = rowWith(5);
    expect(row).toMatchObject({ state: 'open', notMade: 'no tool' });
    expect(row.wants[0]).toMatchObject({ kind: 'end-mill' });
  });

  it('is proved from the text', () => {
    for (const mill of [8, 10]) {
      const features = [flat()];
      const p = plan();
      p.sizes[featureSizes(features)[0]!.key] = { overrides: {}, method };
      const library = {
        ...LIBRARY,
        tools: [...TOOLS, { ...endMill(60, mill), rampAngleDeg: mill === 10 ? undefined : 5 }],
      };
      const { checks, programs } = produceJob({ features, bounds: BOUNDS, plan: p, library, name: 'floor' });
      expect(programs[0]!.text).toContain('A FLOOR A1');
      expect(checks.filter((c) => c.severity !== 'note')).toEqual([]);
    }
    expect(floorKind.settles).toContain('flat-bottom');
  });
});
