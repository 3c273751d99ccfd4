// What is built here, and from what: each only where it is missing or older than that.
import { spawn } from 'node:child_process'
import { join } from 'node:path'
import { isOlder } from './older.mjs'

const PARTS = {
  application: {
    file: 'dist/app/index.html',
    from: ['app', 'core', 'package-lock.json', 'vite.config.ts'],
    config: 'vite.config.ts',
  },
  server: {
    file: 'dist/server/main.js',
    from: ['server', 'core', 'package-lock.json', 'vite.server.config.ts'],
    config: 'vite.server.config.ts',
  },
  demo: {
    file: 'dist/demo/world.js',
    from: ['demo', 'world', 'core', 'package-lock.json', 'vite.demo.config.ts'],
    config: 'vite.demo.config.ts',
  },
}

/** Builds the application, the server or the demo's world if it has to be; gives whether it stands. */
export async function build(root, name) {
  const { file, from, config } = PARTS[name]
  if (!isOlder(root, join(root, file), from)) return true
  console.log(`Building the ${name} …`)
  const vite = join(root, 'node_modules', 'vite', 'bin', 'vite.js')
  const child = spawn(process.execPath, [vite, 'build', '--logLevel', 'warn', '-c', config], {
    cwd: root,
    stdio: 'inherit',
  })
  return (await new Promise((resolve) => child.on('exit', resolve))) === 0
}
