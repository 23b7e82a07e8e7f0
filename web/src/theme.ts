import { createSystem, defaultConfig, defineConfig } from '@chakra-ui/react';

/** Daylight on paper: warm ground, graphite ink, yellow for tags and the one thing in hand. */
export const system = createSystem(
  defaultConfig,
  defineConfig({
    globalCss: { 'html, body': { background: 'var(--paper)', color: 'var(--ink)', margin: 0 } },
    theme: {
      tokens: {
        fonts: {
          body: { value: "'Atkinson Hyperlegible Next Variable', sans-serif" },
          heading: { value: "'Atkinson Hyperlegible Next Variable', sans-serif" },
          mono: { value: "'Atkinson Hyperlegible Mono Variable', monospace" },
        },
      },
    },
  }),
);
