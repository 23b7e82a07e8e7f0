import { defineConfig } from '@playwright/test';

const port = Number(process.env['E2E_PORT'] ?? 4699);

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
  workers: 1,
  retries: 0,
  reporter: [['list']],
  use: {
    baseURL: `http://127.0.0.1:${port}`,
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
  webServer: {
    command: 'node --import tsx server/src/main.ts',
    url: `http://127.0.0.1:${port}/api/health`,
    timeout: 90_000,
    env: {
      PORT: String(port),
      DATABASE_URL: process.env['DATABASE_URL'] ?? '',
      LOG_LEVEL: 'warn',
      YELLOW_PIN_STEP_LIMIT_MB: '5',
    },
  },
});
