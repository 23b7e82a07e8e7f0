import { test as base } from '@playwright/test';

const ports = (process.env['E2E_PORTS'] ?? '4699').split(',');

/** A test on its worker's own server. */
export const test = base.extend({
  // The runner reads the pattern to know what the fixture needs: nothing.
  // eslint-disable-next-line no-empty-pattern
  baseURL: async ({}, use, { parallelIndex }) => use(`http://127.0.0.1:${ports[parallelIndex] ?? ports[0]}`),
});
export { expect, type Locator, type Page } from '@playwright/test';
