import { mkdtempSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { defineConfig } from '@playwright/test'

const port = Number(process.env['E2E_PORT'] ?? 4610)
const dataDir = process.env['E2E_DATA'] ?? mkdtempSync(join(tmpdir(), 'dripline-e2e-'))
process.env['E2E_DATA'] = dataDir

export default defineConfig({
  testDir: 'e2e',
  testMatch: '*.spec.ts',
  fullyParallel: false,
  workers: 1,
  timeout: 120_000,
  expect: { timeout: 15_000 },
  reporter: [['list'], ['json', { outputFile: 'test-results/e2e.json' }]],
  use: {
    baseURL: `http://localhost:${port}`,
    viewport: { width: 1280, height: 800 },
    timezoneId: 'Europe/Lisbon',
    trace: 'retain-on-failure',
    actionTimeout: 12_000,
    launchOptions: {
      executablePath: process.env['CHROMIUM'] ?? '/usr/bin/chromium',
      args: [
        '--no-sandbox',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
        '--no-first-run',
      ],
    },
  },
  webServer: {
    command: 'node scripts/start.mjs',
    url: `http://localhost:${port + 1}/demo`,
    timeout: 180_000,
    stdout: 'ignore',
    stderr: 'pipe',
    gracefulShutdown: { signal: 'SIGTERM', timeout: 5000 },
    env: { PORT: String(port), WORLD_PORT: String(port + 1), DATA_DIR: dataDir },
  },
})
