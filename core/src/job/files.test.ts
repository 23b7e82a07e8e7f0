import { describe, expect, it } from 'vitest';
import { newPlan, type Plan } from '../plan/plan.ts';
import { RIGID_TAP_BUILT_IN } from '../code/profiles/shipped.ts';
import { BOUNDS, hole, LIBRARY } from '../testing/fixtures.ts';
import { filesOf } from './files.ts';
import { Producer, type ProducedJob, type ProduceInput } from './produce.ts';

const at = (x: number, diameter: number) =>
  hole({ entry: [x, 20, 0], depth: 10, stack: [{ shape: 'cylinder', diameter, length: 10 }] });

function produced(change: (p: Plan) => void = () => undefined): {
  job: ProducedJob;
  producer: Producer;
  input: ProduceInput;
} {
  const plan = newPlan('mm', 'alu', RIGID_TAP_BUILT_IN.id);
  change(plan);
  const input = {
    features: [at(20, 6), at(60, 8.5)],
    bounds: BOUNDS,
    plan,
    library: LIBRARY,
    name: 'Test part',
  };
  const producer = new Producer();
  const steps = producer.steps(input);
  for (;;) {
    const next = steps.next();
    if (next.done) return { job: next.value, producer, input };
  }
}
const visitKeys = ({ programs }: ProducedJob) => [
  ...new Set(programs[0]!.setup.operations.map((o) => o.tool.id)),
];

describe('files of a setup', () => {
  it('begin before the tools that the plan names', () => {
    const [, second] = visitKeys(produced().job);
    const { job, input } = produced((p) => (p.splits = { s1: [second!, 'gone'] }));
    const files = filesOf(job.programs[0]!, input.plan.splits, job.job.machine);
    expect(files.map((f) => f.fileName)).toEqual(['test-part-part-1.nc', 'test-part-part-2.nc']);
    expect(job.checks.filter((c) => c.rule === 'split')).toEqual([]);
  });
  it('are read back by themselves: an edit that only holds for the whole is told', () => {
    const [, second] = visitKeys(produced().job);
    const line = 'G54 G0 X';
    const { job } = produced((p) => {
      p.splits = { s1: [second!] };
      const text = produced().job.programs[0]!;
      const own = (o: { firstLine: number; lastLine: number }) =>
        text.lines.slice(o.firstLine - 1, o.lastLine);
      const k = text.operations.findIndex((o, i) => i > 0 && own(o).some((l) => l.startsWith(line)));
      const op = text.operations[k]!;
      const base = own(op);
      const n = base.findIndex((l) => l.startsWith(line));
      const key = text.sections[k]!.name;
      // Without its work offset the second file relies on the first.
      p.handEdits = {
        s1: [{ section: key, base, hunks: [{ from: n, count: 1, after: [base[n]!.replace('G54 ', '')] }] }],
      };
    });
    expect(job.checks.some((c) => c.rule === 'split' && c.message.includes('part-2.nc'))).toBe(true);
  });
});

describe('one operation', () => {
  it('is a program of its own that cuts what the whole cuts there', () => {
    const { job, producer } = produced();
    const op = job.programs[0]!.operations.at(-1)!;
    const file = producer.operation('s1', op.id);
    expect(file).toMatchObject({ fileName: expect.stringMatching(/^test-part-only-b-.*\.nc$/) as string });
    const text = 'text' in file ? file.text : '';
    expect(text.match(/M6/g)).toHaveLength(1);
    expect(text).toContain('(ONLY B ');
    expect(text).toContain('M30');
    // By the whole program's number it would take that one's place in the control.
    const number = (t: string): number => Number(/^O(\d+)/m.exec(t)![1]);
    expect(number(text) - number(job.programs[0]!.text)).toBeGreaterThanOrEqual(50);
    expect(number(text) - number(job.programs[0]!.text)).toBeLessThan(100);
  });
  it('is refused where an edit by hand has made another of it', () => {
    const { producer, job } = produced((p) => {
      const { lines, operations, sections } = produced().job.programs[0]!;
      const op = operations[0]!;
      const base = lines.slice(op.firstLine - 1, op.lastLine);
      const n = base.findIndex((l) => l.includes('G8'));
      p.handEdits = {
        s1: [
          {
            section: sections[0]!.name,
            base,
            hunks: [{ from: n, count: 1, after: [base[n]!.replace(/Z-\S+/, 'Z-1.')] }],
          },
        ],
      };
    });
    const file = producer.operation('s1', job.programs[0]!.operations[0]!.id);
    expect('why' in file && file.why).toContain('an edit by hand');
    expect(producer.operation('s1', 'none')).toEqual({ why: 'This operation has no code.' });
    expect('why' in new Producer().operation('s1', 'x')).toBe(true);
  });
});
