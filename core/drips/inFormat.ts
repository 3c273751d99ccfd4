import { isEnglish } from '../language'
import { network, STORY } from '../networks'
import { linkFor, stockOf, type Recipient } from '../writers'
import { formsOf } from './forms'
import type { WriteRequest, WrittenPost } from './request'
import { checked } from './write'

/** The formats that the writer makes of a piece beside the one a network's brief is written for. */
const FORMATS = ['thread', 'poll'] as const

/** The formats that a release row may ask for. */
export const ROW_FORMATS = [...FORMATS, STORY] as const

/** Whether an account's network offers a format that the writer makes. */
export function offers(account: Recipient, format: string | null): boolean {
  return FORMATS.some((f) => f === format) && network(account.network).formats.includes(format ?? '')
}

/**
 * Writes posts of one format for accounts whose networks offer it: at each beat the best form of the piece that
 * says something else than those before it. Where the piece has no more of them, the post says so.
 */
export function writeInFormat(request: WriteRequest, format: string): WrittenPost[] {
  const { piece, accounts, days, passages } = request
  const stock = isEnglish(piece.language) ? stockOf(piece) : null
  const posts = accounts.flatMap((account) => {
    const forms = stock ? formsOf(request, stock, account, passages) : []
    const mine: typeof forms = []
    for (const form of forms) {
      if (form.wording.format !== format) continue
      if (!mine.some((m) => overlap(m.wording.spans, form.wording.spans))) mine.push(form)
    }
    return days.map((day, beat): WrittenPost => {
      const form = mine[beat]
      return {
        beat,
        day,
        account: account.id,
        network: account.network,
        passage: form?.passage ?? null,
        wording: form?.wording ?? null,
        others: [],
        link: linkFor({ order: request, account, beat }, form?.wording.angle ?? null),
        checks: form
          ? []
          : [
              {
                code: 'too-thin',
                severity: 'block',
                message: `The piece has nothing${mine.length ? ' more' : ''} to make a ${format} of for ${network(account.network).name}.`,
              },
            ],
        picture: null,
      }
    })
  })
  return posts.map((post) => checked(request, posts, post))
}

/** Whether posts of a format are stories on an account's network, which show their words on a card or in a clip. */
export function tellsStories(account: Recipient, format: string | null): boolean {
  return format === STORY && network(account.network).media.story !== null
}

/** Posts that were written as a network's usual ones, as stories: what would show nothing is not made, and says so. */
export function asStories(written: readonly WrittenPost[]): WrittenPost[] {
  return written.map((post) => {
    if (post.wording === null) return post
    if (post.picture !== null)
      return {
        ...post,
        wording: { ...post.wording, format: STORY },
        others: post.others.map((w) => ({ ...w, format: STORY })),
      }
    const message = `The piece has nothing more that stands alone on a card, for a story on ${network(post.network).name}.`
    return { ...post, wording: null, others: [], checks: [{ code: 'too-thin', severity: 'block', message }] }
  })
}

type Spans = readonly { start: number; end: number }[]

const overlap = (a: Spans, b: Spans): boolean =>
  a.some((x) => b.some((y) => x.start < y.end && x.end > y.start))
