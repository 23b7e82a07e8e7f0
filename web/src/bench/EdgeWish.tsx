import { Button, Flex } from '@chakra-ui/react';
import { familyOf } from '@yellow-pin/core/features/registry';
import { isTogether, type Together } from '@yellow-pin/core/features/edge/together';
import type { Row } from '@yellow-pin/core/job/derive';
import { MOST_EDGE_BREAK } from '@yellow-pin/core/plan/plan';
import { useJob } from '../job/job-view.ts';
import { changePlan, decideMany } from '../job/store.ts';
import { LengthField } from '../kit/LengthField.tsx';
import { Quiet } from '../kit/Quiet.tsx';

/** Width that all sharp edges get where nobody says another, mm. */
const USUAL = { mm: 0.2, inch: 0.254 };

/** The one field for all sharp edges of a job: as they are, or broken by a width (ISO 13715). */
export function EdgeWish() {
  const { plan } = useJob();
  if (plan.edgeBreak === null)
    return (
      <Button size="2xs" variant="outline" onClick={() => changePlan({ edgeBreak: USUAL[plan.units] })}>
        Break all sharp edges
      </Button>
    );
  return (
    <Flex align="center" gap="5px">
      <Quiet textStyle="small">all sharp edges broken by</Quiet>
      <LengthField
        value={plan.edgeBreak}
        unit={plan.units}
        label="Width of all broken edges"
        width="66px"
        refuse={(mm) => (mm > 0 && mm <= MOST_EDGE_BREAK ? null : 'Above nothing, and no chamfer.')}
        onChange={(edgeBreak) => changePlan({ edgeBreak })}
      />
      <Quiet textStyle="small">× 45° (ISO 13715)</Quiet>
      <Button size="2xs" variant="outline" onClick={() => changePlan({ edgeBreak: null })}>
        leave them sharp
      </Button>
    </Flex>
  );
}

const WHICH: readonly (readonly [Together, string])[] = [
  ['face', 'all of this face'],
  ['side', 'all of this side'],
];

/** An edge that nothing asks for: it is broken alone, with all round its face, or with all that are seen from its side. */
export function BreakEdges({ row }: { row: Row }) {
  const { rows } = useJob();
  const [own] = row.size.features;
  const [way] = row.methods;
  if (!own || !way || !familyOf(own).isBrokenOnWish) return null;
  const together = (how: Together): Row[] =>
    rows.filter(
      (r) =>
        r.state === 'optional' &&
        r.size.features.some((f) => row.size.features.some((o) => isTogether(o, f, how))),
    );
  return (
    <>
      <Button size="2xs" onClick={() => decideMany([row.size.key], { method: way.id })}>
        Break it
      </Button>
      {WHICH.map(([how, words]) => {
        const meant = together(how);
        return (
          meant.length > 1 && (
            <Button
              key={how}
              size="2xs"
              variant="outline"
              onClick={() =>
                decideMany(
                  meant.map((r) => r.size.key),
                  { method: way.id },
                )
              }
            >
              Break {words}
            </Button>
          )
        );
      })}
      <EdgeWish />
    </>
  );
}
