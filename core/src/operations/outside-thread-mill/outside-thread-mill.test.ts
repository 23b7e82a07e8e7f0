import { describe, expect, it } from 'vitest';
import type { BossFeature } from '../../features/boss/schema.ts';
import { featureSizes } from '../../features/sets.ts';
import { deriveJob } from '../../job/derive.ts';
import { decisionFromCallout } from '../../job/print.ts';
import type { Row } from '../../job/row.ts';
import type { Stock } from '../../setup/setup.ts';
import { BOUNDS, LIBRARY, plan } from '../../testing/fixtures.ts';
import { oneRow } from '../../testing/threads.ts';
import type { Tool } from '../../tools/schema.ts';

const boss = (diameter: number, height: number, part: Partial<BossFeature> = {}): BossFeature => ({
  id: 'Z1',
  solid: 0,
  faces: [1],
  family: 'boss',
  reachableFrom: [[0, 0, 1]],
  axis: [0, 0, 1],
  entry: [0, 0, 0],
  diameter,
  height,
  chamfer: null,
  bottom: 'shoulder',
  ...part,
});

function rowFor(
  feature: BossFeature,
  callout: string | null,
  tools: Tool[],
  typed = {},
  stocked: (s: Stock) => Stock = (s) => s,
): Row {
  const p = plan();
  p.setups = p.setups.map((s) => ({ ...s, stock: stocked(s.stock) }));
  const [size] = featureSizes([feature]);
  if (callout !== null)
    p.sizes[size!.key] = {
      ...decisionFromCallout(callout, 'mm'),
      overrides: { 'outside-thread-mill': typed },
    };
  const library = { ...LIBRARY, tools: [...LIBRARY.tools, ...tools] };
  return deriveJob({ features: [feature], bounds: BOUNDS, plan: p, library }).rows[0]!;
}
const CUTTER = oneRow(60, 16, { neckDiameter: 9 });
const value = (row: Row, key: string) => row.operations[0]!.parameters.find((p) => p.key === key)?.value;

describe('a thread on a boss', () => {
  it('is nobody’s wish until a callout gives it one; what it may be is offered', () => {
    const row = rowFor(boss(24, 20), null, [CUTTER]);
    expect(row.state).toBe('optional');
    expect(row.guesses.map((g) => g.kind === 'thread' && g.designation)).toEqual([
      'M24x3',
      'M24x2',
      'M24x1.5',
    ]);
  });

  it('is led round on (D1 + d)/2, clockwise and down where it climbs (handbook, Thread milling)', () => {
    const row = rowFor(boss(24, 20), 'M24x2 ↧12', [CUTTER]);
    const [work] = row.operations[0]!.work;
    const moves = work!.motion.kind === 'path' ? work!.motion.passes.at(-1)!.moves : [];
    const turns = moves.find((m) => m.kind === 'arc' && m.turns > 0);
    if (turns?.kind !== 'arc') throw new Error('no turns');
    const d1 = 24 - 1.082532 * 2;
    expect(Math.hypot(turns.to[0] - work!.x, turns.to[1] - work!.y)).toBeCloseTo((d1 + 16) / 2, 4);
    expect(turns.clockwise).toBe(true);
    expect(value(row, 'turns')).toBe('7 down');
    expect(value(rowFor(boss(24, 20), 'M24x2 LH ↧12', [CUTTER]), 'turns')).toBe('7 up');
    expect(value(rowFor(boss(24, 20), 'M24x2 ↧12', [CUTTER], { cut: 'conventional' }), 'turns')).toBe('7 up');
  });

  it('begins below the chamfer, and goes as far as the shoulder lets it', () => {
    const chamfered = boss(24, 20, { chamfer: { length: 1.5, diameter: 21 } });
    const short = rowFor(boss(24, 20), 'M24x2', [CUTTER]);
    const long = rowFor(chamfered, 'M24x2', [CUTTER]);
    expect(Number(value(short, 'threadDepth')) - Number(value(long, 'threadDepth'))).toBeCloseTo(1.5);
    // Its tip stays clear of the shoulder.
    for (const row of [short, long]) expect(row.operations[0]!.work[0]!.z).toBeGreaterThan(-20);
    expect(rowFor(boss(24, 12), 'M24x2 ↧12', [CUTTER]).reasons.join()).toMatch(/A1 is 12 mm high\. Thread/);
    expect(rowFor(boss(24, 3.5), 'M24x2', [CUTTER]).reasons.join()).toContain('less than one pitch');
  });

  it.each([
    ['a boss of another size', boss(26, 20), 'M24x2 ↧12', CUTTER, /does not go on a boss drawn at ⌀26/],
    [
      'a neck that rubs',
      boss(24, 20),
      'M24x2 ↧12',
      oneRow(60, 16, { neckDiameter: 15.5 }),
      /rub on the boss/,
    ],
    ['a cutter of another angle', boss(24, 20), 'G 3/4 ↧12', CUTTER, /does not go on a boss|No thread mill/],
    ['a diameter beside it', boss(24, 20), 'M24x2 ↧12 ⌀22', CUTTER, /has a diameter, which a boss has not/],
  ])('is refused for %s, with the reason', (_, feature, callout, tool, why) => {
    const row = rowFor(feature, callout, [tool]);
    expect(row.operations).toEqual([]);
    expect(row.reasons.join()).toMatch(why);
  });

  it('needs the boss free of stock', () => {
    const inBlock = rowFor(boss(24, 20), 'M24x2 ↧12', [CUTTER], {}, (stock) => ({ ...stock, kind: 'block' }));
    expect(inBlock.reasons.join()).toMatch(/stock stands round it/);
  });
});
