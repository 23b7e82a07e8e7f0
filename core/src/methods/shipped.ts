import { methodSchema, type Method } from './schema.ts';

const spotted = [{ kind: 'spot' }, { kind: 'pilot' }];
/** Steps and countersinks by a cutter of their size, else milled; from the inside out. */
const steps = [
  { kind: 'drill', part: 'pointed steps' },
  { kind: 'counterbore', or: ['helical-bore'], part: 'flat steps' },
  { kind: 'countersink', or: ['helical-countersink'], part: 'countersink' },
];
/** The spot only starts the drill; the rim is broken afterwards. */
const rimBroken = [
  { kind: 'spot', set: { rim: '0.8 * diameter' } },
  { kind: 'pilot' },
  { kind: 'drill' },
  ...steps,
  { kind: 'rim-break' },
];
/** Where no spot makes the chamfer that the model has. */
const chamfer = { kind: 'rim-break', part: 'chamfer' };
const tap = { kind: 'tap', part: 'thread' };
/** Under a reamer 0.2 to 0.3 is left on the diameter (handbook, fits): the drill that leaves least of it is best. */
const REAMING = { underFrom: 0.2, underTo: 0.3 };
/** A drill before an end mill: well under, whatever there is. */
const ROUGHING = { underFrom: 1, underTo: 'diameter / 2' };

/**
 * Shipped methods. Of those that apply the first is offered that the shop's tools can do; the first of all says what is missing where none
 * can.
 */
export const SHIPPED_METHODS: readonly Method[] = [
  {
    id: 'tapped',
    name: 'drill and tap',
    family: 'hole',
    when: { threaded: true },
    operations: [...spotted, { kind: 'drill' }, ...steps, tap],
  },
  {
    // Where there is no tap, or none has room.
    id: 'thread-milled',
    name: 'thread-milled hole',
    family: 'hole',
    when: { threaded: true },
    operations: [
      ...spotted,
      { kind: 'drill', or: ['helical-bore'] },
      ...steps,
      { kind: 'rim-break', ifNeeded: true },
      { kind: 'thread-mill', part: 'thread' },
    ],
  },
  {
    id: 'reamed',
    name: 'drill and ream',
    family: 'hole',
    when: { threaded: false, fit: ['reamed'], diameter: { from: 1, to: 20.5 } },
    operations: [...spotted, { kind: 'drill', set: REAMING }, ...steps, { kind: 'ream' }],
  },
  {
    id: 'bored',
    name: 'drill, mill and bore',
    family: 'hole',
    when: { threaded: false, fit: ['reamed', 'bored'], diameter: { from: 12 } },
    operations: [
      ...spotted,
      { kind: 'drill', set: ROUGHING },
      { kind: 'helical-bore', set: { allowance: 0.4, finishStock: 0 } },
      ...steps,
      { kind: 'bore' },
    ],
  },
  {
    id: 'milled-and-bored',
    name: 'mill and bore',
    family: 'hole',
    when: { threaded: false, fit: ['reamed', 'bored'], diameter: { from: 12 } },
    operations: [
      { kind: 'helical-bore', set: { allowance: 0.4, finishStock: 0 } },
      ...steps,
      chamfer,
      { kind: 'bore' },
    ],
  },
  {
    id: 'drilled',
    name: 'drill',
    family: 'hole',
    when: { threaded: false, fit: ['drilled'] },
    operations: [...spotted, { kind: 'drill' }, ...steps],
  },
  {
    // Many a floor is drawn flat and may be pointed: the print decides.
    id: 'drilled-flat-floor',
    name: 'drill, floor milled flat',
    family: 'hole',
    when: { threaded: false, fit: ['drilled'], flatFloor: true, diameter: { from: 3 } },
    onRequest: true,
    operations: [...spotted, { kind: 'drill' }, { kind: 'floor' }, ...steps],
  },
  {
    id: 'centred',
    name: 'centre drill, drill',
    family: 'hole',
    when: { threaded: false, fit: ['drilled'] },
    onRequest: true,
    operations: [{ kind: 'centre' }, { kind: 'pilot' }, { kind: 'drill' }, ...steps, chamfer],
  },
  {
    id: 'core-drilled',
    name: 'drill, core drill',
    family: 'hole',
    when: { threaded: false, fit: ['drilled'], diameter: { from: 8 } },
    onRequest: true,
    operations: [
      ...spotted,
      { kind: 'drill', set: { underFrom: 0.5, underTo: '0.25 * diameter' } },
      { kind: 'core-drill' },
      ...steps,
    ],
  },
  {
    id: 'drilled-rim-broken',
    name: 'drill, rim broken',
    family: 'hole',
    when: { threaded: false, fit: ['drilled'] },
    onRequest: true,
    operations: rimBroken,
  },
  {
    id: 'drilled-both-rims-broken',
    name: 'drill, both rims broken',
    family: 'hole',
    when: { threaded: false, fit: ['drilled'], through: true },
    onRequest: true,
    operations: [...rimBroken, { kind: 'back-rim-break' }],
  },
  {
    id: 'milled',
    name: 'mill on a helix',
    family: 'hole',
    // Where no drill of the size is had (handbook: a bore opened by an end mill on a helix).
    when: { threaded: false, fit: ['drilled'], diameter: { from: 10 } },
    operations: [{ kind: 'helical-bore' }, ...steps, chamfer],
  },
  {
    // A drill of the size is better, where one can be had.
    id: 'milled-small',
    name: 'mill a small hole on a helix',
    family: 'hole',
    when: { threaded: false, fit: ['drilled'], diameter: { from: 4, to: 10 } },
    onRequest: true,
    operations: [{ kind: 'helical-bore' }, ...steps, chamfer],
  },
  { id: 'slot', name: 'mill a slot', family: 'slot', when: {}, operations: [{ kind: 'slot-mill' }] },
  {
    // For a cutter that must not go down by itself, or a slot too short for a ramp.
    id: 'slot-by-hole',
    name: 'drill a hole to go in by, mill the slot',
    family: 'slot',
    when: { ends: ['closed'] },
    operations: [{ kind: 'entry-hole' }, { kind: 'slot-mill' }],
  },
  {
    // A key sits between walls: the cutter's own width is no measure for them.
    id: 'key-way',
    name: 'key way, walls finished',
    family: 'slot',
    when: { through: false },
    onRequest: true,
    operations: [{ kind: 'slot-mill', set: { cutter: 'narrower', springPasses: 1 } }],
  },
  {
    id: 'slot-in-circles',
    name: 'deep slot, cleared in circles',
    family: 'slot',
    when: { ratio: { from: 1 } },
    onRequest: true,
    operations: [{ kind: 'slot-mill', set: { cutter: 'narrower', rough: 'circles' } }],
  },
  {
    id: 'channel',
    name: 'mill a channel',
    family: 'channel',
    when: {},
    operations: [{ kind: 'groove-mill' }],
  },
  {
    id: 'groove',
    name: 'mill a groove',
    family: 'face-groove',
    when: {},
    operations: [{ kind: 'groove-mill' }],
  },
  {
    id: 'seal-groove',
    name: 'seal groove, walls finished',
    family: 'face-groove',
    when: { ratio: { to: 2 } },
    onRequest: true,
    operations: [{ kind: 'groove-mill', set: { cutter: 'narrower', springPasses: 1 } }],
  },
  {
    id: 't-slot',
    name: 'throat, then the head',
    family: 't-slot',
    when: {},
    operations: [{ kind: 'slot-mill' }, { kind: 't-slot-mill' }],
  },
  {
    id: 'dovetail',
    name: 'throat, then the flanks',
    family: 'dovetail',
    when: {},
    operations: [{ kind: 'slot-mill' }, { kind: 'dovetail-mill' }],
  },
  {
    id: 'bore-groove',
    name: 'groove in a bore',
    family: 'bore-groove',
    when: {},
    operations: [{ kind: 'bore-groove' }],
  },
  {
    id: 'wall-groove',
    name: 'groove in a wall',
    family: 'wall-groove',
    when: {},
    operations: [{ kind: 'wall-groove' }],
  },
  { id: 'face', name: 'mill a face', family: 'face', when: {}, operations: [{ kind: 'face-mill' }] },
  {
    id: 'outline',
    name: 'run round the outline',
    family: 'outline',
    when: {},
    operations: [{ kind: 'wall-mill' }],
  },
  {
    id: 'step',
    name: 'mill a step',
    family: 'step',
    when: {},
    operations: [{ kind: 'area-mill' }, { kind: 'corner-mill' }],
  },
  {
    id: 'pocket',
    name: 'clear a pocket',
    family: 'pocket',
    when: {},
    operations: [{ kind: 'area-mill' }, { kind: 'corner-mill' }],
  },
  {
    // For a cutter that must not go down by itself, or a pocket that has no room to ramp in.
    id: 'pocket-by-hole',
    name: 'drill a hole to go in by, clear the pocket',
    family: 'pocket',
    when: {},
    operations: [{ kind: 'entry-hole' }, { kind: 'area-mill' }, { kind: 'corner-mill' }],
  },
  {
    // Little is left in its corners then: the mill is not pushed off its way there.
    id: 'pocket-corner-holes',
    name: 'drill the corners, clear the pocket',
    family: 'pocket',
    when: {},
    onRequest: true,
    operations: [{ kind: 'corner-hole' }, { kind: 'area-mill', set: { corners: 'this cutter' } }],
  },
  {
    id: 'edge-break',
    name: 'break with the flank',
    family: 'sharp-edge',
    when: {},
    operations: [{ kind: 'edge-mill' }],
  },
  {
    id: 'edge-follow',
    name: 'follow with a ball',
    family: 'rising-edge',
    when: {},
    operations: [{ kind: 'edge-follow' }],
  },
  {
    // Of an edge that is corrected to be made from its other side.
    id: 'edge-behind',
    name: 'break from behind',
    family: 'sharp-edge',
    when: {},
    operations: [{ kind: 'edge-behind' }],
  },
  {
    id: 'chamfer',
    name: 'chamfer with the flank',
    family: 'chamfer',
    when: {},
    operations: [{ kind: 'edge-mill' }],
  },
  {
    id: 'rounded-edge',
    name: 'round with a form cutter',
    family: 'rounded-edge',
    when: {},
    operations: [{ kind: 'edge-round' }],
  },
].map((m) => methodSchema.parse(m));
