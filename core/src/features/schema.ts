import { z } from 'zod';
import { bossSchema } from './boss/schema.ts';
import { boreGrooveSchema } from './bore-groove/schema.ts';
import { chamferSchema } from './chamfer/schema.ts';
import { channelSchema } from './channel/schema.ts';
import { dovetailSchema } from './dovetail/schema.ts';
import { faceGrooveSchema } from './face-groove/schema.ts';
import { faceSchema } from './face/schema.ts';
import { holeSchema } from './hole/schema.ts';
import { outlineSchema } from './outline/schema.ts';
import { pocketSchema } from './pocket/schema.ts';
import { roundedEdgeSchema } from './rounded-edge/schema.ts';
import { risingEdgeSchema } from './rising-edge/schema.ts';
import { sharpEdgeSchema } from './sharp-edge/schema.ts';
import { slotSchema } from './slot/schema.ts';
import { stepSchema } from './step/schema.ts';
import { tSlotSchema } from './t-slot/schema.ts';
import { wallGrooveSchema } from './wall-groove/schema.ts';

/** A feature of any family, as stored and sent. */
export const featureSchema = z.discriminatedUnion('family', [
  holeSchema,
  boreGrooveSchema,
  tSlotSchema,
  dovetailSchema,
  wallGrooveSchema,
  faceGrooveSchema,
  slotSchema,
  channelSchema,
  chamferSchema,
  roundedEdgeSchema,
  sharpEdgeSchema,
  bossSchema,
  faceSchema,
  outlineSchema,
  stepSchema,
  pocketSchema,
  risingEdgeSchema,
]);
