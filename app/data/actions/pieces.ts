import { nowIso } from '../clock'
import { commit, must, patch, type Write } from '../store'

/** Takes a piece out of what waits in Intake, or puts it back. */
export async function dealWith(id: string, dealt: boolean): Promise<void> {
  const piece = await must('pieces', id)
  await commit({ brand: piece.brand, label: dealt ? 'Set a piece aside' : 'Put a piece back' }, [
    patch('pieces', id, (p) => ({ ...p, dealt: dealt ? { by: 'set aside', at: nowIso() } : null })) as Write,
  ])
}
