import { mkdtempSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { defineConfig } from '@playwright/test'
import { freePairs } from './e2e/ports'

/**
 * The specs that share a server and a world, one after the other: several groups run side by side, the longest first. A
 * group's demo takes half a minute of the machine's work to begin, and moves its time for all: those that move it far have
 * one of their own.
 */
const GROUPS = {
  writing: ['writing'],
  horizon: ['horizon'],
  journey: ['journey'],
  screens: ['screens', 'faults', 'intake'],
  week: ['week'],
}
const NAMES = Object.keys(GROUPS) as (keyof typeof GROUPS)[]

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
  timeout: 300_000,
  // Long enough for a busy machine: what passes does not wait for it.
  expect: { timeout: 60_000 },
  reporter: [['list'], ['json', { outputFile: 'test-results/e2e.json' }]],
  use: {
    viewport: { width: 1280, height: 800 },
    timezoneId: 'Europe/Lisbon',
    // A trace costs a third of the time: ask for one with --trace on.
    trace: 'off',
    actionTimeout: 60_000,
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
  projects: SPECS.map(({ name, port, folder }) => ({
    name,
    workers: 1,
    testMatch: GROUPS[name].map((spec) => `${spec}.spec.ts`),
    use: { baseURL: `http://localhost:${port}` },
    metadata: { folder },
  })),
})
