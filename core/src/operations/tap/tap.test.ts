import { describe, expect, it } from 'vitest';
import { LEAD_THREADS } from '../../threads/thread.ts';
import { hole, made, rowOf, TOOLS, howOf } from '../../testing/fixtures.ts';

const blind = (depth: number) =>
  hole({ depth, stack: [{ shape: 'cylinder', diameter: 6.8, length: depth }] });

describe('a tap', () => {
  it('goes deeper than its thread by its lead (handbook: M8×1.25, 16 deep, plug: 21, drilled to 22.25)', () => {
    const row = rowOf(blind(22.25), { callout: 'M8x1.25 ↧16' });
    expect(made(row, 'tap').tool.thread!.lead).toBe('plug');
    expect(made(row, 'tap').work[0]!.z).toBeCloseTo(-21, 9);
    expect(made(row, 'tap').parameters.find((p) => p.key === 'drilled')?.value).toBeCloseTo(22.25, 9);
  });

  it('where that is too shallow for a plug tap, a bottoming one is taken (1.5 threads: 16 + 1.875)', () => {
    const tap = made(rowOf(blind(20), { callout: 'M8x1.25 ↧16' }), 'tap');
    expect(tap.tool.thread!.lead).toBe('bottoming');
    expect(tap.work[0]!.z).toBeCloseTo(-17.875, 9);
  });

  it('where no tap of the list leaves the thread room, the row says by how much, and what would help', () => {
    const callout = 'M8x1.25 ↧16';
    // A bottoming tap needs 16 + 1.875 and one pitch; there is one, so another is no help.
    expect(rowOf(blind(19), { callout })).toMatchObject({
      state: 'open',
      operations: [],
      reasons: [
        'M8x1.25 with 16 mm of full thread and a bottoming tap needs 19.125 mm of full diameter; the hole has 19 mm. Thread 15.875 mm deep or deepen the hole.',
        'Nor "thread-milled hole": No thread mill P1.25 mm 60° up to ⌀6 mm in the tool list.',
      ],
    });
    const plugOnly = TOOLS.filter((t) => t.thread?.lead !== 'bottoming');
    expect(rowOf(blind(20), { callout, tools: plugOnly }).reasons).toEqual([
      'M8x1.25 with 16 mm of full thread and a plug tap needs 22.25 mm of full diameter; the hole has 20 mm. Thread 13.75 mm deep, add a bottoming tap or deepen the hole.',
      'Nor "thread-milled hole": No thread mill P1.25 mm 60° up to ⌀6 mm in the tool list.',
    ]);
    expect(rowOf(blind(3), { callout: 'M8x1.25 ↧1', tools: plugOnly }).reasons[0]).toMatch(
      /the hole has 3 mm\. Deepen the hole\.$/,
    );
  });

  it('feeds by its pitch a turn (F = n·P), and turns left for a left-hand thread', () => {
    const right = made(rowOf(blind(25), { callout: 'M8x1.25 ↧16' }), 'tap');
    expect(right.feed).toBeCloseTo(1.25 * right.speed, 9);
    expect(howOf(right)).toEqual({ how: 'tap', hand: 'right' });
    const left = made(rowOf(blind(25), { callout: 'M8x1.25 LH ↧16' }), 'tap');
    expect(howOf(left)).toEqual({ how: 'tap', hand: 'left' });
  });

  it('comes up to speed above the entry: three pitches or more', () => {
    const { r, entryZ } = made(rowOf(blind(25), { callout: 'M8x1.25 ↧16' }), 'tap').work[0]!;
    expect(r - entryZ).toBeGreaterThanOrEqual(3 * 1.25 - 1e-9);
  });

  it('is not chosen for a thread nobody confirmed', () => {
    expect(rowOf(blind(25)).operations.some((o) => o.kind === 'tap')).toBe(false);
  });
});

describe('a thread that is only started by machine', () => {
  it('stops short by what is typed, and says what is left for the hand', () => {
    const feature = hole({ depth: 26, stack: [{ shape: 'cylinder', diameter: 6.8, length: 26 }] });
    const row = rowOf(feature, { callout: 'M8x1.25 ↧16', typed: { tap: { byMachine: 6 } } });
    const o = made(row, 'tap');
    const lead = o.tool.thread!.lead;
    expect(o.work[0]!.z).toBeCloseTo(-(6 + LEAD_THREADS[lead] * 1.25), 9);
    expect(o.remarks.find((r) => r.rule === 'rest-by-hand')?.onSheet).toBe('tap by hand from 6 mm to 16 mm');
    expect(made(rowOf(feature, { callout: 'M8x1.25 ↧16' }), 'tap').remarks).toEqual([]);
  });
});
