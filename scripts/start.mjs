// npm start: installs what is missing, builds, and runs the server and the stand-in world.
import { spawn } from 'node:child_process'
import { createServer } from 'node:net'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { installPackages, runShown } from './install.mjs'
import { isOlder } from './older.mjs'

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
if (
  !dev &&
  isOlder(root, join(root, 'dist', 'app', 'index.html'), [
    'app',
    'core',
    'package-lock.json',
    'vite.config.ts',
  ])
) {
  console.log('Building the application …')
  if (!runShown('npx', ['vite', 'build', '--logLevel', 'warn'], { cwd: root })) process.exit(1)
}

const env = {
  ...process.env,
  PORT: String(port),
  WORLD_PORT: String(worldPort),
  WORLD_URL: `http://localhost:${worldPort}`,
  COUNTS_URL: `http://localhost:${worldPort}/counts`,
  SERVER_URL: `http://localhost:${port}`,
  APP_DIR: join(root, 'dist', 'app'),
  // What Node has compiled once is kept, so that the next start costs half as much.
  NODE_COMPILE_CACHE: process.env.NODE_COMPILE_CACHE ?? join(root, 'node_modules', '.cache', 'compiled'),
  ...(dev ? { APP_ORIGINS: `http://localhost:${appPort}`, APP_PORT: String(appPort) } : {}),
}
const children = [run(['--import', 'tsx', 'server/main.ts']), run(['--import', 'tsx', 'demo/world.ts'])]
if (dev)
  children.push(
    run([join(root, 'node_modules', 'vite', 'bin', 'vite.js'), '--port', String(appPort), '--strictPort']),
  )

function run(args) {
  const child = spawn(process.execPath, args, { cwd: root, env, stdio: 'inherit' })
  // One that was killed by a signal has no code: that is no good end either.
  child.on('exit', (code) => stop(code ?? 1))
  return child
}

let stopping = false
function stop(code) {
  if (stopping) return
  stopping = true
  for (const child of children) child.kill('SIGTERM')
  setTimeout(() => process.exit(code), 200)
}
process.on('SIGINT', () => stop(0))
process.on('SIGTERM', () => stop(0))

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
