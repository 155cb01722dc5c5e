import { defineConfig } from '@playwright/test'

export default defineConfig({
  testDir: '.',
  testMatch: '*.e2e.ts',
  // Nothing is hurried: on a busy machine all takes many times as long, and only what never comes is a failure.
  timeout: 600_000,
  expect: { timeout: 60_000 },
  workers: 1,
  reporter: [['list'], ['json']],
  outputDir: '../.local/test/browser',
  globalSetup: './globalSetup.ts',
  use: {
    viewport: { width: 1280, height: 800 },
    acceptDownloads: true,
    actionTimeout: 60_000,
    trace: 'off',
    launchOptions: {
      executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
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
})
