import type { Check } from './checks/check.ts';

/** Up to this many findings of one rule about one tag are listed singly. */
const FEW = 3;

/** Many findings of one rule about one tag are one finding with a count and the lines of the others. */
export function foldFloods(checks: readonly Check[]): Check[] {
  const groups = new Map<string, Check[]>();
  for (const c of checks) {
    const key = [c.rule, c.severity, c.tag ?? '', c.setupId ?? ''].join('|');
    const list = groups.get(key);
    if (list) list.push(c);
    else groups.set(key, [c]);
  }
  return [...groups.values()].flatMap((group) => {
    if (group.length <= FEW) return group;
    const [first, ...rest] = group as [Check, ...Check[]];
    const lines = [...new Set(rest.flatMap((c) => (c.line === undefined ? [] : [c.line])))];
    const where =
      lines.length === 0 ? '' : ` (lines ${lines.slice(0, 6).join(', ')}${lines.length > 6 ? ' …' : ''})`;
    return [{ ...first, message: `${first.message} And ${rest.length} more like it${where}.` }];
  });
}
