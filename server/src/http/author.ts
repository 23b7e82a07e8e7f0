import type { Request } from 'express';
import { askerOf } from '../people/sign-in.ts';
import { printable } from './json-door.ts';

/** Longest name of a person that is kept, letters. */
const MOST_AUTHOR = 60;

/** Who changes something: who signed in, else who their browser says they are; there nobody is asked to prove it. */
export function authorOf(request: Request): string | null {
  const signed = askerOf(request);
  if (signed) return signed.name;
  const said = request.get('x-yellow-pin-author');
  if (!said) return null;
  try {
    return printable(decodeURIComponent(said)).trim().slice(0, MOST_AUTHOR) || null;
  } catch {
    return null;
  }
}
