import { describe, expect, it } from 'vitest';
import { BOUNDS, hole, LIBRARY, plan, TOOLS } from '../testing/fixtures.ts';
import { planSchema } from '../plan/plan.ts';
import { withJobTools, type Library } from '../plan/library.ts';
import { deriveJob } from './derive.ts';
import { dropTools, fromDrawer, idleTools, loadTools } from './magazine.ts';
import { produceJob } from './produce.ts';

const drawered = (id: string): Library => ({
  ...LIBRARY,
  tools: TOOLS.map((t) => (t.id === id ? { ...t, number: null } : t)),
});
const through = hole({
  kind: 'through',
  bottom: { shape: 'open' },
  depth: 20,
  stack: [{ shape: 'cylinder', diameter: 6.8, length: 20 }],
});
const input = (library: Library, part: object = {}) => ({
  features: [through],
  bounds: BOUNDS,
  plan: { ...plan(), ...part },
  library,
  name: 'plate',
});

describe('tools from the drawer', () => {
  const library = drawered('drill-6.8');

  it('are planned, and not posted before they have a number', () => {
    const produced = produceJob(input(library));
    expect(fromDrawer(produced.job).map((t) => t.id)).toEqual(['drill-6.8']);
    expect(produced.checks.find((c) => c.rule === 'no-number')).toMatchObject({ severity: 'error' });
    expect(produced.programs).toEqual([]);
  });

  it('get the lowest free number of the magazine for this job, and its program calls it', () => {
    const { change, left } = loadTools(plan(), library, fromDrawer(deriveJob(input(library))), 60);
    expect(left).toEqual([]);
    const number = change.loaded['drill-6.8']!;
    expect(TOOLS.filter((t) => t.id !== 'drill-6.8').map((t) => t.number)).not.toContain(number);
    const produced = produceJob(input(library, change));
    expect(produced.checks.filter((c) => c.severity === 'error')).toEqual([]);
    expect(produced.programs[0]!.text).toContain(`T${number}`);
    expect(planSchema.parse({ ...plan(), ...change }).loaded).toEqual(change.loaded);
  });

  it('stay in the drawer where the magazine is full, and are named', () => {
    const { change, left } = loadTools(plan(), library, fromDrawer(deriveJob(input(library))), 1);
    expect(left.map((t) => t.id)).toEqual(['drill-6.8']);
    expect(change.loaded).toEqual({});
  });

  it('never land on a number that another tool has by now', () => {
    const taken = TOOLS.find((t) => t.id !== 'drill-6.8' && t.number !== null)!.number!;
    const { tools } = withJobTools(library, { tools: [], loaded: { 'drill-6.8': taken } });
    expect(tools.find((t) => t.id === 'drill-6.8')!.number).toBeNull();
  });

  it('are shown and put back where nothing uses them', () => {
    const idle = { ...TOOLS[0]!, id: 'mine', number: 77 };
    const asked = { tools: [idle], loaded: { 'drill-6.8': 78 } };
    const job = deriveJob(input(library, asked));
    expect(idleTools(asked, library, job).map((t) => t.id)).toEqual(['mine']);
    expect(dropTools(asked, [idle])).toEqual({ tools: [], loaded: { 'drill-6.8': 78 } });
    expect(
      dropTools(
        asked,
        job.setups[0]!.operations.map((o) => o.tool),
      ).loaded,
    ).toEqual({});
  });

  it('of the job’s own get their number in their own entry', () => {
    const own = { ...TOOLS.find((t) => t.id === 'drill-6.8')!, id: 'own', number: null };
    const { change } = loadTools({ tools: [own], loaded: {} }, LIBRARY, [own], 90);
    expect(change.loaded).toEqual({});
    expect(change.tools[0]!.number).toEqual(expect.any(Number));
  });
});
