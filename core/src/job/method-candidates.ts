import { methodsFor, whyNotMade, whyNotMethod, type MethodSubject } from '../methods/match.ts';
import type { Method } from '../methods/schema.ts';
import type { SizeDecision } from '../plan/plan.ts';
import type { Row } from './row.ts';
import type { Made, View } from './step-planner.ts';

/** Methods that may make a row, best first: the one that was chosen, else all that apply. What speaks against the choice is put into the row. */
export function candidatesFor(
  row: Row,
  decision: SizeDecision,
  all: readonly Method[],
  subject: MethodSubject,
): Method[] {
  const apply = methodsFor(all, subject);
  row.methods = apply.map(({ id, name }) => ({ id, name }));
  if (decision.method !== undefined) {
    const chosen = all.find((m) => m.id === decision.method);
    if (chosen)
      return decision.operations
        ? changed(row, chosen, decision.operations, subject)
        : taken(row, chosen, subject);
    row.remarks.push({
      rule: 'method-gone',
      severity: 'warning',
      message: `The method that was chosen (${decision.method}) is not in the list any more: the best that applies is taken.`,
    });
  }
  // A shop's own method that leaves something out never makes half of a feature by itself.
  const whole = apply.filter((m) => !m.onRequest && whyNotMade(m, subject) === null);
  return decision.operations ? changed(row, whole[0], decision.operations, subject) : whole;
}

/** A method with the operations that were changed for this size. */
const changed = (
  row: Row,
  base: Method | undefined,
  operations: Method['operations'],
  subject: MethodSubject,
): Method[] => (base ? taken(row, { ...base, name: `${base.name}, changed here`, operations }, subject) : []);

/** A chosen method that would leave out what is there is refused; one that is meant for others is taken, and it is said. */
function taken(row: Row, method: Method, subject: MethodSubject): Method[] {
  const leaves = whyNotMade(method, subject);
  if (leaves !== null) {
    row.reasons.push(
      `The chosen method "${method.name}" does not fit: ${leaves}. Choose another, or the best.`,
    );
    return [];
  }
  const why = whyNotMethod(method, subject);
  if (why !== null)
    row.remarks.push({
      rule: 'method-unfit',
      severity: 'warning',
      message: `"${method.name}" was chosen, though ${why}.`,
    });
  return [method];
}

/** What the best method came to, and what keeps those before it from the row. */
export interface BestMade<V extends View> {
  method: Method;
  made: Made<V>;
  /** In their order, with the method's name; of what is made none that it is made by. */
  lacks: string[];
}

/**
 * The first method that the shop's tools can do; where none can, one that only something in the way keeps from it, else the first of all says
 * what is missing. Null without candidates.
 */
export function bestMade<V extends View>(
  candidates: readonly Method[],
  plan: (method: Method) => Made<V>,
): BestMade<V> | null {
  let best: Omit<BestMade<V>, 'lacks'> | null = null;
  const lacks: string[] = [];
  for (const method of candidates) {
    const made = plan(method);
    const isDone = made.missing.length === 0 && made.operations.length > 0;
    const [lack] = made.missing;
    if (lack) lacks.push(`"${method.name}": ${lack.missing}`);
    if (isDone || !best || (best.made.missing.length > 0 && made.missing.length === 0))
      best = { made, method };
    if (isDone) break;
  }
  return best && { ...best, lacks };
}

/** What is told of the methods that did not make a row: instead of which, or beside which, one was taken. */
export function sayLacks<V extends View>(row: Row, { method, made, lacks }: BestMade<V>): void {
  const [instead, ...others] = lacks;
  if (instead !== undefined && made.missing.length === 0)
    row.remarks.push({
      rule: 'method-instead',
      severity: 'note',
      message: `"${method.name}" makes it, not ${instead}`,
    });
  if (made.missing.length > 0) row.reasons.push(...others.map((why) => `Nor ${why}`));
}

/** Puts what was planned into a row. `after`: sizes that it waits for in that setup. */
export function takeMade<V extends View>(row: Row, made: Made<V>, after: ReadonlySet<string>): void {
  row.blocked.push(...made.blocked);
  row.reasons.push(...made.missing.map((m) => m.missing));
  row.wants.push(...made.missing.flatMap((m) => m.need ?? []));
  for (const o of made.operations) {
    row.operations.push({ ...o, position: row.operations.length, after: [...after] });
    row.remarks.push(...o.remarks);
  }
  for (const message of made.skipped) row.remarks.push({ rule: 'not-needed', severity: 'note', message });
}
