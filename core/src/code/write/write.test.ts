import { describe, expect, it } from 'vitest';
import { featureSizes } from '../../features/sets.ts';
import { newPlan, type Plan } from '../../plan/plan.ts';
import { decisionFromCallout } from '../../job/print.ts';
import { newSetup } from '../../setup/setup.ts';
import { produceJob } from '../../job/produce.ts';
import { meshModel } from '../../model/mesh.ts';
import { boxModel } from '../../testing/box-model.ts';
import { BOUNDS, hole, LIBRARY } from '../../testing/fixtures.ts';
import type { MachineProfile } from '../profiles/schema.ts';
import { RIGID_TAP_BUILT_IN } from '../profiles/shipped.ts';

const at = (x: number, y: number, z = 0, diameter = 6) =>
  hole({ entry: [x, y, z], depth: 10, stack: [{ shape: 'cylinder', diameter, length: 10 }] });

function textOf(
  profile: Partial<MachineProfile> = {},
  change: (p: Plan) => void = () => undefined,
  features = [at(20, 20), at(60, 20), at(60, 60, 0, 8.5)],
  mesh = null as Parameters<typeof produceJob>[0]['mesh'],
): string {
  const plan = newPlan('mm', 'alu', RIGID_TAP_BUILT_IN.id);
  change(plan);
  const machine = { ...RIGID_TAP_BUILT_IN, ...profile };
  return produceJob({
    features,
    bounds: BOUNDS,
    plan,
    library: { ...LIBRARY, machines: [machine] },
    name: 'Test part',
    mesh,
  }).programs[0]!.text;
}

describe('a whole program', () => {
  it('begins and ends as a control wants it, with the tools listed on top', () => {
    const lines = textOf().trimEnd().split('\n');
    expect(lines.slice(0, 4)).toEqual([
      '%',
      'O1001',
      '(TEST PART)',
      '(MILLIMETRES, G54 AT CENTRE, TOP OF STOCK)',
    ]);
    expect(lines.filter((l) => /^\(T\d+ /.test(l)).length).toBe(
      2 * lines.filter((l) => l.endsWith(' M6')).length,
    );
    expect(lines.slice(-4)).toEqual(['M9 M5', 'G53 G0 Z0.', 'M30', '%']);
    expect(lines).toContain('G21 G17 G90 G94');
  });

  it('heads each operation with its tags, sets offset and length on the way, and closes each cycle', () => {
    const text = textOf();
    expect(text).toContain('(A SPOT A1-A2)');
    expect(text).toMatch(/G54 G0 X\S+ Y\S+\nG43 H2 Z25\. M8\n/);
    expect(text.match(/^(G9[89] )G8\d/gm)!.length).toBe(text.match(/^G80$/gm)!.length);
  });

  it('stages the next tool only where the profile wants it', () => {
    expect(textOf()).toMatch(/T2 M6\nT6\n/);
    expect(textOf({ stageNextTool: false })).not.toMatch(/^T\d+$/m);
  });

  it('goes home by machine coordinates or by reference return', () => {
    expect(textOf({ home: 'reference-return' })).toContain('G91 G28 Z0.\nG90\n');
    expect(textOf({ home: 'reference-return' })).not.toContain('G53');
  });

  it('leaves coolant, percent signs and program number to the profile', () => {
    const text = textOf({ coolant: false, percentSigns: false, programNumber: null });
    expect(text).not.toMatch(/M8|M9|%|^O/m);
  });

  it('writes dwell in seconds or milliseconds, and CR LF where wanted', () => {
    expect(textOf()).toContain(' P110 ');
    expect(textOf({ dwellUnit: 'seconds' })).toContain(' P0.11 ');
    expect(textOf({ lineEnding: 'crlf' })).toMatch(/\r\nM30\r\n/);
  });

  it('writes the pecks of a tap where the machine knows them, and nothing of them elsewhere', () => {
    const threaded = at(20, 20, 0, 5);
    const key = featureSizes([threaded])[0]!.key;
    const pecked = (p: Plan) => {
      p.sizes[key] = {
        ...decisionFromCallout('M6x1 ↧5', 'mm'),
        overrides: { tap: { pecks: 'in pecks', peck: 4 } },
      };
    };
    expect(textOf({ pecksTaps: true }, pecked, [threaded])).toMatch(/G84 X-30\. Y-20\. Z\S+ R\S+ Q4\. F/);
    expect(textOf({}, pecked, [threaded])).toMatch(/G84 X-30\. Y-20\. Z\S+ R\S+ F/);
  });

  it('numbers lines from where and by what the profile says', () => {
    const numbers = [
      ...textOf({ lineNumbers: { on: true, start: 5, step: 5, where: 'blocks' } }).matchAll(/^N(\d+)/gm),
    ].map((m) => Number(m[1]));
    expect(numbers.slice(0, 3)).toEqual([5, 10, 15]);
    expect(new Set(numbers).size).toBe(numbers.length);
  });

  it('sets nothing twice that is in force', () => {
    const drill = textOf().split('T6 M6')[1]!.split('M5')[0]!;
    expect(drill.match(/F/g)).toHaveLength(1);
    expect(drill.match(/ R/g)).toHaveLength(1);
  });
});

describe('what a shop has its habits about', () => {
  it('M words in lines of their own, and a stop after each tool', () => {
    const text = textOf({ oneMPerBlock: true, optionalStop: true });
    expect(text).toMatch(/\nM9\nM5\nG53 G0 Z0\.\nM1\n/);
    expect(text).not.toMatch(/M9 M5/);
    expect(textOf()).not.toMatch(/^M1$/m);
  });

  it('the last tool stages the first', () => {
    const changes = [...textOf().matchAll(/^T(\d+) M6\nT(\d+)$/gm)].map((m) => [m[1], m[2]]);
    expect(changes.at(-1)![1]).toBe(changes[0]![0]);
  });

  it('the head says material, stock, holding, side and what is not made', () => {
    const text = textOf(
      {},
      (p) => (p.setups[0]!.holding.vise = { sides: 'front-back', jawHeight: 40, grip: 8, jawWidth: 125 }),
      [at(20, 20), at(60, 20, 0, 7.3)],
    );
    expect(text).toContain('(MATERIAL ALUMINIUM, SIDE TOP UP)');
    expect(text).toContain('(STOCK PREPARED, OUTER FACES MADE, 100 X 80 X 30)');
    expect(text).toContain('(HOLDING VISE, FRONT AND BACK JAW, GRIP 8)');
    expect(text).toMatch(/\(NOT MADE HERE: B D7\.3 .*X1\)/);
  });

  it('a flat floor that a drill leaves with a cone is told at its operation', () => {
    const flat = hole({
      bottom: { shape: 'flat' },
      depth: 12,
      stack: [{ shape: 'cylinder', diameter: 6, length: 12 }],
    });
    expect(textOf({}, undefined, [flat])).toMatch(
      /\(A DRILL A1\)\n\(FLOOR LEFT WITH A CONE 1\.803 MM HIGH\)/,
    );
  });

  it('each setup has its own program number', () => {
    const below = hole({
      axis: [0, 0, -1],
      reachableFrom: [[0, 0, -1]],
      entry: [50, 40, -30],
      depth: 10,
      stack: [{ shape: 'cylinder', diameter: 6, length: 10 }],
    });
    const plan = newPlan('mm', 'alu', RIGID_TAP_BUILT_IN.id);
    plan.setups.push(newSetup('s2', 'bottom', '-Z', 'G55'));
    const { programs } = produceJob({
      features: [at(20, 20), below],
      bounds: BOUNDS,
      plan,
      library: LIBRARY,
      name: 'Two',
    });
    expect(programs.map((p) => p.text.split('\n')[1])).toEqual(['O1001', 'O1002']);
  });

  it('a left-hand tap turns left', () => {
    const threaded = hole({ depth: 25, stack: [{ shape: 'cylinder', diameter: 6.8, length: 25 }] });
    const text = textOf(
      {},
      (p) => {
        p.sizes[featureSizes([threaded])[0]!.key] = {
          overrides: {},
          ...decisionFromCallout('M8x1.25 LH ↧12', 'mm'),
        };
      },
      [threaded],
    );
    expect(text).toMatch(/S\d+ M4\n(.*\n){2}G98 G74/);
  });
});

describe('between holes', () => {
  const low = [at(10, 40, -15), at(90, 40, -15)];
  const returns = (text: string) => [...text.matchAll(/^(?:(G9[89]) )?(?:G8\d )?X/gm)].map((m) => m[1] ?? '');

  it('stays low where it is clear and lifts over what stands between', () => {
    const clear = meshModel(boxModel([0, 0, -30], [100, 80, -20]));
    const wall = meshModel(boxModel([45, 0, -30], [55, 80, 0]));
    expect(returns(textOf({}, undefined, low, clear)).slice(0, 2)).toEqual(['G99', 'G98']);
    expect(returns(textOf({}, undefined, low, wall)).slice(0, 2)).toEqual(['G98', '']);
  });

  it('lifts always where the part is not known', () =>
    expect(returns(textOf({}, undefined, low, null)).slice(0, 2)).toEqual(['G98', '']));

  it('sees a post that only the tool’s side would touch', () => {
    const post = meshModel(boxModel([48, 43, -30], [52, 46, 0]));
    expect(returns(textOf({}, undefined, low, post))[0]).toBe('G98');
  });
});
