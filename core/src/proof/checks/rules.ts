import { pointLength, rimDiameter } from '../../cutting/depths.ts';
import { tapFeed } from '../../cutting/material.ts';
import { drilledStep, entryCone, type PlacedStep } from '../../operations/hole-view.ts';
import { operationKind } from '../../operations/registry.ts';
import { OPERATION_KINDS } from '../../operations/registry.ts';
import type { Check, CheckContext, CheckRule, MadeHole } from './check.ts';
import { holding, travel } from './room.ts';

type Finding = Omit<Check, 'setupId'>;

/** Depths agree within this, mm: more than any rounding of the code, less than matters in a hole. */
const DEPTH_TOLERANCE = 0.01;

const at = (m: MadeHole): Pick<Finding, 'line' | 'tag' | 'feature'> => ({ line: m.call.line, tag: m.tag ?? undefined, feature: m.view?.feature.id });
const name = (m: MadeHole): string => m.view?.label ?? `line ${m.call.line}`;
const isTap = (cycle: string): boolean => cycle === 'G84' || cycle === 'G74';

const toolAndCycle: CheckRule = {
  rule: 'tool-and-cycle',
  run: ({ made }) =>
    made.flatMap((m): Finding[] => {
      const { call, tool } = m;
      if (!tool)
        return [
          {
            rule: 'unknown-tool',
            severity: 'error',
            message: `${name(m)}: T${call.tool} is not in the tool list. Give the tool its magazine number, or change the T word.`,
            ...at(m),
          },
        ];
      const allowed = OPERATION_KINDS.some((k) => k.toolKinds.includes(tool.kind) && (k.cycles as readonly string[]).includes(call.cycle));
      const found: Finding[] = [];
      if (!allowed && (tool.kind === 'tap') !== isTap(call.cycle)) {
        found.push({
          rule: 'tool-and-cycle',
          severity: 'error',
          message: `${name(m)}: T${call.tool} is a ${tool.kind.replace('-', ' ')}, and ${call.cycle} is ${isTap(call.cycle) ? 'a tapping' : 'not a tapping'} cycle. Change the tool or the cycle.`,
          ...at(m),
        });
      }
      if (tool.thread && isTap(call.cycle) && (tool.thread.hand === 'left') !== (call.cycle === 'G74')) {
        found.push({ rule: 'tap-hand', severity: 'error', message: `${name(m)}: a ${tool.thread.hand}-hand tap on ${call.cycle}. G84 is for right hand, G74 for left.`, ...at(m) });
      }
      return found;
    }),
};

const tapFeedRule: CheckRule = {
  rule: 'tap-feed',
  run: ({ made, say }) =>
    made.flatMap((m): Finding[] => {
      const pitch = m.tool?.thread?.pitch;
      if (!isTap(m.call.cycle) || pitch === undefined) return [];
      const wanted = tapFeed(m.call.speed, pitch);
      // A thousandth covers the rounding of F; anything more stretches the thread.
      if (Math.abs(m.call.feed - wanted) <= 0.001 * wanted) return [];
      return [
        {
          rule: 'tap-feed',
          severity: 'error',
          message: `${name(m)}: a tap's feed is pitch × speed: ${say(pitch)} × ${m.call.speed} rpm = ${say(wanted)}/min, not ${say(m.call.feed)}/min.`,
          ...at(m),
        },
      ];
    }),
};

const limits: CheckRule = {
  rule: 'machine-limits',
  run: ({ made, job, say }) =>
    made.flatMap((m): Finding[] => {
      const out: Finding[] = [];
      if (m.call.speed > job.machine.maxSpeed)
        out.push({ rule: 'speed-limit', severity: 'error', message: `${name(m)}: ${m.call.speed} rpm is above the machine's ${job.machine.maxSpeed} rpm.`, ...at(m) });
      if (m.call.feed > job.machine.maxFeed)
        out.push({
          rule: 'feed-limit',
          severity: 'error',
          message: `${name(m)}: a feed of ${say(m.call.feed)}/min is above the machine's ${say(job.machine.maxFeed)}/min.`,
          ...at(m),
        });
      return out;
    }),
};

const flute: CheckRule = {
  rule: 'flute-length',
  run: ({ made, say }) =>
    made.flatMap((m): Finding[] => {
      if (!m.tool || !m.view) return [];
      const deep = m.view.entryZ - m.call.z - (m.tool.kind === 'drill' ? pointLength(m.tool.diameter, m.tool.pointAngleDeg ?? 118) : 0);
      if (deep <= m.tool.fluteLength + DEPTH_TOLERANCE) return [];
      return [
        {
          rule: 'flute-length',
          severity: 'error',
          message: `${name(m)}: T${m.call.tool} goes ${say(deep)} deep and has ${say(m.tool.fluteLength)} of flute. Use a longer one.`,
          ...at(m),
        },
      ];
    }),
};

const noHole: CheckRule = {
  rule: 'no-hole-there',
  run: ({ made, say }) =>
    made
      .filter((m) => !m.view)
      .map((m) => ({
        rule: 'no-hole-there',
        severity: 'error' as const,
        message: `Line ${m.call.line}: ${m.call.cycle} at X ${say(m.call.x)} Y ${say(m.call.y)}, where the part has no hole. Check the position and the work zero.`,
        ...at(m),
      })),
};

const depths: CheckRule = {
  rule: 'depth',
  run: (c) => c.made.flatMap((m) => depthFindings(m, c)),
};

function depthFindings(m: MadeHole, c: CheckContext): Finding[] {
  const { view: v, tool, call } = m;
  if (!v || !tool) return [];
  const tip = v.entryZ - call.z;
  if (tool.kind === 'drill') return drillDepth(m, tip, c);
  if (tool.kind === 'tap') return tapDepthFindings(m, c);
  if (tool.kind === 'counterbore') {
    const step = v.steps.find((s) => s.shape === 'cylinder' && Math.abs(s.diameter - tool.diameter) < 0.02);
    return step ? offBy(m, tip - step.end, 'counterbore-depth', `the counterbore's floor, ${c.say(step.end)} below the entry`, c) : [];
  }
  const cone = entryCone(v);
  const angle = tool.pointAngleDeg ?? 90;
  const rim = rimDiameter(tip - v.entryDrop, angle, tool.tipDiameter);
  if (tool.kind === 'countersink' && cone) return offBy(m, (rim - cone.startDiameter) / 2, 'countersink-size', `the countersink's rim of ⌀${c.say(cone.startDiameter)}`, c);
  if (tool.kind === 'spot-drill') {
    const wide = cone?.startDiameter ?? widestAbove(v.steps) ?? Infinity;
    if (rim > Math.min(wide, tool.diameter * 1.001) + 2 * DEPTH_TOLERANCE) {
      return [
        {
          rule: 'spot-too-deep',
          severity: 'error',
          message: `${name(m)}: the spot goes ${c.say(tip)} deep and leaves a rim of ⌀${c.say(rim)}, wider than ${rim > tool.diameter ? `the spot drill (⌀${c.say(tool.diameter)})` : `the ⌀${c.say(wide)} wanted`}. Spot less deep.`,
          ...at(m),
        },
      ];
    }
  }
  return [];
}

const widestAbove = (steps: PlacedStep[]): number | null => {
  const d = steps.slice(0, -1).flatMap((s) => (s.shape === 'cylinder' ? [s.diameter] : []));
  return d.length > 0 ? Math.max(...d) : null;
};

function offBy(m: MadeHole, over: number, rule: string, what: string, c: CheckContext): Finding[] {
  if (Math.abs(over) <= DEPTH_TOLERANCE) return [];
  return [{ rule, severity: over > 0 ? 'error' : 'warning', message: `${name(m)}: ${c.say(Math.abs(over))} ${over > 0 ? 'past' : 'short of'} ${what}.`, ...at(m) }];
}

function drillDepth(m: MadeHole, tip: number, c: CheckContext): Finding[] {
  const v = m.view!;
  const tool = m.tool!;
  const point = pointLength(tool.diameter, tool.pointAngleDeg ?? 118);
  const step = v.steps.find((s) => s.shape === 'cylinder' && Math.abs(s.diameter - tool.diameter) < 0.02) ?? drilledStep(v);
  const full = tip - point;
  const end = step === drilledStep(v) ? v.depth : (step?.end ?? v.depth);
  if (v.through && step === drilledStep(v)) {
    if (full >= end - DEPTH_TOLERANCE) return [];
    return [
      {
        rule: 'not-through',
        severity: 'error',
        message: `${name(m)}: the drill's full diameter ends ${c.say(end - full)} above the exit. Drill ${c.say(end - full)} deeper, and some break-through.`,
        ...at(m),
      },
    ];
  }
  const pointed = v.bottom.shape === 'cone' && step === drilledStep(v);
  const floor = pointed ? v.depth + tool.diameter / 2 / Math.tan((v.bottom.shape === 'cone' ? v.bottom.angle : 180) * (Math.PI / 360)) : end;
  const over = pointed ? Math.max(full - v.depth, 0) : tip - floor;
  const allowed = c.job.rows.find((r) => r.tag === m.tag)?.operations.some((o) => o.kind === 'drill' && o.parameters.some((p) => p.key === 'depth' && p.source !== 'model'));
  if (over > DEPTH_TOLERANCE) {
    return [
      {
        rule: 'too-deep',
        severity: allowed ? 'warning' : 'error',
        message: `${name(m)}: the drill goes ${c.say(over)} deeper than the hole in the model${allowed ? ', as typed or printed' : ''}. The ${pointed ? 'full diameter' : 'tip'} should end ${c.say(pointed ? v.depth : floor)} below the entry.`,
        ...at(m),
      },
    ];
  }
  const short = pointed ? v.depth - full : floor - tip;
  if (short > DEPTH_TOLERANCE && step === drilledStep(v)) {
    return [{ rule: 'too-shallow', severity: 'warning', message: `${name(m)}: the drill stops ${c.say(short)} short of the hole's depth in the model.`, ...at(m) }];
  }
  return [];
}

function tapDepthFindings(m: MadeHole, c: CheckContext): Finding[] {
  const v = m.view!;
  if (v.through) return [];
  const pitch = m.tool!.thread!.pitch;
  const drilled = c.made.filter((o) => o.view === v && o.tool?.kind === 'drill').map((o) => o.call.z + pointLength(o.tool!.diameter, o.tool!.pointAngleDeg ?? 118));
  if (drilled.length === 0) return [{ rule: 'tap-without-hole', severity: 'error', message: `${name(m)}: tapped and not drilled before. Add the drill.`, ...at(m) }];
  const full = Math.min(...drilled);
  const over = full + pitch - m.call.z;
  if (over <= DEPTH_TOLERANCE) return [];
  return [
    {
      rule: 'tap-too-deep',
      severity: 'error',
      message: `${name(m)}: the tap ends ${c.say(m.call.z - full)} above the drill's full diameter; it needs one pitch (${c.say(pitch)}). Tap ${c.say(over)} less deep, or drill deeper.`,
      ...at(m),
    },
  ];
}

const twice: CheckRule = {
  rule: 'done-twice',
  run: ({ made }) => {
    const seen = new Map<string, MadeHole>();
    return made.flatMap((m): Finding[] => {
      if (!m.view || !m.tool) return [];
      const key = `${m.view.feature.id}/${m.tool.kind}/${m.tool.diameter.toFixed(2)}`;
      const before = seen.get(key);
      seen.set(key, m);
      return before
        ? [
            {
              rule: 'done-twice',
              severity: 'error',
              message: `${name(m)}: the ${m.tool.kind.replace('-', ' ')} comes here a second time (first in line ${before.call.line}). Take one out.`,
              ...at(m),
            },
          ]
        : [];
    });
  },
};

const coverage: CheckRule = {
  rule: 'coverage',
  run: ({ job, setup, made }) => {
    const done = new Map<string, Set<string>>();
    for (const m of made) if (m.view && m.tool) done.set(m.view.label, (done.get(m.view.label) ?? new Set()).add(m.tool.id));
    return setup.operations
      .flatMap((o): Finding[] =>
        o.holes
          .filter((h) => !done.get(h.label)?.has(o.tool.id))
          .map((h) => ({
            rule: 'not-in-program',
            severity: 'error' as const,
            message: `${h.label}: planned to ${operationKind(o.kind).label} with T${o.tool.number}, but the program has no line for it.`,
            tag: o.tag,
            feature: h.feature,
          })),
      )
      .concat(job.rows.length === 0 ? [{ rule: 'no-features', severity: 'note', message: 'No hole was found in the part.' }] : []);
  },
};

const magazine: CheckRule = {
  rule: 'magazine',
  run: ({ setup, job }) => {
    const out: Finding[] = [];
    for (const o of setup.operations) {
      if (o.tool.number !== null && o.tool.number > job.machine.magazineSize)
        out.push({ rule: 'magazine-size', severity: 'error', message: `${o.tag}: T${o.tool.number} is beyond the machine's ${job.machine.magazineSize} places.`, tag: o.tag });
    }
    return out;
  },
};

/** Rapid motion outside cycles below the stock's top, where the tool may meet metal. */
const lowRapid: CheckRule = {
  rule: 'low-rapid',
  run: ({ read, setup, say }) => {
    const { top } = setup.frame;
    return read.motions
      .filter((m) => m.kind === 'rapid' && m.cycle === undefined && m.to[2] !== null && m.to[2] < top - DEPTH_TOLERANCE)
      .map((m) => ({
        rule: 'low-rapid',
        severity: 'error' as const,
        message: `Line ${m.line}: rapid to Z ${say(m.to[2]!)}, below the top of the stock at ${say(top)}. Feed there, or stay above.`,
        line: m.line,
      }));
  },
};

/** All rules, in the order in which their findings are listed. */
export const CHECK_RULES: readonly CheckRule[] = [toolAndCycle, tapFeedRule, depths, noHole, flute, limits, lowRapid, holding, travel, magazine, twice, coverage];
