import { graphemes } from '../../networks'
import { when, type Rule } from '../rule'

/** Whether there are words at all. */
export const empty: Rule = {
  code: 'empty',
  english: false,
  blocks: true,
  finds: ({ prose }) =>
    when(!prose.trim(), () => ({
      severity: 'block',
      message: 'There are no words. Write some, or set the post aside.',
    })),
}

/** Whether the title and the summary are there where they are wanted, and fit. */
export const fields: Rule = {
  code: 'no-title',
  english: false,
  blocks: true,
  finds: (_, { profile, beside = {} }) => {
    const { title, summary } = beside
    const limit = profile.title?.limit ?? Infinity
    const asked = profile.title && title !== undefined
    return [
      ...when(asked && !title?.trim(), () => ({
        severity: 'block',
        message: `${profile.name} wants a title. Write one.`,
      })),
      ...when(asked && graphemes(title ?? '') > limit, () => ({
        code: 'title-too-long',
        severity: 'block',
        message: `The title has ${graphemes(title ?? '')} characters; ${profile.name} takes ${limit}. Shorten it.`,
        words: title ?? '',
      })),
      ...when(profile.summary && graphemes(summary ?? '') > profile.summary.limit, () => ({
        code: 'summary-too-long',
        severity: 'block',
        message: `The summary is longer than the ${profile.summary?.limit} characters that ${profile.name} takes. Shorten it.`,
      })),
    ]
  },
}

/** Whether the network knows the format, and takes the poll. */
export const format: Rule = {
  code: 'no-such-format',
  english: false,
  blocks: true,
  finds: (_, { profile, beside = {} }) => {
    const { options, limit } = profile.poll ?? { options: { least: 0, most: 0 }, limit: 0 }
    const answers = beside.poll ?? []
    const fits =
      answers.length >= options.least &&
      answers.length <= options.most &&
      answers.every((o) => graphemes(o) <= limit)
    return [
      ...when(beside.format !== undefined && !profile.formats.includes(beside.format), () => ({
        severity: 'block',
        message: `${profile.name} knows no ${beside.format}; it takes ${profile.formats.join(', ')}. Take another wording.`,
      })),
      ...when(profile.poll && answers.length && !fits, () => ({
        code: 'poll',
        severity: 'block',
        message: `A poll on ${profile.name} has ${options.least} to ${options.most} answers of at most ${limit} characters.`,
      })),
    ]
  },
}

/** Whether the pictures and clips are there that the network wants, and can be told to those who do not see them. */
export const media: Rule = {
  code: 'no-media',
  english: false,
  blocks: true,
  finds: (_, { profile, pictures, clips = 0, pages = 0, alts, source, beside = {} }) => [
    ...when(clips === 0 && pictures < profile.media.pictures.least, () => ({
      severity: 'block',
      message: `${profile.name} wants a picture and this ${source === null ? 'post has none' : 'piece has none to give'}. Add one, or set the post aside.`,
    })),
    ...when(pictures > profile.media.pictures.most, () => ({
      code: 'too-many-pictures',
      severity: 'block',
      message: `${profile.name} takes ${profile.media.pictures.most ? `at most ${profile.media.pictures.most}` : 'no'} pictures and this post has ${pictures}. Take some away.`,
    })),
    ...when(clips < profile.media.clips.least, () => ({
      severity: 'block',
      message: `${profile.name} wants a clip and this post has none. Let a card of its words move, or set the post aside.`,
    })),
    ...when(clips > profile.media.clips.most, () => ({
      code: 'too-many-clips',
      severity: 'block',
      message: `${profile.name} takes ${profile.media.clips.most ? 'one clip' : 'no clips'} and this post has ${clips}. Take ${clips - profile.media.clips.most === 1 ? 'one' : 'some'} away.`,
    })),
    ...when(pages > (profile.media.document?.pages ?? 0), () => ({
      code: 'too-many-pages',
      severity: 'block',
      message: `A document on ${profile.name} has at most ${profile.media.document?.pages ?? 0} pages and this one has ${pages}. Take some away.`,
    })),
    ...when(beside.format === 'story' && pictures + clips !== 1, () => ({
      code: 'story',
      severity: 'block',
      message: `A story on ${profile.name} shows one picture or clip and nothing else; this one shows ${pictures + clips || 'none'}.`,
    })),
    ...when(clips > 0 && pictures > 0, () => ({
      code: 'clip-and-pictures',
      severity: 'block',
      message: `${profile.name} takes either pictures or a clip. Take one of the two away.`,
    })),
    ...when(
      alts?.some((alt) => !alt.trim()),
      () => ({
        code: 'no-alt',
        severity: 'flag',
        message:
          'A picture has no alternative text. Say in a sentence what it shows, for those who cannot see it.',
      }),
    ),
  ],
}
