import { flatEnd, type Corner, type ToolKindSpec, sizeFigure, wantedSize, widestStep } from './kind.ts';
import { PIPE_TAPER } from '../../threads/shape.ts';
import type { Tool } from '../schema.ts';

/** Deeper than its teeth: a neck behind them. */
const neckFor = (
  diameter: number,
  teeth: number,
  reach = 0,
): { neckDiameter?: number; neckLength?: number } =>
  reach > teeth ? { neckDiameter: 0.75 * diameter, neckLength: Math.ceil(Math.max(reach, teeth)) + 2 } : {};

/** Its largest diameter is at the top of its teeth where it is tapered; `diameter` is that at its tip. */
function threadMillEnd(t: Tool): Corner[] {
  const tip = flatEnd(t.diameter);
  return t.threadForm?.tapered
    ? [...tip, { z: t.fluteLength, r: t.diameter / 2 + (t.fluteLength * PIPE_TAPER) / 2 }]
    : tip;
}

/** How far above the tip the middle of the lowest tooth stands, mm: a thread is counted from there. */
export const firstTooth = ({ threadForm, fluteLength }: Tool): number =>
  threadForm && threadForm.rows > 1 ? threadForm.pitch / 2 : fluteLength / 2;

/** Cuts a thread by going round it on a helix; one row of teeth or many. */
export const threadMill: ToolKindSpec = {
  kind: 'thread-mill',
  label: 'thread mill',
  onlyPlunges: false,
  feedsByTooth: true,
  needsHole: true,
  cutsThreads: true,
  cycles: [],
  isCone: false,
  own: ['teeth', 'neckDiameter', 'neckLength'],
  needs: 1,
  wrong: (t, say) => {
    const form = t.threadForm;
    if (!form) return [{ field: 'threadForm', message: 'The pitch of its teeth is missing.' }];
    const height = form.rows * form.pitch;
    if (form.rows > 1 && t.fluteLength < height - 0.5 * form.pitch)
      return [
        {
          field: 'fluteLength',
          message: `${form.rows} rows of ${say(form.pitch)} are ${say(height)} high; the teeth have ${say(t.fluteLength)}.`,
        },
      ];
    if (form.rows === 1 && t.fluteLength > 4 * (form.pitchTo ?? form.pitch))
      return [{ field: 'fluteLength', message: 'One row of teeth is no higher than a few pitches.' }];
    return form.pitchTo !== undefined && form.pitchTo < form.pitch
      ? [{ field: 'threadForm', message: 'The widest pitch is less than the narrowest.' }]
      : [];
  },
  end: threadMillEnd,
  bottoms: (_, h) => [h.entryZ - h.depth],
  touches: (_, h) => widestStep(h),
  usual: (n) => {
    const { pitch = 1, angleDeg = 60, tapered = false } = n.threadForm ?? {};
    const widest = wantedSize(n, []);
    if (widest === null) return null;
    const diameter = n.diameter ?? Math.floor(10 * widest) / 10;
    const rows = Math.min(40, Math.max(1, Math.floor((2 * diameter) / pitch)));
    return {
      diameter,
      sizeName: `${sizeFigure(diameter)} P${sizeFigure(pitch)}`,
      tipDiameter: 0,
      fluteLength: Math.ceil(100 * rows * pitch) / 100,
      shankDiameter: Math.max(6, Math.ceil(diameter)),
      cutterMaterial: 'carbide',
      teeth: 4,
      threadForm: { pitch, angleDeg: angleDeg === 55 ? 55 : 60, rows, tapered },
      ...neckFor(diameter, rows * pitch, n.reach),
    };
  },
};
