import { startsOf } from '../../../threads/thread.ts';
import { tapFeed } from '../../../cutting/material.ts';
import { wordsFor } from '../../../code/cycles.ts';
import { toolKind } from '../../../tools/kinds/registry.ts';
import {
  at,
  name,
  toolName,
  type CheckContext,
  type CheckRule,
  type Finding,
  type MadeHole,
} from '../check.ts';

/** A tool that the list does not have, that has no business in its cycle, or that turns the wrong way. */
export const toolAndCycle: CheckRule = {
  rule: 'tool-and-cycle',
  run: ({ made }) => made.flatMap(toolFindings),
};

function toolFindings(m: MadeHole): Finding[] {
  const { call, tool } = m;
  const error = (rule: string, message: string): Finding => ({
    rule,
    severity: 'error',
    message: `${name(m)}: ${message}`,
    ...at(m),
  });
  if (!tool)
    return [
      error(
        'unknown-tool',
        `T${call.tool} is not in the tool list. Give the tool its magazine number, or change the T word.`,
      ),
    ];
  const out: Finding[] = [];
  const { label, cycles } = toolKind(tool.kind);
  const right = wordsFor(cycles, tool.thread?.hand);
  const isTapping = call.how === 'tap';
  // Out of step with its pitch, a tap breaks; what feeds out where it might go at rapid only takes longer.
  if (!cycles.includes(call.how) && (isTapping || cycles.includes('tap')))
    out.push(
      error(
        'tool-and-cycle',
        call.lines && !isTapping
          ? `T${call.tool} is a ${label}, and comes out without the spindle turned back. Write M5 and ${tool.thread?.hand === 'left' ? 'M3' : 'M4'} at the bottom and feed it out.`
          : `T${call.tool} is a ${label}, and ${call.cycle} is ${isTapping ? 'a tapping' : 'not a tapping'} cycle. Write ${right}, or change the tool.`,
      ),
    );
  if (tool.thread && isTapping && call.lines)
    out.push({
      rule: 'tap-holder',
      severity: 'note',
      message: `${name(m)}: ${toolName(tool)} is fed without a cycle, not in step with the spindle. Put it in a holder that gives way along its axis.`,
      ...at(m),
    });
  if (tool.thread && isTapping && call.hand !== tool.thread.hand)
    out.push(error('tap-hand', `a ${tool.thread.hand}-hand tap on ${call.cycle}. Write ${right}.`));
  const isLeft = tool.thread?.hand === 'left';
  if (call.spindle !== 'off' && (call.spindle === 'counter-clockwise') !== isLeft)
    out.push(
      error(
        'spindle-direction',
        `${toolName(tool)} is ${isLeft ? 'left' : 'right'} hand and the spindle turns the other way. Write ${isLeft ? 'M4' : 'M3'}.`,
      ),
    );
  return out;
}

/** A tap's feed is pitch × speed, whatever was changed. */
export const tapFeedRule: CheckRule = {
  rule: 'tap-feed',
  run: (c) =>
    c.made.flatMap((m): Finding[] => {
      const pitch = m.tool?.thread?.pitch;
      if (m.call.how !== 'tap' || pitch === undefined) return [];
      const wanted = tapFeed(m.call.speed, pitch);
      // A thousandth covers the rounding of F; anything more stretches the thread.
      if (Math.abs(m.call.feed - wanted) <= 0.001 * wanted) return [];
      return [
        {
          rule: 'tap-feed',
          severity: 'error',
          message: `${name(m)}: a tap's feed is pitch × speed: ${c.say(pitch)} × ${m.call.speed} rpm = ${c.say(wanted)}/min, not ${c.say(m.call.feed)}/min. Write ${c.word('F', wanted)}.`,
          ...at(m),
        },
      ];
    }),
};

/** A tool of another size or thread than the hole's. */
export const size: CheckRule = {
  rule: 'wrong-size',
  run: (c) => c.made.flatMap((m) => sizeFindings(m, c)),
};

function sizeFindings(m: MadeHole, { say }: CheckContext): Finding[] {
  const { tool, view, row, planned } = m;
  if (!tool || !view || !row || planned?.operation.tool.id === tool.id) return [];
  const fail = (what: string): Finding[] => [
    { rule: 'wrong-size', severity: 'error', message: `${name(m)}: ${toolName(tool)} ${what}`, ...at(m) },
  ];
  if (tool.thread) {
    if (!row.thread)
      return fail(
        'cuts a thread, and none is confirmed for this hole. Confirm it from the print, or take the tap out.',
      );
    const { designation, hand } = row.thread;
    const isSame =
      tool.thread.designation === designation && tool.thread.hand === hand && startsOf(row.thread) === 1;
    return isSame
      ? []
      : fail(
          `does not cut the print's ${designation}${startsOf(row.thread) > 1 ? ` of ${startsOf(row.thread)} starts. Mill it.` : '. Take its tap.'}`,
        );
  }
  if (toolKind(tool.kind).isCone) return [];
  const sizes = [
    ...view.steps.flatMap((s) => (s.shape === 'cylinder' ? [s.diameter] : [])),
    ...(row.thread ? [row.thread.tapDrill] : []),
    ...row.operations.flatMap((o) => (o.tool.kind === tool.kind ? [o.tool.diameter] : [])),
  ];
  if (sizes.some((d) => Math.abs(d - tool.diameter) <= 0.02)) return [];
  const nearest = sizes.reduce(
    (a, b) => (Math.abs(b - tool.diameter) < Math.abs(a - tool.diameter) ? b : a),
    Infinity,
  );
  const wanted = row.operations.find((o) => o.tool.kind === tool.kind)?.tool;
  return fail(
    `is ⌀${say(tool.diameter)}, and the hole has no such size. ${wanted ? `T${wanted.number} (⌀${say(wanted.diameter)})` : `⌀${say(nearest)}`} belongs here.`,
  );
}
