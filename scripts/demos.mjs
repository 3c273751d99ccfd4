// Starts the demo several times over for the browser tests, two at a time: each has a server and a world of
// its own. DEMOS names them as "port:folder", apart by commas; the world of each is one port above it.
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

/** Starts one after the other of those that wait. */
async function startNext() {
  for (let one = waiting.shift(); one; one = waiting.shift()) {
    const [port, folder] = [Number(one[0]), one[1]]
    const child = spawn(process.execPath, [join(root, 'scripts', 'start.mjs')], {
      cwd: root,
      stdio: ['ignore', 'ignore', 'inherit'],
      env: { ...process.env, PORT: String(port), WORLD_PORT: String(port + 1), DATA_DIR: folder },
    })
    children.push(child)
    const gone = new Promise((resolve) => child.once('exit', resolve))
    await Promise.race([gone, until(`http://localhost:${port + 1}/demo`)])
  }
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

await Promise.all([startNext(), startNext()])
