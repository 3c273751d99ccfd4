import { test as base } from '@playwright/test'
import { until } from './until'

export { expect, type Page } from '@playwright/test'

/** The tests of a spec begin once its own demo has a workspace ready; the world's port is one above the server's. */
export const test = base.extend<object, { demoIsUp: undefined }>({
  demoIsUp: [
    // eslint-disable-next-line no-empty-pattern -- Playwright reads from it which fixtures are wanted: none.
    async ({}, use, { project }) => {
      const at = new URL(project.use.baseURL ?? '')
      const seed = `http://localhost:${Number(at.port) + 1}/demo/seed.zip`
      await until(async () => (await fetch(seed).catch(() => null))?.ok === true, 180_000)
      await use(undefined)
    },
    { scope: 'worker', auto: true, timeout: 190_000 },
  ],
})
