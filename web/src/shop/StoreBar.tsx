import { Button, Flex } from '@chakra-ui/react';
import { Copy, Trash2 } from 'lucide-react';
import { FieldSays } from '../kit/FieldSays.tsx';

interface Props {
  /** It stands in the list already. */
  isStored: boolean;
  isChanged: boolean;
  /** Why it cannot be stored as it is, and what the server said; each once. */
  faults: readonly string[];
  /** Whether what stands here keeps it from being stored. */
  isRefused: boolean;
  busy: 'storing' | 'taking away' | null;
  copyWords?: string;
  /** Those that come with the program can only be copied. */
  isFixed?: boolean;
  onStore(): void;
  onGiveUp(): void;
  onCopy(): void;
  onTakeAway(): void;
}

/** What can be done with an entry of one of the shop's lists, with what stands against it. */
export function StoreBar(props: Props) {
  const { isStored, isChanged, isRefused, busy, isFixed = false, faults } = props;
  return (
    <>
      {[...new Set(faults)].map((f) => (
        <FieldSays key={f}>{f}</FieldSays>
      ))}
      <Flex gap="8px" wrap="wrap" align="center" marginTop="10px">
        {!isFixed && (
          <Button
            size="sm"
            disabled={!isChanged || isRefused}
            loading={busy === 'storing'}
            onClick={props.onStore}
          >
            {isStored ? 'Store the changes' : 'Add it to the list'}
          </Button>
        )}
        {isChanged && isStored && !isFixed && (
          <Button size="sm" variant="outline" onClick={props.onGiveUp}>
            Give them up
          </Button>
        )}
        <Button size="sm" variant="outline" onClick={props.onCopy}>
          <Copy size={15} /> {props.copyWords ?? 'Copy'}
        </Button>
        {!isFixed && (
          <Button size="sm" variant="outline" loading={busy === 'taking away'} onClick={props.onTakeAway}>
            <Trash2 size={15} /> Take away
          </Button>
        )}
      </Flex>
    </>
  );
}
