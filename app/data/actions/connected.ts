import { linkOf, type House } from '../../../core/house'
import { sentBack, type Commission, type Reply } from '../../../core/writers'
import {
  asFault,
  besideMedia,
  Fault,
  TOGETHER,
  type Brand,
  type ChatMessage,
  type Gate,
  type Passage,
  type Post,
  type WholePiece,
  type Wording,
} from '../../../core/model'
import { STORY } from '../../../core/networks'
import { earlierCaptions, gateState } from '../../../core/pipeline'
import { heavy } from '../../workers'
import { nowIso } from '../clock'
import { askWriter, tagFiguresFor } from '../services'
import type { Option } from './captions'
import { aroundPost } from './posts'

/** After so many questions in a row that came to nothing, no more are put for this drip. */
const GIVES_UP = 3

/** What a connected writer made of a post, or why it made nothing. */
type Outcome = { wording: Wording } | { why: string }

/** Whether a caption stands beside a post's, so that it must not be said again: of its drip, of its occasion's day, or from its passage. */
function standsBeside(other: Post, post: Post): boolean {
  if (other.id === post.id) return false
  if (post.drip !== null) return other.drip === post.drip
  const { occasion } = post
  const sameDay =
    occasion !== undefined && other.occasion?.id === occasion.id && other.occasion.day === occasion.day
  return sameDay || (other.passage !== null && other.passage === post.passage)
}

/** A commission for a post with the captions around it. */
function commissionFor(
  post: Post,
  passage: Passage,
  house: House,
  piece: WholePiece,
  others: readonly Post[],
  tagFigures: Commission['tagFigures'],
): Commission {
  const beside = others.filter((o) => standsBeside(o, post))
  return {
    piece: besideMedia(piece, post.media),
    passage,
    house,
    link: post.link,
    seed: post.revision + post.others.length,
    account: { id: post.account, network: post.network },
    angle: post.wording.angle ?? 'lesson',
    beat: post.beat,
    drip: beside.map((o) => o.wording.text),
    titles: beside.flatMap((o) => o.wording.title || []),
    earlier: earlierCaptions(
      others.filter((o) => o.id !== post.id),
      nowIso(),
    ),
    tagFigures,
  }
}

/** Weighs an answer; one that cannot go out is sent back once with its faults named. */
async function settle(
  request: Commission,
  messages: ChatMessage[],
  answer: string | Reply,
): Promise<Outcome> {
  const weigh = (text: string | Reply) => heavy().weighAnswer(text, request)
  const first = await weigh(answer)
  if ('wording' in first) return first
  const second = await askWriter(
    sentBack(
      messages,
      typeof answer === 'string' ? answer : JSON.stringify({ text: answer.text, title: answer.title }),
      first.faults,
    ),
  )
    .then((again) => weigh(again.text))
    .catch((error: unknown) => ({ faults: [asFault(error).message] }))
  if ('wording' in second) return second
  return { why: `The connected writer’s answer could not go out: ${second.faults[0] ?? first.faults[0]}` }
}

/** An answer for a post, not yet weighed, with the question it can be sent back to. */
type Answered = { messages: ChatMessage[]; said: string | Reply } | { why: string }

/**
 * Asks for all posts of a drip at once, a dozen to a question; what an answer leaves out is asked for post by
 * post, as all are where the piece is too long for one question. After three failures in a row nothing more
 * is asked.
 */
async function askForAll(
  requests: readonly (Commission | null)[],
  onProgress: (done: number) => void,
): Promise<Answered[]> {
  const answers: Answered[] = requests.map(() => ({ why: 'Its passage has lost its place.' }))
  const wanted = requests.flatMap((request, i) => (request ? [{ request, i }] : []))
  let failures = 0
  let why = ''
  let done = 0
  const asked = async <T>(work: () => Promise<T>): Promise<T | { why: string }> => {
    try {
      const made = await work()
      failures = 0
      return made
    } catch (error) {
      failures++
      why = asFault(error).message
      return { why }
    }
  }
  const single = async ({ request, i }: (typeof wanted)[number]): Promise<void> => {
    const messages = await heavy().commission(request)
    answers[i] = await asked(async () => ({ messages, said: (await askWriter(messages)).text }))
    onProgress(++done)
  }
  for (let from = 0; from < wanted.length && failures < GIVES_UP; from += TOGETHER) {
    const group = wanted.slice(from, from + TOGETHER)
    const rest = group.length > 1 ? await together(group, answers, asked) : group
    onProgress((done += group.length - rest.length))
    for (const post of rest) {
      if (failures < GIVES_UP) await single(post)
    }
  }
  const unasked = wanted.filter(({ i }) => 'why' in (answers[i] ?? {}))
  for (const { i } of failures >= GIVES_UP ? unasked : []) answers[i] = { why }
  return answers
}

/** Puts one question for some posts; gives those of which the answer said nothing. */
async function together(
  group: readonly { request: Commission; i: number }[],
  answers: Answered[],
  asked: <T>(work: () => Promise<T>) => Promise<T | { why: string }>,
): Promise<{ request: Commission; i: number }[]> {
  const requests = group.map((g) => g.request)
  const messages = await heavy().commissionDrip(requests)
  if (!messages) return [...group]
  const answer = await asked(() => askWriter(messages, group.length))
  if ('why' in answer) return [...group]
  const said = await heavy().answersOf(answer.text, requests)
  const rest: { request: Commission; i: number }[] = []
  for (const [k, one] of group.entries()) {
    const mine = said[k]
    if (mine) answers[one.i] = { messages: await heavy().commission(one.request), said: mine }
    else rest.push(one)
  }
  return rest
}

/**
 * Has the connected writer write the posts of a drip, each from its passage and in its angle. Its
 * captions take the place of the built-in writer's, which stay as other wordings, but for stories; where it fails,
 * the built-in writer's stays and says why.
 */
export async function writeConnected(
  drip: {
    posts: readonly Post[]
    standing: readonly Post[]
    brand: Brand
    house: House
    piece: WholePiece
    passages: readonly Passage[]
    gate: Gate
    tagFigures: Commission['tagFigures']
    /** The occasion that they are for, by its name; absent for none. */
    day?: string
  },
  onProgress: (done: number, all: number) => void,
): Promise<Post[]> {
  const { brand, piece, gate } = drip
  const written = [...drip.posts]
  // The words of a story are those of its card.
  const isStory = ({ wording }: Post): boolean => wording.format === STORY
  const request = (post: Post, beside: readonly Post[]): Commission | null => {
    const passage = drip.passages.find((p) => p.id === post.passage)
    const around = [...drip.standing, ...beside]
    if (!passage || isStory(post)) return null
    return { ...commissionFor(post, passage, drip.house, piece, around, drip.tagFigures), day: drip.day }
  }
  const answers = await askForAll(
    written.map((post) => request(post, [])),
    (done) => onProgress(done, written.filter((p) => !isStory(p)).length),
  )
  // One after the other, so that each is held against those before it and those that stay as they are.
  for (const [i, post] of written.entries()) {
    if (isStory(post)) continue
    const answer = answers[i]
    const settled = written.filter((_, k) => k < i || 'why' in (answers[k] ?? {}))
    const asked = request(post, settled)
    const outcome =
      answer && 'said' in answer && asked
        ? await settle(asked, answer.messages, answer.said)
        : { why: answer && 'why' in answer ? answer.why : '' }
    if ('why' in outcome) {
      written[i] = { ...post, fallback: outcome.why }
      continue
    }
    const next: Post = {
      ...post,
      wording: outcome.wording,
      others: [post.wording, ...post.others],
      link: linkOf(outcome.wording, post.link),
    }
    const checks = await heavy().recheck(next, brand, piece, [...drip.standing, ...written])
    written[i] = { ...next, checks, state: gateState(checks, gate) }
  }
  return written
}

/** One wording of a post by the connected writer; throws why there is none. */
export async function connectedWording(id: string): Promise<Option[]> {
  const { post, house, piece, passages, posts } = await aroundPost(id)
  const passage = passages.find((p) => p.id === post.passage && !p.lostPlace)
  if (!passage)
    throw new Fault('not-found', 'Its passage has lost its place in the piece. Choose another passage first.')
  const figures = await tagFiguresFor(piece, [post.network])
  const asked = commissionFor(post, passage, house, piece, posts, figures)
  // Another wording: not the one there is once more.
  const request = { ...asked, drip: [...asked.drip, post.wording.text] }
  const messages = await heavy().commission(request)
  const outcome = await settle(request, messages, (await askWriter(messages)).text)
  if ('why' in outcome) throw new Fault('bad-answer', `${outcome.why} The caption there is stays.`)
  return [{ wording: outcome.wording, passage: passage.id }]
}
