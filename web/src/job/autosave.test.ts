import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { newPlan, type Plan } from '@yellow-pin/core/plan/plan';
import { Autosave, readDraft, type DraftStore, type Failure, type SaveState } from './autosave.ts';

class Refusal extends Error {
  constructor(readonly failure: Failure) {
    super(failure);
  }
}

const first = newPlan('mm', 'm', 'x');
const planWith = (name: string): Plan => ({ ...first, setups: [{ ...first.setups[0]!, name }] });
const nameOf = (p: Plan): string => p.setups[0]!.name;

function setup() {
  const map = new Map<string, string>();
  const drafts: DraftStore = {
    getItem: (k) => map.get(k) ?? null,
    setItem: (k, v) => void map.set(k, v),
    removeItem: (k) => void map.delete(k),
  };
  const states: SaveState['state'][] = [];
  const saved: string[] = [];
  const server = { revision: 1, failing: null as Failure | null, delay: 0 };
  const autosave = new Autosave({
    id: 'j',
    revision: 1,
    plan: first,
    save: async (_, revision, plan) => {
      await new Promise((r) => setTimeout(r, server.delay));
      if (server.failing) throw new Refusal(server.failing);
      expect(revision).toBe(server.revision);
      saved.push(nameOf(plan));
      return ++server.revision;
    },
    failureOf: (e) => (e as Refusal).failure,
    drafts,
    onState: (s) => states.push(s.state),
  });
  return { autosave, saved, server, states, drafts };
}

beforeEach(() => vi.useFakeTimers());
afterEach(() => vi.useRealTimers());

describe('autosave', () => {
  it('stores the last of many changes once, a moment later', async () => {
    const { autosave, saved, states } = setup();
    for (const n of ['a', 'b', 'c']) autosave.change(planWith(n));
    await vi.advanceTimersByTimeAsync(600);
    expect(saved).toEqual(['c']);
    expect(states.at(-1)).toBe('saved');
  });

  it('what is changed while a save is under way follows it, also when one leaves the page', async () => {
    const { autosave, saved, server } = setup();
    server.delay = 1000;
    autosave.change(planWith('a'));
    await vi.advanceTimersByTimeAsync(700);
    autosave.change(planWith('b'));
    const left = autosave.flush();
    await vi.advanceTimersByTimeAsync(3000);
    await left;
    expect(saved).toEqual(['a', 'b']);
  });

  it('a server that is away is tried again, and the draft is there meanwhile', async () => {
    const { autosave, saved, server, states, drafts } = setup();
    server.failing = 'away';
    autosave.change(planWith('a'));
    await vi.advanceTimersByTimeAsync(5000);
    expect(states.at(-1)).toBe('away');
    expect(nameOf(readDraft(drafts, 'j', 1)!.plan)).toBe('a');
    expect(readDraft(drafts, 'j', 1)!.fits).toBe(true);
    expect(readDraft(drafts, 'j', 2)!.fits).toBe(false);
    server.failing = null;
    await vi.advanceTimersByTimeAsync(60_000);
    expect(saved).toEqual(['a']);
    expect(readDraft(drafts, 'j', 2)).toBeNull();
  });

  it('tries less and less often', async () => {
    const { autosave, server } = setup();
    server.failing = 'away';
    const tries = vi.spyOn(autosave as unknown as { saveOnce(): Promise<void> }, 'saveOnce');
    autosave.change(planWith('a'));
    await vi.advanceTimersByTimeAsync(120_000);
    expect(tries.mock.calls.length).toBeLessThan(12);
  });

  it('a refused plan is sent once, and a later change is stored', async () => {
    const { autosave, saved, server, states } = setup();
    server.failing = 'refused';
    autosave.change(planWith('a'));
    await vi.advanceTimersByTimeAsync(30_000);
    expect(states.filter((s) => s === 'refused')).toHaveLength(1);
    server.failing = null;
    autosave.change(planWith('b'));
    await vi.advanceTimersByTimeAsync(1000);
    expect(saved).toEqual(['b']);
  });

  it('what the schema does not take is never sent, and says where', async () => {
    const { autosave, saved, states } = setup();
    autosave.change({ ...first, setups: [{ ...first.setups[0]!, clearance: -1 }] });
    await vi.advanceTimersByTimeAsync(5000);
    expect(saved).toEqual([]);
    expect(states.at(-1)).toBe('refused');
  });

  it('never overwrites what was saved elsewhere, and keeps its own as a draft', async () => {
    const { autosave, saved, server, states, drafts } = setup();
    server.failing = 'stale';
    autosave.change(planWith('a'));
    await vi.advanceTimersByTimeAsync(1000);
    server.failing = null;
    autosave.change(planWith('b'));
    await autosave.flush();
    await vi.advanceTimersByTimeAsync(5000);
    expect(saved).toEqual([]);
    expect(states.at(-1)).toBe('stale');
    expect(readDraft(drafts, 'j', 2)).toMatchObject({ fits: false });
  });
});
