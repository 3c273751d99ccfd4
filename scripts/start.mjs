// npm start: installs what is missing, builds, and runs the server and the stand-in world.
import { spawn } from 'node:child_process'
import { createServer } from 'node:net'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { build } from './build.mjs'
import { installPackages } from './install.mjs'

const root = join(dirname(fileURLToPath(import.meta.url)), '..')
const dev = process.argv.includes('--dev')
const port = Number(process.env.PORT ?? 4600)
const worldPort = Number(process.env.WORLD_PORT ?? 4601)
const appPort = Number(process.env.APP_PORT ?? 4602)

for (const [name, number] of [
  ['PORT', port],
  ['WORLD_PORT', worldPort],
  ...(dev ? [['APP_PORT', appPort]] : []),
]) {
  if (!(await isFree(number))) {
    console.error(`Port ${number} is in use. Stop what uses it, or set ${name} to another one.`)
    process.exit(1)
  }
}
installPackages(root)
const env = {
  ...process.env,
  PORT: String(port),
  WORLD_PORT: String(worldPort),
  WORLD_URL: `http://localhost:${worldPort}`,
  COUNTS_URL: `http://localhost:${worldPort}/counts`,
  SERVER_URL: `http://localhost:${port}`,
  APP_DIR: join(root, 'dist', 'app'),
  // A Node of version 22 and later keeps what it has compiled once, for the next start.
  NODE_COMPILE_CACHE: process.env.NODE_COMPILE_CACHE ?? join(root, 'node_modules', '.cache', 'compiled'),
  ...(dev ? { APP_ORIGINS: `http://localhost:${appPort}`, APP_PORT: String(appPort) } : {}),
}
let stopping = false
const children = []
process.on('SIGINT', () => stop(0))
process.on('SIGTERM', () => stop(0))
if (dev) {
  run(['--import', 'tsx', 'server/main.ts'])
  run(['--import', 'tsx', 'demo/world.ts'])
  run([join(root, 'node_modules', 'vite', 'bin', 'vite.js'), '--port', String(appPort), '--strictPort'])
} else {
  const built = await Promise.all([build(root, 'demo'), build(root, 'server')])
  if (built.includes(false)) process.exit(1)
  // The world makes the demo's workspace while the application is built.
  run(['dist/demo/world.js'])
  if (await build(root, 'application')) run(['dist/server/main.js'])
  else stop(1)
}

/** Starts one of the programs that run until all are stopped. */
function run(args) {
  if (stopping) return
  const child = spawn(process.execPath, args, { cwd: root, env, stdio: 'inherit' })
  // One that was killed by a signal has no code: that is no good end either.
  child.on('exit', (code) => stop(code ?? 1))
  children.push(child)
}

function stop(code) {
  if (stopping) return
  stopping = true
  for (const child of children) child.kill('SIGTERM')
  setTimeout(() => process.exit(code), 200)
}

const address = `http://localhost:${dev ? appPort : port}`
for (let tries = 0; tries < 300 && !stopping; tries++) {
  if (
    (await answers(`http://localhost:${port}/api/health`)) &&
    (await answers(`http://localhost:${worldPort}/demo`))
  ) {
    console.log(`\nDripline runs at ${address}\nThe stand-in world is at http://localhost:${worldPort}\n`)
    openBrowser(address)
    break
  }
  await new Promise((resolve) => setTimeout(resolve, 200))
}

/** Opens the person's browser where somebody sits at a terminal; it does not matter if it cannot. */
function openBrowser(url) {
  if (!process.stdout.isTTY || process.env.CI) return
  const opener = { darwin: 'open', win32: 'explorer' }[process.platform] ?? 'xdg-open'
  spawn(opener, [url], { stdio: 'ignore', detached: true })
    .on('error', () => undefined)
    .unref()
}

async function answers(url) {
  try {
    return (await fetch(url, { signal: AbortSignal.timeout(1000) })).ok
  } catch {
    return false
  }
}

function isFree(number) {
  return new Promise((resolve) => {
    const probe = createServer()
    probe.once('error', () => resolve(false))
    probe.listen(number, '127.0.0.1', () => probe.close(() => resolve(true)))
  })
}
