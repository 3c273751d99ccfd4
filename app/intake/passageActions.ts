import type { Passage, Place, WholePiece } from '../../core/model'
import { addPassage, choosePassage, joinPassage, removePassage, stretchPassage } from '../data'
import { shelve } from '../data/more'
import { attempt } from '../ui'

/** What keys and buttons do with a passage of a piece; nothing where none is chosen. */
export interface PassageActions {
  /** Keeps the selected text as a passage. */
  add: () => void
  choose: (choice: Passage['choice']) => void
  stretch: (edge: 'start' | 'end', by: 1 | -1) => void
  join: () => void
  shelf: () => void
  remove: () => void
}

export function passageActions(
  piece: WholePiece,
  passages: readonly Passage[],
  current: Passage | null,
  selection: Place | null,
  onAdded: (passage: string) => void,
): PassageActions {
  const withIt = (act: (passage: Passage) => Promise<unknown>): void => {
    if (current) void attempt(() => act(current))
  }
  return {
    add: () => {
      if (!selection) return
      void attempt(async () => {
        onAdded(await addPassage(piece, selection.start, selection.end))
        window.getSelection()?.removeAllRanges()
      })
    },
    choose: (choice) => withIt((p) => choosePassage(p.id, p.choice === choice ? 'spare' : choice)),
    stretch: (edge, by) => withIt((p) => stretchPassage(piece, p, edge, by)),
    join: () => withIt((p) => joinPassage(piece, p, passages)),
    shelf: () => withIt((p) => shelve([p], p.shelf === 'on' ? 'left to the rows' : 'on')),
    remove: () => withIt((p) => removePassage(p)),
  }
}
