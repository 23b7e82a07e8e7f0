import { describe, expect, it } from 'vitest';
import { isHole } from '@yellow-pin/core/features/family';
import { recognise } from '@yellow-pin/core/features/recognise';
import { featureSizes } from '@yellow-pin/core/features/sets';
import { deriveJob } from '@yellow-pin/core/job/derive';
import { decisionFromCallout } from '@yellow-pin/core/job/print';
import { newPlan } from '@yellow-pin/core/plan/plan';
import type { LengthUnit } from '@yellow-pin/core/units/length';
import { plateStep } from './plate-step.ts';
import { own } from './own.ts';
import { withSaid, type Said } from './said-text.ts';
import { SHOP } from './shop/index.ts';

const PLATE = plateStep({ holes: 6, diameter: 6.8 });
/** Walls of the plate's holes, each by a face of its model. */
const WALLS = own(PLATE).faces.flatMap((f, i) => (f.surface.kind === 'cylinder' && f.reversed ? [i] : []));

const featuresOf = (said: readonly Said[]) => recognise(own(withSaid(PLATE, said))).features;
function rowsOf(said: readonly Said[], units: LengthUnit = 'mm') {
  const model = own(withSaid(PLATE, said));
  const { features } = recognise(model);
  const plan = newPlan(units, SHOP.materials[0]!.id, SHOP.machines[0]!.id);
  return deriveJob({ features, bounds: model.bounds, plan, library: SHOP }).rows;
}
const holes = (said: readonly Said[]) => featuresOf(said).filter(isHole);

describe('what a file says of its faces', () => {
  it('is known of the features that have them, and of no others', () => {
    expect(WALLS.length).toBeGreaterThanOrEqual(6);
    const all = holes([{ faces: [WALLS[0]!], text: 'M8x1.25 - 6H DEEP 12' }]);
    expect(all.map((h) => h.said)).toEqual(
      all.map((h) =>
        h.faces.includes(WALLS[0]!) ? [{ text: 'M8x1.25 - 6H DEEP 12', unit: 'mm' }] : undefined,
      ),
    );
    expect(holes([]).every((h) => h.said === undefined)).toBe(true);
  });

  it('has diameters with fits and limits, places with datums, and names that are callouts', () => {
    const said = holes([
      { faces: WALLS, diameter: { size: 6.8, fit: ['H', '7'] } },
      { faces: WALLS, position: { size: 0.05, datums: ['A', 'B'] } },
      { faces: WALLS, datum: 'C' },
      { faces: WALLS, name: 'M8x1.25 DEEP 10' },
      { faces: WALLS, name: 'hole pattern' },
    ])[0]!.said!.map((s) => s.text);
    expect(said.sort()).toEqual(['⌀6.8 H7', 'M8x1.25 DEEP 10', 'datum C', 'position 0.05 | A | B'].sort());
    const limits = holes([{ faces: WALLS, diameter: { size: 6.8, lower: -0.01, upper: 0.02 } }])[0]!;
    expect(limits.said).toEqual([{ text: '⌀6.8 +0.02/-0.01', unit: 'mm' }]);
  });

  it('is offered as the callout of its row, and taken it is the print’s word', () => {
    const [row] = rowsOf([{ faces: WALLS, text: 'M8x1.25 - 6H DEEP 12' }]).filter((r) =>
      r.size.features.some(isHole),
    );
    const [guess] = row!.guesses;
    expect(guess).toEqual({ kind: 'said', callout: 'M8x1.25 - 6H ↧12' });
    const decision = decisionFromCallout('M8x1.25 - 6H ↧12', 'mm');
    expect(decision.thread).toMatchObject({ designation: 'M8x1.25', toleranceClass: '6H' });
    expect(decision.threadDepth).toBe(12);
  });

  it('is offered in the job’s unit, whatever the file’s', () => {
    const [row] = rowsOf([{ faces: WALLS, text: 'M8x1.25 - 6H DEEP 12.7' }], 'inch').filter((r) =>
      r.size.features.some(isHole),
    );
    expect(row!.guesses[0]).toEqual({ kind: 'said', callout: 'M8x1.25 - 6H ↧0.5' });
    const taken = decisionFromCallout('M8x1.25 - 6H ↧0.5', 'inch');
    expect(taken.threadDepth).toBeCloseTo(12.7, 9);
  });

  it('of some holes of a size only makes them a row of their own', () => {
    const rows = rowsOf([{ faces: WALLS.slice(0, 1), text: 'M8x1.25' }]).filter((r) =>
      r.size.features.some(isHole),
    );
    expect(rows.map((r) => [r.size.features.length, r.guesses[0]?.kind === 'said']).sort()).toEqual([
      [1, true],
      [2, false],
      [3, false],
    ]);
  });

  it('that is no callout is told in its own words', () => {
    const [row] = rowsOf([{ faces: WALLS, position: { size: 0.1, datums: ['A'] } }]).filter((r) =>
      r.size.features.some(isHole),
    );
    const said = row!.remarks.filter((r) => r.rule === 'said-in-the-file');
    expect(said).toEqual([
      expect.objectContaining({ severity: 'note', message: 'The part’s file says: position 0.1 | A.' }),
    ]);
  });

  it('is told of a face that is no hole: on its row where it has one, else in a note', () => {
    const model = own(PLATE);
    const tops = model.faces.flatMap((f, i) => (f.surface.kind === 'plane' ? [i] : []));
    const said = tops.map((f) => ({ faces: [f], name: '', text: `face ${f} flat 0.02` }));
    const read = recognise(own(withSaid(PLATE, said)));
    const onFeatures = read.features.flatMap((f) => f.said ?? []).map((s) => s.text);
    const note = read.notes.find((n) => n.code === 'said-of-others')?.message ?? '';
    for (const { text } of said) expect(onFeatures.includes(text) || note.includes(text)).toBe(true);
    const remarks = rowsOf(said)
      .flatMap((r) => r.remarks.map((m) => m.message))
      .join();
    for (const text of onFeatures) expect(remarks).toContain(text);
    expect(onFeatures.length).toBeGreaterThan(0);
  });

  it('and cannot be read is counted, and the part is there', () => {
    const text = withSaid(PLATE, [{ faces: WALLS, diameter: { size: 6.8 } }]).replace(
      /DIMENSIONAL_SIZE\(#(\d+),'diameter'\)/,
      "DIMENSIONAL_SIZE(12.5,'diameter')",
    );
    const model = own(text);
    expect(model.said).toBeUndefined();
    expect(model.notes.find((n) => n.code === 'said-unread')?.message).toContain('1 of the dimensions');
    expect(recognise(model).features.filter(isHole)).toHaveLength(6);
  });

  it('keeps threads apart whose pitches are near', () => {
    const sizes = featureSizes(
      featuresOf([
        { faces: WALLS.slice(0, 1), text: 'M8x0.75' },
        { faces: WALLS.slice(1, 2), text: 'M8x0.8' },
      ]),
    ).filter((s) => s.family === 'hole');
    expect(
      sizes
        .flatMap((s) => s.features.map((f) => f.said?.[0]?.text))
        .filter(Boolean)
        .sort(),
    ).toEqual(['M8x0.75', 'M8x0.8']);
    for (const s of sizes) expect(new Set(s.features.map((f) => f.said?.[0]?.text)).size).toBe(1);
  });

  it('that is no callout parts no row', () => {
    const keys = (said: readonly Said[]) => featureSizes(featuresOf(said)).map((s) => s.key);
    expect(keys([{ faces: WALLS.slice(0, 1), datum: 'A' }])).toEqual(keys([]));
    const [row] = rowsOf([{ faces: WALLS.slice(0, 1), datum: 'A' }]).filter((r) =>
      r.size.features.some(isHole),
    );
    expect(row!.remarks.map((r) => r.message)).toContain('The part’s file says of 1 of these 3: datum A.');
  });
});
