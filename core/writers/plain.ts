import { briefOf } from '../house'
import type { FoundPassage, Wording } from '../model'
import { graphemes, network } from '../networks'
import { proseDraft, setDraft, tagsOf } from '../setting'
import type { Order, Recipient } from './assignment'

/** How good a passage in a language is taken to be of which nothing is known. */
const UNKNOWN = 0.5

/**
 * A caption in a language whose rules Dripline does not know: the passage as it stands, the author's
 * title where one is wanted, the author's own tags. No word is added, none is changed. Null where it does
 * not fit the network.
 */
export function plainWording(
  order: Order,
  passage: Pick<FoundPassage, 'start' | 'end' | 'text'>,
  account: Pick<Recipient, 'network'>,
): Wording | null {
  const { piece, house, link } = order
  const profile = network(account.network)
  const brief = briefOf(profile, house)
  const title = profile.title ? piece.title : null
  if (title !== null && (!title || graphemes(title) > (profile.title?.limit ?? 0))) return null
  const made = setDraft(
    proseDraft('lesson', [passage.text], [{ start: passage.start, end: passage.end }], UNKNOWN),
    profile,
    { ...brief, closing: 'none', emoji: false },
    {
      piece,
      house,
      link,
      tags: tagsOf({ piece }, [], house.style.hashtags),
      phrases: piece.categories,
      title,
      closed: new Set(),
      untouched: true,
    },
  )
  return made && { ...made, score: UNKNOWN }
}
