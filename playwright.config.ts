import { defineConfig } from '@playwright/test'

export default defineConfig({
  testDir: 'tests/browser',
  workers: 1,
  retries: 0,
  // generous: a busy machine is four times slower than an idle one
  timeout: 300_000,
  expect: { timeout: 30_000 },
  outputDir: '.data/test/browser',
  use: {
    actionTimeout: 30_000,
    baseURL: process.env.HANTVERK_BASE,
    testIdAttribute: 'data-test',
    viewport: { width: 1280, height: 800 },
    timezoneId: 'Europe/Stockholm',
    locale: 'en-GB',
    // each test is a device of its own, and would fetch the whole program first; tests/browser/offline.test.ts does
    serviceWorkers: 'block',
    launchOptions: {
      executablePath: '/usr/bin/chromium',
      args: [
        '--no-sandbox',
        '--disable-gpu',
        '--disable-quic',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
        '--disable-dev-shm-usage',
      ],
    },
  },
})
