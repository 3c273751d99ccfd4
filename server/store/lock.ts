import { createHash } from 'node:crypto'
import { realpathSync, rmSync } from 'node:fs'
import { connect, createServer, type Server } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { Fault } from '../../core/model'

/**
 * Takes a folder for this process alone and gives what lets it go. The lock is a name that the process listens
 * at: the system gives it to one of those who ask and takes it back when the holder ends, however it ends, so
 * that no number of a dead process can stand in the way. Who asks in vain is told the holder's number. Throws
 * `not-ready`.
 */
export async function lockFolder(folder: string): Promise<() => Promise<void>> {
  const name = nameOf(realpathSync(folder))
  const server = createServer((asking) => {
    asking.on('error', () => undefined)
    asking.end(String(process.pid))
  })
  server.unref()
  for (let attempt = 0; ; attempt++) {
    if (await listens(server, name)) break
    const holder = await holderAt(name)
    // A name in the file system outlives its holder; elsewhere the system has taken it back.
    if (holder === null && name.endsWith('.sock') && attempt === 0) rmSync(name, { force: true })
    else
      throw new Fault(
        'not-ready',
        `The data folder is in use by ${holder === null ? 'another process' : `process ${holder}`}. Stop that one, or set DATA_DIR to another folder.`,
        folder,
      )
  }
  return () => new Promise((resolve) => server.close(() => resolve()))
}

/** A name of the system's own on Linux and Windows, which ends with the process; a socket's file elsewhere. */
function nameOf(folder: string): string {
  const name = `dripline-${createHash('sha256').update(folder).digest('hex').slice(0, 32)}`
  if (process.platform === 'linux') return `\0${name}`
  return process.platform === 'win32' ? `\\\\.\\pipe\\${name}` : join(tmpdir(), `${name}.sock`)
}

function listens(server: Server, path: string): Promise<boolean> {
  return new Promise((resolve, reject) => {
    const failed = (error: NodeJS.ErrnoException): void => {
      if (error.code === 'EADDRINUSE') resolve(false)
      else reject(error)
    }
    server.once('error', failed)
    server.listen({ path }, () => {
      server.off('error', failed)
      resolve(true)
    })
  })
}

/** The number of the process that holds a name, or null where nobody answers. */
function holderAt(path: string): Promise<number | null> {
  return new Promise((resolve) => {
    let said = ''
    const socket = connect({ path })
    socket.setTimeout(5000, () => socket.destroy())
    socket.on('data', (bytes) => (said += String(bytes)))
    socket.on('error', () => undefined)
    socket.on('close', () => resolve(Number(said) || null))
  })
}
