import { defineConfig } from 'vite';

const WORK = ['start.mjs', 'find-work.ts', 'look-work.ts', 'read-work.ts', 'release-work.ts'];

/** The work processes as plain JavaScript, which starts and runs quicker than what is translated while it runs. */
export default defineConfig({
  root: import.meta.dirname,
  ssr: { noExternal: [/^@yellow-pin\//] },
  build: {
    ssr: true,
    outDir: 'dist',
    emptyOutDir: true,
    target: 'node20',
    rollupOptions: {
      input: Object.fromEntries(WORK.map((file) => [file.replace(/\.\w+$/, ''), `src/work/${file}`])),
      output: { entryFileNames: '[name].mjs', chunkFileNames: 'shared/[name]-[hash].mjs' },
    },
  },
});
