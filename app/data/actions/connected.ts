import { houseOf, linkOf } from '../../../core/house'
import { sentBack, type Commission, type Weighed } from '../../../core/writers'
import {
  asFault,
  Fault,
  type Brand,
  type ChatMessage,
  type Gate,
  type Passage,
  type Post,
  type WholePiece,
  type Wording,
} from '../../../core/model'
import { earlierCaptions, gateState } from '../../../core/pipeline'
import { heavy, unwrap } from '../../workers'
import { nowIso } from '../clock'
import { askWriter, tagFiguresFor } from '../services'
import type { Option } from './captions'
import { aroundPost } from './posts'

/** How many questions are out at a time. */
const AT_ONCE = 3
/** After so many questions in a row that came to nothing, no more are put for this drip. */
const GIVES_UP = 3

/** What a connected writer made of a post, or why it made nothing. */
type Outcome = { wording: Wording } | { why: string }

/** A commission for a post with the captions around it. */
function commissionFor(
  post: Post,
  passage: Passage,
  brand: Brand,
  piece: WholePiece,
  others: readonly Post[],
  tagFigures: Commission['tagFigures'],
): Commission {
  return {
    piece,
    passage,
    house: houseOf(brand),
    link: post.link,
    seed: post.revision + post.others.length,
    account: { id: post.account, network: post.network },
    angle: post.wording.angle ?? 'lesson',
    beat: post.beat,
    drip: others.flatMap((o) => (o.drip === post.drip && o.id !== post.id ? o.wording.text : [])),
    earlier: earlierCaptions(
      others.filter((o) => o.id !== post.id),
      nowIso(),
    ),
    tagFigures,
  }
}

/** Weighs an answer; one that cannot go out is sent back once with its faults named. */
async function settle(request: Commission, messages: ChatMessage[], answer: string): Promise<Outcome> {
  const weigh = (text: string) => unwrap<Weighed>(heavy().weighAnswer(text, request) as never)
  const first = await weigh(answer)
  if ('wording' in first) return first
  const second = await askWriter(sentBack(messages, answer, first.faults))
    .then((again) => weigh(again.text))
    .catch((error: unknown) => ({ faults: [asFault(error).message] }))
  if ('wording' in second) return second
  return { why: `The connected writer’s answer could not go out: ${second.faults[0] ?? first.faults[0]}` }
}

/**
 * Has the connected writer write the posts of a drip, each from its passage and in its angle. Its
 * captions take the place of the built-in writer's, which stay as other wordings; where it fails,
 * the built-in writer's stays and says why. After three failures in a row it is asked no more.
 */
export async function writeConnected(
  drip: {
    posts: readonly Post[]
    standing: readonly Post[]
    brand: Brand
    piece: WholePiece
    passages: readonly Passage[]
    gate: Gate
    tagFigures: Commission['tagFigures']
  },
  onProgress: (done: number, all: number) => void,
): Promise<Post[]> {
  const { brand, piece, gate } = drip
  const written = [...drip.posts]
  const answers = new Map<string, { messages: ChatMessage[]; text: string } | { why: string }>()
  let failures = 0
  let why = ''
  const queue = [...written]
  const request = (post: Post): Commission | null => {
    const passage = drip.passages.find((p) => p.id === post.passage)
    const around = [...drip.standing, ...written]
    return passage ? commissionFor(post, passage, brand, piece, around, drip.tagFigures) : null
  }
  const work = async (): Promise<void> => {
    for (let post = queue.shift(); post; post = queue.shift()) {
      const asked = request(post)
      if (!asked || failures >= GIVES_UP)
        answers.set(post.id, { why: asked ? why : 'Its passage has lost its place.' })
      else {
        const messages = await heavy().commission(asked)
        try {
          answers.set(post.id, { messages, text: (await askWriter(messages)).text })
          failures = 0
        } catch (error) {
          failures++
          why = asFault(error).message
          answers.set(post.id, { why })
        }
      }
      onProgress(answers.size, written.length)
    }
  }
  await Promise.all(Array.from({ length: AT_ONCE }, work))
  // One after the other, so that each is held against those before it.
  for (const [i, post] of written.entries()) {
    const answer = answers.get(post.id)
    const asked = request(post)
    const outcome =
      answer && 'text' in answer && asked
        ? await settle(asked, answer.messages, answer.text)
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
  const { post, brand, piece, passages, posts } = await aroundPost(id)
  const passage = passages.find((p) => p.id === post.passage && !p.lostPlace)
  if (!passage)
    throw new Fault('not-found', 'Its passage has lost its place in the piece. Choose another passage first.')
  const figures = await tagFiguresFor(piece, [post.network])
  const asked = commissionFor(post, passage, brand, piece, posts, figures)
  // Another wording: not the one there is once more.
  const request = { ...asked, drip: [...asked.drip, post.wording.text] }
  const messages = await heavy().commission(request)
  const outcome = await settle(request, messages, (await askWriter(messages)).text)
  if ('why' in outcome) throw new Fault('bad-answer', `${outcome.why} The caption there is stays.`)
  return [{ wording: outcome.wording, passage: passage.id }]
}
