import { spawn } from 'node:child_process'
import { join } from 'node:path'
import { chromium } from '@playwright/test'
import { temporaryFolder, until } from './servers'

/** Starts the whole demo on two ports, with an empty folder of its own, and gives its address once it is up. */
export async function startDemo(
  port: number,
  worldPort: number,
): Promise<{ base: string; stop: () => void }> {
  const folder = temporaryFolder()
  const demo = spawn(process.execPath, ['scripts/start.mjs'], {
    cwd: join(import.meta.dirname, '..'),
    stdio: 'ignore',
    env: { ...process.env, PORT: String(port), WORLD_PORT: String(worldPort), DATA_DIR: folder.path },
  })
  const up = async (): Promise<boolean> =>
    (await fetch(`http://localhost:${worldPort}/demo`).catch(() => null))?.ok === true
  await until(up, 180_000)
  return {
    base: `http://localhost:${port}`,
    stop: () => {
      demo.kill('SIGTERM')
      folder.remove()
    },
  }
}

/** A page in Debian's Chromium, of the size the screens are drawn for. */
export async function openPage() {
  const browser = await chromium.launch({
    executablePath: process.env['CHROMIUM'] ?? '/usr/bin/chromium',
    args: ['--no-sandbox', '--disable-background-networking'],
  })
  const context = await browser.newContext({
    viewport: { width: 1280, height: 800 },
    timezoneId: 'Europe/Lisbon',
    reducedMotion: 'reduce',
  })
  return { browser, page: await context.newPage() }
}
