export { asTyped, formatCallout } from './format.ts';
export { parseCallout } from './parse.ts';
export {
  CalloutError,
  calloutSchema,
  MOST_LETTERS,
  type Callout,
  type Tolerance,
  type Wish,
} from './schema.ts';
