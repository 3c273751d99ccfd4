// Starts the demo several times over for the browser tests: each has a server and a world of its own.
// DEMOS names them as "port:folder", apart by commas; the world of each is one port above it.
import { spawn } from 'node:child_process'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'

const root = join(dirname(fileURLToPath(import.meta.url)), '..')
const waiting = (process.env.DEMOS ?? '').split(',').map((one) => one.split(':'))
const children = []

function stop() {
  for (const child of children) child.kill('SIGTERM')
  setTimeout(() => process.exit(0), 1000)
}
process.on('SIGINT', stop)
process.on('SIGTERM', stop)

/** Starts one and waits until it has its first workspace ready, or has ended. */
async function start([port, folder]) {
  const child = spawn(process.execPath, [join(root, 'scripts', 'start.mjs')], {
    cwd: root,
    stdio: ['ignore', 'ignore', 'inherit'],
    env: { ...process.env, PORT: port, WORLD_PORT: String(Number(port) + 1), DATA_DIR: folder },
  })
  children.push(child)
  const gone = new Promise((resolve) => child.once('exit', resolve))
  await Promise.race([gone, until(`http://localhost:${Number(port) + 1}/demo/seed.zip`)])
}

async function until(url) {
  for (;;) {
    const up = await fetch(url).then(
      (r) => r.ok,
      () => false,
    )
    if (up) return
    await new Promise((resolve) => setTimeout(resolve, 200))
  }
}

// The tests begin with the first ones; the others come up one by one beside them, and their tests wait for that.
await Promise.all(waiting.splice(0, 2).map(start))
for (const one of waiting) await start(one)
