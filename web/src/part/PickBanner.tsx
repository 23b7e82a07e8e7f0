import { Box, Button, Flex } from '@chakra-ui/react';
import { FieldSays } from '../kit/FieldSays.tsx';
import { usePick, type Picking } from '../job/store.ts';
import { prompt } from '../setup/take-look.ts';
import { PickList } from './PickList.tsx';

interface Props {
  picking: Picking;
  said: string | null;
  onEdges(edges: number[]): void;
}

/** Says what the next click on the part is for, and why the last one did nothing; and the same choice as a list, for the keyboard. */
export function PickBanner({ picking, said, onEdges }: Props) {
  const pick = usePick((s) => s.pick);
  return (
    <Flex
      position="absolute"
      top="46px"
      insetInline="12px"
      gap="8px"
      align="center"
      wrap="wrap"
      padding="8px 10px"
      background="sheet"
      borderWidth="2px"
      borderColor="yellow"
      borderRadius="4px"
      zIndex="4"
      role="status"
    >
      <Box flex="1" minWidth="180px">
        <b>{prompt(picking)}</b>
        {said && <FieldSays>{said}</FieldSays>}
      </Box>
      <PickList picking={picking} />
      {picking.for === 'edges' && (
        <Button size="xs" disabled={picking.got.length === 0} onClick={() => onEdges(picking.got)}>
          Take these edges
        </Button>
      )}
      <Button size="xs" onClick={() => pick({ picking: null, pickSaid: null })}>
        Cancel (Esc)
      </Button>
    </Flex>
  );
}
