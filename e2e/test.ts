import { spawn } from 'node:child_process'
import { existsSync } from 'node:fs'
import { join } from 'node:path'
import { test as base } from '@playwright/test'
import { layFreshSpool } from '../server/testing/freshSpool'
import { until } from './until'

export { expect, type Locator, type Page } from '@playwright/test'

/**
 * The specs of a project have a demo, with a server and a world (one port above it), which is there while their tests run and no
 * longer: all of them at once would want four gigabytes. Its spool is a copy of an empty one, which takes seconds to make.
 */
export const test = base.extend<object, { demoIsUp: undefined }>({
  demoIsUp: [
    // eslint-disable-next-line no-empty-pattern -- Playwright reads from it which fixtures are wanted: none.
    async ({}, ready, { project }) => {
      const { port } = new URL(project.use.baseURL ?? '')
      const worldPort = Number(port) + 1
      const folder = String(project.metadata['folder'])
      if (!existsSync(join(folder, 'spool'))) await layFreshSpool(folder)
      const demo = spawn(process.execPath, [join(import.meta.dirname, '../scripts/start.mjs')], {
        stdio: ['ignore', 'ignore', 'inherit'],
        env: {
          ...process.env,
          PORT: port,
          WORLD_PORT: String(worldPort),
          DATA_DIR: folder,
        },
      })
      const gone = new Promise<void>((resolve) => demo.once('exit', () => resolve()))
      try {
        // The tests begin once it has a workspace ready.
        await until(
          async () =>
            (await fetch(`http://localhost:${worldPort}/demo/seed.zip`).catch(() => null))?.ok === true,
          180_000,
        )
        await ready(undefined)
      } finally {
        demo.kill('SIGTERM')
        await gone
      }
    },
    { scope: 'worker', auto: true, timeout: 190_000 },
  ],
})
