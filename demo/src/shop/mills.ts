import { NAMED_THREADS } from '@yellow-pin/core/threads/more';
import { TOOL_KINDS } from '@yellow-pin/core/tools/kinds/registry';
import type { ToolKind } from '@yellow-pin/core/tools/schema';
import { inch, round, type Drawer } from './make.ts';

/** A carbide end mill, flat or with a corner radius; one with a neck reaches that far. */
function endMill(diameter: number, { reach, corner = 0 }: { reach?: number; corner?: number } = {}): Drawer {
  const flutes = Math.round(2.2 * diameter + 4);
  const ends = corner === 0 ? '' : corner === diameter / 2 ? ' ball' : ` R${corner}`;
  return {
    id: `mill-${diameter}${ends.trim() && `-${ends.trim().toLowerCase()}`}${reach === undefined ? '' : '-long'}`,
    kind: 'end-mill',
    description: `${ends === ' ball' ? 'ball mill' : 'end mill'} ⌀${diameter}${ends === ' ball' ? '' : ends}${reach === undefined ? '' : ' long'}`,
    diameter,
    sizeName: String(diameter),
    tipDiameter: 0,
    fluteLength: flutes,
    overallLength: (reach ?? flutes) + 40,
    shankDiameter: Math.max(6, diameter),
    stickOut: (reach ?? flutes) + 6,
    holderId: diameter > 12 ? 'weldon20' : 'er16',
    cutterMaterial: 'carbide',
    teeth: diameter < 6 ? 3 : 4,
    cornerRadius: corner,
    rampAngleDeg: 5,
    ...(reach === undefined ? {} : { neckDiameter: round(0.93 * diameter), neckLength: reach }),
  };
}

/** A cutter of its kind's usual shape, with what is said of it otherwise. */
function cutter(
  kind: ToolKind,
  diameter: number,
  description: string,
  part: Partial<Drawer> = {},
  angleDeg?: number,
): Drawer[] {
  const spec = TOOL_KINDS.find((k) => k.kind === kind);
  const usual = spec?.usual({ kind, diameter, ...(angleDeg === undefined ? {} : { angleDeg }) });
  if (!usual) return [];
  const shape = { ...usual, ...part };
  const reach = Math.max(shape.fluteLength, shape.neckLength ?? 0);
  return [
    {
      ...shape,
      id: description.replace(/[^A-Za-z0-9.]+/g, '-').replace(/-$/, ''),
      kind,
      description,
      overallLength: round(reach + 40),
      stickOut: round(reach + 6),
      holderId: diameter > 12 ? 'weldon20' : 'er16',
    },
  ];
}

/** A thread mill of many rows for the threads of one pitch, as wide as the smallest of them allows. */
function threadMill(
  diameter: number,
  pitch: number,
  name: string,
  form: Partial<Drawer['threadForm']> = {},
): Drawer[] {
  const rows = Math.max(3, Math.round((1.6 * diameter) / pitch));
  return cutter('thread-mill', diameter, `thread mill ⌀${diameter} ${name}`, {
    sizeName: name,
    fluteLength: round(rows * pitch),
    neckDiameter: undefined,
    neckLength: undefined,
    threadForm: { pitch: round(pitch, 4), angleDeg: 60, rows, tapered: false, ...form },
  });
}

/** Cutter diameter and pitch for M6 to M24. */
const METRIC: readonly (readonly [number, number])[] = [
  [4.6, 1],
  [6, 1.25],
  [7.8, 1.5],
  [9, 1.75],
  [11.8, 2],
  [14, 2.5],
  [16, 3],
];
const PIPE: readonly (readonly [size: string, diameter: number])[] = [
  ['1/4', 9.9],
  ['3/8', 11.8],
  ['1/2', 15.8],
  ['3/4', 15.8],
  ['1', 20],
];
const pitchOf = (designation: string): number =>
  NAMED_THREADS.find((t) => t.designation === designation)?.pitch ?? inch(1 / 14);
const NPT_DIAMETERS = [6, 9, 11.8, 15.8, 15.8, 20];
const NPT = ['1/8-27', '1/4-18', '3/8-18', '1/2-14', '3/4-14', '1-11.5'];
const WHITWORTH_TAPERED: readonly (readonly [size: string, diameter: number])[] = [
  ['1/8', 6],
  ['1/4', 8.4],
  ['1/2', 13.5],
  ['1', 20],
];

export const MILLS: readonly Drawer[] = [
  ...[2, 3, 4, 5, 6, 8, 10, 12, 16, 20].map((d) => endMill(d)),
  endMill(6, { reach: 45 }),
  endMill(10, { reach: 45 }),
  endMill(16, { reach: 65 }),
  endMill(20, { reach: 80 }),
  endMill(6, { corner: 0.5 }),
  endMill(10, { corner: 1 }),
  endMill(16, { corner: 2 }),
  ...[4, 6, 8, 10, 12].map((d) => endMill(d, { corner: d / 2 })),
  ...cutter('chamfer-mill', 6, 'chamfer mill ⌀6 90°', { tipDiameter: 0.5 }),
  ...cutter('chamfer-mill', 10, 'chamfer mill ⌀10 90°', { tipDiameter: 1 }),
  ...cutter('chamfer-mill', 16, 'chamfer mill ⌀16 90°', { tipDiameter: 2 }),
  ...cutter('chamfer-mill', 12, 'chamfer mill ⌀12 60°', { tipDiameter: 1, fluteLength: 16 }, 60),
  ...cutter('back-chamfer-cutter', 4, 'back chamfer cutter ⌀4 90°'),
  ...cutter('back-chamfer-cutter', 6, 'back chamfer cutter ⌀6 90°'),
  ...cutter('back-chamfer-cutter', 10, 'back chamfer cutter ⌀10 90°'),
  ...cutter('lollipop', 4, 'lollipop cutter ⌀4'),
  ...cutter('lollipop', 8, 'lollipop cutter ⌀8'),
  ...cutter('corner-rounding-cutter', 8, 'corner-rounding cutter R1', { tipDiameter: 6, profileRadius: 1 }),
  ...cutter('corner-rounding-cutter', 10, 'corner-rounding cutter R2', { tipDiameter: 6, profileRadius: 2 }),
  ...cutter('corner-rounding-cutter', 12, 'corner-rounding cutter R3', { tipDiameter: 6, profileRadius: 3 }),
  ...cutter('t-cutter', 16, 'T-cutter ⌀16 × 8', { fluteLength: 8, neckDiameter: 7, neckLength: 24 }),
  ...cutter('t-cutter', 21, 'T-cutter ⌀21 × 9', { fluteLength: 9, neckDiameter: 10, neckLength: 29 }),
  ...cutter('t-cutter', 25, 'T-cutter ⌀25 × 11', { fluteLength: 11, neckDiameter: 12, neckLength: 32 }),
  ...cutter('t-cutter', 19.5, 'T-cutter ⌀19.5 × 2', { fluteLength: 2, neckDiameter: 8, neckLength: 20 }),
  ...cutter('t-cutter', 18, 'T-cutter ⌀18 × 6', { fluteLength: 6, neckDiameter: 8, neckLength: 24 }),
  ...cutter('t-cutter', 25, 'T-cutter ⌀25 × 4', {
    fluteLength: 4,
    neckDiameter: 12,
    neckLength: 45,
    shankDiameter: 12,
  }),
  ...cutter('dovetail-cutter', 16, 'dovetail cutter ⌀16 60°'),
  ...cutter('dovetail-cutter', 16, 'dovetail cutter ⌀16 × 8 60°', {
    fluteLength: 8,
    neckDiameter: 6.5,
    neckLength: 20,
  }),
  ...cutter('dovetail-cutter', 20, 'dovetail cutter ⌀20 45°', {}, 45),
  ...METRIC.flatMap(([d, pitch]) => threadMill(d, pitch, `P${pitch}`)),
  ...PIPE.flatMap(([size, d]) => threadMill(d, pitchOf(`G ${size}`), `G ${size}`, { angleDeg: 55 })),
  ...NPT.flatMap((name, i) =>
    threadMill(NPT_DIAMETERS[i] ?? 9, pitchOf(`${name} NPT`), `${name} NPT`, { tapered: true }),
  ),
  ...WHITWORTH_TAPERED.flatMap(([size, d]) =>
    threadMill(d, pitchOf(`Rc ${size}`), `Rc ${size}`, { tapered: true, angleDeg: 55 }),
  ),
  ...cutter('thread-mill', 12, 'thread mill ⌀12 lone tooth P1 to P3', {
    sizeName: 'P1–3',
    fluteLength: 3,
    neckDiameter: 7,
    neckLength: 32,
    teeth: 3,
    threadForm: { pitch: 1, pitchTo: 3, angleDeg: 60, rows: 1, tapered: false },
  }),
  ...cutter('thread-mill', 20, 'thread mill ⌀20 lone tooth P1.5 to P6', {
    sizeName: 'P1.5–6',
    fluteLength: 5.5,
    neckDiameter: 12,
    neckLength: 60,
    teeth: 4,
    threadForm: { pitch: 1.5, pitchTo: 6, angleDeg: 60, rows: 1, tapered: false },
  }),
  ...cutter('thread-mill', 16, 'thread mill ⌀16 lone tooth 55°', {
    sizeName: '55° P1.3–2.4',
    fluteLength: 2.6,
    neckDiameter: 10,
    neckLength: 45,
    teeth: 4,
    threadForm: { pitch: 1.3, pitchTo: 2.4, angleDeg: 55, rows: 1, tapered: false },
  }),
];
