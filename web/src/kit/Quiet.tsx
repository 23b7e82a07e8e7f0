import { Text, type TextProps } from '@chakra-ui/react';

/** Words that stand back: units, sources, explanations. */
export const Quiet = (props: TextProps) => <Text as="span" color="quiet" {...props} />;

/** Figures, in columns that stand under each other. */
export const Num = (props: TextProps) => <Text as="span" textStyle="num" {...props} />;
