import { Fieldset, useRecipe } from '@chakra-ui/react';
import type { ReactNode } from 'react';
import { panelRecipe } from '../look/recipes.ts';

/** Settings that belong together. */
export function Panel({ name, children }: { name: string; children: ReactNode }) {
  const recipe = useRecipe({ recipe: panelRecipe });
  return (
    <Fieldset.Root css={{ ...recipe(), '& > *': { marginBlock: '0 !important' } }}>
      <Fieldset.Legend paddingInline="6px" fontWeight="700" fontSize="14px" color="ink">
        {name}
      </Fieldset.Legend>
      {children}
    </Fieldset.Root>
  );
}
