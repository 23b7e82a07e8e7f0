import { v4 } from 'uuid';

/** A name of its own for what is made here; works on plain HTTP too, where browsers keep their own back. */
export const newId = (letters = 12): string => v4().slice(0, letters);
