import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { parseCallout } from '../../callout/parse.ts';
import { formatCallout } from '../../callout/format.ts';
import { produceJob, proveText, type ProduceInput } from '../../job/produce.ts';
import { turnsAbout } from '../../proof/threads/turns.ts';
import { NAMED_THREADS } from '../../threads/more.ts';
import { flankAngle, threadSizes } from '../../threads/shape.ts';
import { leadOf, type Thread } from '../../threads/thread.ts';
import { bossJob, oneRow, threadJob, wrongs } from '../../testing/threads.ts';
import type { Tool } from '../../tools/schema.ts';
import { firstTooth } from '../../tools/kinds/thread-mill.ts';

/** Cutters that a thread may be cut with: one row, or many of its own profile. */
function cutterFor(t: Thread, isMany: boolean): Tool {
  const diameter = Math.round(70 * threadSizes(t).minor) / 100;
  const angleDeg = flankAngle(t);
  const tapered = t.form === 'pipe-tapered';
  const rows = isMany ? Math.max(2, Math.floor(diameter / t.pitch)) : 1;
  return oneRow(60, diameter, {
    fluteLength: isMany ? rows * t.pitch : 1.1 * t.pitch,
    neckDiameter: 0.4 * diameter,
    shankDiameter: diameter,
    threadForm: isMany
      ? { pitch: t.pitch, angleDeg, rows, tapered }
      : { pitch: 0.9 * t.pitch, pitchTo: 1.1 * t.pitch, angleDeg, rows: 1, tapered: false },
  });
}

/** A job of one hole with that thread, as a print says it. */
function jobFor(
  thread: Thread,
  isMany: boolean,
  typed: Record<string, number | string>,
  more = {},
): ProduceInput {
  const callout = formatCallout({ thread, through: false, threadDepth: 2.5 * leadOf(thread) }, 'mm');
  expect(parseCallout(callout, 'mm').thread).toEqual(thread);
  const depth = 4 * leadOf(thread) + 4;
  return threadJob(
    callout,
    thread.tapDrill,
    depth,
    [cutterFor(thread, isMany)],
    { 'thread-mill': typed },
    more,
  );
}

/**
 * What the text makes the thread mill do that it must not: go off the axis below the top except on an arc or along the thread, jump along
 * the axis, or leave the helix.
 */
function faults(input: ProduceInput, thread: Thread, isQuarter: boolean): string[] {
  const { text } = produceJob(input).programs[0]!;
  const { read, job } = proveText(input, 's1', text);
  const tool = job.rows[0]!.operations.find((o) => o.kind === 'thread-mill')!.tool;
  const own = read.motions.filter((m) => m.tool === tool.number);
  const out: string[] = [];
  own.forEach((m, i) => {
    const before = own[i - 1];
    if (before && before.to.some((v, k) => v !== m.from[k])) out.push(`line ${m.line} jumps`);
    const isAside = m.from[0] !== m.to[0] || m.from[1] !== m.to[1];
    if (isAside && m.kind === 'rapid' && Math.min(m.from[2] ?? 9, m.to[2] ?? 9) < 0)
      out.push(`line ${m.line} goes aside at rapid`);
    if (isAside && m.kind === 'feed' && (m.to[2] ?? 9) < 0 && !isQuarter)
      out.push(`line ${m.line} goes aside in a straight line`);
  });
  const { x, y } = job.rows[0]!.holes[0]!;
  const lead = leadOf(thread);
  for (const { places } of turnsAbout(own, { x, y, isTapered: thread.form === 'pipe-tapered' })) {
    const [p] = places;
    for (const q of places) {
      const should = (lead * Math.abs(q.angle - p!.angle)) / (2 * Math.PI);
      const off = Math.abs(Math.abs(q.z - p!.z) - should);
      // Both ends are rounded to 0.001 mm, in inches to 0.00254, and so is the angle between them: the more of a lead it is, the longer that is.
      const rounded = input.plan.units === 'mm' ? 0.001 : 0.00254;
      const aside = (2 * rounded * lead) / (2 * Math.PI * q.radius);
      if (off > (input.plan.units === 'mm' ? 0.003 : 0.006) + aside)
        out.push(`line ${q.line} is off the helix by ${off}`);
      if (thread.form !== 'pipe-tapered') continue;
      const tooth = -(q.z + firstTooth(tool));
      const wall = (threadSizes(thread, 'inside', tooth).major - toothOf(tool)) / 2;
      if (q.radius > wall + 0.005) out.push(`line ${q.line} is outside the spiral`);
    }
  }
  return out;
}

const toothOf = (t: Tool): number => t.diameter + (t.threadForm?.tapered ? firstTooth(t) / 16 : 0);

describe('every thread of the tables', () => {
  it.each([false, true])(
    'is milled, found right and in step with its turns (many rows: %s)',
    (isMany) => {
      for (const t of NAMED_THREADS) {
        // Thinner than any thread mill is made.
        if (threadSizes(t).minor < 3 || /^R\s/.test(t.designation)) continue;
        const job = jobFor(t, isMany, {});
        const { rows } = produceJob(job).job;
        expect(
          rows[0]!.operations.map((o) => o.kind),
          `${t.designation} ${rows[0]!.reasons.join()}`,
        ).toContain('thread-mill');
        expect(wrongs(job), t.designation).toEqual([]);
        expect(faults(job, t, false), t.designation).toEqual([]);
      }
    },
    60_000,
  );

  it('in either unit, hand and way, several starts, computed or in the control, in arcs or lines (property)', () => {
    const usable = NAMED_THREADS.filter((t) => threadSizes(t).minor > 5 && !/^R\s/.test(t.designation));
    fc.assert(
      fc.property(
        fc.constantFrom(...usable),
        fc.record({
          hand: fc.constantFrom('right' as const, 'left' as const),
          starts: fc.constantFrom(1, 1, 2, 3),
        }),
        fc.boolean(),
        fc.record({
          cut: fc.constantFrom('climb', 'conventional'),
          leads: fc.constantFrom('half circle', 'quarter circle'),
          compensation: fc.constantFrom('computed', 'in the control'),
          passes: fc.integer({ min: 1, max: 3 }),
          springPasses: fc.integer({ min: 0, max: 1 }),
          fit: fc.constantFrom(0, 0.03),
        }),
        fc.constantFrom('mm' as const, 'inch' as const),
        fc.boolean(),
        (named, { hand, starts }, isMany, typed, units, helices) => {
          const thread: Thread = { ...named, hand, ...(starts > 1 ? { starts } : {}) };
          // Longer leads want longer necks than the cutters here have.
          fc.pre(leadOf(thread) < 10);
          const job = jobFor(thread, isMany, typed, { units, machine: { helices } });
          const what = `${thread.designation} ${JSON.stringify({ hand, starts, typed, units, helices, isMany })}`;
          expect(
            produceJob(job).job.rows[0]!.operations.map((o) => o.kind),
            what,
          ).toContain('thread-mill');
          expect(wrongs(job), what).toEqual([]);
          if (helices && typed.fit === 0)
            expect(
              faults(job, thread, typed.leads === 'quarter circle' || typed.compensation !== 'computed'),
              what,
            ).toEqual([]);
        },
      ),
      { numRuns: 120 },
    );
  }, 60_000);

  it('outside, on a boss, in either unit, hand and way, by one row or many (property)', () => {
    const usable = NAMED_THREADS.filter(
      (t) => threadSizes(t, 'outside').minor > 5 && !/^Rc|^Rp/.test(t.designation),
    );
    fc.assert(
      fc.property(
        fc.constantFrom(...usable),
        fc.constantFrom('right' as const, 'left' as const),
        fc.constantFrom(1, 1, 2),
        fc.boolean(),
        fc.record({
          cut: fc.constantFrom('climb', 'conventional'),
          leads: fc.constantFrom('half circle', 'quarter circle'),
          compensation: fc.constantFrom('computed', 'in the control'),
          passes: fc.integer({ min: 1, max: 3 }),
        }),
        fc.constantFrom('mm' as const, 'inch' as const),
        fc.boolean(),
        (named, hand, starts, isMany, typed, units, helices) => {
          const thread: Thread = { ...named, hand, ...(starts > 1 ? { starts } : {}) };
          fc.pre(leadOf(thread) < 8);
          const job = bossJob(thread, cutterFor(thread, isMany), typed, { units, machine: { helices } });
          const what = `${thread.designation} ${JSON.stringify({ hand, starts, isMany, typed, units, helices })}`;
          const { rows } = produceJob(job).job;
          expect(
            rows[0]!.operations.map((o) => o.kind),
            `${what} ${rows[0]!.reasons.join()}`,
          ).toEqual(['outside-thread-mill']);
          expect(wrongs(job), what).toEqual([]);
        },
      ),
      { numRuns: 100 },
    );
  }, 60_000);
});
