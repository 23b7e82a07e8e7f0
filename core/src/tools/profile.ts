import { last as lastOf } from '../lists.ts';
import { toolKind } from './kinds/registry.ts';
import type { Holder, Tool } from './schema.ts';

export type ProfilePart = 'cutting' | 'neck' | 'shank' | 'holder';

/** A corner of the outline; `part` is what the stretch that ends here belongs to. mm above the programmed tip. */
export interface ProfilePoint {
  z: number;
  r: number;
  part: ProfilePart;
}

/**
 * The outline of a tool as it stands in the machine: a body of revolution from the tip (z 0) up through flutes and shank to the top of
 * its holder, joined by straight lines. Without a holder it ends at the stick-out.
 */
export function toolProfile(tool: Tool, holder: Holder | null): ProfilePoint[] {
  const out: ProfilePoint[] = [];
  const add = (z: number, r: number, part: ProfilePart): void => {
    const last = out[out.length - 1];
    if (last && last.z === z && last.r === r) return;
    out.push({ z, r, part });
  };
  for (const c of toolKind(tool.kind).end(tool)) add(c.z, c.r, 'cutting');
  const full = lastOf(out);
  // Flutes may run into the holder; then the holder begins where they are cut off.
  const flutes = Math.max(full.z, Math.min(tool.fluteLength, tool.stickOut));
  add(flutes, full.r, 'cutting');
  const neck = tool.neckDiameter !== undefined ? Math.min(tool.neckLength ?? flutes, tool.stickOut) : flutes;
  if (tool.neckDiameter !== undefined && neck > flutes) {
    add(flutes, tool.neckDiameter / 2, 'neck');
    add(neck, tool.neckDiameter / 2, 'neck');
  }
  if (tool.stickOut > neck) {
    add(neck, tool.shankDiameter / 2, 'shank');
    add(tool.stickOut, tool.shankDiameter / 2, 'shank');
  }
  let z = Math.max(neck, tool.stickOut);
  for (const s of holder?.steps ?? []) {
    add(z, s.diameter / 2, 'holder');
    z += s.length;
    add(z, s.diameter / 2, 'holder');
  }
  return out;
}

/** Radius of the cutting part of an outline at a height above the programmed tip, mm; 0 below the tip, the last one above it. */
export function radiusAt(profile: readonly ProfilePoint[], z: number): number {
  let before: ProfilePoint | null = null;
  for (const p of profile) {
    if (p.part !== 'cutting') break;
    if (p.z >= z - 1e-9) {
      if (!before || p.z - before.z < 1e-9) return p.z - z > 1e-9 && !before ? 0 : p.r;
      return before.r + ((z - before.z) / (p.z - before.z)) * (p.r - before.r);
    }
    before = p;
  }
  return before?.r ?? 0;
}

/** The tool is at least `r` wide from `z` up: what it sweeps on its way down is all that lies above. */
export interface Disc {
  r: number;
  z: number;
  part: ProfilePart;
}

/** Height of the steps in which a cone is looked at, and how many there are at most. */
const STEP = 0.25;
const MOST_STEPS = 24;

/** A profile as discs of growing radius, cones in steps that lie inside them: what they meet, the tool meets. */
export function discsOf(profile: readonly ProfilePoint[]): Disc[] {
  const out: Disc[] = [];
  let widest = -1;
  const add = (z: number, r: number, part: ProfilePart): void => {
    if (r <= widest + 1e-9) return;
    widest = r;
    out.push({ z, r, part });
  };
  profile.forEach((p, i) => {
    const before = profile[i - 1];
    if (before && p.z > before.z && p.r > before.r) {
      const steps = Math.min(MOST_STEPS, Math.ceil((p.z - before.z) / STEP));
      for (let k = 1; k < steps; k++) {
        const t = k / steps;
        add(before.z + t * (p.z - before.z), before.r + t * (p.r - before.r), p.part);
      }
    }
    add(p.z, p.r, p.part);
  });
  return out;
}

/** Outlines of the shop's tools with their holders, each worked out once. */
export function outlines({ holders }: { holders: readonly Holder[] }): (tool: Tool) => readonly Disc[] {
  const profile = profiles({ holders });
  return onceEach((tool) => discsOf(profile(tool)));
}

/** The same as the lines that they are turned from: narrower places above wider ones are kept. */
export const profiles = ({
  holders,
}: {
  holders: readonly Holder[];
}): ((tool: Tool) => readonly ProfilePoint[]) =>
  onceEach((tool) => toolProfile(tool, holders.find((h) => h.id === tool.holderId) ?? null));

function onceEach<T>(make: (tool: Tool) => T): (tool: Tool) => T {
  const known = new Map<Tool, T>();
  return (tool) => {
    const have = known.get(tool);
    if (have !== undefined) return have;
    const made = make(tool);
    known.set(tool, made);
    return made;
  };
}
