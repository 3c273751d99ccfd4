import type { packed } from './packing'

/** Packs posts for use elsewhere (`packed`); what packs is loaded when it is first wanted. */
export async function takeAway(...asked: Parameters<typeof packed>): Promise<Blob> {
  return (await import('./packing')).packed(...asked)
}
