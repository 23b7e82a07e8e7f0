/** A plain file name from a job's: letters, digits and dashes; `other` where nothing is left. */
export const plainName = (name: string, other: string): string =>
  name
    .normalize('NFKD')
    .replace(/[^A-Za-z0-9]+/g, '-')
    .replace(/^-+|-+$/g, '')
    .toLowerCase()
    .slice(0, 60) || other;
