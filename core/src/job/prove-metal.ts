import type { Feature } from '../features/family.ts';
import { isInPreparedStock } from '../features/registry.ts';
import { applyCorrections } from '../corrections/apply.ts';
import { proveMetal, type MetalProgress, type MetalProof } from '../metal/prove-metal.ts';
import type { Face } from '../model/solid-model.ts';
import type { Check } from '../proof/checks/check.ts';
import { isCollision } from '../proof/summary.ts';
import type { ProvenProgram } from '../proof/prove.ts';
import { withJobTools } from '../plan/library.ts';
import { formatLength } from '../units/length.ts';
import type { DerivedJob, DerivedSetup } from './derive.ts';
import type { ProduceInput } from './produce.ts';

/** Differences no deeper than this are none, unless somebody says otherwise, mm. */
export const USUAL_TOLERANCE = 0.02;

/** What metal is proved from beyond what a job is produced from. */
export interface MetalAsk {
  job: DerivedJob;
  programs: readonly (Pick<ProvenProgram, 'read' | 'holes' | 'bosses'> & { setup: DerivedSetup })[];
  /** The part's exact surfaces by face number; null where only its mesh is known. */
  faces: readonly Face[] | null;
  tolerance?: number;
}

/** Takes the metal off by what was read from a job's programs, and compares what is left with the part. */
export function proveJobMetal(
  asked: ProduceInput,
  { job, programs, faces, tolerance = USUAL_TOLERANCE }: MetalAsk,
): Generator<MetalProgress, MetalProof> {
  const { tools, holders } = withJobTools(asked.library, asked.plan);
  const { plan } = asked;
  const all: Feature[] = applyCorrections(asked.features, plan.corrections, plan.units).features;
  // What prepared stock has already is no cavity that metal stands in.
  const there = new Set(
    job.rows.filter((r) => r.state === 'optional').flatMap((r) => r.size.features.map((f) => f.id)),
  );
  const features = all.filter((f) => !isInPreparedStock(f) || !there.has(f.id));
  const say = (mm: number): string => `${formatLength(mm, plan.units)} ${plan.units === 'mm' ? 'mm' : 'in'}`;
  return proveMetal({
    job,
    programs,
    mesh: asked.mesh ?? null,
    faces,
    features,
    tools,
    holders,
    tolerance,
    say,
  });
}

/** The same without a word on how far it is. */
export function metalOf(asked: ProduceInput, ask: MetalAsk): MetalProof {
  const steps = proveJobMetal(asked, ask);
  for (;;) {
    const next = steps.next();
    if (next.done) return next.value;
  }
}

/** A tool at rapid in what it is not to cut: that says all of it. */
const isCrash = (c: Check): boolean => /^rapid-into-/.test(c.rule);

/**
 * The findings of the text, and those of the metal that say more: what a line does is said once, by whoever knows the mend best. How far a
 * tool is fed into the part the metal knows exactly; that it got there at rapid says more than what it cut on its way.
 */
export function withMetal(checks: readonly Check[], metal: readonly Check[]): Check[] {
  const lineOf = (c: Check): string => `${c.setupId}/${c.line}`;
  const crashed = new Set([...checks, ...metal].filter(isCrash).map(lineOf));
  const cut = new Set(metal.filter((c) => c.rule === 'over-cut').map(lineOf));
  const said = checks.filter((c) => !(c.rule === 'into-part' && cut.has(lineOf(c))));
  const met = new Set(said.filter((c) => isCollision(c.rule)).map(lineOf));
  const wrong = new Set(said.filter((c) => c.severity === 'error').map((c) => `${lineOf(c)}/${c.tag}`));
  const same = new Set(said.map((c) => `${lineOf(c)}/${c.rule}`));
  const isNew = (c: Check): boolean => {
    if (c.line !== undefined && same.has(`${lineOf(c)}/${c.rule}`)) return false;
    if (isCollision(c.rule)) return !met.has(lineOf(c));
    if (c.rule === 'over-cut' && crashed.has(lineOf(c))) return false;
    return c.severity !== 'error' || !wrong.has(`${lineOf(c)}/${c.tag}`);
  };
  return [...said, ...metal.filter(isNew)];
}
