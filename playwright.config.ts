import { defineConfig } from '@playwright/test'
import { LONG } from './tests/long'

export default defineConfig({
  testDir: 'tests/e2e',
  outputDir: 'test-results',
  fullyParallel: false,
  workers: 2,
  // Other ways to what is shown already, each view by itself, and what takes long: `npm run test:long` goes them too.
  grepInvert: LONG ? undefined : /@long/,
  retries: 0,
  forbidOnly: true,
  timeout: 150_000,
  // No measure of speed: a machine that others share stands still for many seconds at times.
  expect: { timeout: 25_000 },
  globalSetup: './tests/e2e/server.ts',
  reporter: [
    ['list'],
    ['json', { outputFile: process.env.RIDGEWAY_BROWSER_REPORT ?? 'test-results/report.json' }]
  ],
  use: {
    viewport: { width: 1280, height: 800 },
    contextOptions: { reducedMotion: 'reduce' },
    screenshot: 'only-on-failure',
    launchOptions: {
      executablePath: '/usr/bin/chromium',
      args: [
        '--no-sandbox',
        '--disable-gpu',
        '--disable-quic',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync'
      ]
    }
  }
})
