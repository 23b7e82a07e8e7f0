import { describe, expect, it } from 'vitest';
import { hole, plan } from '../testing/fixtures.ts';
import { meshModel } from '../model/mesh.ts';
import { boxModel } from '../testing/box-model.ts';
import { newSetup, type Setup } from '../setup/setup.ts';
import { setupFrame } from '../setup/setup-frame.ts';
import { Cavities } from './cavities.ts';
import { PartColumns } from './part.ts';
import { gridPlace, stockFill } from './stock.ts';

const CELL = 0.5;
const model = boxModel([0, 0, -20], [40, 30, 0]);
const mesh = meshModel(model);
const drilled = hole({
  entry: [20, 15, 0],
  depth: 12,
  bottom: { shape: 'cone', angle: 118 },
  stack: [{ shape: 'cylinder', diameter: 8, length: 12 }],
});

/** What a setup's stock has over a place of the part file. */
function stockAt(stock: Partial<Setup['stock']>, features = [drilled]) {
  expect(plan().setups).toHaveLength(1);
  const setup = newSetup('s1', 'top', '+Z');
  setup.stock = { ...setup.stock, ...stock };
  const frame = setupFrame(setup, model.bounds);
  const place = gridPlace(frame, CELL);
  const part = new PartColumns(mesh, model.faces, frame.frame, place, 2);
  const fill = stockFill(frame, part, new Cavities(features, frame.frame), setup.stock.margin);
  const { origin } = frame.frame;
  return (x: number, y: number): number[] => {
    const [px, py] = [x - origin[0], y - origin[1]];
    const found = fill(px, py, Math.floor((px - place.x0) / CELL), Math.floor((py - place.y0) / CELL)) ?? [];
    return [...found].map((z) => Math.round((z + origin[2]) * 1e4) / 1e4);
  };
}
const sides = (w: number) => ({ xLow: w, xHigh: w, yLow: w, yHigh: w, zLow: w, zHigh: w });

describe('stock', () => {
  it('that is prepared is the part, with metal in what is to be made', () => {
    const at = stockAt({ kind: 'prepared' });
    expect(at(5.2, 5.2)).toEqual([-20, 0]);
    expect(at(20.2, 15.2)).toEqual([-20, 0]);
    expect(at(41, 15)).toEqual([]);
  });

  it('that is a block stands out by its allowances on every side', () => {
    const at = stockAt({ kind: 'block', ...sides(3) });
    expect(at(-2.8, -2.8)).toEqual([-23, 3]);
    expect(at(-3.3, 5)).toEqual([]);
  });

  it('that is a bar is round about its axis', () => {
    const upright = stockAt({ kind: 'round-bar', barAxis: 'z', diameter: 60 });
    expect(upright(20 + 29.5, 15.2)).toEqual([-20, 0]);
    expect(upright(20 + 30.5, 15.2)).toEqual([]);
    const lying = stockAt({ kind: 'round-bar', barAxis: 'x', diameter: 40 });
    const [low, high] = lying(10, 15 + 12) as [number, number];
    expect(high - low).toBeCloseTo(2 * Math.sqrt(20 ** 2 - 12 ** 2), 1);
    expect((high + low) / 2).toBeCloseTo(-10, 3);
  });

  it('that is an outline stands as far round the part as its margin', () => {
    const at = stockAt({ kind: 'outline', margin: 4, zHigh: 2 });
    expect(at(-3, 15)).toEqual([-20, 2]);
    expect(at(-5.5, 15)).toEqual([]);
  });
});

describe('the metal that fills cavities', () => {
  const inFrame = (features: ReturnType<typeof hole>[]) =>
    new Cavities(features, setupFrame(newSetup('s1', 'top', '+Z'), model.bounds).frame);
  // Program zero is the middle of the top.
  const at = (c: Cavities, rho: number) => c.at(rho, 0).map((z) => Math.round(z * 1e3) / 1e3);

  it('of a drilled hole reaches into its point', () => {
    const point = (4 - 1) / Math.tan((59 * Math.PI) / 180);
    expect(at(inFrame([drilled]), 1)).toEqual([-12, 0, Math.round((-12 - point) * 1e3) / 1e3, -12]);
    expect(at(inFrame([drilled]), 4.1)).toEqual([]);
  });

  it('of a countersunk one is as wide as it is at each depth, and belongs to its feature', () => {
    const sunk = hole({
      entry: [20, 15, 0],
      depth: 20,
      kind: 'through',
      bottom: { shape: 'open' },
      role: 'countersunk',
      stack: [
        { shape: 'cone', startDiameter: 16, endDiameter: 8, angle: 90, length: 4 },
        { shape: 'cylinder', diameter: 8, length: 16 },
      ],
    });
    const c = inFrame([sunk]);
    expect(at(c, 6)).toEqual([-2, 0]);
    expect(at(c, 3)).toEqual([-4, 0, -20, -4]);
    expect(c.featureAt(6, 0, -1)).toBe(sunk.id);
    expect(c.featureAt(6, 0, -3)).toBeNull();
  });

  it('of a hole from the side stands in the way of what comes from above, until it is made', () => {
    // From the right, 10 below the top, 15 deep.
    const side = hole({
      entry: [40, 15, -10],
      axis: [1, 0, 0],
      depth: 15,
      bottom: { shape: 'flat' },
      stack: [{ shape: 'cylinder', diameter: 8, length: 15 }],
      reachableFrom: [[1, 0, 0]],
    });
    const frame = setupFrame(newSetup('s1', 'top', '+Z'), model.bounds).frame;
    const [cx, cy, cz] = frame.origin;
    const over = (c: Cavities, x: number, y: number) =>
      c.at(x - cx, y - cy).map((z) => Math.round((z + cz) * 1e3) / 1e3);
    const full = new Cavities([side], frame);
    expect(over(full, 30, 15)).toEqual([-14, -6]);
    expect(over(full, 30, 18)).toEqual([-10 - 2.646, -10 + 2.646]);
    expect(over(full, 24, 15)).toEqual([]);
    expect(full.featureAt(30 - cx, 15 - cy, -10 - cz)).toBe(side.id);
    // Made in a setup before: what was cut there is looked at, to its wall and its floor.
    const cut = (depth: number) => (p: readonly number[]) =>
      p[0]! > 40 - depth && Math.hypot(p[1]! - 15, p[2]! + 10) < 4;
    expect(over(new Cavities([side], frame, cut(15)), 30, 15)).toEqual([]);
    expect(over(new Cavities([side], frame, cut(9)), 30, 15)).toEqual([-14, -6]);
  });

  it('of a ball end is round', () => {
    const ball = hole({
      entry: [20, 15, 0],
      depth: 12,
      bottom: { shape: 'ball' },
      stack: [{ shape: 'cylinder', diameter: 8, length: 12 }],
    });
    expect(Math.min(...at(inFrame([ball]), 0))).toBe(-16);
    expect(Math.min(...at(inFrame([ball]), 3))).toBeCloseTo(-12 - Math.sqrt(7), 3);
  });
});
