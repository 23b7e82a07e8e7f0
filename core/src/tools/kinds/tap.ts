import { LEAD_THREADS, minorDiameter, type TapLead } from '../../threads/thread.ts';
import { flatEnd, type ToolKindSpec, drilledWidth } from './kind.ts';

/** A tap's lead rises from the minor diameter to the major over its first threads. */
export const tapTool: ToolKindSpec = {
  kind: 'tap',
  label: 'tap',
  onlyPlunges: true,
  needsHole: true,
  cycles: ['tap'],
  isCone: false,
  own: ['neckDiameter', 'neckLength'],
  needs: 0,
  end: (t) =>
    t.thread
      ? [
          { z: 0, r: minorDiameter(t.thread.majorDiameter, t.thread.pitch) / 2 },
          { z: LEAD_THREADS[t.thread.lead] * t.thread.pitch, r: t.thread.majorDiameter / 2 },
        ]
      : flatEnd(t.diameter),
  bottoms: (t, h) => [h.entryZ - h.depth, h.entryZ - 2 * t.diameter],
  touches: (_, h, thread) => Math.max(drilledWidth(h, thread), thread?.majorDiameter ?? 0),
  usual: ({ thread, reach }) => {
    if (thread?.pitch === undefined || thread.majorDiameter === undefined) return null;
    const { designation, pitch, majorDiameter, hand } = thread;
    const lead = tapLead(thread.leads);
    return {
      diameter: majorDiameter,
      sizeName: designation,
      tipDiameter: 0,
      fluteLength: Math.max(Math.round(12 + 2.2 * majorDiameter), Math.ceil(reach ?? 0)),
      shankDiameter: Math.round(majorDiameter * 8) / 10,
      cutterMaterial: 'hss',
      thread: { designation, pitch, majorDiameter, hand, lead, style: thread.style ?? 'cutting' },
    };
  },
};

/** The first lead of those that will do; a plug tap where none is named. */
const tapLead = (leads: readonly string[] | undefined): TapLead =>
  (Object.keys(LEAD_THREADS) as TapLead[]).find((l) => l === leads?.[0]) ?? 'plug';
