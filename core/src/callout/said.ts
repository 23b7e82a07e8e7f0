import { LengthError, type LengthUnit } from '../units/length.ts';
import { formatCallout } from './format.ts';
import { parseCallout } from './parse.ts';
import { CalloutError, type Callout } from './schema.ts';

/** What a part's file says of a feature, its lengths in `unit`. */
export interface SaidText {
  text: string;
  unit: LengthUnit;
}

/** Texts stand at many features, and are asked about with every change of a plan: each is read once. */
const READ = new Map<string, Callout | null>();
const MOST_READ = 2000;

/** It as the callout of a hole or a thread; null where it is something else. */
export function calloutSaid(said: SaidText): Callout | null {
  const key = `${said.unit}|${said.text}`;
  const known = READ.get(key);
  if (known !== undefined) return known;
  if (READ.size >= MOST_READ) READ.clear();
  const read = readSaid(said);
  READ.set(key, read);
  return read;
}

function readSaid({ text, unit }: SaidText): Callout | null {
  try {
    const callout = parseCallout(text, unit);
    return callout.thread || callout.diameter !== undefined ? callout : null;
  } catch (error) {
    if (error instanceof CalloutError || error instanceof LengthError) return null;
    throw error;
  }
}

/** The callouts among what is said, for features that are said to be alike: in millimetres, in an order of their own. */
export const calloutsSaid = (said: readonly SaidText[]): string[] =>
  said
    .flatMap((s) => {
      const callout = calloutSaid(s);
      return callout ? [formatCallout(callout, 'mm')] : [];
    })
    .sort();
