import { defineRecipe } from '@chakra-ui/react';

/** What is chosen or current where the system has taken all colours away. */
export const forcedOn = { '@media (forced-colors: active)': { outline: '2px solid Highlight' } };

/** A small choice among others: pressed ones have a strong rim, whatever the colours. */
export const chipRecipe = defineRecipe({
  className: 'chip',
  base: {
    display: 'inline-flex',
    alignItems: 'center',
    gap: '4px',
    minHeight: '26px',
    borderWidth: '1px',
    borderColor: 'rule',
    borderRadius: '13px',
    paddingInline: '10px',
    fontSize: '13px',
    lineHeight: '1.2',
    background: 'field',
    color: 'ink',
    cursor: 'pointer',
    whiteSpace: 'nowrap',
    _hover: { borderColor: 'ink' },
    _disabled: { color: 'quiet', cursor: 'default', borderColor: 'rule', opacity: 0.75 },
    '&[aria-pressed=true], &[aria-selected=true], &[data-state=checked]': {
      borderColor: 'ink',
      boxShadow: 'inset 0 0 0 1px var(--yp-colors-ink)',
      ...forcedOn,
    },
  },
});

/** A button that is all of a line or a place in a picture: a change, a check, a callout. */
export const lineRecipe = defineRecipe({
  className: 'line-button',
  base: {
    display: 'flex',
    gap: '8px',
    alignItems: 'baseline',
    width: '100%',
    minHeight: '24px',
    textAlign: 'left',
    fontSize: '13px',
    color: 'ink',
    paddingBlock: '2px',
    borderRadius: '3px',
    cursor: 'pointer',
    _hover: { background: 'hover' },
  },
});

/** One operation on a rail card: as wide as its time. */
export const barRecipe = defineRecipe({
  className: 'bar',
  base: {
    height: '24px',
    minWidth: '24px',
    padding: '0 3px',
    background: 'trough',
    borderRadius: '2px',
    fontFamily: 'mono',
    fontSize: '11px',
    color: 'ink',
    overflow: 'hidden',
    textAlign: 'left',
    cursor: 'pointer',
    '&[aria-pressed=true]': { background: 'ink', color: 'sheet', ...forcedOn },
  },
});

/** A card of the tool rail. */
export const railCardRecipe = defineRecipe({
  className: 'rail-card',
  base: {
    position: 'relative',
    height: '100%',
    display: 'flex',
    flexDirection: 'column',
    gap: '2px',
    padding: '4px 5px',
    borderWidth: '1px',
    borderColor: 'rule',
    borderRadius: '4px',
    background: 'field',
    fontSize: '12px',
    minWidth: '0',
    '&[data-at-work]': { borderColor: 'ink', boxShadow: 'inset 0 3px 0 0 var(--yp-colors-ink)' },
    '&[data-in-hand]': { borderColor: 'yellow', boxShadow: '0 0 0 2px var(--yp-colors-yellow)', ...forcedOn },
  },
});

/** A group of settings with its name in the rim. */
export const panelRecipe = defineRecipe({
  className: 'panel',
  base: {
    display: 'grid',
    gap: '8px',
    padding: '10px 12px',
    borderWidth: '1px',
    borderColor: 'rule',
    borderRadius: '4px',
    background: 'field',
  },
});
