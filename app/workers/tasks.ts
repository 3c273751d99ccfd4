import { nanoid } from 'nanoid'
import { checkCaption } from '../../core/captions'
import { discoverFeeds, looksLikeFeed, parseFeed, type Feed, type FeedItem } from '../../core/feeds'
import {
  asFault,
  type Check,
  type FaultBody,
  type FoundPassage,
  type Passage,
  type Piece,
  type Post,
} from '../../core/model'
import { passageAt } from '../../core/passages'
import {
  carriesFullText,
  contextFor,
  makeDrip,
  placePosts,
  takePiece,
  toPassages,
  type DripRequest,
  type DripResult,
} from '../../core/pipeline'

/** A result that crosses to the page: faults travel as data, since classes do not. */
export type Answer<T> = { ok: true; value: T } | { ok: false; fault: FaultBody }

function answer<T>(work: () => T): Answer<T> {
  try {
    return { ok: true, value: work() }
  } catch (error) {
    return { ok: false, fault: asFault(error).toJSON() }
  }
}

/** What the page asks of the heavy worker. Everything here is core's; the worker only carries it. */
export const tasks = {
  /** A feed, or the feeds that a page names. */
  readAddress: (
    text: string,
    url: string,
  ): Answer<{ feed: Feed | null; named: { url: string; title: string }[] }> =>
    answer(() => {
      if (looksLikeFeed(text.replace(/^\uFEFF/, ''))) return { feed: parseFeed(text, url), named: [] }
      const named = discoverFeeds(text, url)
      if (named.length === 0) parseFeed(text, url)
      return { feed: null, named }
    }),

  wantsPage: (item: FeedItem): boolean => item.url !== null && !carriesFullText(item),

  takePiece: (
    item: FeedItem,
    page: { html: string; url: string } | null,
    owner: { brand: string; source: string; now: string },
  ): Answer<{ piece: Piece; passages: Passage[] }> =>
    answer(() => {
      const piece = takePiece(item, page, { ...owner, id: nanoid() })
      return { piece, passages: toPassages(piece, nanoid) }
    }),

  passageAt: (piece: Piece, start: number, end: number): FoundPassage => passageAt(piece, start, end),

  makeDrip: (
    request: Omit<DripRequest, 'newId'>,
    onProgress: (done: number, all: number) => void,
  ): Answer<DripResult> => answer(() => makeDrip({ ...request, newId: nanoid }, onProgress)),

  placePosts: (request: Parameters<typeof placePosts>[0]): Answer<Post[]> =>
    answer(() => placePosts(request)),

  recheck: (
    post: Post,
    ...around: [
      Parameters<typeof contextFor>[1],
      Parameters<typeof contextFor>[2],
      Parameters<typeof contextFor>[3],
    ]
  ): Check[] => checkCaption(post.wording.text, contextFor(post, ...around)),
}

export type Tasks = typeof tasks
