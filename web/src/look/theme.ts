import { createSystem, defaultConfig, defineConfig } from '@chakra-ui/react';
import { PALETTE } from './palette.ts';

const both = ([base, dark]: readonly [string, string]) => ({ value: { base, _dark: dark } });
const p = (name: keyof typeof PALETTE) => both(PALETTE[name]);

const SANS = "'Atkinson Hyperlegible Next Variable', sans-serif";

/** Our look as the kit's theme: its own names for grounds, letters and rules mean our paper and ink, so every component follows. */
export const system = createSystem(
  defaultConfig,
  defineConfig({
    cssVarsPrefix: 'yp',
    globalCss: {
      'html, body, #root': { height: '100%', margin: 0 },
      // Pages longer than the window go on in the same colour.
      html: { colorPalette: 'gray', background: 'paper' },
      body: { background: 'paper', color: 'ink', fontSize: '14px', lineHeight: '1.4' },
      ':focus-visible': { outline: '2px solid var(--yp-colors-ink) !important', outlineOffset: '2px' },
      '*, *::before, *::after': {
        '@media (prefers-reduced-motion: reduce)': {
          animationDuration: '0.01ms !important',
          transitionDuration: '0.01ms !important',
        },
      },
    },
    theme: {
      tokens: {
        fonts: {
          body: { value: SANS },
          heading: { value: SANS },
          mono: { value: "'Atkinson Hyperlegible Mono Variable', monospace" },
        },
      },
      semanticTokens: {
        colors: {
          ...Object.fromEntries(Object.entries(PALETTE).map(([name, pair]) => [name, both(pair)])),
          bg: {
            DEFAULT: p('sheet'),
            subtle: p('paper'),
            muted: p('hover'),
            emphasized: p('trough'),
            panel: p('sheet'),
            error: p('error-ground'),
          },
          fg: { DEFAULT: p('ink'), muted: p('quiet'), subtle: p('quiet'), error: p('error') },
          border: { DEFAULT: p('rule'), muted: p('rule-soft'), emphasized: p('edge'), error: p('error') },
          gray: {
            solid: p('ink'),
            contrast: p('sheet'),
            fg: p('ink'),
            muted: p('hover'),
            subtle: p('hover'),
            emphasized: p('trough'),
            focusRing: p('ink'),
          },
        },
      },
      textStyles: {
        title: { value: { fontSize: '24px', fontWeight: '700', lineHeight: '1.25' } },
        heading: { value: { fontSize: '16px', fontWeight: '700', lineHeight: '1.3' } },
        small: { value: { fontSize: '12px', lineHeight: '1.35' } },
        num: { value: { fontFamily: 'mono', fontVariantNumeric: 'tabular-nums' } },
      },
      recipes: {
        button: {
          base: { fontWeight: '400', borderRadius: '4px', minWidth: '0' },
          variants: {
            size: {
              '2xs': { height: '24px', minWidth: '24px', fontSize: '13px', px: '6px', gap: '4px' },
              xs: { height: '28px', minWidth: '28px', fontSize: '14px', px: '9px', gap: '5px' },
              sm: { height: '30px', minWidth: '30px', fontSize: '14px', px: '10px', gap: '6px' },
            },
            variant: {
              outline: {
                background: 'field',
                borderColor: 'rule',
                color: 'ink',
                _hover: { background: 'field', borderColor: 'ink' },
                '&[aria-pressed=true]': { background: 'ink', color: 'sheet', borderColor: 'ink' },
              },
            },
          },
          defaultVariants: { variant: 'outline', size: 'sm' },
        },
        input: {
          base: { borderRadius: '3px', minWidth: '0' },
          variants: {
            size: { xs: { '--input-height': '28px', px: '7px', textStyle: 'unset', fontSize: '14px' } },
            variant: { outline: { background: 'field', borderColor: 'rule', color: 'ink' } },
          },
          defaultVariants: { size: 'xs', variant: 'outline' },
        },
      },
    },
  }),
);
