import { z } from 'zod'
import type { ChatMessage, FoundPassage, PieceContent, Place } from '../model'
import { passageAt } from '../passages'
import { withoutFillers } from '../speech'
import { heldTo, jsonIn, rulesFor, replyOf, wantedOf, type Commission, type Reply } from './connected'

/** How long an article may be, in characters, to be sent whole. */
const LONGEST_ARTICLE = 40_000

/** How many passages are asked for at most, and how long one may be, in characters. */
const MOST_PASSAGES = 16
const LONGEST_PASSAGE = 900

/** A piece with its sentences counted, as it is put before a connected writer. */
interface Numbered {
  text: string
  /** The place of each numbered sentence; the number 1 is the first. */
  places: Place[]
}

/**
 * A piece with a number before each sentence that is the brand's own. Furniture is left out; headings and
 * what guests say have no number, so that an answer in numbers cannot put their words into the brand's mouth.
 */
export function numberedText(piece: PieceContent): Numbered {
  const places: Place[] = []
  const blocks = piece.blocks.flatMap((block, index) => {
    if (block.furniture !== null) return []
    const words = piece.text.slice(block.start, block.end)
    if (block.kind === 'heading') return [`## ${words}`]
    if (block.kind === 'quotation') return [`> ${block.speaker ? `${block.speaker}: ` : ''}${words}`]
    const own = piece.sentences.filter((s) => s.block === index)
    if (own.length === 0) return []
    const counted = own.map(({ start, end }) => {
      const said = piece.text.slice(start, end)
      return `[${places.push({ start, end })}] ${piece.video ? withoutFillers(said) : said}`
    })
    return [`${block.kind === 'item' ? '- ' : ''}${counted.join(' ')}`]
  })
  return { text: blocks.join('\n\n'), places }
}

/** Whether a piece can be put whole into one question. */
const fits = ({ text, places }: Numbered): boolean => places.length > 0 && text.length <= LONGEST_ARTICLE

/** The numbers of the sentences that a passage holds, as “3–5”. */
function numbersOf({ start, end }: Place, places: readonly Place[]): string {
  const inside = places.flatMap((p, i) => (p.start < end && p.end > start ? [i + 1] : []))
  const [first, last] = [inside[0], inside.at(-1)]
  return first === undefined ? '' : first === last ? `sentence ${first}` : `sentences ${first}–${last}`
}

/**
 * One question for all posts of a drip: the article once, with its sentences numbered, then each post with
 * its brief and its passage. All requests are of one piece and one house. Null where the article is too long
 * to be sent whole; then each post is asked for by itself (`commission`).
 */
export function commissionDrip(requests: readonly Commission[]): ChatMessage[] | null {
  const [first] = requests
  if (!first) return null
  const numbered = numberedText(first.piece)
  if (!fits(numbered)) return null
  const rules = [
    ...rulesFor(first.house, 'an article with its sentences numbered, and the posts that are wanted'),
    'No two posts open with the same words or have the same title.',
    'Answer with JSON and nothing else: {"posts": [{"post": number, "text": string, "title": string where one is asked for}]}. In place of "text" a post may have "sentences": [numbers], in the order of the article; they are then taken word for word.',
  ]
  const wanted = [
    ...heldTo(first),
    `Title of the article: ${first.piece.title}`,
    `The article:\n"""\n${numbered.text}\n"""`,
    ...requests.map((request, i) => {
      const where = numbersOf(request.passage, numbered.places)
      const words = request.piece.text.slice(request.passage.start, request.passage.end)
      return `Post ${i + 1}, from ${where || `“${words}”`}:\n${wantedOf(request).join('\n')}`
    }),
  ]
  return [
    { role: 'system', content: rules.join('\n') },
    { role: 'user', content: wanted.join('\n\n') },
  ]
}

const DripAnswer = z.object({
  posts: z.array(
    z.object({
      post: z.int(),
      text: z.string().nullish(),
      sentences: z.array(z.int()).nullish(),
      title: z.string().nullish(),
    }),
  ),
})

/** What an answer to `commissionDrip` says of each post, in their order; null where it says nothing of one. */
export function answersOf(answer: string, requests: readonly Commission[]): (Reply | null)[] {
  const parsed = DripAnswer.safeParse(jsonIn(answer))
  const [first] = requests
  if (!parsed.success || !first) return requests.map(() => null)
  const { piece } = first
  const { places } = numberedText(piece)
  return requests.map((_, i) => {
    const own = parsed.data.posts.find((p) => p.post === i + 1)
    const chosen = [...new Set(own?.sentences ?? [])].sort((a, b) => a - b)
    const taken = chosen.flatMap((n) => places[n - 1] ?? [])
    if (taken.length > 0 && taken.length === chosen.length)
      return replyOf(joined(piece, taken), own?.title, taken)
    return own?.text?.trim() ? replyOf(own.text, own.title) : null
  })
}

/** Sentences as the author has them, with a blank line where a paragraph ends between two. */
function joined({ text }: PieceContent, places: readonly Place[]): string {
  return places
    .map(({ start, end }, i) => {
      const before = places[i - 1]
      const gap = !before ? '' : text.slice(before.end, start).includes('\n') ? '\n\n' : ' '
      return gap + text.slice(start, end)
    })
    .join('')
}

/**
 * Asks a connected model to choose the passages of a piece: it is given the numbered sentences and answers
 * with numbers, so that what it chooses stands in the piece by construction. Null where the piece is too long.
 */
export function commissionChoice(piece: PieceContent): ChatMessage[] | null {
  const numbered = numberedText(piece)
  if (!fits(numbered)) return null
  return [
    {
      role: 'system',
      content: [
        'You choose passages of an article that are worth posting by themselves. Its sentences are numbered.',
        'A passage is one to three sentences that stand together, or a list with what leads into it. A reader who has not seen the article understands it, from its first words on, and would stop for it: it is particular, surprising, or useful at once.',
        'Never choose what offers or advertises, points to another place of the article, tells of its author, or greets. Where few sentences are worth it, choose few.',
        `Answer with JSON and nothing else: {"passages": [[first, last], …]}, the best first, at most ${MOST_PASSAGES}.`,
      ].join('\n'),
    },
    { role: 'user', content: `Title of the article: ${piece.title}\n\n"""\n${numbered.text}\n"""` },
  ]
}

const ChoiceAnswer = z.object({
  passages: z.array(z.array(z.int()).min(1)).min(1),
})

/** The passages that an answer to `commissionChoice` chooses, the best first, none overlapping another; empty where it chooses none. */
export function choiceOf(answer: string, piece: PieceContent): FoundPassage[] {
  const parsed = ChoiceAnswer.safeParse(jsonIn(answer))
  if (!parsed.success) return []
  const { places } = numberedText(piece)
  const found: FoundPassage[] = []
  for (const numbers of parsed.data.passages.slice(0, MOST_PASSAGES)) {
    const start = places[Math.min(...numbers) - 1]?.start
    const end = places[Math.max(...numbers) - 1]?.end
    if (start === undefined || end === undefined || end - start > LONGEST_PASSAGE) continue
    const inside = (p: Place): boolean => p.start < end && p.end > start
    // Between two numbers may stand what has none: a heading, a guest's words, furniture.
    const foreign = piece.blocks.some(
      (b) => inside(b) && (b.furniture !== null || b.kind === 'quotation' || b.kind === 'heading'),
    )
    if (foreign || found.some(inside)) continue
    const passage = passageAt(piece, start, end)
    found.push({ ...passage, reasons: ['chosen by the connected writer', ...passage.reasons.slice(1)] })
  }
  return found
}
