import { describe, expect, it } from 'vitest';
import { drill, endMill, hole, made, usual } from '../../testing/fixtures.ts';
import { grooveRow, movesOf } from '../../testing/grooves.ts';

const bore = hole({
  id: 'H1',
  kind: 'through',
  depth: 30,
  entry: [50, 40, 0],
  stack: [{ shape: 'cylinder', diameter: 30, length: 30 }],
  bottom: { shape: 'open' },
});
const groove = {
  id: 'B1',
  family: 'bore-groove' as const,
  solid: 0,
  faces: [],
  axis: [0, 0, 1] as [number, number, number],
  reachableFrom: [[0, 0, 1]] as [number, number, number][],
  centre: [50, 40, -10] as [number, number, number],
  boreDiameter: 30,
  grooveDiameter: 34,
  width: 5,
  holeId: 'H1',
};
const thin = usual('t-cutter', 60, 18, { fluteLength: 2, neckDiameter: 8, neckLength: 30 });
const tools = [drill(70, 30), endMill(50, 12), thin];
const row = (typed: Record<string, number | string> = {}, list = tools) =>
  grooveRow(groove, { tools: list, more: [bore], typed: { 'bore-groove': typed } });

describe('a groove in a bore', () => {
  it('waits for its bore, and is entered down the middle at every level', () => {
    const r = row();
    expect(r.operations[0]!.after).toHaveLength(1);
    const moves = movesOf(made(r, 'bore-groove'));
    let z: number | null = null;
    for (const m of moves) {
      if (z !== null && m.to[2] !== z) expect([m.to[0], m.to[1]]).toEqual([0, 0]);
      z = m.to[2];
    }
    const tips = [...new Set(moves.map((m) => m.to[2]))];
    expect(Math.max(...tips) + 2).toBeCloseTo(-7.5, 9);
    expect(Math.min(...tips)).toBeCloseTo(-12.5, 9);
  });

  it('comes on and off by half circles, counter-clockwise to climb, its wall where the model has it', () => {
    const round = movesOf(made(row(), 'bore-groove')).filter((m) => m.kind === 'arc');
    expect(Math.max(...round.map((m) => Math.hypot(m.to[0], m.to[1])))).toBeCloseTo(17 - 9, 9);
    expect(round.every((m) => m.kind === 'arc' && !m.clockwise)).toBe(true);
    const other = movesOf(made(row({ cutting: 'conventional' }), 'bore-groove')).filter(
      (m) => m.kind === 'arc',
    );
    expect(other.every((m) => m.kind === 'arc' && m.clockwise)).toBe(true);
    const face = (reference: string) =>
      made(row({ reference }), 'bore-groove').parameters.find((p) => p.key === 'face')?.value;
    expect(face('lower face')).toBeCloseTo(-12.5, 9);
    expect(face('upper face')).toBeCloseTo(-10.5, 9);
  });

  it('is refused where the bore is not open, the cutter too high, or its neck too thick', () => {
    expect(row({}, [thin]).reasons.join(' ')).toMatch(/its bore is not open/);
    expect(row({}, [drill(70, 30), { ...thin, fluteLength: 6 }]).reasons.join(' ')).toMatch(
      /6 mm high, and the groove 5 mm/,
    );
    expect(row({}, [drill(70, 30), { ...thin, neckDiameter: 15 }]).reasons.join(' ')).toMatch(
      /would touch the bore/,
    );
  });
});
