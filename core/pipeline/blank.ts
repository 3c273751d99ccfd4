import type { Account, Piece, Post } from '../model'
import { chooseShape, network } from '../networks'

/** What tells one new post from another. */
type Given = Pick<Post, 'id' | 'brand' | 'wording' | 'wished'> & Partial<Post>

/** A post as it is before anything was done with it: without a place, a draft, for one account. */
export function blankPost(account: Pick<Account, 'id' | 'network'>, given: Given): Post {
  return {
    drip: null,
    pipeline: null,
    piece: null,
    pieceRevision: 1,
    beat: 0,
    recurrence: null,
    occurrence: null,
    account: account.id,
    network: account.network,
    passage: null,
    others: [],
    edited: false,
    fallback: null,
    link: null,
    shortLink: null,
    linkCheck: null,
    media: null,
    checks: [],
    accepted: [],
    remarks: [],
    at: null,
    earliest: null,
    latest: null,
    priority: 0,
    reasons: [],
    state: 'draft',
    held: null,
    pinned: false,
    generation: 1,
    revision: 0,
    publishedAt: null,
    publicUrl: null,
    visibility: null,
    failure: null,
    followed: [],
    ...given,
  }
}

/** A picture as a post on a network shows it, or null. */
export function mediaOf(
  image: Pick<Piece['images'][number], 'url' | 'alt' | 'caption' | 'width' | 'height'> | undefined,
  title: string,
  networkId: string,
): Post['media'] {
  if (!image) return null
  const size = image.width && image.height ? { width: image.width, height: image.height } : null
  return {
    sourceUrl: image.url,
    alt: image.alt || image.caption || title,
    shape: chooseShape(size, network(networkId).media.shapes),
    hash: null,
  }
}
