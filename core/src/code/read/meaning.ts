import { CYCLE_NUMBERS } from '../cycles.ts';
import type { MachineProfile } from '../profiles/schema.ts';
import type { Block } from './blocks.ts';
import type { Problems } from './problems.ts';
import { M_WORDS, MOVING, SETTINGS } from './words.ts';

/** Says what of a block has no meaning to a profile, and what in it is doubtful. */
export class Meaning {
  private readonly cycles: ReadonlySet<number>;

  constructor(
    private readonly profile: MachineProfile,
    private readonly problems: Problems,
  ) {
    this.cycles = new Set(profile.cycles.map((w) => Number(w.slice(1))));
  }

  sayOddities(line: number, block: Block): void {
    if (block.skippable)
      this.problems.add(line, 'warning', 'block-skip', 'a line that a switch may leave out is read as run.');
    if (block.withoutPoint && !this.profile.wholeUnitsWithoutPoint && !block.g.includes(4))
      this.problems.add(
        line,
        'error',
        'no-decimal-point',
        `${block.withoutPoint} has no decimal point: some controls read it in thousandths. Write ${block.withoutPoint}. with a point.`,
      );
  }

  /** Whether every word has a meaning; what has none is said, with what of the line is taken all the same. */
  isKnown(line: number, block: Block): boolean {
    if (this.hasMeaning(block)) return true;
    const { g, m } = block;
    const strange = [
      ...block.unknown,
      ...g.filter((v) => !this.isG(v)).map((v) => `G${v}`),
      ...m.filter((v) => !this.isM(v)).map((v) => `M${v}`),
    ];
    for (const word of strange) {
      const rest = block
        .taken()
        .split(' ')
        .filter((w) => !strange.includes(w) && !MOVING.has(Number(w.slice(1))) && w !== '');
      this.problems.add(
        line,
        'error',
        'unknown-word',
        `${word} is not known to the profile "${this.profile.name}". ${rest.length > 0 ? `Of the line ${rest.join(' ')} was taken` : 'Nothing else of the line was taken'}; it moves nothing.`,
        word,
      );
    }
    return false;
  }

  /** Without a list of what has none: nearly every line of a long program ends here. */
  private hasMeaning({ g, m, unknown }: Block): boolean {
    if (unknown.length > 0) return false;
    for (const v of g) if (!this.isG(v)) return false;
    for (const v of m) if (!this.isM(v)) return false;
    return true;
  }

  private isG(v: number): boolean {
    if (CYCLE_NUMBERS.has(v)) return this.cycles.has(v);
    return MOVING.has(v) || SETTINGS.has(v) || this.profile.harmless.includes(v);
  }

  private isM(v: number): boolean {
    const { coolantOn, coolantOff, tapping, tapWord } = this.profile;
    return (
      M_WORDS.has(v) || v === coolantOn || v === coolantOff || (tapping === 'announced' && v === tapWord)
    );
  }
}
