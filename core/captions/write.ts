import { withoutFillers } from '../speech'
import type { Check, FoundPassage, PieceContent, Wording } from '../model'
import { graphemes, measure, network, type NetworkProfile } from '../networks'
import { NUMBER_WORDS } from '../passages'
import { seededRandom, type Random } from '../planning'
import { briefOf, type Brief, type House } from './brief'
import { checkCaption } from './checks'
import { CLOSINGS } from './closings'
import { compose, firstSentence } from './compose'
import { draftsFor, type Draft } from './drafts'
import { hashtagsFor } from './hashtags'
import { likeness, LIKENESS_BOUND, opening } from './likeness'

/** A caption that is already out or planned, which a new one may not resemble. */
export interface EarlierCaption {
  account: string
  network: string
  text: string
}

export interface WriteRequest {
  piece: PieceContent
  /** The kept passages, best first, and after them the spare ones. */
  passages: readonly FoundPassage[]
  spare: readonly FoundPassage[]
  accounts: readonly { id: string; network: string }[]
  /** The day of each beat. */
  days: readonly number[]
  house: House
  link: string | null
  seed: number
  earlier?: readonly EarlierCaption[]
}

/** A post of a drip as written, or why there is none. */
export interface WrittenPost {
  beat: number
  day: number
  account: string
  network: string
  passage: FoundPassage | null
  wording: Wording | null
  others: Wording[]
  checks: Check[]
  /** Index into the piece's images, or null. */
  picture: number | null
}

/**
 * Writes the posts of a drip. Passages rotate over the accounts as in a Latin square: at beat k
 * account j takes passage (k + j) mod n, so that no beat carries a passage twice and each account
 * gets each passage once. Where nothing good can be made of that one, another takes its turn that
 * neither the account nor the beat has had, then a spare one. For every post many drafts are made, fitted and checked; the best by
 * `scoreWording` is taken and the next ones are kept as other wordings. No two captions of the
 * drip open alike, and none comes over the likeness bound with its account or a sibling.
 */
export function writeDrip(
  request: WriteRequest,
  onProgress?: (done: number, all: number) => void,
): WrittenPost[] {
  const { piece, accounts, days } = request
  const random = seededRandom(request.seed)
  const used = request.passages.slice(0, days.length)
  const extra = [...request.passages.slice(days.length), ...request.spare]
  const modulus = Math.max(used.length, Math.min(accounts.length, days.length), 1)
  const writer = new Writer(request, random)
  const posts: WrittenPost[] = []
  const all = days.length * accounts.length
  const had = new Map(accounts.map((a) => [a.id, new Set<FoundPassage>()]))
  days.forEach((day, beat) => {
    const atBeat = new Set<FoundPassage>()
    accounts.forEach((account, column) => {
      const mine = had.get(account.id) ?? new Set()
      const turn = (i: number): FoundPassage | undefined => used[(beat + column + i) % modulus]
      const candidates = [...Array.from({ length: modulus }, (_, i) => turn(i)), ...extra].filter(
        (p): p is FoundPassage => p !== undefined && !mine.has(p) && !atBeat.has(p),
      )
      const post = writer.post(account, beat, day, candidates)
      if (post.passage && post.wording) {
        mine.add(post.passage)
        atBeat.add(post.passage)
      }
      posts.push(post)
      onProgress?.(posts.length, all)
    })
  })
  assignPictures(posts, piece.images.length, accounts)
  return posts.map((post) => writer.check(post))
}

/** The share of a brief's shortest length below which a caption is too slight for its network. */
const LEAST_OF_BAND = 0.5

class Writer {
  readonly #request: WriteRequest
  /** The piece's own words, as far as they are written down. */
  readonly #said: string
  readonly #random: Random
  readonly #hashtags: string[]
  readonly #drafts = new Map<FoundPassage, Draft[]>()
  readonly #openings = new Set<string>()
  readonly #written: EarlierCaption[] = []
  readonly #angles = new Map<string, string[]>()
  readonly #closings = new Set<string>()
  #framed = 0

  constructor(request: WriteRequest, random: Random) {
    this.#request = request
    this.#random = random
    this.#said = request.piece.video ? withoutFillers(request.piece.text) : request.piece.text
    this.#hashtags = hashtagsFor(request.piece, request.house.style.hashtags)
  }

  post(
    account: { id: string; network: string },
    beat: number,
    day: number,
    candidates: readonly FoundPassage[],
  ): WrittenPost {
    const profile = network(account.network)
    const base = { beat, day, account: account.id, network: account.network, picture: null }
    const [first] = candidates
    if (!first)
      return {
        ...base,
        passage: null,
        wording: null,
        others: [],
        checks: [
          {
            code: 'too-thin',
            severity: 'block',
            message: `The piece is too thin for beat ${beat + 1}: there is no passage left for it. Keep or add one, or choose a shorter rhythm.`,
          },
        ],
      }
    for (const candidate of candidates) {
      const ranked = this.#rank(candidate, account, profile)
      const best = ranked[0]
      if (!best) continue
      this.#remember(best, account)
      return { ...base, passage: candidate, wording: best, others: unlike(best, ranked.slice(1)), checks: [] }
    }
    return {
      ...base,
      passage: first,
      wording: null,
      others: [],
      checks: [
        {
          code: 'too-thin',
          severity: 'block',
          message: `No caption for ${profile.name} can be made of the passages that are left that is whole, fits, and is unlike the others. Keep or add a passage in the Reader, or choose a shorter rhythm.`,
        },
      ],
    }
  }

  check(post: WrittenPost): WrittenPost {
    if (!post.wording) return post
    const { piece, house } = this.#request
    const others = [...(this.#request.earlier ?? []), ...this.#written].filter(
      (w) => w.text !== post.wording?.text && w.network === post.network,
    )
    const checks = checkCaption(post.wording.text, {
      profile: network(post.network),
      house,
      source: sourceText(piece),
      pictures: post.picture === null ? 0 : 1,
      others: others.map((o) => ({ text: o.text, sibling: o.account !== post.account })),
    })
    return { ...post, checks }
  }

  #rank(passage: FoundPassage, account: { id: string; network: string }, profile: NetworkProfile): Wording[] {
    const { piece, link, house } = this.#request
    let drafts = this.#drafts.get(passage)
    if (!drafts) this.#drafts.set(passage, (drafts = draftsFor(piece, passage)))
    const brief = briefOf(profile)
    const near = [...(this.#request.earlier ?? []), ...this.#written].filter(
      (w) => w.network === account.network,
    )
    const angles = this.#angles.get(account.id) ?? []
    const ranked: { wording: Wording; framed: boolean }[] = []
    for (const draft of drafts) {
      if (draft.framed && this.#framed * 3 >= this.#written.length + 1) continue
      const closing = brief.shape === 'considered' ? this.#closing(draft) : null
      const made = compose(draft, profile, brief, {
        link,
        title: piece.title,
        hashtags: this.#hashtags,
        closing,
      })
      if (!made || this.#openings.has(opening(made.text))) continue
      if (measure(made.text, profile.text) < brief.length.least * LEAST_OF_BAND) continue
      if (near.some((w) => likeness(w.text, made.text) > LIKENESS_BOUND)) continue
      const blocked = checkCaption(made.text, { profile, house, source: '', pictures: 99, others: [] }).some(
        (c) => c.severity === 'block',
      )
      if (blocked) continue
      const score = scoreWording(made, draft, profile, brief, passage, angles) + this.#random() * 0.02
      ranked.push({ wording: { ...made, score: Math.round(score * 1000) / 1000 }, framed: draft.framed })
    }
    ranked.sort((a, b) => b.wording.score - a.wording.score)
    return ranked.map((r) => r.wording)
  }

  #closing(draft: Draft): string | null {
    const own = this.#request.house.style.closingLines
    const stock = [...own, ...CLOSINGS[draft.angle]].filter((c) => !this.#closings.has(c))
    return stock[0] ?? null
  }

  #remember(wording: Wording, account: { id: string; network: string }): void {
    this.#openings.add(opening(wording.text))
    this.#written.push({ account: account.id, network: account.network, text: wording.text })
    this.#angles.set(account.id, [wording.angle, ...(this.#angles.get(account.id) ?? [])])
    const lines = new Set(wording.text.split('\n'))
    for (const c of [...this.#request.house.style.closingLines, ...Object.values(CLOSINGS).flat()])
      if (lines.has(c)) this.#closings.add(c)
    const inPiece = this.#said.includes(firstSentence(wording.text.split('\n')[0] ?? ''))
    if (!inPiece) this.#framed++
  }
}

/**
 * How good a wording is for its network, about 0 to 1: the passage's own score, whether it is
 * particular (numbers and long words), a hook that is short enough to be read at a glance, its
 * length against the brief's band, and an angle unlike the account's last ones.
 */
export function scoreWording(
  made: Omit<Wording, 'score'>,
  draft: Draft,
  profile: NetworkProfile,
  brief: Brief,
  passage: FoundPassage,
  lastAngles: readonly string[],
): number {
  const length = measure(made.text, profile.text)
  const { least, most } = brief.length
  const band = length < least ? length / least : length > most ? most / length : 1
  const body = draft.paragraphs.join(' ')
  const hook = graphemes(firstSentence(draft.paragraphs[0] ?? ''))
  const hookScore = hook < 18 ? 0.5 : hook <= 110 ? 1 : Math.max(0.3, 1 - (hook - 110) / 160)
  const numbered =
    /\d/.test(body) ||
    body
      .toLowerCase()
      .split(/[^a-z]+/)
      .some((w) => (NUMBER_WORDS[w] ?? 0) >= 3)
  const covers = Math.min(1, overlap(made.spans, passage) / Math.max(1, passage.end - passage.start))
  const shape =
    brief.shape === 'considered'
      ? Math.min(1, draft.paragraphs.length / 3)
      : brief.shape === 'pictures speak'
        ? draft.paragraphs.length <= 2
          ? 1
          : 0.6
        : draft.paragraphs.length <= 1 || made.text.includes('\n')
          ? 1
          : 0.8
  let score =
    0.2 * passage.score +
    0.2 * band +
    0.2 * hookScore +
    0.1 * (numbered ? 1 : 0.4) +
    0.15 * covers +
    0.15 * shape
  if (made.angle === lastAngles[0]) score -= 0.12
  else if (made.angle === lastAngles[1]) score -= 0.04
  if (draft.known) score -= 0.12
  if (draft.framed) score -= made.angle === 'question' ? 0.02 : 0.06
  return Math.max(0, score)
}

function overlap(
  spans: readonly { start: number; end: number }[],
  place: { start: number; end: number },
): number {
  return spans.reduce(
    (sum, s) => sum + Math.max(0, Math.min(s.end, place.end) - Math.max(s.start, place.start)),
    0,
  )
}

/** Up to six other wordings that differ from the chosen one and from each other. */
function unlike(best: Wording, rest: readonly Wording[]): Wording[] {
  const kept = [best]
  for (const wording of rest) {
    if (kept.length > 6) break
    if (kept.every((k) => k.text !== wording.text && likeness(k.text, wording.text) < 0.75))
      kept.push(wording)
  }
  return kept.slice(1)
}

/** Pictures go round, and the accounts start at different ones, so that neighbours differ. */
function assignPictures(
  posts: WrittenPost[],
  count: number,
  accounts: readonly { id: string; network: string }[],
): void {
  if (count === 0) return
  accounts.forEach((account, column) => {
    const { pictures } = network(account.network).media
    if (pictures.most === 0) return
    posts
      .filter((p) => p.account === account.id && p.wording)
      .forEach((post, i) => {
        const wanted = pictures.least > 0 || i % 2 === 1
        if (wanted) post.picture = ((pictures.least > 0 ? i : (i - 1) / 2) + column) % count
      })
  })
}

/** All a caption may draw on: the piece's text with its title, author and categories. */
export function sourceText(
  piece: Pick<PieceContent, 'title' | 'author' | 'categories' | 'text' | 'summary'>,
): string {
  return [piece.title, piece.author ?? '', piece.categories.join(', '), piece.summary, piece.text].join('\n')
}
