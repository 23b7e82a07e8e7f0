import { defineConfig } from 'vitest/config';

export default defineConfig({
  test: {
    include: ['{core,kernel,server,web,cli,demo}/src/**/*.test.{ts,tsx}', 'scripts/**/*.test.mjs'],
    // The kernel prints a page about each file it writes.
    silent: 'passed-only',
    testTimeout: 60_000,
    hookTimeout: 120_000,
    // Two cores: the kernel's own thread and the database want one of them.
    maxWorkers: 2,
  },
});
