import { asFault, Fault } from '../../../core/model'
import type { Remoted } from '../../workers/answering'

/** A picture as the worker gives it; its print is taken from its bytes, so that only the same ones are alike. */
async function asItIs(blob: Blob) {
  const digest = await crypto.subtle.digest('SHA-256', await blob.arrayBuffer())
  const hash = Buffer.from(digest).toString('hex')
  return { blob, hash, type: blob.type, width: 1200, height: 800, print: hash.slice(0, 16) }
}

/** A value as it comes out on the other side of a worker's border; a function stays what it is, as a proxy would. */
function across<T>(value: T): T {
  return typeof value === 'function' ? value : structuredClone(value)
}

/** The tasks as a worker would do them: what goes in and comes out is copied, a fault loses its class on the way. */
function copying<T>(tasks: T): Remoted<T> {
  return new Proxy({} as Remoted<T>, {
    get:
      (_, name: string) =>
      async (...args: unknown[]) => {
        try {
          const task = tasks[name as keyof T] as (...args: unknown[]) => unknown
          return across(await task(...args.map(across)))
        } catch (error) {
          const { code, message, where } = asFault(error).toJSON()
          throw new Fault(code, message, where)
        }
      },
  })
}

/** The work of the web workers in the test's own process; pictures stay as they are, the pages of documents empty, and films are heard as told here, for want of a canvas and of decoders. */
export async function inProcess() {
  const { tasks } = await import('../../workers/tasks')
  const { resultsTasks } = await import('../../workers/resultsTasks')
  const [heavy, results] = [copying(tasks), copying(resultsTasks)]
  return {
    heavy: () => heavy,
    results: () => results,
    pictures: () => ({
      crop: asItIs,
      look: asItIs,
      small: async (blob: Blob) => blob,
      // What is worth showing lies on the right.
      propose: () => Promise.resolve({ x: 0.6, y: 0, width: 0.3, height: 1 }),
    }),
    cards: () => ({
      know: () => Promise.resolve(),
      mark: asItIs,
      font: async (bytes: Uint8Array) => {
        const { FontFile } = await import('../../../core/cards')
        try {
          return FontFile.open(bytes).told
        } catch (error) {
          return { refused: asFault(error).message }
        }
      },
      paint: (...card: unknown[]) => asItIs(new Blob([JSON.stringify(card)], { type: 'image/png' })),
      document: async (pages: readonly unknown[], _look: unknown, _link: unknown, title: string) => {
        const { toPdf } = await import('../../../core/cards')
        const blank = pages.map(() => ({ width: 1080, height: 1350, strokes: [] }))
        return asItIs(new Blob([await toPdf(blank, title)], { type: 'application/pdf' }))
      },
      still: () => Promise.resolve(new Blob(['a frame'], { type: 'image/jpeg' })),
      film: async (file: Blob) => (await import('../../workers/filmSource')).toldOf(file),
      // Nobody is heard from the third to the fifth second of every ten.
      levels: (_film: unknown, from: number, to: number) =>
        Promise.resolve(
          Array.from({ length: Math.ceil((to - from) * 50) }, (_, i) => {
            const second = (from + (i + 0.5) / 50) % 10
            return second >= 3 && second < 5 ? 0 : 0.2
          }),
        ),
    }),
    proxy: (x: unknown) => x,
  }
}
