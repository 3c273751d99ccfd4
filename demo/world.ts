import { resolve } from 'node:path'
import { createWorld } from '../world'
import { ACCOUNTS, sites, SPARE_ACCOUNTS } from './content'
import { makeSeed } from './seed'

// What is kept here holds keys and words of a brand: nobody else on the machine reads it.
process.umask(0o077)
const port = Number(process.env['WORLD_PORT'] ?? 4601)
const all = sites()
const world = await createWorld({
  port,
  serverUrl: process.env['SERVER_URL'] ?? 'http://localhost:4600',
  dataDir: resolve(process.env['DATA_DIR'] ?? '.dripline', 'world'),
  sites: all,
  accounts: [...Object.values(ACCOUNTS).flat(), ...SPARE_ACCOUNTS],
  seed: (seed, bornAt, now) => makeSeed({ seed, bornAt, now, port, sites: all }),
})
const stop = (): void => {
  void world.close().then(() => process.exit(0))
}
process.on('SIGTERM', stop)
process.on('SIGINT', stop)
try {
  await world.listen({ port, host: '127.0.0.1' })
} catch (error) {
  const used = (error as NodeJS.ErrnoException).code === 'EADDRINUSE'
  process.stderr.write(
    used ? `Port ${port} is in use. Set WORLD_PORT to another one.\n` : `${String(error)}\n`,
  )
  process.exit(1)
}
