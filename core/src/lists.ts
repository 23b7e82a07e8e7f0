/** The entry at a place of a list; throws a RangeError where there is none, so that nothing goes on with what is not there. */
export function at<T>(list: ArrayLike<T>, index: number): T {
  if (index < 0 || index >= list.length)
    throw new RangeError(`no entry ${index} in a list of ${list.length}`);
  return list[index] as T;
}

/** The first entry of a list that has one; throws a RangeError for an empty list. */
export const first = <T>(list: ArrayLike<T>): T => at(list, 0);

/** The last entry of a list that has one; throws a RangeError for an empty list. */
export const last = <T>(list: ArrayLike<T>): T => at(list, list.length - 1);

/** What a map holds under a key; throws a RangeError where it holds nothing. */
export function got<K, V>(map: ReadonlyMap<K, V>, key: K): V {
  const value = map.get(key);
  if (value === undefined) throw new RangeError(`nothing is known of ${String(key)}`);
  return value;
}

/** A value that must be known here; throws a RangeError that names it where it is not. */
export function known<T>(value: T | null | undefined, what: string): T {
  if (value === null || value === undefined) throw new RangeError(`${what} is not known`);
  return value;
}
