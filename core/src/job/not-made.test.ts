import { describe, expect, it } from 'vitest';
import { hole, LIBRARY, rowOf, TOOLS } from '../testing/fixtures.ts';
import { usualTool } from '../tools/usual.ts';

const drilled = (diameter: number, depth = 20) =>
  hole({ depth, stack: [{ shape: 'cylinder', diameter, length: depth }] });

describe('why a row is not made', () => {
  it('is a tool that the shop lacks, and the usual one makes it', () => {
    const feature = drilled(7.35);
    const row = rowOf(feature);
    expect(row).toMatchObject({ state: 'open', notMade: 'no tool' });
    const need = row.wants.find((w) => w.kind === 'drill')!;
    expect(need).toMatchObject({ kind: 'drill', diameter: 7.35 });
    const tools = [...TOOLS, usualTool(need, LIBRARY)!];
    expect(rowOf(feature, { tools })).toMatchObject({ state: 'planned', notMade: null, wants: [] });
  });
  it('is a tool that is long enough, for a hole deeper than those the shop has', () => {
    const feature = drilled(6.8, 29);
    const tools = TOOLS.map((t) => (t.kind === 'drill' ? { ...t, fluteLength: 12 } : t));
    const row = rowOf(feature, { tools });
    expect(row.notMade).toBe('no tool');
    const need = row.wants.find((w) => w.kind === 'drill')!;
    expect(need.reach).toBeGreaterThanOrEqual(29);
    const usual = usualTool(need, { ...LIBRARY, tools })!;
    expect(rowOf(feature, { tools: [...tools, usual] }).state).toBe('planned');
  });
  it('is the way to it, where no setup looks at it', () => {
    expect(rowOf(hole({ reachableFrom: [[1, 0, 0]] })).notMade).toBe('out of reach');
  });
  it('is something to decide, where the numbers leave no room', () => {
    expect(rowOf(drilled(6.8, 20), { callout: 'M8x1.25 ↧19.5' })).toMatchObject({ state: 'open' });
    expect(rowOf(drilled(6.8)).notMade).toBeNull();
  });
});
