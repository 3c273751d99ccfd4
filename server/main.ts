import { resolve } from 'node:path'
import { createServer } from './server'
import { troubleWith } from './reach'

// What is kept here holds keys and words of a brand: nobody else on the machine reads it.
process.umask(0o077)
const port = Number(process.env['PORT'] ?? 4600)
const host = process.env['HOST'] ?? '127.0.0.1'
const password = process.env['DRIPLINE_PASSWORD'] || undefined
const publicUrl = process.env['PUBLIC_URL'] || undefined
// Whoever reaches the server may post in its accounts' names.
const trouble = troubleWith({ host, password, publicUrl })
if (trouble) {
  process.stderr.write(`${trouble}\n`)
  process.exit(1)
}
if (password && publicUrl?.startsWith('http:'))
  process.stderr.write(
    'Without TLS the password can be read on its way: put a proxy with TLS before the server (docs/running.md).\n',
  )
const { app, ready, close } = await createServer({
  port,
  host,
  dataDir: resolve(process.env['DATA_DIR'] ?? '.dripline'),
  databaseUrl: process.env['DATABASE_URL'],
  key: process.env['DRIPLINE_KEY'],
  appDir: resolve(process.env['APP_DIR'] ?? 'dist/app'),
  worldUrl: process.env['WORLD_URL'] || null,
  countsUrl: process.env['COUNTS_URL'] || undefined,
  publicUrl,
  password,
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
