import { fromFrame, toFrame } from '../geometry/frame.ts';
import type { Vec3 } from '../geometry/vec.ts';
import type { DerivedJob, DerivedSetup } from '../job/derive.ts';
import type { Check } from '../proof/checks/check.ts';
import { partName } from '../space/space.ts';
import type { Tool } from '../tools/schema.ts';
import type { ProofPlace, ReadSetup } from './places.ts';
import type { Contact } from './run.ts';
import { REACH } from './setup-metal.ts';

/** What findings are put in words with. */
export interface Telling {
  job: DerivedJob;
  tools: readonly Tool[];
  /** A length with its unit. */
  say(mm: number): string;
}

/** What met metal and was not to: one finding for each part of a tool, at its worst. */
export function contactChecks(
  contacts: readonly Contact[],
  { setup, read }: ReadSetup,
  input: Telling,
): Check[] {
  const worst = new Map<string, { contact: Contact; count: number }>();
  for (const c of contacts) {
    const key = `${read.motions[c.motion]?.tool}/${c.part}/${c.isRapid}`;
    const known = worst.get(key);
    if (!known) worst.set(key, { contact: c, count: 1 });
    else {
      known.count++;
      if (c.depth > known.contact.depth) known.contact = c;
    }
  }
  return [...worst.values()].flatMap(({ contact: c, count }): Check[] => {
    const m = read.motions[c.motion];
    if (!m) return [];
    const tool = input.tools.find((t) => t.number === m.tool);
    const what = `${c.part === 'cutting' ? '' : `the ${partName(c.part)} of `}${nameOf(tool, m.tool)}`;
    const more = count > 1 ? ` and ${count - 1} more` : '';
    return [
      {
        rule: c.isRapid ? 'rapid-into-metal' : 'holder-into-metal',
        severity: 'error',
        message: `line ${m.line}${more}: ${what} ${c.isRapid ? 'goes at rapid' : 'is led'} through ${input.say(c.depth)} of metal at ${where(input, c.at)}. ${c.isRapid ? 'Lift it over, or feed it there.' : 'Take a longer stick-out or a smaller holder, or cut less deep.'}`,
        setupId: setup.setup.id,
        line: m.line,
        at: fromFrame(setup.frame.frame, c.at),
      },
    ];
  });
}

/** One finding for each row and kind, at its worst; what is wanted, and what nobody planned, is none. */
export function placeChecks(places: readonly ProofPlace[], { setup }: ReadSetup, input: Telling): Check[] {
  const planned = new Set(input.job.rows.filter((r) => r.operations.length > 0).map((r) => r.tag));
  const worst = new Map<string, { place: ProofPlace; count: number }>();
  for (const p of places) {
    if (p.kind === 'wanted' || (p.kind === 'left-over' && !planned.has(p.tag ?? ''))) continue;
    const key = `${p.kind}/${p.tag}`;
    const known = worst.get(key);
    if (!known) worst.set(key, { place: p, count: 1 });
    else worst.set(key, { place: p.depth > known.place.depth ? p : known.place, count: known.count + 1 });
  }
  return [...worst.values()].map(({ place: p, count }): Check => {
    const by =
      p.tool === null
        ? ''
        : ` by ${nameOf(
            input.tools.find((t) => t.number === p.tool),
            p.tool,
          )}`;
    const deep = p.depth >= REACH ? `${input.say(REACH)} or more` : input.say(p.depth);
    const more = count > 1 ? `, and in ${count - 1} more` : '';
    const at = `${where(input, p.at, setup)}${more}`;
    return {
      rule: p.kind,
      severity: p.kind === 'over-cut' ? 'error' : 'warning',
      message:
        p.kind === 'over-cut'
          ? `${p.tag ?? 'the part'}: cut ${deep} into what is to stay${by} at ${at}. Correct the depth or the path, or accept it with a reason.`
          : `${p.tag}: ${deep} of metal is left at ${at}. Cut deeper or wider, or accept it with a reason.`,
      tag: p.tag ?? undefined,
      feature: p.feature ?? undefined,
      setupId: p.setupId,
      line: p.line ?? undefined,
      at: p.at,
    };
  });
}

const nameOf = (tool: Tool | undefined, number: number): string =>
  tool ? `T${number} ${tool.description}` : `T${number}`;

/** A place in program coordinates, as it stands in the text. */
function where({ say }: Telling, at: Vec3, setup?: DerivedSetup): string {
  const p = setup ? toFrame(setup.frame.frame, at) : at;
  return `X ${say(p[0])}, Y ${say(p[1])}, Z ${say(p[2])}`;
}
