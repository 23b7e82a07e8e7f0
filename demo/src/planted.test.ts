import { beforeAll, describe, expect, it } from 'vitest';
import { proveText, type ProducedJob, type ProduceInput } from '@yellow-pin/core/job/produce';
import type { Check } from '@yellow-pin/core/proof/checks/check';
import { inputOfSample, sampleJob } from './sample-job.ts';
import { produceJob } from '@yellow-pin/core/job/produce';

/**
 * Mistakes as people make them, planted by hand into the programs of the manifold block and of the inch plate. Each must be found, by the
 * rule that names it; and what we write ourselves must stay free of findings.
 */
interface Case {
  part: string;
  input: ProduceInput;
  produced: ProducedJob;
}
const cases = new Map<string, Case>();
const MANIFOLD = 'manifold-block.step';
const PLATE = 'adapter-plate.step';

beforeAll(async () => {
  for (const part of [MANIFOLD, PLATE]) {
    const input = inputOfSample(await sampleJob(part), part);
    cases.set(part, { part, input, produced: produceJob(input) });
  }
});

const textOf = (part: string): string => cases.get(part)!.produced.programs[0]!.text;

function found(part: string, text: string): Check[] {
  const { input, produced } = cases.get(part)!;
  return proveText(input, produced.programs[0]!.setup.setup.id, text).checks.filter(
    (c) => c.line !== undefined || c.severity === 'error',
  );
}

/** The stretch of a program that one tool runs, by its description. */
function inTool(text: string, what: RegExp, change: (stretch: string) => string): string {
  const parts = text.split(/(?=\n\(T\d+ [^\n]*\)\n(?:G53 G0 Z0\.\n)?T\d+ M6)/);
  const i = parts.findIndex((p) => what.test(p.split('\n')[1]!));
  expect(i, `no stretch ${what}`).toBeGreaterThanOrEqual(0);
  parts[i] = change(parts[i]!);
  return parts.join('');
}
const DRILL_68 = /DRILL D6\.8 /;
const TAP = /TAP M8/;

describe('what we write', () => {
  it.each([MANIFOLD, PLATE])('has no findings: %s', (part) => {
    for (const p of cases.get(part)!.produced.programs)
      expect(
        proveText(cases.get(part)!.input, p.setup.setup.id, p.text).checks.filter(
          (c) => c.line !== undefined,
        ),
      ).toEqual([]);
  });
});

const planted: [what: string, rule: string, change: (text: string) => string][] = [
  ['R inside metal', 'rapid-into-metal', (t) => inTool(t, DRILL_68, (s) => s.replace('R2.', 'R-20.'))],
  ['another tool’s H', 'length-offset', (t) => inTool(t, DRILL_68, (s) => s.replace('G43 H13', 'G43 H14'))],
  ['no H', 'length-offset', (t) => inTool(t, DRILL_68, (s) => s.replace('G43 H13', 'G43'))],
  ['no length offset', 'no-length-offset', (t) => inTool(t, DRILL_68, (s) => s.replace('G43 H13 ', ''))],
  ['another work offset', 'work-offset', (t) => inTool(t, DRILL_68, (s) => s.replace('G54', 'G55'))],
  [
    'M4 with a right-hand drill',
    'spindle-direction',
    (t) => inTool(t, DRILL_68, (s) => s.replace('M3', 'M4')),
  ],
  ['M30 in the middle', 'after-end', (t) => inTool(t, DRILL_68, (s) => s.replace('G80', 'G80\nM30'))],
  [
    'a drill of another size',
    'wrong-size',
    (t) => inTool(t, DRILL_68, (s) => s.replace('T13 M6', 'T14 M6').replace('H13', 'H14')),
  ],
  [
    'a drill fed sideways',
    'fed-sideways',
    (t) => inTool(t, DRILL_68, (s) => s.replace('G80', 'G80\nG0 Z2.\nG1 Z-5. F200.\nX-50.')),
  ],
  [
    'a plunge where nothing is planned',
    'into-part',
    (t) =>
      inTool(t, DRILL_68, (s) => s.replace('G80', 'G80\nG0 X-30. Y-30.\nG0 Z2.\nG1 Z-5. F200.\nG0 Z25.')),
  ],
  [
    'a rapid across, through the part',
    'rapid-into-part',
    (t) => inTool(t, DRILL_68, (s) => s.replace('G80', 'G80\nG0 Z-12.\nG0 X0. Y0.\nG0 Z25.')),
  ],
  ['a tap short of the print', 'thread-short', (t) => inTool(t, TAP, (s) => s.replace('Z-21.', 'Z-12.'))],
  ['a tap beyond the drill', 'tap-too-deep', (t) => inTool(t, TAP, (s) => s.replace('Z-21.', 'Z-24.'))],
  ['a tap on a drilling cycle', 'tool-and-cycle', (t) => inTool(t, TAP, (s) => s.replace('G84', 'G81'))],
  ['a tap’s feed', 'tap-feed', (t) => inTool(t, TAP, (s) => s.replace(/F([\d.]+)/, 'F500.'))],
  [
    'a tap before its drill',
    'before-its-hole',
    (t) => {
      let tap = '';
      const rest = inTool(t, TAP, (s) => ((tap = s.replace(/\nM30[\s\S]*$/, '\n')), '\nM30\n%\n'));
      return inTool(rest, DRILL_68, (s) => tap + s);
    },
  ],
  [
    'a counterbore before its drill',
    'before-its-hole',
    (t) => {
      let bore = '';
      const rest = inTool(t, /COUNTERBORE D11/, (s) => ((bore = s), ''));
      return inTool(rest, /DRILL D5\.5 118 DEG\)/, (s) => bore + s);
    },
  ],
  [
    'a spot after the drill',
    'spot-after-drill',
    (t) => {
      let spot = '';
      const rest = inTool(t, /SPOT DRILL D10 90/, (s) => ((spot = s.replace('G53 G0 Z0.\nT1', 'T1')), ''));
      return inTool(rest, TAP, (s) => spot + s);
    },
  ],
  [
    'a spot in the air',
    'spot-in-air',
    (t) => inTool(t, /SPOT DRILL D10 90/, (s) => s.replace('Z-4.3', 'Z1.')),
  ],
  [
    'a spot to the bottom of the hole',
    'spot-too-deep',
    (t) => inTool(t, /SPOT DRILL D10 90/, (s) => s.replace('Z-4.3', 'Z-22.')),
  ],
  ['feed ten times too high', 'feed', (t) => inTool(t, DRILL_68, (s) => s.replace(/F(\d+)\./, 'F$10.'))],
  ['speed ten times too low', 'speed', (t) => inTool(t, DRILL_68, (s) => s.replace(/S\d+/, 'S351'))],
  ['speed beyond the machine', 'speed-limit', (t) => inTool(t, DRILL_68, (s) => s.replace(/S(\d+)/, 'S$10'))],
  ['peck ten times too big', 'peck-too-big', (t) => inTool(t, DRILL_68, (s) => s.replace('Q6.8', 'Q68.'))],
  ['a pecking cycle without peck', 'missing-peck', (t) => inTool(t, DRILL_68, (s) => s.replace(' Q6.8', ''))],
  [
    'no pecks in a deep hole',
    'no-pecks',
    (t) => inTool(t, /DRILL D6\.6 118 DEG LONG/, (s) => s.replace(/G83/, 'G81').replace(/ Q\S+/, '')),
  ],
  [
    'a lost decimal point in X',
    'no-decimal-point',
    (t) => inTool(t, DRILL_68, (s) => s.replace('X-60. Y0.', 'X-60 Y0.')),
  ],
  [
    'a lost digit in X',
    'no-hole-there',
    (t) => inTool(t, DRILL_68, (s) => s.replace('X-60. Y0.', 'X-6. Y0.')),
  ],
  [
    'a lost decimal point in Z',
    'too-deep',
    (t) => inTool(t, DRILL_68, (s) => s.replace('Z-24.293', 'Z-242.93')),
  ],
  [
    '15 too deep in a through hole',
    'too-far-through',
    (t) => inTool(t, /DRILL D6\.6 118 DEG LONG/, (s) => s.replace(/Z-7\d\.\d+/g, 'Z-93.')),
  ],
  [
    'not through',
    'not-through',
    (t) => inTool(t, /DRILL D6\.6 118 DEG LONG/, (s) => s.replace(/Z-7\d\.\d+/g, 'Z-70.')),
  ],
  ['no unit', 'start-line', (t) => t.replace('G21 ', '')],
  ['no plane', 'start-line', (t) => t.replace('G17 ', '')],
  ['no absolute', 'start-line', (t) => t.replace('G90 ', '')],
  ['inches in a metric job', 'units', (t) => t.replace('G21', 'G20')],
  [
    'G91 left on',
    'incremental',
    (t) => inTool(t, DRILL_68, (s) => s.replace('G54 G0', 'G91 G28 Z0.\nG54 G0')),
  ],
  [
    'a dwell of minutes',
    'long-dwell',
    (t) => inTool(t, /SPOT DRILL D10 90/, (s) => s.replace(/P\d+/, 'P40.')),
  ],
  ['no coolant in a deep drill', 'coolant', (t) => inTool(t, DRILL_68, (s) => s.replace(' M8', ''))],
  ['no coolant at a tap', 'coolant', (t) => inTool(t, TAP, (s) => s.replace(' M8\n', '\n'))],
  ['brackets in brackets', 'bracket-in-comment', (t) => t.replace('(MANIFOLD BLOCK', '(MANIFOLD (BLOCK)')],
  [
    'a hole twice',
    'done-twice',
    (t) => inTool(t, DRILL_68, (s) => s.replace('X-60. Y0.', 'X-60. Y0.\nX-60. Y0.')),
  ],
  ['a hole left out', 'not-in-program', (t) => inTool(t, DRILL_68, (s) => s.replace('X-60. Y0.\n', ''))],
  ['spindle never started', 'spindle-off', (t) => inTool(t, DRILL_68, (s) => s.replace(/S\d+ M3/, 'S3511'))],
  [
    'R that rises without a lift',
    'r-rises',
    (t) => inTool(t, DRILL_68, (s) => s.replace('G98 X55. Y35.', 'G99 X55. Y35.')),
  ],
  [
    'a counterbore too deep',
    'counterbore-depth',
    (t) => inTool(t, /COUNTERBORE D11/, (s) => s.replace('Z-6.8', 'Z-8.6')),
  ],
  [
    'a countersink too deep',
    'countersink-size',
    (t) => inTool(t, /COUNTERSINK/, (s) => s.replace(/Z-5\.1/, 'Z-6.1')),
  ],
  ['an unknown word', 'unknown-word', (t) => t.replace('G40 G49 G80', 'G40 G49 G80 G187')],
  [
    'a tool that is not there',
    'unknown-tool',
    (t) => inTool(t, DRILL_68, (s) => s.replace('T13 M6', 'T999 M6').replace('H13', 'H999')),
  ],
  [
    'a tool changed in for nothing',
    'idle-tool',
    (t) => inTool(t, DRILL_68, (s) => s.replace('T13 M6', 'T12 M6\nT21 M6')),
  ],
  ['an R far above', 'high-r', (t) => inTool(t, DRILL_68, (s) => s.replace('R2.', 'R20.'))],
];

describe('planted in the manifold block', () => {
  it.each(planted)('%s', (_, rule, change) => {
    const text = change(textOf(MANIFOLD));
    expect(text).not.toBe(textOf(MANIFOLD));
    const checks = found(MANIFOLD, text);
    const hit = checks.find((c) => c.rule === rule);
    expect(hit, checks.map((c) => `${c.rule}: ${c.message}`).join('\n') || 'nothing found').toBeDefined();
    // Every finding says what would be right, and never floods.
    expect(hit!.message.length).toBeGreaterThan(20);
    expect(checks.length).toBeLessThan(40);
  });
});

describe('planted in the inch plate', () => {
  it.each([
    [
      'a through tap that is not through',
      'tap-not-through',
      (t: string) => inTool(t, /TAP 1\/4/, (s) => s.replace(/Z-0?\.?9\d+/, 'Z-0.7')),
    ],
    [
      'a metric depth',
      'too-far-through',
      (t: string) => inTool(t, /DRILL #7/, (s) => s.replace(/Z-0\.8\d+/, 'Z-8.5')),
    ],
    ['two tools on one number', 'number-twice', null],
  ] as const)('%s', (_, rule, change) => {
    const { input, produced } = cases.get(PLATE)!;
    const used = produced.programs[0]!.setup.operations[0]!.tool;
    const tools = change
      ? input.library.tools
      : [...input.library.tools, { ...used, id: 'other', description: 'other' }];
    const text = change ? change(textOf(PLATE)) : textOf(PLATE);
    const { checks } = proveText({ ...input, library: { ...input.library, tools } }, 's1', text);
    expect(checks.filter((c) => c.severity === 'error').map((c) => c.rule)).toContain(rule);
  });
});
