import { describe, expect, it } from 'vitest';
import { hole, rowOf, TOOLS } from '../testing/fixtures.ts';
import { findables } from './findable.ts';

describe('what can be looked for in a job', () => {
  it('is each row by tag and callout, each thread, each tool, once', () => {
    const row = {
      ...rowOf(hole()),
      thread: { designation: 'M8x1.25' } as never,
      operations: [{ tool: TOOLS[0]! }, { tool: TOOLS[0]! }] as never,
    };
    const found = findables([row, row]);
    expect(found.map((f) => f.what)).toEqual(['row', 'thread', 'tool']);
    expect(found[0]!.text).toContain(`${row.tag} `);
    expect(found[2]!.text).toContain(TOOLS[0]!.description);
  });
});
