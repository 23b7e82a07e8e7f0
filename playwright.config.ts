import { defineConfig } from '@playwright/test';

/** A server of its own for each worker, with a database of its own: what one test stores no other sees. */
const databases = (process.env['E2E_DATABASES'] ?? process.env['DATABASE_URL'] ?? '').split(',');
const ports = (process.env['E2E_PORTS'] ?? '4699').split(',').map(Number);

const chromium = (...args: string[]) => ({
  executablePath: process.env['CHROMIUM'] ?? '/usr/bin/chromium',
  args: [
    '--no-sandbox',
    '--disable-quic',
    '--no-first-run',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
    ...args,
  ],
});

export default defineConfig({
  testDir: 'e2e',
  timeout: 90_000,
  expect: { timeout: 20_000 },
  workers: ports.length,
  retries: 0,
  reporter: [['list']],
  use: {
    viewport: { width: 1280, height: 800 },
  },
  projects: [
    // The part in the round is drawn by the processor here, which takes most of a test's time: only what is about it has it.
    {
      name: 'in the round',
      testMatch: 'part.spec.ts',
      use: {
        launchOptions: chromium(
          '--use-angle=swiftshader',
          '--enable-unsafe-swiftshader',
          '--ignore-gpu-blocklist',
        ),
      },
    },
    { name: 'flat', testIgnore: 'part.spec.ts', use: { launchOptions: chromium('--disable-3d-apis') } },
  ],
  webServer: ports.map((port, n) => ({
    command: 'node --import tsx server/src/main.ts',
    url: `http://127.0.0.1:${port}/api/health`,
    timeout: 90_000,
    env: {
      PORT: String(port),
      DATABASE_URL: databases[n] ?? '',
      LOG_LEVEL: 'warn',
      YELLOW_PIN_STEP_LIMIT_MB: '5',
    },
  })),
});
