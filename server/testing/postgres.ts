import { spawnSync } from 'node:child_process'
import { existsSync, mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'

/** A PostgreSQL for tests. */
export interface TestPostgres {
  url: string
  /** Stops it at once, as a crash would, and starts it again. */
  restart: () => void
  stop: () => void
}

/** A private PostgreSQL on a folder and socket of its own, or null where none is installed. */
export function startPostgres(): TestPostgres | null {
  const bin = ['/usr/lib/postgresql/17/bin', '/usr/lib/postgresql/16/bin', '/usr/lib/postgresql/15/bin'].find(
    (b) => existsSync(join(b, 'initdb')),
  )
  if (!bin) return null
  const folder = mkdtempSync(join(tmpdir(), 'dripline-pg-'))
  const port = 20_000 + (process.pid % 20_000)
  const root = process.getuid?.() === 0
  // PostgreSQL refuses to run as root, so the postgres user that its package makes runs it.
  const run = (command: string, args: string[]): boolean =>
    (root
      ? spawnSync('runuser', ['-u', 'postgres', '--', command, ...args], { cwd: '/tmp' })
      : spawnSync(command, args)
    ).status === 0
  if (root) spawnSync('chown', ['postgres', folder])
  const data = join(folder, 'data')
  if (!run(join(bin, 'initdb'), ['-D', data, '-A', 'trust', '-U', 'dripline', '--no-sync'])) return null
  const options = `-p ${port} -k ${folder} -c listen_addresses=127.0.0.1 -c fsync=off`
  const start = (): boolean =>
    run(join(bin, 'pg_ctl'), ['-D', data, '-o', options, '-w', '-l', join(folder, 'log'), 'start'])
  const halt = (): boolean => run(join(bin, 'pg_ctl'), ['-D', data, '-m', 'immediate', 'stop'])
  if (!start()) return null
  return {
    url: `postgres://dripline@127.0.0.1:${port}/postgres`,
    restart: () => {
      halt()
      start()
    },
    stop: () => {
      halt()
      rmSync(folder, { recursive: true, force: true })
    },
  }
}
