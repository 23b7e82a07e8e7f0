import { Box, Flex } from '@chakra-ui/react';
import type { Row } from '@yellow-pin/core/job/derive';
import type { LengthUnit } from '@yellow-pin/core/units/length';
import { usePicked } from '../job/store.ts';
import { LineButton } from '../kit/Chip.tsx';
import { Quiet } from '../kit/Quiet.tsx';
import { HoleActs } from './HoleActs.tsx';
import { holeLines } from './hole-list.ts';
import { HoleTable } from './HoleTable.tsx';

/** Rows of the table at most: the rest is in the list that is copied or saved. */
const MOST = 400;

/** Where each hole of a row is; to be copied, or kept as a file. */
export function Places({ row, unit }: { row: Row; unit: LengthUnit }) {
  const { hole, pick } = usePicked('hole', 'pick');
  const lines = holeLines([row], unit);
  return (
    <Box marginTop="4px">
      <Box
        tabIndex={0}
        role="region"
        aria-label={`Places of ${row.tag}`}
        maxHeight="170px"
        overflowY="auto"
        borderWidth="1px"
        borderColor="rule"
        background="field"
      >
        <HoleTable
          lines={lines.slice(0, MOST)}
          unit={unit}
          className="places"
          inHand={hole}
          label={(h, i) => (
            <LineButton
              width="auto"
              paddingInline="4px"
              fontFamily="mono"
              aria-pressed={h.label === hole}
              onClick={() => pick({ hole: h.label, line: null })}
            >
              {h.label}
              {row.holes[i]!.feature.interrupted && <Quiet textStyle="small">crossed</Quiet>}
            </LineButton>
          )}
        />
        {lines.length > MOST && (
          <Quiet as="p" paddingInline="10px">
            and {lines.length - MOST} more
          </Quiet>
        )}
      </Box>
      <Flex gap="5px" marginTop="5px">
        <HoleActs lines={lines} unit={unit} name={row.tag} />
      </Flex>
    </Box>
  );
}
