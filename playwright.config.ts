import { mkdtempSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { defineConfig } from '@playwright/test'
import { freePairs } from './e2e/ports'

/** Each spec has a server and a world of its own, so that they run side by side; the longest first. */
const NAMES = ['journey', 'screens', 'intake', 'writing', 'horizon', 'faults']

// Playwright's workers read this file too: ports and folders are chosen once and handed on.
process.env['E2E_PORTS'] ??= (await freePairs(NAMES.length)).join(' ')
const ports = process.env['E2E_PORTS'].split(' ').map(Number)
const SPECS = NAMES.map((name, index) => {
  const folder = (process.env[`E2E_DATA_${index}`] ??= mkdtempSync(join(tmpdir(), 'dripline-e2e-')))
  return { name, port: ports[index] ?? 0, folder }
})

export default defineConfig({
  testDir: 'e2e',
  fullyParallel: false,
  workers: 2,
  timeout: 180_000,
  expect: { timeout: 25_000 },
  reporter: [['list'], ['json', { outputFile: 'test-results/e2e.json' }]],
  use: {
    viewport: { width: 1280, height: 800 },
    timezoneId: 'Europe/Lisbon',
    trace: 'retain-on-failure',
    actionTimeout: 25_000,
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
  projects: SPECS.map(({ name, port }) => ({
    name,
    testMatch: `${name}.spec.ts`,
    use: { baseURL: `http://localhost:${port}` },
  })),
  webServer: SPECS.map(({ name, port, folder }) => ({
    name,
    command: 'node scripts/start.mjs',
    url: `http://localhost:${port + 1}/demo`,
    timeout: 240_000,
    stdout: 'ignore' as const,
    stderr: 'pipe' as const,
    gracefulShutdown: { signal: 'SIGTERM' as const, timeout: 5000 },
    env: { PORT: String(port), WORLD_PORT: String(port + 1), DATA_DIR: folder },
  })),
})
