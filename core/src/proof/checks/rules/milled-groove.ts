import type { KnownMotion } from '../../chords.ts';
import type { MilledGroove } from '../../grooves/finder.ts';
import type { CheckContext, CheckRule } from '../check.ts';
import { milledFindings } from './milled-floor.ts';

/** What was milled in slots, grooves and channels, as read from the text, against what is planned: depth, speed and feed. */
export const milledGroove: CheckRule = {
  rule: 'milled-groove',
  run: (c) =>
    c.milledGrooves
      .filter((g) => isPlanned(g, c) || !isAtArea(g, c))
      .flatMap((g) => milledFindings({ ...g, ...g.groove }, c)),
};

const isPlanned = ({ groove, tool }: MilledGroove, { setup }: CheckContext): boolean =>
  setup.operations.some((o) => o.tool.id === tool.id && o.work.some((w) => w.label === groove.view.label));

/** A groove that opens into a step is passed by what mills the step. */
const isAtArea = ({ tool, line }: MilledGroove, { setup, read, areas }: CheckContext): boolean =>
  read.motions
    .filter((m): m is KnownMotion => m.line === line && [...m.from, ...m.to].every((v) => v !== null))
    .some((m) =>
      areas
        .at(m, tool)
        .some(({ area: { view } }) =>
          setup.operations.some((o) => o.tool.id === tool.id && o.work.some((w) => w.label === view.label)),
        ),
    );
