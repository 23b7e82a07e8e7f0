import { Button, useRecipe, type ButtonProps } from '@chakra-ui/react';
import { chipRecipe, lineRecipe } from '../look/recipes.ts';

interface ChipProps extends Omit<ButtonProps, 'onToggle'> {
  /** Chosen or not; left away where the chip does something once. */
  on?: boolean;
}

/** A small choice among others, or a small thing to do. */
export function Chip({ on, ...props }: ChipProps) {
  const recipe = useRecipe({ recipe: chipRecipe });
  return <Button unstyled css={recipe()} type="button" aria-pressed={on} {...props} />;
}

/** A button that is a whole line of text. */
export function LineButton(props: ButtonProps) {
  const recipe = useRecipe({ recipe: lineRecipe });
  return <Button unstyled css={recipe()} type="button" {...props} />;
}
