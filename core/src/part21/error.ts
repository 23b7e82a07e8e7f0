/** A text that is no exchange file of ISO 10303-21, or breaks off; says where. */
export class Part21Error extends Error {
  /**
   * @param line counted from 1; 0 where there is none
   * @param entity its number in the file (`#12`), where one is known
   */
  constructor(
    readonly what: string,
    readonly line: number,
    readonly entity: number | null = null,
  ) {
    super(
      [line > 0 ? `line ${line}` : '', entity === null ? '' : `#${entity}`].filter(Boolean).join(', ') +
        `: ${what}`,
    );
    this.name = 'Part21Error';
  }
}
