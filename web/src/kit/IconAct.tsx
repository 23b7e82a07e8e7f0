import { IconButton, type IconButtonProps } from '@chakra-ui/react';
import { Tip } from './Tip.tsx';

interface Props extends IconButtonProps {
  /** What it does: read aloud, and shown when one points at it. */
  label: string;
  /** Said in addition when one points at it, such as its key. */
  hint?: string;
}

/** A thing to do that is drawn, not written. */
export function IconAct({ label, hint, ...props }: Props) {
  return (
    <Tip text={hint ?? label}>
      <IconButton variant="ghost" size="xs" color="inherit" aria-label={label} type="button" {...props} />
    </Tip>
  );
}
