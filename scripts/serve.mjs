// npm run serve: the server alone, for real use: built once, run without a compiler and without the demo.
import { spawn } from 'node:child_process'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { installPackages, runShown } from './install.mjs'
import { isOlder } from './older.mjs'

const root = join(dirname(fileURLToPath(import.meta.url)), '..')
installPackages(root)
const app = join(root, 'dist', 'app', 'index.html')
const server = join(root, 'dist', 'server', 'main.js')
const build = (name, args) => {
  console.log(`Building ${name} …`)
  if (!runShown('npx', ['vite', 'build', '--logLevel', 'warn', ...args], { cwd: root })) process.exit(1)
}
if (isOlder(root, app, ['app', 'core', 'package-lock.json', 'vite.config.ts'])) build('the application', [])
if (isOlder(root, server, ['server', 'core', 'package-lock.json']))
  build('the server', ['-c', 'vite.server.config.ts'])

const child = spawn(process.execPath, [server], {
  cwd: root,
  env: { ...process.env, APP_DIR: join(root, 'dist', 'app'), WORLD_URL: '' },
  stdio: 'inherit',
})
child.on('exit', (code) => process.exit(code ?? 1))
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => child.kill(signal))
