// npm run serve: the server alone, for real use: built once, run without a compiler and without the demo.
import { spawn } from 'node:child_process'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { build } from './build.mjs'
import { installPackages } from './install.mjs'

const root = join(dirname(fileURLToPath(import.meta.url)), '..')
installPackages(root)
const built = await Promise.all([build(root, 'application'), build(root, 'server')])
if (built.includes(false)) process.exit(1)

const child = spawn(process.execPath, [join(root, 'dist', 'server', 'main.js')], {
  cwd: root,
  env: { ...process.env, APP_DIR: join(root, 'dist', 'app'), WORLD_URL: '' },
  stdio: 'inherit',
})
child.on('exit', (code) => process.exit(code ?? 1))
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => child.kill(signal))
