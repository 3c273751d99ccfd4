import { withoutTags } from '../../text'
import { when, type Rule } from '../rule'

const TAKE_OUT = 'Take the last ones out'

/** Whether there are more hashtags than the network takes. */
export const mostHashtags: Rule = {
  code: 'too-many-hashtags',
  english: false,
  blocks: true,
  finds: ({ tags }, { profile }) =>
    when(tags.length > profile.hashtags.most, () => ({
      severity: 'block',
      message: `${tags.length} hashtags; ${profile.name} takes at most ${profile.hashtags.most}. Take some out.`,
      remedy: TAKE_OUT,
    })),
  mends: (text, _, profile) => firstTags(text, profile.hashtags.most),
}

/** Whether there are more than is sensible there. */
export const sensibleHashtags: Rule = {
  code: 'many-hashtags',
  english: false,
  blocks: false,
  finds: ({ tags }, { profile }) =>
    when(tags.length > profile.hashtags.sensible && tags.length <= profile.hashtags.most, () => ({
      severity: 'note',
      message: `${tags.length} hashtags; on ${profile.name} ${profile.hashtags.sensible} are sensible.`,
      remedy: TAKE_OUT,
    })),
  mends: (text, _, profile) => firstTags(text, profile.hashtags.sensible),
}

function firstTags(text: string, most: number): string {
  let count = 0
  return withoutTags(text, (tag) => (++count > most ? '' : tag))
    .replace(/ {2,}/g, ' ')
    .replace(/ +$/gm, '')
}
