import { useState } from 'react'
import type { Passage, WholePiece } from '../../core/model'
import { choosePassagesConnected, useWriter } from '../data'
import { attempt, count, say } from '../ui'

/** Having the connected writer choose the passages of a piece. */
export interface Choosing {
  /** Whether it is at it. */
  asking: boolean
  ask: () => void
}

/** Null where there is no connected writer, or no words to choose from. */
export function useChoosing(piece: WholePiece, passages: readonly Passage[]): Choosing | null {
  const connected = (useWriter()?.settings ?? null) !== null
  const [asking, setAsking] = useState(false)
  const choose = async (): Promise<void> => {
    setAsking(true)
    await attempt(async () => {
      const chose = await choosePassagesConnected(piece, passages)
      say(`The connected writer chose ${count(chose, 'passage')}. Undo brings the choice before back.`)
    })
    setAsking(false)
  }
  return connected && !isWordless(piece) ? { asking, ask: () => void choose() } : null
}

/** Whether a piece is a video whose words are not there. */
export function isWordless({ kind, video }: Pick<WholePiece, 'kind' | 'video'>): boolean {
  return kind === 'video' && (video?.transcript ?? null) === null
}
