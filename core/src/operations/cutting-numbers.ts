import { speedAndFeed, tapFeed } from '../cutting/material.ts';
import type { Tool } from '../tools/schema.ts';
import type { KindContext, Parameters, Remark } from './kind.ts';

/** A typed speed or feed is looked at beyond this many times what the table says. */
const FAR_OFF = 2;

/**
 * Speed (rpm) and feed (mm/min) of an operation: the material's table for the tool and that depth, held to the machine's limits, or what is
 * typed over it. A feed that is not typed follows the speed; a tap's is pitch × speed, always. Last comes
 * the pace of the whole program. Throws MissingCuttingData.
 */
export function cuttingNumbers(
  c: KindContext,
  parameters: Parameters,
  tool: Tool,
  depth: number,
  /** Of the table's feed: a mill that goes straight down is fed slower than sideways. */
  share = 1,
): { speed: number; feed: number; remarks: Remark[] } {
  const table = speedAndFeed(tool, c.material, c.machine, depth);
  const remarks: Remark[] = [];
  if (table.clamped)
    remarks.push({
      rule: 'machine-limit',
      severity: 'note',
      message: `The machine's ${table.clamped} limit holds ${tool.description} back${tool.thread ? `: ${table.speed} rpm; the feed follows` : ''}.`,
    });
  const held = (what: string, wanted: number, most: number): number => {
    if (wanted <= most) return wanted;
    remarks.push({
      rule: 'machine-limit',
      severity: 'warning',
      message: `The typed ${what} of ${Math.round(wanted)} is more than the machine has: ${most} is taken.`,
    });
    return most;
  };
  const source = table.clamped ? 'machine' : 'table';
  const speed = Math.max(
    1,
    held('speed', parameters.rate('speed', 'speed', table.speed, source), c.machine.maxSpeed),
  );
  const percent = `at ${Math.round(100 * c.pace)} %`;
  if (tool.thread) {
    // Slower turning is all that slows a tap: its feed is tied to it.
    const paced = Math.max(1, Math.round(speed * c.pace));
    if (c.pace !== 1) parameters.shown('paced', percent, `${paced} rpm`);
    return { speed: paced, feed: tapFeed(paced, tool.thread.pitch), remarks };
  }
  const following = Math.min(c.machine.maxFeed, (share * table.feed * speed) / table.speed);
  const feed = Math.max(
    1,
    held('feed', parameters.rate('feed', 'feed', following, source), c.machine.maxFeed),
  );
  for (const [what, is, usual] of [
    ['speed', speed, table.speed],
    ['feed a turn', feed / speed, (share * table.feed) / table.speed],
  ] as const)
    if (is > FAR_OFF * usual)
      remarks.push({
        rule: 'far-off-table',
        severity: 'warning',
        message: `The typed ${what} is ${(is / usual).toFixed(1)} times what the table has for ${tool.description} in ${c.material.name}.`,
      });
  const paced = Math.max(1, feed * c.pace);
  if (c.pace !== 1) parameters.derived('paced', `feed ${percent}`, paced, 'for the whole program', 'typed');
  return { speed, feed: paced, remarks };
}
