import { at } from '../../lists.ts';
import type { Motion } from './motion.ts';
import type { Problems } from './problems.ts';

/**
 * Where the control compensates, it must see the next move in the plane to know where the present one ends: too many blocks between them that
 * stand still there, and it cuts the contour.
 */
export class LookAhead {
  private still = 0;
  private seen = 0;

  constructor(
    /** Blocks that it looks at. */
    private readonly blocks: number,
    private readonly problems: Problems,
  ) {}

  /** After each block: whether it moved in the plane, while compensation was in force. */
  block(line: number, motions: readonly Motion[], isOn: boolean): void {
    let moved = false;
    // Nearly every line of a program ends here without compensation: nothing is looked at then.
    if (isOn) for (let i = this.seen; i < motions.length && !moved; i++) moved = isAlong(at(motions, i));
    this.seen = motions.length;
    if (!isOn) this.still = 0;
    else if (!moved) this.still++;
    else {
      if (this.still >= this.blocks)
        this.problems.add(
          line,
          'error',
          'look-ahead',
          `${this.still} blocks before this one stand still in the plane while G41 or G42 is in force, and the control looks at ${this.blocks}: it would cut the contour. Take them out, or switch compensation off for them.`,
        );
      this.still = 0;
    }
  }
}

const isAlong = (m: Motion): boolean => m.kind === 'arc' || m.from[0] !== m.to[0] || m.from[1] !== m.to[1];
