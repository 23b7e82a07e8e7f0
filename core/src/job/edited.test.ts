import { describe, expect, it } from 'vitest';
import type { SectionEdits } from '../code/edits/schema.ts';
import { planSchema, type Plan } from '../plan/plan.ts';
import { BOUNDS, hole, LIBRARY, plan } from '../testing/fixtures.ts';
import { editsOf, withoutUnfit } from './edited.ts';
import { produceJob, Producer, type ProducedSetup, type ProduceInput, type ProduceStep } from './produce.ts';

const FEATURES = [hole({ entry: [20, 20, 0] }), hole({ entry: [60, 20, 0] })];
const input = (part: Partial<Plan> = {}): ProduceInput => ({
  features: FEATURES,
  bounds: BOUNDS,
  plan: { ...plan(), ...part },
  library: LIBRARY,
  name: 'plate',
});
const programOf = (part: Partial<Plan> = {}): ProducedSetup => produceJob(input(part)).programs[0]!;
const POSTED = programOf();
const machine = LIBRARY.machines[0]!;
const DEEP = POSTED.lines.findIndex((l) => /G8[13] .*Z-2\d/.test(l));
/** The edits that a change of the posted text by hand gives. */
const edited = (change: (text: string) => string, on = POSTED, as = machine): Partial<Plan> => ({
  handEdits: { s1: editsOf(change(on.text), on, as) },
});
const deeper = edited((t) =>
  t.replace(POSTED.lines[DEEP]!, POSTED.lines[DEEP]!.replace(/Z-[\d.]+/, 'Z-44.')),
);

describe('a text that was edited by hand', () => {
  it('is what is written, proved, and kept in the plan', () => {
    const { programs, checks } = produceJob(input(planSchema.parse({ ...plan(), ...deeper })));
    expect(programs[0]!.text).toContain('Z-44.');
    expect(programs[0]!.taken).toMatchObject([{ firstLine: DEEP + 1, lastLine: DEEP + 1 }]);
    expect(checks.some((c) => c.severity === 'error' && c.line === DEEP + 1)).toBe(true);
    expect(produceJob(input()).checks.some((c) => c.severity === 'error')).toBe(false);
  });

  it('keeps operations and holes at their lines', () => {
    const more = edited((t) => t.replace(POSTED.lines[DEEP]!, `M0\n${POSTED.lines[DEEP]!}`));
    const { lines, operations } = programOf(more);
    for (const [n, o] of operations.entries()) {
      const before = POSTED.operations[n]!;
      expect(lines[o.firstLine - 1]).toBe(POSTED.lines[before.firstLine - 1]);
      expect(lines[o.lastLine - 1]).toBe(POSTED.lines[before.lastLine - 1]);
      expect(o.holeLines.map(([line, label]) => [lines[line - 1], label])).toEqual(
        before.holeLines.map(([line, label]) => [POSTED.lines[line - 1], label]),
      );
    }
  });

  it('is taken along through block numbers, another comment style and slower feeds elsewhere', () => {
    const note = edited((t) => t.replace('G40 G49 G80', 'G40 G49 G80\nM0'));
    for (const codeOptions of [
      { lineNumbers: true },
      { commentStyle: 'semicolon' as const },
      { feedPercent: 50 },
    ]) {
      const { unfit, taken, text } = programOf({ ...note, codeOptions });
      expect(unfit).toEqual([]);
      expect(taken).toHaveLength(1);
      expect(text).toMatch(codeOptions.lineNumbers ? /N\d+ M0\n/ : /\nM0\n/);
    }
    // Typed over a numbered text, the numbers are no edits.
    const numbered = programOf({ codeOptions: { lineNumbers: true } });
    const as = { ...machine, lineNumbers: { ...machine.lineNumbers, on: true } };
    expect(edited((t) => t, numbered, as).handEdits).toEqual({ s1: [] });
  });

  it('is refused, said and not posted where the plan writes other lines, and can be let go of', () => {
    const changed = { ...deeper, codeOptions: { feedPercent: 50 } };
    const { programs, checks } = produceJob(input(changed));
    const [program] = programs;
    expect(program!.text).not.toContain('Z-44.');
    expect(checks.find((c) => c.rule === 'edit-unfit')).toMatchObject({
      severity: 'error',
      mustMend: true,
      setupId: 's1',
      // The head says that feeds are slower: a line more.
      line: DEEP + 2,
      message: expect.stringContaining('Z-44.') as string,
    });
    const before = deeper.handEdits!['s1']!;
    // What is typed elsewhere does not lose it; going back to the plan of before, it is there again.
    const both = editsOf(program!.text.replace('G40 G49 G80', 'G40 G49'), program!, machine);
    expect(programOf({ handEdits: { s1: both } }).text).toContain('Z-44.');
    expect(withoutUnfit(before, program!.unfit[0]!)).toEqual([]);
  });

  it('of a setup without a program is said to wait', () => {
    const { checks } = produceJob({ ...input(deeper), features: [] });
    expect(checks).toMatchObject([{ rule: 'edit-unfit', severity: 'warning' }]);
  });

  it('with a block that nobody understood is never proved', () => {
    const { checks } = produceJob(input(edited((t) => t.replace('G40 G49 G80', 'G40 G49 G80\nG123.4'))));
    expect(checks).toContainEqual(expect.objectContaining({ severity: 'error', mustMend: true }));
  });
});

describe('a job that is produced again', () => {
  const run = (producer: Producer, asked: ProduceInput): ProduceStep[] => [...producer.steps(asked)];
  const names = (steps: ProduceStep[]): string[] => steps.map((s) => s.step);
  const same = { ...input(), features: FEATURES };

  it('is only planned where more than texts and acceptances are another, and comes to the same', () => {
    const producer = new Producer();
    expect(names(run(producer, same))).toEqual(['plan', 'code', 'proof']);
    const again = run(producer, { ...same, plan: { ...same.plan, ...deeper } });
    expect(names(again)).toEqual(['code', 'proof']);
    const alone = produceJob({ ...same, plan: { ...same.plan, ...deeper } });
    expect(again.at(-1)).toMatchObject({
      checks: alone.checks,
      programs: [{ text: alone.programs[0]!.text }],
    });
    const other = { ...same, plan: { ...same.plan, codeOptions: { feedPercent: 50 } } };
    expect(names(run(producer, other))).toEqual(['plan', 'code', 'proof']);
  });

  it('tells its plan again where another was told and given up', () => {
    const producer = new Producer();
    run(producer, same);
    producer.steps({ ...same, plan: { ...same.plan, codeOptions: { feedPercent: 50 } } }).next();
    expect(names(run(producer, same))).toEqual(['plan', 'code', 'proof']);
  });

  it('proves only the text that was changed', () => {
    const producer = new Producer();
    const first = run(producer, same).at(-1) as Extract<ProduceStep, { step: 'proof' }>;
    const edits: SectionEdits[] = deeper.handEdits!['s1']!;
    const accepted = [{ rule: 'r', setupId: null, message: 'm', reason: 'seen' }];
    const second = run(producer, { ...same, plan: { ...same.plan, accepted } }).at(-1) as typeof first;
    expect(second.programs[0]!.read).toBe(first.programs[0]!.read);
    const third = run(producer, { ...same, plan: { ...same.plan, handEdits: { s1: edits } } });
    expect((third.at(-1) as typeof first).programs[0]!.read).not.toBe(first.programs[0]!.read);
  });
});
