import { briefOf } from '../house'
import { checkCaption, isBlocked, likeness, sourceText, type CheckContext } from '../judging'
import type { Angle, FoundPassage, Wording } from '../model'
import { graphemes, network, type NetworkProfile } from '../networks'
import { chapterLines, titleFor, type Draft, type Headline } from '../setting'
import { withoutAddresses, withoutTags } from '../text'
import {
  propose,
  settled,
  skeletonDraft,
  type Assignment,
  type Order,
  type Recipient,
  type Stock,
} from '../writers'
import type { EarlierCaption } from './request'
import { closedLately, isFresh, saidBefore, type Said } from './said'
import { scoreWording } from './score'

/** What a caption of an assignment is held against. */
export function contextOf(
  { order, account }: Pick<Assignment, 'order' | 'account'>,
  captions: readonly EarlierCaption[],
  /** Null where it is seen later whether there are any: it has then what its network wants. */
  shown: { pictures: number; clips: number } | null,
): CheckContext {
  const { piece, house, link } = order
  const { media } = network(account.network)
  return {
    profile: network(account.network),
    house,
    source: sourceText(piece),
    writtenAt: piece.publishedAt,
    language: piece.language,
    link,
    pictures: shown?.pictures ?? media.pictures.least,
    clips: shown?.clips ?? media.clips.least,
    others: captions
      .filter((c) => c.network === account.network)
      .map((c) => ({ text: c.text, sibling: c.account !== account.id, longAgo: c.longAgo })),
  }
}

/** So many characters a network takes that has room for the points of a whole piece. */
const ROOM = 400

/** What proposes the drafts of a passage. */
export type Propose = typeof propose

/** The same, each passage and shape but once. */
export function onceEach(): Propose {
  const known = new Map<FoundPassage, Map<string, ReturnType<Propose>>>()
  return (stock, passage, shape) => {
    const mine = known.get(passage) ?? new Map<string, ReturnType<Propose>>()
    known.set(passage, mine)
    const key = shape === 'letter' ? 'letter' : 'post'
    const drafts = mine.get(key) ?? propose(stock, passage, shape)
    mine.set(key, drafts)
    return drafts
  }
}

/** The wordings of an assignment that may follow what was said, best first. */
export function ranked(assignment: Assignment, said: Said, proposed: Propose = propose): Wording[] {
  const { order, stock, account, passage, angle } = assignment
  const profile = network(account.network)
  const brief = briefOf(profile, order.house)
  const before = said.drip.filter((d) => d.account === account.id).map((d) => d.wording)
  const opened = said.openedLongAgo.get(account.id)
  const closed = closedLately(said, account.network)
  const context = contextOf(assignment, said.captions, null)
  const room = (profile.text.limit ?? Infinity) >= ROOM && brief.shape !== 'short'
  const whole = passage === null && room ? skeletonDraft(stock) : null
  const drafts = passage ? proposed(stock, passage, brief.shape) : whole ? [whole] : []
  const may = (a: Angle): boolean => (!angle || a === angle) && (!brief.angles || brief.angles.has(a))
  return drafts
    .filter((d) => may(d.angle))
    .flatMap((draft) => {
      const title = profile.title ? titleOf(assignment, draft, profile, said) : null
      if (profile.title && title === null) return []
      const made = settled(assignment, draft, title, closed)
      if (!made || repeatsTitle(made) || !isFresh(said, made, account.network)) return []
      if (isBlocked(made.text, { ...context, beside: made })) return []
      return [{ ...made, score: scoreWording(made, draft, assignment, before, opened) }]
    })
    .sort((a, b) => b.score - a.score)
}

/** The first of some wordings of which no rule says that it is doubtful: no machine sends out what a person would be asked about. */
export function firstSound(assignment: Assignment, said: Said, wordings: readonly Wording[]): Wording | null {
  const context = contextOf(assignment, said.captions, null)
  return (
    wordings.find((w) =>
      checkCaption(w.text, { ...context, beside: w }).every((c) => c.severity === 'note'),
    ) ?? null
  )
}

/**
 * A title for a draft: the heading over its part or its chapter of a film, a short sentence of it, the piece's title; one that
 * nobody has had in this drip and that the draft does not say again.
 */
function titleOf(
  { stock, part = false }: Assignment,
  draft: Draft,
  profile: NetworkProfile,
  said: Said,
): string | null {
  const { headlines, piece, study } = stock
  const [first] = draft.spans
  const at = study.sentences.find((s) => s.start >= (first?.start ?? 0))
  const heading = study.sentences[study.sections[at?.section ?? -1]?.from ?? -1]
  const over = (h: Headline): boolean => h.span !== null && h.span.start === heading?.start
  // A heading inside a letter stands there already.
  const inside = ({ span, why }: Headline): boolean =>
    span !== null &&
    why !== 'a heading' &&
    why !== 'a chapter' &&
    draft.spans.some((s) => s.start <= span.start && s.end >= span.end)
  const chapter = ({ why, span }: Headline): boolean =>
    why === 'a chapter' && span !== null && !!first && span.start <= first.start && first.start < span.end
  const whole = (h: Headline): boolean => h.span === null
  // Over the whole film stands its own title.
  const film = !part && profile.chapters && chapterLines(piece.video, profile.chapters) !== null
  const options = draft.whole
    ? headlines.filter(whole)
    : [...(film ? [whole] : []), over, chapter, inside, whole].flatMap((test) => headlines.filter(test))
  const limit = profile.title?.limit ?? 0
  return titleFor(
    draft,
    options.filter(({ text }) => graphemes(text) <= limit && !said.titles.has(text)),
    piece,
  )
}

/** Whether a text has nothing to say beyond its title. */
function repeatsTitle({ title, text }: Pick<Wording, 'title' | 'text'>): boolean {
  if (title === null) return false
  const rest = withoutTags(withoutAddresses(text.replace(title, '')))
  return (rest.match(/\p{L}+/gu) ?? []).length < 6
}

/** Every wording that can be made of some passages for one account, after what was said earlier; best first. */
export function candidatesFor(
  order: Order & { earlier?: readonly EarlierCaption[] },
  stock: Stock,
  account: Recipient,
  passages: readonly FoundPassage[],
  angle?: Angle,
): { wording: Wording; passage: FoundPassage }[] {
  const said = saidBefore(order.earlier)
  return passages
    .flatMap((passage) =>
      ranked({ order, stock, account, passage, beat: 0, angle }, said).map((wording) => ({
        wording,
        passage,
      })),
    )
    .sort((a, b) => b.wording.score - a.wording.score)
}

/** How alike two other wordings of one post may be. */
const ALIKE = 0.75

/** Other wordings that differ from the chosen one and from each other, at most so many. */
export function unlike(best: Wording, rest: readonly Wording[], most: number): Wording[] {
  const kept = [best]
  for (const wording of rest) {
    if (kept.length > most) break
    if (kept.every((k) => k.text !== wording.text && likeness(k.text, wording.text) < ALIKE))
      kept.push(wording)
  }
  return kept.slice(1)
}
