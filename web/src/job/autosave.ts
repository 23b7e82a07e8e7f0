import { planSchema, type Plan } from '@yellow-pin/core/plan/plan';

/** `refused`: the server will not have this plan; it is not sent again until it changes. `away`: the server does not answer; it is tried again. */
export type SaveState =
  { state: 'saved' | 'saving' | 'unsaved' } | { state: 'stale' | 'refused' | 'away'; message: string };

/** What a save's failure means for what comes next. */
export type Failure = 'stale' | 'refused' | 'away';

/** Where drafts are kept while the server cannot take them: the browser's own storage, or a map in tests. */
export interface DraftStore {
  getItem(key: string): string | null;
  setItem(key: string, value: string): void;
  removeItem(key: string): void;
}

export interface AutosaveOptions {
  id: string;
  revision: number;
  plan: Plan;
  /** Stores a plan on top of a revision and gives the new one. */
  save(id: string, revision: number, plan: Plan): Promise<number>;
  failureOf(error: unknown): Failure;
  drafts: DraftStore;
  onState(state: SaveState): void;
}

/** After the last change, ms; and how long to wait for a server that does not answer, doubled each time. */
const SAVE_AFTER = 500;
const FIRST_RETRY = 1000;
const LONGEST_RETRY = 30_000;

const draftKey = (id: string): string => `yellow-pin/draft/${id}`;

/**
 * Saves a job's plan as one goes, one save at a time. What is changed while a save is under way follows it; what the server cannot take now
 * is kept as a draft in the browser and tried again; a plan saved elsewhere meanwhile is never overwritten.
 */
export class Autosave {
  private revision: number;
  private stored: Plan;
  private latest: Plan;
  private refused: Plan | null = null;
  private running: Promise<void> | null = null;
  private timer: ReturnType<typeof setTimeout> | null = null;
  private retry = FIRST_RETRY;
  /** Saved elsewhere meanwhile: nothing more is stored from here. */
  isStale = false;

  constructor(private readonly o: AutosaveOptions) {
    this.revision = o.revision;
    this.stored = this.latest = o.plan;
  }

  /** The plan that the server has, and the revision it has it as. */
  get onServer(): { plan: Plan; revision: number } {
    return { plan: this.stored, revision: this.revision };
  }

  get hasUnsaved(): boolean {
    return this.latest !== this.stored;
  }

  /** The plan as it is now; it is stored soon. */
  change(plan: Plan): void {
    if (plan === this.latest) return;
    this.latest = plan;
    if (this.isStale) return;
    this.keepDraft();
    if (!this.hasUnsaved) return this.o.onState({ state: 'saved' });
    if (!this.running) this.o.onState({ state: 'unsaved' });
    this.schedule(SAVE_AFTER);
  }

  /** Stores what is not stored yet, now, and waits for it; also what changed while a save was under way. */
  async flush(): Promise<void> {
    if (this.running) await this.running;
    if (this.hasUnsaved && !this.isStale && this.latest !== this.refused) await this.run();
  }

  /** Tries at once: the server is back, or somebody asks for it. */
  again(): void {
    this.retry = FIRST_RETRY;
    if (this.hasUnsaved) void this.flush();
  }

  private schedule(ms: number): void {
    if (this.timer) clearTimeout(this.timer);
    this.timer = setTimeout(() => void this.flush(), ms);
  }

  private run(): Promise<void> {
    if (this.timer) clearTimeout(this.timer);
    this.timer = null;
    this.running = this.saveOnce().finally(() => {
      this.running = null;
    });
    return this.running;
  }

  private async saveOnce(): Promise<void> {
    const plan = this.latest;
    // What the schema does not take is not sent: the server would only say the same.
    const checked = planSchema.safeParse(plan);
    if (!checked.success) {
      const issue = checked.error.issues[0]!;
      return this.refuse(plan, `${issue.path.join(' ')}: ${issue.message}`);
    }
    this.o.onState({ state: 'saving' });
    try {
      this.revision = await this.o.save(this.o.id, this.revision, plan);
      this.stored = plan;
      this.retry = FIRST_RETRY;
      this.keepDraft();
      if (this.hasUnsaved) this.schedule(0);
      this.o.onState({ state: this.hasUnsaved ? 'unsaved' : 'saved' });
    } catch (error) {
      this.failed(plan, this.o.failureOf(error), (error as Error).message);
    }
  }

  private failed(plan: Plan, failure: Failure, message: string): void {
    if (failure === 'refused') return this.refuse(plan, message);
    if (failure === 'stale') this.isStale = true;
    else {
      this.schedule(this.retry);
      this.retry = Math.min(LONGEST_RETRY, 2 * this.retry);
    }
    this.keepDraft();
    this.o.onState({ state: failure, message });
  }

  private refuse(plan: Plan, message: string): void {
    this.refused = plan;
    this.o.onState({ state: 'refused', message });
    // A change made meanwhile is another plan: it gets its own try.
    if (this.latest !== plan) this.schedule(SAVE_AFTER);
  }

  /** Keeps what is not on the server, so that closing the page loses nothing. */
  private keepDraft(): void {
    const { drafts, id } = this.o;
    try {
      if (this.hasUnsaved)
        drafts.setItem(draftKey(id), JSON.stringify({ revision: this.revision, plan: this.latest }));
      else drafts.removeItem(draftKey(id));
    } catch {
      // The browser's storage is full or shut: saving itself goes on.
    }
  }
}

/** A draft that was kept for a job, and whether it still stands on the revision that the server has. */
export function readDraft(
  drafts: DraftStore,
  id: string,
  revision: number,
): { plan: Plan; fits: boolean } | null {
  const text = drafts.getItem(draftKey(id));
  if (text === null) return null;
  try {
    const draft = JSON.parse(text) as { revision?: unknown; plan?: unknown };
    const plan = planSchema.safeParse(draft.plan);
    return plan.success ? { plan: plan.data, fits: draft.revision === revision } : null;
  } catch {
    return null;
  }
}

export const dropDraft = (drafts: DraftStore, id: string): void => drafts.removeItem(draftKey(id));
