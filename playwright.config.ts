import { mkdtempSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { defineConfig } from '@playwright/test'
import { freePairs } from './e2e/ports'

/** Each spec has a server and a world of its own, so that they run side by side; the longest first. */
const NAMES = ['journey', 'horizon', 'screens', 'writing', 'intake', 'faults', 'week']

// Playwright's workers read this file too: ports and folders are chosen once and handed on.
process.env['E2E_PORTS'] ??= (await freePairs(NAMES.length)).join(' ')
const ports = process.env['E2E_PORTS'].split(' ').map(Number)
const SPECS = NAMES.map((name, index) => {
  const folder = (process.env[`E2E_DATA_${index}`] ??= mkdtempSync(join(tmpdir(), 'dripline-e2e-')))
  return { name, port: ports[index] ?? 0, folder }
})

/** The specs that were asked for by `--project=name`, or all. */
const asked = process.argv.flatMap((a) => /^--project=(.*)$/.exec(a)?.[1] ?? [])
const wanted = SPECS.filter(({ name }) => asked.length === 0 || asked.includes(name))

export default defineConfig({
  testDir: 'e2e',
  fullyParallel: false,
  workers: 2,
  timeout: 300_000,
  expect: { timeout: 25_000 },
  reporter: [['list'], ['json', { outputFile: 'test-results/e2e.json' }]],
  use: {
    viewport: { width: 1280, height: 800 },
    timezoneId: 'Europe/Lisbon',
    // A trace costs a third of the time: ask for one with --trace on.
    trace: 'off',
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
  // All of them are started by one command; each spec waits until its own has a workspace ready (e2e/test.ts).
  webServer: {
    command: 'node scripts/demos.mjs',
    url: `http://localhost:${(wanted[0]?.port ?? 0) + 1}/demo/seed.zip`,
    timeout: 240_000,
    stdout: 'ignore',
    stderr: 'pipe',
    gracefulShutdown: { signal: 'SIGTERM', timeout: 5000 },
    env: { DEMOS: wanted.map(({ port, folder }) => `${port}:${folder}`).join(',') },
  },
})
