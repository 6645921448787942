import { defineConfig } from '@playwright/test'

export default defineConfig({
  testDir: 'tests/browser',
  workers: 1,
  retries: 0,
  timeout: 90_000,
  expect: { timeout: 10_000 },
  outputDir: '.data/test/browser',
  use: {
    actionTimeout: 20_000,
    baseURL: process.env.HANTVERK_BASE, testIdAttribute: 'data-test', viewport: { width: 1280, height: 800 }, timezoneId: 'Europe/Stockholm', locale: 'en-GB',
    launchOptions: { executablePath: '/usr/bin/chromium', args: ['--no-sandbox', '--disable-gpu', '--disable-quic', '--no-first-run', '--disable-background-networking', '--disable-component-update', '--disable-sync', '--disable-dev-shm-usage'] },
  },
})
