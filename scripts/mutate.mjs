/*
 * npm run mutate: breaks the writer on purpose, one line at a time (core/drips/testing/mutations.json), and
 * runs the tests of its rooms. A change that no test notices is printed, and the script fails. Every file is
 * put back as it was. An argument picks the mutations whose words hold it.
 */
import { spawnSync } from 'node:child_process'
import { readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'

const root = join(import.meta.dirname, '..')
const all = JSON.parse(readFileSync(join(root, 'core/drips/testing/mutations.json'), 'utf8'))
const picked = all.filter((m) => !process.argv[2] || m.what.includes(process.argv[2]))
const ROOMS = ['core/drips', 'core/writers', 'core/setting', 'core/judging', 'core/angles', 'core/house']
let missed = 0

const passes = () =>
  spawnSync('npx', ['vitest', 'run', '--bail', '1', ...ROOMS], { cwd: root, encoding: 'utf8' }).status === 0

if (!passes()) {
  console.log('The tests fail as they are; nothing can be told from breaking more.')
  process.exit(1)
}
for (const { file, from, to, what } of picked) {
  const path = join(root, file)
  const before = readFileSync(path, 'utf8')
  if (before.split(from).length !== 2) {
    console.log(`✗ ${what}: its line does not stand once in ${file}`)
    missed++
    continue
  }
  writeFileSync(
    path,
    before.replace(from, () => to),
  )
  try {
    const caught = !passes()
    console.log(`${caught ? '✓' : '✗ not noticed:'} ${what}`)
    if (!caught) missed++
  } finally {
    writeFileSync(path, before)
  }
}
console.log(`${picked.length - missed} of ${picked.length} are noticed.`)
process.exitCode = missed ? 1 : 0
