import { describe, expect, it } from 'vitest';
import { deriveJob } from '@yellow-pin/core/job/derive';
import { BOUNDS, hole, LIBRARY, plan, TOOLS } from '@yellow-pin/core/testing/fixtures';
import { metricThread } from '@yellow-pin/core/threads/standards';
import { silhouettePath, toolOutline } from './tool-outline.ts';
import { drawSection, HEIGHT } from './section-drawing.ts';

const job = deriveJob({
  features: [hole({ depth: 25, stack: [{ shape: 'cylinder', diameter: 6.8, length: 25 }] })],
  bounds: BOUNDS,
  plan: plan(),
  library: LIBRARY,
});
const row = job.rows[0]!;

describe('drawSection', () => {
  const drill = row.operations.find((o) => o.kind === 'drill')!;
  const d = drawSection(row.holes[0]!, drill, null);

  it('has one scale for depth and width, and everything in the picture', () => {
    expect(d.y(10) - d.y(0)).toBeCloseTo(10 * d.k);
    expect(d.tipY).toBeLessThan(HEIGHT);
    expect(d.tip).toBeCloseTo(25 + 6.8 / 2 / Math.tan((59 * Math.PI) / 180));
  });

  it('gives every depth a dimension whose label covers no other', () => {
    expect(d.dimensions.map((x) => x.parameter.key)).toEqual(['depth', 'tip']);
    const ys = d.dimensions.map((x) => x.labelY).sort((a, b) => a - b);
    for (let i = 1; i < ys.length; i++) expect(ys[i]! - ys[i - 1]!).toBeGreaterThanOrEqual(23.9);
  });

  it('shows the hole alone where nothing is planned', () =>
    expect(drawSection(row.holes[0]!, null, metricThread(8, 1.25))).toMatchObject({
      tip: 25,
      dimensions: [],
    }));
});

describe('tool outlines', () => {
  it.each(TOOLS.map((t) => [t.id, t] as const))(
    '%s ends at its tip, is as wide as it is, and as long as it stands out',
    (_, tool) => {
      const outline = toolOutline(tool);
      expect(outline[0]).toEqual([0, 0]);
      expect(Math.max(...outline.map(([, r]) => r))).toBeCloseTo(
        Math.max(tool.diameter, tool.shankDiameter) / 2,
      );
      expect(outline[outline.length - 1]![0]).toBe(tool.stickOut);
      for (let i = 1; i < outline.length; i++)
        expect(outline[i]![0]).toBeGreaterThanOrEqual(outline[i - 1]![0]);
      expect(silhouettePath(tool, 2)).toMatch(/^M[\d.\-L ]+Z$/);
    },
  );
});
