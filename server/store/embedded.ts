import { spawn } from 'node:child_process'
import { once } from 'node:events'
import { closeSync, existsSync, fsyncSync, openSync, renameSync, rmSync } from 'node:fs'
import { createRequire } from 'node:module'
import { PGlite } from '@electric-sql/pglite'
import { NodeFS } from '@electric-sql/pglite/nodefs'

/** A file that the engine has open: `nfd` is its descriptor here, which folders lack. */
interface Stream {
  node: unknown
  nfd?: number
}
/** The part of the engine's module that keeps its files in a folder of the machine. */
interface FileModule {
  NODEFS: {
    realPath(node: unknown): string
    stream_ops: { fsync?: (stream: Stream) => number }
  }
}

/**
 * A folder whose files reach the disk when the engine asks for it. By itself the engine's file system takes such a request
 * and does nothing, so that a loss of power could take what was committed.
 */
class DurableFolder extends NodeFS {
  readonly #sync: (descriptor: number) => void

  constructor(folder: string, sync: (descriptor: number) => void) {
    super(folder)
    this.#sync = sync
  }

  override async init(...[engine, options]: Parameters<NodeFS['init']>): ReturnType<NodeFS['init']> {
    const { emscriptenOpts } = await super.init(engine, options)
    const write = (module: object): void => {
      const { NODEFS } = module as FileModule
      NODEFS.stream_ops.fsync = ({ node, nfd }) => {
        if (nfd !== undefined) this.#sync(nfd)
        else syncFolder(NODEFS.realPath(node), this.#sync)
        return 0
      }
    }
    return { emscriptenOpts: { ...emscriptenOpts, preRun: [...(emscriptenOpts.preRun ?? []), write] } }
  }
}

function syncFolder(path: string, sync: (descriptor: number) => void): void {
  const descriptor = openSync(path, 'r')
  try {
    sync(descriptor)
  } finally {
    closeSync(descriptor)
  }
}

/** The engine's own start, but that it asks for the disk at each commit (`-F` is against it), and with little memory. */
const START = [
  ...PGlite.defaultStartParams.filter((word) => word !== '-F'),
  ...['wal_sync_method=fsync', 'shared_buffers=16MB', 'wal_buffers=1MB'].flatMap((setting) => [
    '-c',
    setting,
  ]),
]

/** Opens the embedded engine on a folder, which it makes where there is none. `sync` writes a descriptor's file to the disk. */
export async function openEmbedded(
  folder: string,
  sync: (descriptor: number) => void = fsyncSync,
): Promise<PGlite> {
  if (!existsSync(folder)) await make(folder)
  const engine = new PGlite({ fs: new DurableFolder(folder, sync), startParams: START })
  await engine.waitReady
  return engine
}

/**
 * Makes a fresh folder under another name first, so that one that was broken off is never taken for whole; and in a process
 * of its own, since what making takes (half a gigabyte) is given back only when that ends.
 */
async function make(folder: string): Promise<void> {
  const draft = `${folder}.new`
  rmSync(draft, { recursive: true, force: true })
  const engine = createRequire(import.meta.url).resolve('@electric-sql/pglite')
  const maker = spawn(process.execPath, ['-e', MAKING, engine, draft], {
    stdio: ['ignore', 'ignore', 'pipe'],
  })
  let said = ''
  maker.stderr.on('data', (words) => (said = `${said}${String(words)}`.slice(-1000)))
  const [code] = (await once(maker, 'close')) as [number | null]
  if (code !== 0) throw new Error(`A fresh spool could not be made: ${said.trim()}`)
  renameSync(draft, folder)
}

const MAKING = `
const { PGlite } = require(process.argv[1])
const made = new PGlite(process.argv[2])
made.waitReady.then(() => made.close()).then(() => process.exit(0))`
