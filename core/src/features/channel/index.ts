import { depthChanges, raised, raisedPiece } from '../changes.ts';
import { first } from '../../lists.ts';
import { piecePoints } from '../curves.ts';
import { levelsSeen, planPieces, stripShape } from '../groove-shape.ts';
import type { FeatureFamily, Found, Recognised, RecogniseContext } from '../family.ts';
import { round, roundVec } from '../round.ts';
import { depthPart, directionPart, sizePart } from '../sizes.ts';
import {
  centrelinePieces,
  footOf,
  grooveEnds,
  isTaken,
  openEnds,
  stripFaces,
  stripLength,
  stripMiddle,
  stripReach,
} from '../strip/describe.ts';
import { strips } from '../strip/find.ts';
import type { ChannelFeature } from './schema.ts';

export const channelFamily: FeatureFamily<'channel'> = {
  family: 'channel',
  prefix: 'C',
  changes: depthChanges((f, by) => ({
    at: raised(f.at, f.axis, by),
    centreline: f.centreline.map((p) => raisedPiece(p, f.axis, by)),
  })),
  recognise: recogniseChannels,
  place: (f) => f.at,
  group: (f) => (f.openEnds === 2 ? 'Channels' : 'Channels with round ends'),
  sizeKey: (f, anyDepth) =>
    [
      'channel',
      f.openEnds,
      f.bottom,
      directionPart(f.axis),
      sizePart(f.width),
      sizePart(f.centrelineLength),
      f.bottom === 'open' ? '*' : depthPart(f.depth, anyDepth),
    ].join('|'),
  describe: (f, say) =>
    `${say(f.width)} wide, ${say(f.centrelineLength)} long${f.bottom === 'open' ? ' THRU' : ` ↧${say(f.depth)}`}`,
  sortBy: (f) => f.width,
  groove: (f, frame) =>
    f.ends
      ? stripShape(planPieces(f.centreline, f.axis, frame), levelsSeen(f.at, f.axis, f.depth, frame), {
          width: f.width,
          ends: f.ends,
          through: f.bottom === 'open',
          floorRadius: f.floorRadius,
        })
      : null,
  opening: (f) => ({
    runs: f.centreline.map((p) => piecePoints(p, f.axis)),
    width: f.width,
    depth: f.depth,
  }),
};

/** Strips that are neither straight nor closed on themselves. */
function recogniseChannels(context: RecogniseContext): Recognised<ChannelFeature> {
  const features: Found<ChannelFeature>[] = [];
  for (const s of strips(context)) {
    const isStraight = s.centreline.length === 1 && first(s.centreline).kind === 'line';
    const length = stripLength(s);
    if (s.closed || isStraight || s.ceilings.length > 0 || length < s.width || isTaken(context, s)) continue;
    features.push({
      family: 'channel',
      solid: context.solid,
      faces: stripFaces(context, s),
      reachableFrom: stripReach(context, s),
      axis: roundVec(s.frame.z),
      width: round(s.width),
      depth: round(s.top - s.bottom),
      centrelineLength: round(length),
      centreline: centrelinePieces(s),
      openEnds: openEnds(s),
      ends: grooveEnds(s),
      ...footOf(s),
      bottom: s.floor < 0 ? 'open' : 'flat',
      at: roundVec(stripMiddle(s)),
    });
  }
  return { features, notes: [] };
}
