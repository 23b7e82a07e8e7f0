import { defineConfig } from 'vitest/config';

const common = {
  // The kernel prints a page about each file it writes.
  silent: 'passed-only' as const,
  testTimeout: 60_000,
  hookTimeout: 120_000,
};

export default defineConfig({
  test: {
    // Two cores: the kernel's own thread and the database want one of them.
    maxWorkers: 2,
    projects: [
      {
        // What computes keeps no state of its own: files share a process, and the kernel is loaded once for all of them.
        test: {
          ...common,
          name: 'computing',
          include: ['{core,kernel,web,cli,demo}/src/**/*.test.{ts,tsx}'],
          isolate: false,
        },
      },
      {
        // What serves starts processes, threads and databases: each file has a process of its own.
        test: {
          ...common,
          name: 'serving',
          include: ['server/src/**/*.test.ts', 'scripts/**/*.test.mjs'],
        },
      },
    ],
  },
});
