import { defineConfig } from '@playwright/test'

// What tests start makes no backups in anybody’s home.
process.env.BACKUPS ??= 'off'

export default defineConfig({
  testDir: 'tests/browser',
  globalSetup: './tests/browser/cluster.ts',
  timeout: 600_000,
  expect: { timeout: 60_000, toPass: { timeout: 240_000 } },
  workers: 2,
  fullyParallel: false,
  reporter: [['list'], ['json', { outputFile: '.data/browser-tests.json' }]],
  use: {
    viewport: { width: 1280, height: 800 },
    locale: 'en-GB',
    timezoneId: 'Europe/London',
    trace: 'off',
    actionTimeout: 120_000,
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
        // Pages are drawn without a graphics card, whose imitation took as much time as all else; models still have it.
        '--disable-gpu',
        '--enable-unsafe-swiftshader',
        '--host-resolver-rules=MAP * ~NOTFOUND, EXCLUDE 127.0.0.*, EXCLUDE localhost',
      ],
    },
  },
})
