import type { Tool } from '../tools/schema.ts';
import type { KindContext, Remark } from './kind.ts';

/** How much longer than the cutter's radius the straight way is on which the control takes it up, mm. */
export const TAKEN_UP = 1;

/** What is made with its walls on the outside, or on the inside: what a smaller radius does to it. */
type Made = 'groove' | 'pocket' | 'step' | 'outline';
const SMALLER: Record<Made, { grows: string; wrong: string }> = {
  groove: { grows: 'the groove wider, by twice as much', wrong: 'groove too narrow' },
  pocket: { grows: 'the pocket wider, by twice as much', wrong: 'pocket too narrow' },
  step: { grows: 'the step wider, by as much', wrong: 'step too narrow' },
  outline: { grows: 'the outline smaller, by twice as much', wrong: 'outline too large' },
};

/** Where the control compensates, the operator must know which number to change, and which way (handbook, N74). */
export function radiusInControl(c: Pick<KindContext, 'say'>, tool: Tool, made: Made): Remark {
  const d = tool.number === null ? 'its D' : `D${tool.number}`;
  const radius = c.say(tool.diameter / 2);
  const { grows, wrong } = SMALLER[made];
  return {
    rule: 'radius-in-control',
    severity: 'note',
    message: `${d} holds the radius of ${tool.description}, ${radius}. A smaller one makes ${grows}.`,
    onSheet: `${d} = ${radius}, radius. ${wrong}: make ${d} smaller`,
  };
}
