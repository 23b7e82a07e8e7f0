import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { TOOLS } from '../testing/fixtures.ts';
import { firstConflict, moveVisit, sequence, visitsOf, type Ordered } from './sequence.ts';

const op = (sizeKey: string, position: number, tool: number, part: Partial<Ordered> = {}): Ordered => ({
  tag: sizeKey.toUpperCase(),
  label: `op ${position}`,
  sizeKey,
  position,
  after: [],
  rank: position,
  tool: TOOLS[tool]!,
  ...part,
});

/** Any operations whose sizes wait for earlier ones only, so that some order exists. */
const anyJob = fc
  .array(
    fc.record({
      tools: fc.array(fc.integer({ min: 0, max: 7 }), { minLength: 1, maxLength: 4 }),
      ranks: fc.array(fc.integer({ min: 0, max: 5 }), { minLength: 4, maxLength: 4 }),
      after: fc.array(fc.nat(20), { maxLength: 2 }),
    }),
    { minLength: 1, maxLength: 8 },
  )
  .map((sizes) =>
    sizes.flatMap(({ tools, ranks, after }, i) =>
      tools.map((t, position) =>
        op(`s${i}`, position, t, {
          rank: ranks[position]!,
          after: after.filter((a) => a < i).map((a) => `s${a}`),
        }),
      ),
    ),
  );

describe('sequence', () => {
  it('never breaks its own rule, and loses no operation', () => {
    fc.assert(
      fc.property(anyJob, (operations) => {
        const ordered = sequence(operations);
        expect(firstConflict(ordered)).toBeNull();
        expect(new Set(ordered)).toEqual(new Set(operations));
      }),
    );
  });

  it('two drills of one stepped hole keep their order whatever their stages, and other tools can be dragged', () => {
    const ops = [
      op('a', 0, 0),
      op('a', 1, 5, { rank: 1 }),
      op('a', 2, 3, { rank: 1 }),
      op('b', 0, 0),
      op('b', 1, 4, { rank: 1 }),
    ];
    const ordered = sequence(ops);
    expect(firstConflict(ordered)).toBeNull();
    expect(moveVisit(ordered, TOOLS[4]!.id, TOOLS[5]!.id)).toHaveProperty('order');
  });

  it('a hole in another’s floor waits for all of that one', () => {
    const inner = op('in', 0, 1, { rank: 0, after: ['out'] });
    const ordered = sequence([inner, op('out', 0, 1, { rank: 0 }), op('out', 1, 3)]);
    expect(ordered[2]).toBe(inner);
    expect(visitsOf(ordered).map((v) => v.key)).toEqual([TOOLS[1]!.id, TOOLS[3]!.id, `${TOOLS[1]!.id}#2`]);
  });

  it('changes tools as seldom as it can: one visit each where nothing waits', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 0, max: 7 }), { minLength: 1, maxLength: 12 }), (tools) => {
        const ops = tools.map((t, i) => op(`s${i}`, 0, t, { rank: t % 3 }));
        expect(visitsOf(sequence(ops))).toHaveLength(new Set(tools).size);
      }),
    );
  });

  it('a move that is allowed is kept, and one that is not says which operation needs which', () => {
    fc.assert(
      fc.property(anyJob, fc.nat(20), fc.nat(20), (operations, from, to) => {
        const ordered = sequence(operations);
        const keys = visitsOf(ordered).map((v) => v.key);
        const moved = moveVisit(ordered, keys[from % keys.length]!, keys[to % keys.length]!);
        if ('conflict' in moved)
          expect(moved.conflict.message).toMatch(/would run before .* needs done first/);
        else {
          const after = sequence(operations, moved.order);
          expect(firstConflict(after)).toBeNull();
          expect(new Set(after)).toEqual(new Set(operations));
        }
      }),
    );
  });
});
