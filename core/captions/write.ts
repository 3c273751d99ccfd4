import { inVoice, isEnglish } from '../language'
import type { Angle, Check, FoundPassage, PieceContent, TagFigures, Wording } from '../model'
import { graphemes, network, type NetworkProfile } from '../networks'
import { withoutAddresses, withoutTags } from '../text'
import { seededRandom, type Random } from '../planning'
import { briefOf, type House, type WholeBrief } from './brief'
import { plainWording } from './plain'
import { checkCaption, isBlocked } from './checks'
import { asks, closingsFor } from './closings'
import { compose, type Opener } from './compose'
import { draftsFor, type Draft } from './drafts'
import { framesFor } from './frames'
import { hashtagsFor, keyPhrases } from './hashtags'
import { headingOver } from './headings'
import { inHouse } from './house'
import { letterDraft } from './letters'
import { likeness, LIKENESS_BOUND, opening } from './likeness'
import { taggedLink } from './links'
import { anglesOf } from './material'
import { pollsOf } from './polls'
import { scoreWording } from './score'
import { threadOf } from './threads'
import { headlines, type Headline } from './titles'
import { titleFor } from './titling'
import { topicOf, type Topic } from './topics'
import { beginsLike, traitsOf, type Traits } from './traits'

/** A caption that is already out or planned, which a new one may not resemble; the newest last. */
export interface EarlierCaption {
  account: string
  network: string
  text: string
  /** The library's words in it, so that none comes again among the brand's last 30 on a network. */
  frame?: string | null
  closing?: string | null
}

/** How often a drip may use the same heading as a label. */
const LABELLED = 2

/** How many of a brand's last captions on a network a frame or a closing line stays away from. */
const RESTS = 30

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
  /** The pipeline’s name, for the tags of links. */
  pipeline?: string | undefined
  earlier?: readonly EarlierCaption[]
  /** Write in this angle only; where the piece has no material for it, there is no caption. */
  angle?: Angle | undefined
  /** How often tags are posted with, by network and tag, where the networks tell it. */
  tagFigures?: Readonly<Record<string, TagFigures>> | undefined
  /** How many other wordings are kept; six when not said. */
  wordings?: number | undefined
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
 * neither the account nor the beat has had, then a spare one; but an account gets no more posts than there
 * are kept passages, for a shorter drip beats a padded one. For every post many drafts are made, fitted and checked; the best by
 * `scoreWording` is taken and the next ones are kept as other wordings. No two captions of the
 * drip open alike, and none comes over the likeness bound with its account or a sibling.
 */
export function writeDrip(
  request: WriteRequest,
  onProgress?: (done: number, all: number) => void,
): WrittenPost[] {
  const { piece, accounts, days } = request
  if (!isEnglish(piece.language)) return writePlainly(request, onProgress)
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
      const post = writer.post(account, beat, day, mine.size < used.length ? candidates : [], used.length)
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

/** The posts of a drip of a piece in another language: its passages in turn, each as it stands. */
function writePlainly(
  request: WriteRequest,
  onProgress?: (done: number, all: number) => void,
): WrittenPost[] {
  const { piece, accounts, days, house, link } = request
  const used = request.passages.slice(0, days.length)
  const posts = days.flatMap((day, beat) =>
    accounts.map((account, column): WrittenPost => {
      const profile = network(account.network)
      const passage = beat < used.length ? (used[(beat + column) % used.length] ?? null) : null
      const wording = passage && plainWording(request, passage, account)
      const message = passage
        ? `The passage does not fit ${profile.name} as it stands, and it is not in English, so nothing is shortened. Choose a shorter one in the Reader.`
        : `The piece is too thin for beat ${beat + 1}: ${used.length} of its passages are kept, and each goes out once on an account. Keep or add one in the Reader, or choose a shorter rhythm.`
      return {
        beat,
        day,
        account: account.id,
        network: account.network,
        passage,
        wording: wording || null,
        others: [],
        checks: wording ? [] : [{ code: 'too-thin', severity: 'block', message }],
        picture: null,
      }
    }),
  )
  assignPictures(posts, piece.images.length, accounts)
  return posts.map((post, i) => {
    onProgress?.(i + 1, posts.length)
    if (!post.wording) return post
    const others = posts.filter((p) => p.wording && p !== post && p.network === post.network)
    const checks = checkCaption(post.wording.text, {
      profile: network(post.network),
      house,
      source: sourceText(piece),
      language: piece.language,
      link,
      pictures: post.picture === null ? 0 : 1,
      others: others.map((o) => ({ text: o.wording?.text ?? '', sibling: o.account !== post.account })),
      beside: post.wording,
    })
    return { ...post, checks }
  })
}

/** Every caption that can be made of some passages for one account, checked against the network's blocks; best first. */
export function candidatesFor(
  request: Omit<WriteRequest, 'days' | 'accounts'>,
  account: { id: string; network: string },
  passages: readonly FoundPassage[],
): { wording: Wording; passage: FoundPassage }[] {
  if (!isEnglish(request.piece.language))
    return passages.flatMap((passage) => {
      const wording = plainWording(request, passage, account)
      return wording ? [{ wording, passage }] : []
    })
  const writer = new Writer({ ...request, accounts: [account], days: [0] }, seededRandom(request.seed))
  return passages
    .flatMap((passage) => writer.candidates(passage, account).map((wording) => ({ wording, passage })))
    .sort((a, b) => b.wording.score - a.wording.score)
}

/** A draft that another writer made, set for an account by the same fitting as every caption; null where it does not fit. */
export function setDraft(
  request: Omit<WriteRequest, 'days' | 'accounts'>,
  draft: Draft,
  passage: FoundPassage,
  account: { id: string; network: string },
  title: string | null,
  beat: number,
): Wording | null {
  const writer = new Writer({ ...request, accounts: [account], days: [0] }, seededRandom(request.seed))
  return writer.set(draft, passage, account, title, beat)
}

class Writer {
  readonly #request: WriteRequest
  readonly #random: Random
  readonly #hashtags = new Map<string, string[]>()
  readonly #phrases: string[]
  readonly #headlines: Headline[]
  readonly #topic: Topic
  /** The words of the piece's key phrases. */
  readonly #subject: ReadonlySet<string>
  readonly #drafts = new Map<FoundPassage, Draft[]>()
  readonly #traits = new WeakMap<Draft, Traits>()
  readonly #openings = new Set<string>()
  readonly #written: EarlierCaption[] = []
  readonly #before = new Map<string, Wording[]>()
  readonly #titles = new Set<string>()
  /** How often a heading or the title was a label in this drip. */
  readonly #labels = new Map<string, number>()
  #framed = 0

  constructor(request: WriteRequest, random: Random) {
    const { piece } = request
    this.#request = request
    this.#random = random
    this.#phrases = [...new Set([...piece.categories.map((c) => c.toLowerCase()), ...keyPhrases(piece)])]
    this.#headlines = headlines(piece, 60)
    this.#topic = topicOf(piece)
    this.#subject = new Set(this.#phrases.flatMap((p) => p.split(' ')))
  }

  post(
    account: { id: string; network: string },
    beat: number,
    day: number,
    candidates: readonly FoundPassage[],
    kept: number,
  ): WrittenPost {
    const profile = network(account.network)
    const base = { beat, day, account: account.id, network: account.network, picture: null }
    const none = (passage: FoundPassage | null, message: string): WrittenPost => ({
      ...base,
      passage,
      wording: null,
      others: [],
      checks: [{ code: 'too-thin', severity: 'block', message }],
    })
    const [first] = candidates
    if (!first)
      return none(
        null,
        `The piece is too thin for beat ${beat + 1}: ${kept === 1 ? 'one passage is' : `${kept} passages are`} kept, and each goes out once on an account. Keep or add one in the Reader, or choose a shorter rhythm.`,
      )
    let fallback: { passage: FoundPassage; ranked: Wording[] } | null = null
    const take = (passage: FoundPassage, [best, ...rest]: Wording[]): WrittenPost | null => {
      if (!best) return null
      this.#remember(best, account)
      const others = unlike(best, rest, Math.max(6, this.#request.wordings ?? 6))
      return { ...base, passage, wording: best, others, checks: [] }
    }
    for (const candidate of candidates) {
      const ranked = this.#rank(candidate, account, profile, beat)
      // A thread or a poll is for a person to choose.
      if (ranked[0]?.parts.length || ranked[0]?.poll.length) continue
      // The library's words are for where no passage can open with its own.
      if (ranked[0]?.frame) fallback ??= { passage: candidate, ranked }
      else {
        const post = take(candidate, ranked)
        if (post) return post
      }
    }
    const framed = fallback && take(fallback.passage, fallback.ranked)
    if (framed) return framed
    return none(
      first,
      `No caption for ${profile.name} can be made of the passages that are left that is whole, fits, and is unlike the others. Keep or add a passage in the Reader, or choose a shorter rhythm.`,
    )
  }

  /** What stands around every caption of an account, apart from its opener, title and closing line. */
  #around(draft: Draft, account: { id: string; network: string }, profile: NetworkProfile, beat: number) {
    const { piece, house } = this.#request
    return {
      piece,
      link: this.#link(account, draft.angle, beat),
      hashtags: this.#tagsOf(profile),
      phrases: this.#phrases,
      credit: house.style.credit,
      house: (text: string) => inHouse(text, house.style, profile.id),
    }
  }

  /**
   * A draft that another writer made, set as the account's network expects it; null where it does
   * not fit. A title that it lacks is found in the piece.
   */
  set(
    draft: Draft,
    passage: FoundPassage,
    account: { id: string; network: string },
    title: string | null,
    beat: number,
  ): Wording | null {
    const profile = network(account.network)
    const brief = briefOf(profile, this.#request.house)
    const closed = new Set(this.#near(account.network).flatMap((w) => w.closing ?? []))
    const made = compose(draft, profile, brief, {
      ...this.#around(draft, account, profile, beat),
      closing: this.#closing(draft, brief, closed),
      opener: null,
      title: profile.title ? (title ?? this.#titlesFor(passage, profile)[0]?.text ?? null) : null,
    })
    if (!made) return null
    const score = scoreWording(made, { draft, profile, brief, passage, about: true, before: [] })
    return { ...made, score: Math.round(score * 1000) / 1000 }
  }

  candidates(passage: FoundPassage, account: { id: string; network: string }): Wording[] {
    return this.#rank(passage, account, network(account.network), 0)
  }

  check(post: WrittenPost): WrittenPost {
    const { wording } = post
    if (!wording) return post
    const others = this.#near(post.network).filter((w) => w.text !== wording.text)
    const checks = checkCaption(wording.text, {
      ...this.#context(network(post.network)),
      pictures: post.picture === null ? 0 : 1,
      others: others.map((o) => ({ text: o.text, sibling: o.account !== post.account })),
      beside: wording,
    })
    return { ...post, checks }
  }

  #context(profile: NetworkProfile) {
    const { piece, house, link } = this.#request
    return {
      profile,
      house,
      source: sourceText(piece),
      writtenAt: piece.publishedAt,
      language: piece.language,
      link,
    }
  }

  #near(networkId: string): EarlierCaption[] {
    return [...(this.#request.earlier ?? []), ...this.#written].filter((w) => w.network === networkId)
  }

  #rank(
    passage: FoundPassage,
    account: { id: string; network: string },
    profile: NetworkProfile,
    beat: number,
  ): Wording[] {
    const { piece, house, angle } = this.#request
    const brief = briefOf(profile, house)
    const near = this.#near(account.network)
    const lately = near.slice(-RESTS)
    const taken = new Set([
      ...lately.flatMap((w) => w.frame ?? []),
      ...this.#written.flatMap((w) => w.frame ?? []),
    ])
    const closed = new Set([
      ...lately.flatMap((w) => w.closing ?? []),
      ...this.#written.flatMap((w) => w.closing ?? []),
    ])
    const context = { ...this.#context(profile), pictures: 99, clips: 99, others: [] }
    const ranked: Wording[] = []
    const titles = profile.title ? this.#titlesFor(passage, profile) : []
    if (profile.title && titles.length === 0) return []
    const frames = this.#framed * 3 < this.#written.length + 1
    for (const draft of this.#draftsOf(passage, brief)) {
      if (angle && draft.angle !== angle) continue
      if (brief.angles && !brief.angles.has(draft.angle)) continue
      if (draft.framed && !frames) continue
      const title = titles.length ? titleFor(draft, titles, piece) : null
      if (profile.title && title === null) continue
      const { about, lone, strange } = this.#traitsOf(draft)
      const openers = [null, ...(draft.framed ? [] : this.#openers(draft, brief, taken, frames, title))]
      for (const opener of openers) {
        // One sentence that neither names the subject nor tells what to do says nothing to anybody.
        if (lone && !(opener?.names ?? false)) continue
        if (strange && !(opener?.names ?? false) && title === null) continue
        // Most drafts open as one that is written already: that is seen before anything is made of them.
        const opens = opening(`${opener?.text ?? ''} ${draft.paragraphs[0] ?? ''}`)
        if (title === null && this.#openings.has(opens)) continue
        const made = compose(draft, profile, brief, {
          ...this.#around(draft, account, profile, beat),
          closing: this.#closing(draft, brief, closed),
          opener,
          title,
        })
        if (!made || repeats(made) || this.#opensAlike(made)) continue
        // The same thought for two networks is shaped twice.
        if (this.#written.some((w) => w.text === made.text)) continue
        if (near.some((w) => likeness(w.text, made.text) > LIKENESS_BOUND)) continue
        if (isBlocked(made.text, { ...context, beside: made })) continue
        const score =
          scoreWording(made, {
            draft,
            profile,
            brief,
            passage,
            about: about || (opener?.names ?? false) || title !== null,
            before: this.#before.get(account.id) ?? [],
          }) +
          this.#random() * 0.02
        ranked.push({ ...made, score: Math.round(score * 1000) / 1000 })
      }
    }
    const ordered = ranked.sort((a, b) => b.score - a.score)
    const forms = this.#otherForms(passage, brief, profile, (a) => this.#link(account, a, beat))
    return [
      ...ordered,
      ...forms.filter((f) => (!angle || f.angle === angle) && !isBlocked(f.text, { ...context, beside: f })),
    ]
  }

  /** A thread of the passage's part of the piece and polls of its alternatives, to choose by hand. */
  #otherForms(
    passage: FoundPassage,
    brief: WholeBrief,
    profile: NetworkProfile,
    linkFor: (angle: Angle) => string | null,
  ): Wording[] {
    const { piece, house } = this.#request
    const plain = (text: string): string => inHouse(inVoice(text, brief.voice), house.style, profile.id)
    const base = {
      by: 'built-in' as const,
      title: null,
      summary: null,
      tags: [],
      firstComment: null,
      hashtags: [],
      frame: null,
      closing: null,
    }
    const made: Wording[] = []
    const [usual] = this.#draftsOf(passage, brief)
    const told = passage.kind === 'steps' ? 'checklist' : (usual?.angle ?? 'lesson')
    const thread = threadOf(piece, passage, profile, brief, linkFor(told))
    const [first, ...parts] = thread?.parts ?? []
    if (thread && first)
      made.push({
        ...base,
        angle: told,
        format: 'thread',
        text: plain(first),
        parts: parts.map(plain),
        poll: [],
        spans: thread.spans,
        score: 0.4,
      })
    for (const poll of pollsOf(piece, profile)) {
      const link = brief.link === 'text' ? linkFor('question') : null
      const text = [plain(poll.question), link].filter(Boolean).join(' ')
      made.push({
        ...base,
        angle: 'question',
        format: 'poll',
        text,
        parts: [],
        poll: poll.answers.map(plain),
        spans: poll.span ? [poll.span] : [],
        score: 0.3,
      })
    }
    return made
  }

  /** The piece's hashtags as a network ranks them. */
  #tagsOf({ id }: NetworkProfile): string[] {
    const { piece, house, tagFigures } = this.#request
    const known = this.#hashtags.get(id)
    if (known) return known
    const tags = hashtagsFor(piece, house.style.hashtags, tagFigures?.[id])
    this.#hashtags.set(id, tags)
    return tags
  }

  /** The piece's address with the house's tags. */
  #link(account: { id: string; network: string }, angle: Angle, beat: number): string | null {
    const { link, house, pipeline = '' } = this.#request
    return link === null
      ? null
      : taggedLink(link, house.style.linkTags, {
          brand: house.brand,
          network: account.network,
          pipeline,
          angle,
          account: account.id,
          beat: beat + 1,
        })
  }

  #draftsOf(passage: FoundPassage, brief: WholeBrief): Draft[] {
    const { piece } = this.#request
    let drafts = this.#drafts.get(passage)
    if (!drafts) {
      drafts = draftsFor(piece, passage).flatMap((draft) => withMaterial(piece, draft) ?? [])
      this.#drafts.set(passage, drafts)
    }
    if (brief.shape !== 'letter') return drafts
    const letter = letterDraft(piece, passage, drafts[0]?.angle ?? 'lesson')
    // A letter has room to begin with what its reader knows.
    return letter && !this.#traitsOf(letter).strange ? [letter, ...drafts] : drafts
  }

  /**
   * Openers for a draft: the heading over it or the piece's title as a label, which are the piece's
   * own words, and a frame of its angle from the library while the drip may have more of them.
   */
  #openers(
    draft: Draft,
    brief: WholeBrief,
    taken: ReadonlySet<string>,
    frames: boolean,
    title: string | null,
  ): Opener[] {
    const first = draft.paragraphs[0] ?? ''
    const labelled = /^[^.!?]{3,70}: \p{Ll}/u.test(first) || /^[^.!?\n]{3,90}:$/.test(first)
    if (brief.shape === 'letter' || labelled || /^[“"]/.test(first)) return []
    const openers: Opener[] = []
    const label = (text: string | null): void => {
      const used = text === null ? LABELLED : (this.#labels.get(text) ?? 0)
      if (text !== null && used < LABELLED && !beginsLike(first, text))
        openers.push({ frame: null, text: `${text}:`, names: true })
    }
    if (draft.heading !== title) label(draft.heading)
    const { about, figures } = this.#traitsOf(draft)
    if (title === null && !about) label(this.#topic.label)
    if (!frames) return openers
    const fitting = framesFor(draft.angle, this.#topic, brief.voice, draft.opens, taken, figures)
    const chosen = fitting[Math.floor(this.#random() * fitting.length)]
    if (chosen) openers.push({ frame: chosen.id, text: chosen.text, names: chosen.names })
    return openers
  }

  #traitsOf(draft: Draft): Traits {
    let traits = this.#traits.get(draft)
    if (!traits)
      this.#traits.set(draft, (traits = traitsOf(draft, this.#request.piece, this.#topic, this.#subject)))
    return traits
  }

  /** Whether a caption opens as another of the drip does; where there is a title, it may open instead. */
  #opensAlike({ text, title }: Pick<Wording, 'text' | 'title'>): boolean {
    if (!this.#openings.has(opening(text))) return false
    return title === null || this.#titles.has(title)
  }

  #closing(draft: Draft, brief: WholeBrief, closed: ReadonlySet<string>): string | null {
    if (brief.closing === 'none') return null
    const own = this.#request.house.style.closingLines.filter((c) => !closed.has(c))
    if (brief.closing === 'a line of the house' || own.length) return own[0] ?? null
    if (!asks(brief.voice)) return null
    const stock = closingsFor(draft.angle, this.#topic, draft.opens).filter((c) => !closed.has(c))
    const named = stock.filter(
      (c) => c.includes(this.#topic.noun ?? '\n') || c.includes(this.#topic.doing ?? '\n'),
    )
    const pool = named.length ? named : stock
    return pool[Math.floor(this.#random() * pool.length)] ?? null
  }

  /**
   * Titles for a post of a passage, best first: the heading over it, its own short sentences, the
   * piece's title; none that the network has had in this drip.
   */
  #titlesFor(passage: FoundPassage, profile: NetworkProfile): Headline[] {
    const { piece } = this.#request
    const limit = profile.title?.limit ?? 0
    const own = headingOver(piece, passage)?.start ?? null
    const over = this.#headlines.filter((h) => h.span !== null && h.span.start === own)
    const inside = this.#headlines.filter(
      (h) => h.span !== null && h.span.start >= passage.start && h.span.end <= passage.end,
    )
    const options = [...over, ...inside, ...this.#headlines.filter((h) => h.span === null)]
    const free = options.filter(
      ({ text }) => graphemes(text) <= limit && !this.#titles.has(`${profile.id} ${text}`),
    )
    // One that no network has had comes first.
    const had = (h: Headline): boolean => this.#titles.has(h.text)
    return [...free.filter((h) => !had(h)), ...free.filter(had)]
  }

  #remember(wording: Wording, account: { id: string; network: string }): void {
    const { frame, closing, text } = wording
    this.#openings.add(opening(text))
    if (wording.title) this.#titles.add(`${account.network} ${wording.title}`).add(wording.title)
    this.#written.push({ account: account.id, network: account.network, text, frame, closing })
    this.#before.set(account.id, [wording, ...(this.#before.get(account.id) ?? [])])
    if (frame !== null) this.#framed++
    const label = /^([^:\n]{3,70}):\s/.exec(text)?.[1]
    if (label) this.#labels.set(label, (this.#labels.get(label) ?? 0) + 1)
  }
}

/** A draft in its angle where the piece holds material for that in its place, else in one for which it does. */
function withMaterial(piece: PieceContent, draft: Draft): Draft | null {
  const carried = anglesOf(piece, draft.spans)
  const [other] = carried
  return carried.includes(draft.angle) ? draft : other ? { ...draft, angle: other } : null
}

/** Whether a text has nothing to say beyond its title. */
function repeats({ title, text }: Pick<Wording, 'title' | 'text'>): boolean {
  if (title === null) return false
  const rest = withoutTags(withoutAddresses(text.replace(title, '')))
  return (rest.match(/\p{L}+/gu) ?? []).length < 6
}

/** Other wordings that differ from the chosen one and from each other. */
function unlike(best: Wording, rest: readonly Wording[], most: number): Wording[] {
  const kept = [best]
  for (const wording of rest) {
    if (kept.length > most) break
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
