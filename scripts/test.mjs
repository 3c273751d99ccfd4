// npm test: installs what is missing, then types, lint, unit tests, and the browser tests against
// the built application. Ends with one line that sums all suites.
import { spawn, spawnSync } from 'node:child_process'
import { existsSync, readFileSync, rmSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { chromium, installPackages, installPostgres } from './install.mjs'

const root = join(dirname(fileURLToPath(import.meta.url)), '..')
const results = join(root, 'test-results')
installPackages(root)
const browser = chromium()
if (!hasPostgres()) installPostgres()
rmSync(results, { recursive: true, force: true })

const env = {
  ...process.env,
  FORCE_COLOR: '0',
  NODE_COMPILE_CACHE: process.env.NODE_COMPILE_CACHE ?? join(root, 'node_modules', '.cache', 'compiled'),
  ...(browser ? { CHROMIUM: browser } : {}),
}
let passed = 0
let failed = 0

await Promise.all([
  step('types', 'tsc', ['--noEmit']),
  step('lint', 'eslint', ['.', '--max-warnings', '0']),
  step('format', 'prettier', ['--check', '--log-level', 'warn', '.']),
  step('dead code', 'knip', ['--no-progress']),
  step('build', 'vite', ['build', '--logLevel', 'warn']),
  step('server', 'vite', ['build', '--logLevel', 'warn', '-c', 'vite.server.config.ts']),
  step('demo', 'vite', ['build', '--logLevel', 'warn', '-c', 'vite.demo.config.ts']),
])
suite('unit tests', 'vitest', ['run'], 'unit.json', (report) => [
  report.numPassedTests,
  report.numFailedTests +
    // A file that failed before its tests began names none of them as failed.
    report.testResults.filter(
      (f) => f.status === 'failed' && !f.assertionResults.some((a) => a.status === 'failed'),
    ).length,
])
if (browser) {
  suite('browser tests', 'playwright', ['test'], 'e2e.json', ({ stats }) => [
    stats.expected + stats.flaky,
    stats.unexpected,
  ])
} else {
  failed++
  console.error(
    '\nThere is no Chromium here and it could not be installed: run “apt-get install chromium”, then npm test again.',
  )
}
console.log(`\n${passed} passed, ${failed} failed`)
process.exit(failed ? 1 : 0)

/** A check that passes or fails as a whole; several run side by side, each shown when it is done. */
function step(name, tool, args) {
  const started = Date.now()
  return new Promise((resolve) => {
    const child = spawn(join(root, 'node_modules', '.bin', tool), args, { cwd: root, env })
    let output = ''
    child.stdout.on('data', (chunk) => (output += chunk))
    child.stderr.on('data', (chunk) => (output += chunk))
    child.on('close', (status) => {
      const seconds = Math.round((Date.now() - started) / 1000)
      console.log(`\n— ${name}\n${output.trimEnd()}`.trimEnd())
      console.log(`  ${name}: ${status === 0 ? 'right' : 'WRONG'} (${seconds} s)`)
      if (status === 0) passed++
      else failed++
      resolve()
    })
  })
}

/** A test runner, counted by its own report. One that dies without a report counts as a failure. */
function suite(name, tool, args, file, count) {
  console.log(`\n— ${name}`)
  const started = Date.now()
  const { status } = spawnSync(join(root, 'node_modules', '.bin', tool), args, {
    cwd: root,
    env,
    stdio: 'inherit',
  })
  const seconds = Math.round((Date.now() - started) / 1000)
  const path = join(results, file)
  const [good, bad] = existsSync(path) ? count(JSON.parse(readFileSync(path, 'utf8'))) : [0, 0]
  passed += good
  failed += status !== 0 && bad === 0 ? 1 : bad
  console.log(`  ${name}: ${good} passed, ${bad} failed (${seconds} s)`)
}

function hasPostgres() {
  return ['17', '16', '15'].some((v) => existsSync(`/usr/lib/postgresql/${v}/bin/initdb`))
}
