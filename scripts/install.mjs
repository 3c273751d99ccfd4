// Installs what a fresh clone lacks. Nothing is installed twice.
import { spawnSync } from 'node:child_process'
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs'
import { createHash } from 'node:crypto'
import { join } from 'node:path'

/** Runs a command with its output shown; gives whether it succeeded. */
export function runShown(command, args, options = {}) {
  return spawnSync(command, args, { stdio: 'inherit', ...options }).status === 0
}

/** Installs the packages of the lock file unless exactly these are there. */
export function installPackages(root) {
  const digest = createHash('sha256')
    .update(readFileSync(join(root, 'package-lock.json')))
    .digest('hex')
  const mark = join(root, 'node_modules', '.dripline-lock')
  if (existsSync(mark) && readFileSync(mark, 'utf8') === digest) return
  console.log('Installing packages …')
  if (!runShown('npm', ['ci', '--no-audit', '--no-fund'], { cwd: root })) {
    console.error('The packages could not be installed. Is the npm registry reachable?')
    process.exit(1)
  }
  writeFileSync(mark, digest)
}

const BROWSERS = ['/usr/bin/chromium', '/usr/bin/chromium-browser']

/** The path of Debian's Chromium, installing it where it is absent and the user may; else null. */
export function chromium() {
  const found = () => BROWSERS.find((path) => existsSync(path)) ?? null
  if (found()) return found()
  return installDebian(['chromium']) ? found() : null
}

/** Installs PostgreSQL’s server without the cluster that Debian makes and starts by itself. */
export function installPostgres() {
  const conf = '/etc/postgresql-common/createcluster.conf'
  if (process.getuid?.() === 0 && !existsSync(conf)) {
    mkdirSync('/etc/postgresql-common', { recursive: true })
    writeFileSync(conf, 'create_main_cluster = false\n')
  }
  return installDebian(['postgresql'])
}

/** Installs Debian packages where the user may; gives whether that worked. */
export function installDebian(names) {
  if (!existsSync('/usr/bin/apt-get') || process.getuid?.() !== 0) return false
  console.log(`Installing ${names.join(', ')} from Debian’s packages …`)
  const quiet = {
    stdio: ['ignore', 'ignore', 'inherit'],
    env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
  }
  return (
    runShown('apt-get', ['update', '-q'], quiet) &&
    runShown('apt-get', ['install', '-y', '-q', '--no-install-recommends', ...names], quiet)
  )
}
