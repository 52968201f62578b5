import { defineConfig } from '@playwright/test';
import { chromiumPath } from './scripts/chromium.mjs';
import { fontsAlone } from './scripts/fonts.mjs';

export default defineConfig({
  testDir: 'test/browser',
  globalSetup: './test/browser/seeded.ts',
  outputDir: 'test-results/browser',
  // Every file has an application of its own. Browsers wait often: three keep two free cores busy.
  workers: Number(process.env.PW_WORKERS ?? 3),
  retries: 0,
  // A machine that checks a change may be many times busier than the one it was made on.
  timeout: 600_000,
  expect: { timeout: 45_000 },
  reporter: [['list'], ['json', { outputFile: 'test-results/browser.json' }]],
  use: {
    viewport: { width: 1280, height: 800 },
    launchOptions: {
      executablePath: chromiumPath(),
      env: { ...process.env, ...fontsAlone() } as Record<string, string>,
      args: [
        '--no-sandbox',
        '--disable-gpu',
        '--disable-quic',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
      ],
    },
  },
});
