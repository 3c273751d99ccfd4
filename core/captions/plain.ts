import type { Wording } from '../model'
import { graphemes, network } from '../networks'
import { briefOf } from './brief'
import { compose } from './compose'
import { bareDraft } from './drafts'
import { camelCase } from './hashtags'
import type { WriteRequest } from './write'

/**
 * A caption in a language whose rules Dripline does not know: the passage as it stands, the author's
 * title where one is wanted, the author's own tags. No word is added, none is changed. Null where it does
 * not fit the network.
 */
export function plainWording(
  request: Omit<WriteRequest, 'days' | 'accounts'>,
  passage: { start: number; end: number; text: string },
  account: { network: string },
): Wording | null {
  const { piece, house, link } = request
  const profile = network(account.network)
  const brief = briefOf(profile, house)
  const title = profile.title ? piece.title : null
  if (title !== null && (!title || graphemes(title) > (profile.title?.limit ?? 0))) return null
  const still = { formality: 0, vividness: 0, warmth: 0, speaker: 'nobody' as const }
  const made = compose(
    bareDraft('lesson', [passage.text], passage),
    profile,
    { ...brief, voice: still, closing: 'none', length: { least: 1, most: brief.length.most } },
    {
      piece,
      link,
      hashtags: [
        ...house.style.hashtags,
        ...piece.categories.filter((c) => c.split(/\s+/).length <= 3).map(camelCase),
      ],
      phrases: piece.categories,
      closing: null,
      opener: null,
      title,
      credit: false,
      wordless: true,
      house: (text) => text,
    },
  )
  return made && { ...made, score: 0.5 }
}
