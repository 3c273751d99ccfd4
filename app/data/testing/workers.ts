import { Fault, type FaultCode } from '../../../core/model'

async function asItIs(blob: Blob) {
  const digest = await crypto.subtle.digest('SHA-256', await blob.arrayBuffer())
  return { blob, hash: Buffer.from(digest).toString('hex'), type: blob.type, width: 1200, height: 800 }
}

/** The work of the web workers in the test's own process; pictures stay as they are, for want of a canvas. */
export async function inProcess() {
  const { tasks } = await import('../../workers/tasks')
  return {
    heavy: () => tasks,
    pictures: () => ({ crop: asItIs, look: asItIs }),
    proxy: (x: unknown) => x,
    unwrap: async (
      answer: Promise<{ ok: boolean; value?: unknown; fault?: { code: FaultCode; message: string } }>,
    ) => {
      const result = await answer
      if (result.ok) return result.value
      throw new Fault(result.fault?.code ?? 'internal', result.fault?.message ?? '')
    },
  }
}
