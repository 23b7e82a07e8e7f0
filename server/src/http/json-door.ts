import express, { type RequestHandler } from 'express';
import { HttpError } from '../errors.ts';

/** Deeper than this no document of ours goes. */
const DEEPEST = 64;

/** A JSON body, of JSON's own type and at most `limit` bytes, whose text can be stored. */
export const jsonBody = (limit: number): RequestHandler[] => [
  (request, _, next) => {
    if (!request.is('application/json'))
      throw new HttpError(
        415,
        'json-wanted',
        'This address takes JSON: send it with Content-Type: application/json.',
      );
    next();
  },
  express.json({ limit, type: 'application/json' }),
  (request, _, next) => {
    checkDocument(request.body);
    next();
  },
];

/** Refuses what JSON can say and a database cannot hold: NUL, halves of surrogate pairs; and endless nesting. */
export function checkDocument(document: unknown): void {
  let level: unknown[] = [document];
  for (let depth = 0; level.length > 0; depth++) {
    if (depth > DEEPEST)
      throw new HttpError(400, 'too-deep', `The document is nested more than ${DEEPEST} levels deep.`);
    const next: unknown[] = [];
    for (const value of level) {
      if (typeof value === 'string') checkText(value);
      else if (Array.isArray(value)) for (const v of value) next.push(v);
      else if (typeof value === 'object' && value !== null)
        for (const [key, v] of Object.entries(value)) {
          if (key === '__proto__') throw new HttpError(400, 'bad-key', 'No field may be called __proto__.');
          checkText(key);
          next.push(v);
        }
    }
    level = next;
  }
}

function checkText(text: string): void {
  if (text.includes('\0') || /\p{Cs}/u.test(text))
    throw new HttpError(
      400,
      'bad-text',
      `A text holds a character that cannot be stored (NUL, or half of a pair): "${printable(text).slice(0, 60)}".`,
    );
}

/** Text with what cannot be stored or shown replaced by blanks. */
export const printable = (text: string): string => text.replace(/\p{Cs}|\p{Cc}/gu, ' ').trim();
