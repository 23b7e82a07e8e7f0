import { describe, expect, it } from 'vitest';
import { pocket, roundedBorder, topFace } from '../../testing/areas.ts';
import { grooveRow, movesOf, slot } from '../../testing/grooves.ts';
import { drill, endMill, made } from '../../testing/fixtures.ts';
import type { PlanResult } from '../kind.ts';
import type { Tool } from '../../tools/schema.ts';
import { planFirst } from './planned.ts';

const ramping = (...list: Tool[]): Tool[] => list.map((t) => ({ ...t, rampAngleDeg: 5 }));
const LARGE = pocket({ cornerRadius: 3, borders: [roundedBorder([5, 5, 95, 75], 3, -9)] });
const MILLS = ramping(endMill(70, 6), endMill(71, 12), endMill(72, 5));

describe('the tool for an area', () => {
  const planned = (tool: Tool): PlanResult => ({
    tool,
    speed: 1,
    feed: 1,
    work: [],
    parameters: [],
    remarks: [],
  });
  const [a, b, c] = [endMill(1, 20), endMill(2, 16), endMill(3, 12)];
  const found = { tool: a, others: [b, c] };

  it('is the next that does, where the first would hit something on its way', () => {
    const tried: number[] = [];
    const result = planFirst({}, found, ({ tool, others }) => {
      tried.push(tool.diameter);
      expect(others).not.toContain(tool);
      return tool === b ? planned(tool) : { missing: `${tool.diameter} hits` };
    });
    expect(result).toMatchObject({ tool: { diameter: 16 } });
    expect(tried).toEqual([20, 16]);
  });

  it('is none where all of them hit: the first says why', () => {
    expect(planFirst({}, found, ({ tool }) => ({ missing: `${tool.diameter} hits` }))).toEqual({
      missing: '20 hits',
    });
  });

  it('is the one that was chosen, though another would do where it does not', () => {
    const result = planFirst({ chosen: a.id }, found, ({ tool }) =>
      tool === a ? { missing: 'it hits' } : planned(tool),
    );
    expect(result).toEqual({ missing: 'it hits' });
  });

  it('may be the narrow one for all of a pocket, chosen from the list of all that do', () => {
    const row = grooveRow(LARGE, { method: 'pocket', tools: MILLS });
    const wide = made(row, 'area-mill');
    expect(wide.tool.diameter).toBe(12);
    const narrow = MILLS[0]!.id;
    expect(wide.fits).toEqual(expect.arrayContaining([wide.tool.id, narrow]));
    const one = grooveRow(LARGE, { method: 'pocket', tools: MILLS, chosen: { 'area-mill': narrow } });
    expect(one.operations.map((o) => [o.kind, o.tool.diameter])).toEqual([['area-mill', 6]]);
    expect(one.remarks.map((r) => r.rule)).not.toContain('tool-unfit');
  });
});

describe('a pocket with a fillet at its foot', () => {
  const filleted = pocket({ cornerRadius: 5, floorRadius: 2 });
  const [ball] = ramping({ ...endMill(75, 4), cornerRadius: 2 });
  const [round] = ramping({ ...endMill(76, 8), cornerRadius: 2 });

  it('is cleared by a cutter of that corner, and not by a ball: that has no flat for its floor', () => {
    const row = grooveRow(filleted, { method: 'pocket', tools: [ball!, round!] });
    expect(made(row, 'area-mill').tool.diameter).toBe(8);
    const none = grooveRow(filleted, { method: 'pocket', tools: [ball!] });
    expect(none.operations).toEqual([]);
    expect(none.reasons.join()).toContain('is all but a ball, which leaves ridges on a level floor');
  });
});

describe('an operation that has no meaning for a feature', () => {
  it.each([
    ['areas', pocket(), 'drill'],
    ['areas', topFace(), 't-slot-mill'],
    ['grooves', slot(), 'corner-mill'],
    ['grooves', slot(), 'face-mill'],
  ])('of %s is said, and nothing is planned or thrown', (_, feature, kind) => {
    const [own] =
      feature.family === 'slot' ? ['slot-mill'] : feature.family === 'face' ? ['face-mill'] : ['area-mill'];
    const row = grooveRow(feature, {
      method: feature.family === 'slot' ? 'slot' : feature.family === 'face' ? 'face' : 'pocket',
      operations: [own!, kind].map((k) => ({ kind: k, part: 'hole' as const, set: {} })),
    });
    expect(row.operations).toEqual([]);
    expect(row.reasons.join()).toMatch(/has nothing to do there/);
  });
});

describe('holes before a pocket is milled', () => {
  const drills = [drill(80, 10), drill(81, 16), drill(82, 30), drill(83, 8)];
  const byHole = (feature = pocket(), typed = {}) =>
    grooveRow(feature, { method: 'pocket-by-hole', tools: [...MILLS, ...drills], typed });

  it('are as wide as a drill is, in its middle, above its floor; the mill goes down in them', () => {
    const row = byHole();
    expect(row.reasons).toEqual([]);
    const [hole, mill] = [made(row, 'entry-hole'), made(row, 'area-mill')];
    expect(hole.tool.diameter).toBe(30);
    const [at] = hole.work;
    // The pocket lies about the middle of the part, where zero is.
    expect([at!.x, at!.y].map((v) => Math.round(v))).toEqual([0, 0]);
    expect(at!.z).toBeCloseTo(-8.7, 6);
    // Straight down where the hole is: no ramp above the level to which it is open.
    const [first] = movesOf(mill);
    expect([first!.to[0], first!.to[1]]).toEqual([at!.x, at!.y]);
    expect(first!.feed).toBe('lead');
  });

  it('go through where the pocket does, their full diameter below the exit', () => {
    const through = pocket({ bottom: 'open', at: [50, 40, 0] });
    const hole = made(byHole(through, { 'entry-hole': { breakThrough: 1 } }), 'entry-hole');
    expect(hole.work[0]!.z).toBeCloseTo(-9 - 1 - 30 / 2 / Math.tan((59 * Math.PI) / 180), 3);
  });

  it('lie in its round corners, within them, and are refused in sharp ones', () => {
    const inCorners = (feature = pocket()) =>
      grooveRow(feature, { method: 'pocket-corner-holes', tools: [...MILLS, ...drills] });
    const row = inCorners();
    const { tool, work } = made(row, 'corner-hole');
    expect(tool.diameter).toBe(10);
    // Corners of R6 at the ends of 60 by 40, and the drill at their centres.
    const places = work.map((w) => [Math.abs(w.x), Math.abs(w.y)].map((v) => Number(v.toFixed(6))));
    expect(places).toEqual(Array.from({ length: 4 }, () => [24, 14]));
    for (const w of work) expect(w.z).toBeCloseTo(-8.7, 6);
    expect(inCorners(pocket({ cornerRadius: 0 })).reasons.join()).toMatch(/no round inside corners/);
  });
});
