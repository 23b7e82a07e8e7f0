import type { Feature } from '../features/family.ts';
import { applyCorrections } from '../corrections/apply.ts';
import { proveMetal, type MetalProgress, type MetalProof } from '../metal/prove-metal.ts';
import type { Face } from '../model/solid-model.ts';
import type { Check } from '../proof/checks/check.ts';
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
  programs: readonly (Pick<ProvenProgram, 'read' | 'holes'> & { setup: DerivedSetup })[];
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
  const features: Feature[] = applyCorrections(asked.features, plan.corrections, plan.units).features;
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

/** Rules that say of a line that a tool met metal it was not to meet. */
const MET = new Set([
  'rapid-into-metal',
  'rapid-into-part',
  'into-part',
  'low-rapid',
  'holder-into-metal',
  'holding',
]);

/** The findings of the text, and those of the metal that say of no line what is said of it already. */
export function withMetal(checks: readonly Check[], metal: readonly Check[]): Check[] {
  const told = new Set(checks.flatMap((c) => (MET.has(c.rule) ? [`${c.setupId}/${c.line}`] : [])));
  return [...checks, ...metal.filter((c) => !(MET.has(c.rule) && told.has(`${c.setupId}/${c.line}`)))];
}
