import type { FoundPassage, PieceContent, Wording } from '../model'
import { opening } from '../judging'
import type { House } from '../house'
import { featuresOf, runAt, stockOf, type Stock } from '../writers'
import { candidatesFor } from './rank'

/** What is asked of the passages of a series. */
export const ASKED_OF = ['most useful', 'most surprising', 'most debatable'] as const
export type AskedOf = (typeof ASKED_OF)[number]

/** One post of a series: its network, its passage, and its words. */
export interface SeriesPost {
  network: string
  passage: FoundPassage
  wording: Wording
}

/**
 * A piece as so many posts, each from a passage of its own, for the networks in turn. Passages are
 * ranked by what is asked of them: useful ones tell what to do or how much, surprising ones say
 * that something is not as one would think, debatable ones take a side or put an alternative.
 * There are fewer posts where the piece has fewer passages that stand.
 */
export function asPosts(request: {
  piece: PieceContent
  passages: readonly FoundPassage[]
  networks: readonly string[]
  house: House
  link: string | null
  asked: AskedOf
  count: number
  seed: number
}): SeriesPost[] {
  const { piece, networks, count, asked } = request
  const stock = stockOf(piece)
  const ranked = [...request.passages].sort((a, b) => worth(stock, b, asked) - worth(stock, a, asked))
  const posts: SeriesPost[] = []
  const openings = new Set<string>()
  for (const passage of ranked) {
    if (posts.length >= count || networks.length === 0) break
    // The network whose turn it is, else the next that this passage suits.
    for (let i = 0; i < networks.length; i++) {
      const network = networks[(posts.length + i) % networks.length] as string
      const made = candidatesFor(
        {
          ...request,
          earlier: posts.map((p) => ({
            account: p.network,
            network: p.network,
            text: p.wording.text,
            closing: p.wording.closing,
          })),
        },
        stock,
        { id: network, network },
        [passage],
      ).find((m) => !openings.has(opening(m.wording.text)))
      if (!made) continue
      openings.add(opening(made.wording.text))
      posts.push({ network, passage, wording: made.wording })
      break
    }
  }
  return posts
}

/** How much of what is asked a passage has, on top of its own score. */
export function worth(stock: Stock, passage: FoundPassage, asked: AskedOf): number {
  const run = runAt(stock, passage)
  const inside = run ? featuresOf(stock, run) : []
  const share = (test: (f: (typeof inside)[number]) => boolean): number =>
    inside.length ? inside.filter(test).length / inside.length : 0
  switch (asked) {
    case 'most useful':
      return (
        passage.score +
        0.6 * share((f) => f.imperative) +
        0.3 * share((f) => f.numbers > 0) +
        (passage.kind === 'steps' ? 0.5 : 0)
      )
    case 'most surprising':
      return (
        passage.score +
        0.6 * share((f) => f.surprise) +
        0.3 * share((f) => f.contrast) +
        0.2 * share((f) => f.strongVerb)
      )
    case 'most debatable':
      return (
        passage.score +
        0.5 * share((f) => absolute(f.sentence.text)) +
        0.4 * share((f) => f.contrast) +
        0.3 * share((f) => f.question)
      )
  }
}

const ABSOLUTE = new Set(
  'never always nobody everybody every only best worst most least must wrong right better worse should'.split(
    ' ',
  ),
)
const absolute = (text: string): boolean =>
  text
    .toLowerCase()
    .split(/[^a-z]+/)
    .some((w) => ABSOLUTE.has(w))
