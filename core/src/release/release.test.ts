import { describe, expect, it } from 'vitest';
import { RIGID_TAP_BUILT_IN } from '../code/profiles/shipped.ts';
import { textHash } from '../code/files/hash.ts';
import { featureSizes } from '../features/sets.ts';
import { produceJob } from '../job/produce.ts';
import { edgeSegments, meshModel } from '../model/mesh.ts';
import { newPlan, type Plan } from '../plan/plan.ts';
import { newSetup } from '../setup/setup.ts';
import { boxModel } from '../testing/box-model.ts';
import { BOUNDS, hole, LIBRARY } from '../testing/fixtures.ts';
import { releaseDifference } from './difference.ts';
import { releaseFaults, releaseOf } from './release.ts';
import { releaseContentSchema } from './schema.ts';

const model = boxModel([0, 0, -30], [100, 80, 0]);
const mesh = meshModel(model);
const edges = edgeSegments(model);
const at = (x: number, diameter: number) =>
  hole({ entry: [x, 20, 0], depth: 10, stack: [{ shape: 'cylinder', diameter, length: 10 }] });
const FEATURES = [at(20, 6), at(60, 8.5)];
const KEY = featureSizes(FEATURES)[0]!.key;

function made(change: (p: Plan) => void = () => undefined, features = FEATURES) {
  const plan = newPlan('mm', 'alu', RIGID_TAP_BUILT_IN.id);
  change(plan);
  const input = { features, bounds: BOUNDS, plan, library: LIBRARY, name: 'Cap', mesh: null };
  return { ...produceJob(input), name: input.name, plan, mesh, edges };
}

describe('a release', () => {
  it('freezes files with their hashes, sheets, findings and the plan in words', () => {
    const content = releaseOf(made());
    expect(releaseContentSchema.parse(content)).toEqual(content);
    expect(content.files[0]!.sha256).toBe(textHash(content.files[0]!.text));
    expect(content.sheets[0]!.files[0]!.sha256).toBe(content.files[0]!.sha256);
    expect(content.rows.map((r) => r.tag)).toEqual(['A', 'B']);
    expect(content.rows[0]!.operations[0]!.values.length).toBeGreaterThan(2);
  });
  it('tells setups of one name apart', () => {
    const twice = made(
      (p) => p.setups.push(newSetup('s2', p.setups[0]!.name, '-Z', 'G55')),
      [
        ...FEATURES,
        hole({
          axis: [0, 0, -1],
          reachableFrom: [[0, 0, -1]],
          entry: [50, 40, -30],
          depth: 8,
          stack: [{ shape: 'cylinder', diameter: 6, length: 8 }],
        }),
      ],
    );
    const { files, sheets } = releaseOf(twice);
    expect(sheets.map((s) => [s.setupId, s.setup])).toEqual([
      ['s1', 'top up'],
      ['s2', 'top up'],
    ]);
    for (const s of sheets)
      expect(files.filter((f) => f.setupId === s.setupId).map((f) => f.name)).toEqual(
        s.files.map((f) => f.name),
      );
  });
  it('is refused where nothing is made, or something is wrong', () => {
    expect(releaseFaults(made(undefined, []))[0]).toContain('no program');
    expect(
      releaseFaults({ ...made(), checks: [{ rule: 'x', severity: 'error', message: 'A1: wrong' }] }),
    ).toEqual(['A1: wrong']);
    const { programs } = made();
    expect(releaseFaults({ programs, checks: [{ rule: 'x', severity: 'warning', message: 'w' }] })).toEqual(
      [],
    );
  });
});

describe('the difference of two releases', () => {
  const older = releaseOf(made());
  it('is nothing where nothing changed', () => {
    expect(releaseDifference(older, releaseOf(made()))).toEqual({
      plan: [],
      files: [],
      findings: { gone: [], come: [] },
    });
  });
  it('says in words what the plan has otherwise, and shows the lines', () => {
    const { plan, files } = releaseDifference(
      older,
      releaseOf(
        made((p) => {
          p.setups[0]!.clearance = 40;
          p.sizes[KEY] = { overrides: { drill: { speed: 1234 } } };
        }),
      ),
    );
    expect(plan).toContain('top up, clearance: 25 mm → 40 mm');
    expect(plan.some((l) => /^A drill, speed: \d+ → 1234$/.test(l))).toBe(true);
    const hunk = files[0]!.hunks.find((h) => h.after.includes('S1234 M3'))!;
    expect(hunk.before).toHaveLength(1);
    const text = releaseOf(made((p) => void (p.setups[0]!.clearance = 40))).files[0]!.text;
    expect(text.split('\n').length).toBeGreaterThan(hunk.line);
  });
  it('names rows that came and went, and findings', () => {
    const { plan, findings } = releaseDifference(older, {
      ...releaseOf(made(undefined, [FEATURES[0]!])),
      findings: [{ severity: 'note', message: 'seen', accepted: 'fine so' }],
    });
    expect(plan.some((l) => /^B .* is gone$/.test(l))).toBe(true);
    expect(findings.come).toEqual(['seen Accepted: fine so']);
  });
});
