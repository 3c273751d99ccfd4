import { resolve } from 'node:path'
import { createServer } from './server'

// What is kept here holds keys and words of a brand: nobody else on the machine reads it.
process.umask(0o077)
const port = Number(process.env['PORT'] ?? 4600)
const host = process.env['HOST'] ?? '127.0.0.1'
// Whoever reaches the server may post in its accounts' names, so it listens to this machine alone.
if (!['127.0.0.1', '::1', 'localhost'].includes(host)) {
  process.stderr.write(
    `The server has no password of its own, so it listens on this machine only. Leave HOST away, put a proxy with a password and TLS before it, and set PUBLIC_URL to the proxy's address (docs/running.md).\n`,
  )
  process.exit(1)
}
const { app, ready, close } = await createServer({
  port,
  host,
  dataDir: resolve(process.env['DATA_DIR'] ?? '.dripline'),
  databaseUrl: process.env['DATABASE_URL'],
  key: process.env['DRIPLINE_KEY'],
  appDir: resolve(process.env['APP_DIR'] ?? 'dist/app'),
  worldUrl: process.env['WORLD_URL'] || null,
  publicUrl: process.env['PUBLIC_URL'] || undefined,
  origins: (process.env['APP_ORIGINS'] ?? '').split(',').filter(Boolean),
})

const stop = (): void => {
  void close().then(() => process.exit(0))
}
process.on('SIGTERM', stop)
process.on('SIGINT', stop)

try {
  await app.listen({ port, host })
} catch (error) {
  const used = (error as NodeJS.ErrnoException).code === 'EADDRINUSE'
  process.stderr.write(used ? `Port ${port} is in use. Set PORT to another one.\n` : `${String(error)}\n`)
  process.exit(1)
}
try {
  await ready
} catch (error) {
  process.stderr.write(`${error instanceof Error ? error.message : String(error)}\n`)
  process.exit(1)
}
