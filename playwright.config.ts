import { defineConfig } from '@playwright/test'

export default defineConfig({
  testDir: 'tests/browser',
  globalSetup: './tests/browser/cluster.ts',
  timeout: 600_000,
  expect: { timeout: 60_000 },
  workers: 2,
  fullyParallel: false,
  reporter: [['list'], ['json', { outputFile: '.data/browser-tests.json' }]],
  use: {
    viewport: { width: 1280, height: 800 },
    locale: 'en-GB',
    timezoneId: 'Europe/London',
    trace: 'off',
    launchOptions: {
      executablePath: '/usr/bin/chromium',
      args: [
        ...(process.getuid?.() === 0 ? ['--no-sandbox'] : []),
        '--disable-dev-shm-usage',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
        '--no-first-run',
        '--disable-quic',
        '--use-angle=swiftshader',
        '--enable-unsafe-swiftshader',
        '--host-resolver-rules=MAP * ~NOTFOUND, EXCLUDE 127.0.0.*, EXCLUDE localhost',
      ],
    },
  },
})
