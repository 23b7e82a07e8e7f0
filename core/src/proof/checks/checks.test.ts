import { describe, expect, it } from 'vitest';
import { featureSizes } from '../../features/sets.ts';
import { newPlan } from '../../plan/plan.ts';
import { decisionFromCallout } from '../../job/print.ts';
import { produceJob, proveText, type ProduceInput } from '../../job/produce.ts';
import { counterbored, BOUNDS, drill, hole, LIBRARY } from '../../testing/fixtures.ts';
import { RIGID_TAP_BUILT_IN } from '../../code/profiles/shipped.ts';
import { planChecks } from '../prove.ts';

/** A threaded blind hole, a plain through hole and a counterbored one, planned and written. */
function job(library = LIBRARY): ProduceInput {
  const threaded = hole({
    depth: 25,
    stack: [{ shape: 'cylinder', diameter: 6.8, length: 25 }],
    entry: [20, 20, 0],
  });
  const plain = hole({
    kind: 'through',
    stack: [{ shape: 'cylinder', diameter: 8.5, length: 30 }],
    entry: [60, 20, 0],
  });
  const bored = counterbored({ floor: 6 }, { kind: 'through', entry: [60, 60, 0] });
  const plan = newPlan('mm', 'alu', RIGID_TAP_BUILT_IN.id);
  plan.sizes[featureSizes([threaded])[0]!.key] = {
    overrides: {},
    ...decisionFromCallout('M8x1.25 ↧16', 'mm'),
  };
  return { features: [threaded, plain, bored], bounds: BOUNDS, plan, library, name: 'checks' };
}
const produced = () => produceJob(job());

/** Proves the program after a change to its text, as after an edit by hand. */
function edited(change: (text: string) => string) {
  const input = job();
  const p = produceJob(input).programs[0]!;
  const text = change(p.text);
  expect(text).not.toBe(p.text);
  return proveText(input, p.setup.setup.id, text);
}
const rulesAfter = (change: (text: string) => string) => edited(change).checks.map((c) => c.rule);

/** Changes the first word of a letter after the given tool's call. */
const inTool = (text: string, tool: number, from: RegExp, to: string): string => {
  const at = text.search(new RegExp(`^T${tool} M6`, 'm'));
  return text.slice(0, at) + text.slice(at).replace(from, to);
};

describe('checks from the text', () => {
  it('finds nothing wrong in what we write', () => {
    const { checks } = produced();
    expect(checks.filter((c) => c.severity !== 'note')).toEqual([]);
  });

  it('a tap on a drilling cycle', () =>
    expect(rulesAfter((t) => t.replace('G84', 'G81'))).toContain('tool-and-cycle'));
  it('a drill on a tapping cycle', () =>
    expect(rulesAfter((t) => inTool(t, 10, /G(81|73|83)( [^\n]*)Q\S+ /, 'G84$2'))).toContain(
      'tool-and-cycle',
    ));
  it('a right-hand tap on the left-hand cycle', () =>
    expect(rulesAfter((t) => t.replace('G84', 'G74'))).toContain('tap-hand'));
  it('a tap speed changed without its feed', () =>
    expect(rulesAfter((t) => inTool(t, 30, /S\d+/, 'S400'))).toContain('tap-feed'));
  it('a tap feed changed without its speed', () =>
    expect(rulesAfter((t) => inTool(t, 30, /F[\d.]+/, 'F700.'))).toContain('tap-feed'));
  it('pecking without a peck depth', () =>
    expect(rulesAfter((t) => t.replace(/ Q[\d.]+/, ''))).toContain('missing-peck'));

  it('a drill into the floor, with the number and the hole', () => {
    const { checks } = edited((t) => inTool(t, 8, /Z-2[\d.]+/, 'Z-32.'));
    const found = checks.find((c) => c.rule === 'too-deep')!;
    expect(found.message).toMatch(/^B1: the drill goes 4\.957 mm deeper/);
    expect(found).toMatchObject({ severity: 'error', tag: 'B' });
  });

  it('a through hole that is not through', () =>
    expect(rulesAfter((t) => inTool(t, 10, /Z-3[\d.]+/, 'Z-30.'))).toContain('not-through'));
  it('a tap beyond the drilled full diameter', () =>
    expect(rulesAfter((t) => inTool(t, 30, /Z-21\./, 'Z-25.'))).toContain('tap-too-deep'));
  it('a tap without a drilled hole', () =>
    expect(rulesAfter((t) => t.replace(/^(.*G73 X-30.*)$/m, ''))).toContain('tap-without-hole'));
  it('a spot as deep as the hole', () =>
    expect(rulesAfter((t) => inTool(t, 2, /Z-2[\d.]+/, 'Z-20.'))).toContain('spot-too-deep'));
  it('a counterbore too deep', () =>
    expect(rulesAfter((t) => inTool(t, 20, /Z-6\./, 'Z-6.5'))).toContain('counterbore-depth'));
  it('a hole where the part has none', () =>
    expect(rulesAfter((t) => inTool(t, 10, /X10\. Y-20\. Z/, 'X12. Y-20. Z'))).toEqual(
      expect.arrayContaining(['no-hole-there', 'not-in-program']),
    ));
  it('the same hole twice', () =>
    expect(rulesAfter((t) => inTool(t, 10, /^(.*X10\. Y-20\. Z.*)$/m, '$1\nX10. Y-20.'))).toContain(
      'done-twice',
    ));
  it('speed beyond the machine', () =>
    expect(rulesAfter((t) => inTool(t, 10, /S\d+/, 'S9000'))).toContain('speed-limit'));
  it('a tool that the magazine does not hold', () =>
    expect(rulesAfter((t) => t.replace('T10 M6', 'T77 M6'))).toContain('unknown-tool'));
  it('rapid motion into the stock', () =>
    expect(rulesAfter((t) => t.replace(/G43 H10 Z25\./, 'G43 H10 Z-5.'))).toContain('low-rapid'));

  it('flutes shorter than the hole is deep', () => {
    const { programs } = produced();
    const tools = LIBRARY.tools.map((t) => (t.number === 10 ? { ...drill(10, 8.5, 20), id: 'short' } : t));
    const found = proveText(job({ ...LIBRARY, tools }), 's1', programs[0]!.text).checks;
    expect(found.map((c) => c.rule)).toContain('flute-length');
  });
});

describe('checks of the plan', () => {
  it('two tools on one number', () => {
    const { job } = produced();
    const checks = planChecks(job, [...LIBRARY.tools, drill(10, 9)]);
    expect(checks).toContainEqual(
      expect.objectContaining({
        rule: 'number-twice',
        severity: 'error',
        message: expect.stringContaining('T10') as string,
      }),
    );
  });

  it('a used tool without a number is not posted', () => {
    const tools = LIBRARY.tools.map((t) => (t.id === 'drill-8' ? { ...t, number: null } : t));
    const result = produceJob({
      features: [hole({ stack: [{ shape: 'cylinder', diameter: 8, length: 20 }] })],
      bounds: BOUNDS,
      plan: newPlan('mm', 'alu', RIGID_TAP_BUILT_IN.id),
      library: { ...LIBRARY, tools },
      name: 'n',
    });
    expect(result.checks.map((c) => c.rule)).toContain('no-number');
    expect(result.programs).toEqual([]);
  });

  it('an open row says what is missing', () => {
    const result = produceJob({
      features: [hole({ stack: [{ shape: 'cylinder', diameter: 7.3, length: 20 }] })],
      bounds: BOUNDS,
      plan: newPlan('mm', 'alu', RIGID_TAP_BUILT_IN.id),
      library: LIBRARY,
      name: 'n',
    });
    expect(result.checks[0]).toMatchObject({
      rule: 'open-row',
      message: 'A: No drill ⌀7.3 mm in the tool list.',
    });
  });
});
