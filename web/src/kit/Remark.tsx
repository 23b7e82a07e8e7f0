import { Text, type TextProps } from '@chakra-ui/react';

export type Severity = 'error' | 'warning' | 'note';

const SIGN: Record<Severity, string> = { error: '■', warning: '▲', note: '○' };
const COLOUR: Record<Severity, string> = { error: 'error', warning: 'warning', note: 'quiet' };

/** The sign of a severity: a shape of its own, so that it is told without its colour. */
export const Sign = ({ severity }: { severity: Severity }) => (
  <Text as="span" aria-hidden="true" color={COLOUR[severity]}>
    {SIGN[severity]}
  </Text>
);

/** Something to know about a row or a program, by how much it matters. */
export function Remark({ severity, children, ...rest }: TextProps & { severity: Severity }) {
  return (
    <Text
      role="note"
      display="flex"
      gap="6px"
      alignItems="baseline"
      margin="3px 0"
      color={COLOUR[severity]}
      {...rest}
    >
      <Sign severity={severity} />
      <span>{children}</span>
    </Text>
  );
}
