import { describe, expect, it } from 'vitest';
import { featureSizes } from '../features/sets.ts';
import { decisionFromCallout } from '../job/print.ts';
import { produceJob } from '../job/produce.ts';
import { edgeSegments, meshModel } from '../model/mesh.ts';
import { newPlan, type Plan } from '../plan/plan.ts';
import { boxModel } from '../testing/box-model.ts';
import { BOUNDS, hole, LIBRARY } from '../testing/fixtures.ts';
import { RIGID_TAP_BUILT_IN } from '../code/profiles/shipped.ts';
import { floorSheetSchema } from './schema.ts';
import { floorSheets } from './sheet.ts';
import { sheetHtml } from './html.ts';

const model = boxModel([0, 0, -30], [100, 80, 0]);
const mesh = meshModel(model);
const edges = edgeSegments(model);
const HOLE = hole({
  entry: [20, 20, 0],
  depth: 25,
  stack: [{ shape: 'cylinder', diameter: 6.8, length: 25 }],
});

function sheetOf(change: (p: Plan) => void = () => undefined) {
  const plan = newPlan('mm', 'alu', RIGID_TAP_BUILT_IN.id);
  plan.sizes[featureSizes([HOLE])[0]!.key] = { overrides: {}, ...decisionFromCallout('M8x1.25 ↧12', 'mm') };
  change(plan);
  const input = { features: [HOLE], bounds: BOUNDS, plan, library: LIBRARY, name: 'Cap <b>"7"</b>', mesh };
  const { job, programs } = produceJob(input);
  return floorSheets({ name: input.name, plan, job, programs, mesh, edges, hashOf: () => 'ab12' })[0]!;
}

describe('a floor sheet', () => {
  it('says where zero is, what to saw, what is held, and what comes out', () => {
    const sheet = sheetOf((p) => {
      Object.assign(p.setups[0]!.stock, {
        kind: 'block',
        xLow: 2,
        xHigh: 2,
        yLow: 2,
        yHigh: 2,
        zLow: 0,
        zHigh: 1,
      });
    });
    expect(floorSheetSchema.parse(sheet)).toEqual(sheet);
    expect(sheet.saw).toBe('104 mm × 84 mm × 31 mm');
    expect(sheet).toMatchObject({
      workOffset: 'G54',
      material: 'aluminium',
      attitude: 'top up',
      number: 1,
      of: 1,
    });
    expect(sheet.files).toEqual([
      { name: 'cap-b-7-b.nc', lines: expect.any(Number) as number, sha256: 'ab12' },
    ]);
    expect(sheet.holes).toMatchObject([{ label: 'A1', x: '-30', y: '-20', depth: '25' }]);
    expect(sheet.seconds).toBeGreaterThan(5);
  });

  it('draws the part as it is seen, from above and from the front, with its tags', () => {
    const { top, front } = sheetOf();
    const at = (lines: number[][]) => new Set(lines.flatMap((l) => l.filter((_, i) => i % 2 === 0)));
    expect(at(top.lines)).toEqual(new Set([-50, 50]));
    // From above and from the front four edges each are seen; those behind and below are not.
    expect([top.lines.length, front.lines.length]).toEqual([4, 4]);
    expect([front.right, front.up]).toEqual(['X', 'Z']);
    expect(front.stock).toEqual([
      [-50, -30],
      [50, 0],
    ]);
    expect(top.tags).toEqual([{ label: 'A1', at: [-30, -20] }]);
  });

  it('lists tools with outlines, times and what they make', () => {
    const { tools } = sheetOf();
    expect(tools.map((t) => t.makes)).toEqual(tools.map(() => 'A'));
    for (const t of tools) {
      expect(t.seconds).toBeGreaterThan(0);
      expect(t.outline.length).toBeGreaterThan(1);
    }
  });

  it('comes prepared where nothing is sawn, and a bar is told by its diameter', () => {
    expect(sheetOf().saw).toBeNull();
    const bar = sheetOf((p) =>
      Object.assign(p.setups[0]!.stock, {
        kind: 'round-bar',
        barAxis: 'z',
        diameter: 130,
        zLow: 0,
        zHigh: 2,
      }),
    );
    expect(bar.saw).toBe('round 130 mm, 32 mm long');
  });
});

describe('as a page of its own', () => {
  const html = sheetHtml([sheetOf()], 'a4');
  it('has everything on paper, and nothing from elsewhere', () => {
    for (const words of ['M8×1.25', 'Tools', 'Holes', 'A1', 'ab12', '@page{size:A4'])
      expect(html).toContain(words);
    expect(html).not.toMatch(/https?:|<script/);
    expect(sheetHtml([sheetOf()], 'letter')).toContain('@page{size:letter');
  });
  it('takes names as text', () => {
    expect(html).toContain('Cap &lt;b&gt;&quot;7&quot;&lt;/b&gt;');
    expect(html).not.toContain('<b>"7"</b>');
  });
});
