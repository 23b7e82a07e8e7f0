import { Button } from '@chakra-ui/react';
import { RotateCcw } from 'lucide-react';

/** Says that a number was typed, and lets the one that is worked out come back. */
export function LetGo({ label, onLetGo }: { label: string; onLetGo(): void }) {
  return (
    <Button
      variant="ghost"
      size="2xs"
      fontSize="12px"
      color="inherit"
      paddingInline="3px"
      aria-label={`Let ${label} go back`}
      title="Let it follow again"
      onClick={onLetGo}
    >
      typed <RotateCcw size={12} aria-hidden="true" />
    </Button>
  );
}
