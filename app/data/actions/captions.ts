import {
  type AskedOf,
  type RewordRequest,
  type SeriesPost,
  type Way,
  type WrittenPost,
} from '../../../core/drips'
import { houseOf } from '../../../core/house'
import { type Headline } from '../../../core/setting'
import {
  besideMedia,
  Fault,
  may,
  type Angle,
  type Brand,
  type Check,
  type Passage,
  type Post,
  type Wording,
} from '../../../core/model'
import { heavy } from '../../workers'
import { tagFiguresFor } from '../services'
import { all, must, wholePiece, type Write } from '../store'
import { commitRecalled, happening, happensIfMay } from './life'
import { anotherWording, aroundPost, checksOf, doubted, mediaWith, withWording } from './posts'

const NONE: Partial<Record<Way, string>> = {
  another: 'No other wording',
  shorter: 'No shorter caption',
  longer: 'No longer caption',
  plainer: 'No plainer caption',
  warmer: 'No warmer caption',
  bolder: 'No bolder caption',
  'as a question': 'No question',
  'as a thread': 'No thread',
  'as a poll': 'No poll',
}

const usable = (p: Passage): boolean => p.choice !== 'left out' && !p.lostPlace
const byScore = (a: Passage, b: Passage): number =>
  Number(b.choice === 'kept') - Number(a.choice === 'kept') || b.score - a.score

/** What a brand as it stands, or as it is being changed, would write from a piece for some networks. */
export async function exampleOf(
  brand: Brand,
  piece: string,
  networks: readonly string[],
): Promise<WrittenPost[]> {
  const [whole, passages] = await Promise.all([wholePiece(piece), all('passages', 'piece', piece)])
  const best = passages.filter(usable).sort(byScore)
  return heavy().example(whole, best, houseOf(brand), networks)
}

/** One way of saying a post otherwise, with the passage it is made of. */
export interface Option {
  wording: Wording
  passage: string | null
}

/** Other wordings of a post in some way, best first; nothing is kept. Throws where the piece gives none. */
export async function otherWordings(id: string, way: Way, to?: Angle): Promise<Option[]> {
  const { post, house, piece, passages, posts } = await aroundPost(id)
  const good = passages.filter(usable).sort(byScore)
  const request: RewordRequest = {
    piece: besideMedia(piece, post.media),
    passages: good.filter((p) => p.choice === 'kept'),
    spare: good.filter((p) => p.choice !== 'kept'),
    house,
    link: post.link,
    tagFigures: await tagFiguresFor(piece, [post.network]),
    seed: post.revision + post.others.length,
    account: { id: post.account, network: post.network },
    earlier: posts
      .filter((p) => p.id !== id && p.network === post.network && p.state !== 'set aside')
      .map((p) => ({
        account: p.account,
        network: p.network,
        text: p.wording.text,
        closing: p.wording.closing,
      })),
    current: post.wording,
    passage: passages.find((p) => p.id === post.passage) ?? null,
    way,
    to,
  }
  const found = await heavy().reword(request)
  if (found.length === 0)
    throw new Fault(
      'not-found',
      way === 'another passage'
        ? 'No other passage makes a caption for this account that is unlike the others. Keep another one in the Reader.'
        : `${NONE[way] ?? `No caption in ${to ? `the angle ${to}` : 'another angle'}`} can be made here that is whole, fits, and is unlike the others. Ask for another passage, or edit it by hand.`,
    )
  return found.map(({ wording, passage }) => ({
    wording,
    passage: passages.find((p) => p.start === passage.start && p.end === passage.end)?.id ?? null,
  }))
}

/** A post with another wording; the one it had stays among the others, to go back to. */
function reworded(post: Post, { wording, passage }: Option): Post {
  const others = [post.wording, ...post.others.filter((o) => o.text !== wording.text)].slice(0, 24)
  return { ...withWording(post, wording, others), passage: passage ?? post.passage }
}

/** Takes a wording for a post. A machine's words ask for review again. */
export async function takeWording(id: string, option: Option): Promise<void> {
  await takeWordings([{ id, option }], 'Take another wording')
}

async function takeWordings(
  choices: readonly { id: string; option: Option }[],
  label: string,
): Promise<number> {
  const writes: Write[] = []
  let brand = ''
  const happen = happening(choices.length)
  for (const { id, option } of choices) {
    const post = await must('posts', id)
    brand = post.brand
    const media = await mediaWith(post, option.wording)
    const checks = await checksOf({ ...reworded(post, option), media })
    writes.push(happen(id, 'reword', (p) => ({ ...reworded(p, option), media, checks })))
  }
  return (await commitRecalled({ brand, label }, choices, writes)).size
}

/** The next wording of a post: one that it had, else a new one of its passage, else of another passage. */
export async function nextWording(id: string): Promise<void> {
  const post = await must('posts', id)
  if (post.others.length) return anotherWording(id)
  const fresh = await otherWordings(id, 'another').catch(() => otherWordings(id, 'another passage'))
  if (fresh[0]) await takeWording(id, fresh[0])
}

/** Another angle for each of some posts, in one action; says how many have none. */
export async function anotherAngle(ids: readonly string[]): Promise<{ changed: number; left: number }> {
  const choices: { id: string; option: Option }[] = []
  for (const id of ids) {
    if (!may(await must('posts', id), 'reword')) continue
    const [option] = await otherWordings(id, 'another angle').catch(() => [])
    if (option) choices.push({ id, option })
  }
  const changed = await takeWordings(
    choices,
    choices.length === 1 ? 'Take another angle' : `Take another angle for ${choices.length} posts`,
  )
  return { changed, left: ids.length - changed }
}

/** Replaces words in the captions of some posts, as they are written; approvals stay unless a rule is broken. */
export async function replaceIn(
  ids: readonly string[],
  find: string,
  replace: string,
): Promise<{ changed: number; left: number }> {
  if (!find.trim()) throw new Fault('bad-request', 'Say which words to look for.')
  const posts = (await all('posts')).filter((p) => ids.includes(p.id) && p.wording.text.includes(find))
  const open = posts.filter((p) => may(p, 'edit'))
  const writes: Write[] = []
  for (const post of open) {
    const text = post.wording.text.split(find).join(replace)
    const edit = (p: Post): Post => ({
      ...p,
      wording: { ...p.wording, text },
      others: [p.wording, ...p.others].slice(0, 24),
      edited: true,
    })
    const checks = await checksOf(edit(post))
    writes.push(happensIfMay(post.id, 'edit', (p) => doubted({ ...edit(p), checks })))
  }
  const brand = open[0]?.brand ?? ''
  const label = `Replace “${find}” in ${writes.length === 1 ? 'a caption' : `${writes.length} captions`}`
  const { size } = await commitRecalled({ brand, label }, open, writes)
  return { changed: size, left: posts.length - size }
}

/** What a caption would be once a check's remedy is applied; null where that changes nothing. */
export function remedied(post: Pick<Post, 'network'>, check: Check, text: string): Promise<string | null> {
  return heavy().remedy(check, text, post.network)
}

/** Other ways of saying selected words, by grammar alone. */
export function rewordedSelection(selected: string, way: Way): Promise<string[]> {
  return heavy().rewordSelection(selected, way)
}

/** The angles that can be asked for of a piece: those for which it holds material. */
export async function anglesFor(piece: string): Promise<Angle[]> {
  return heavy().anglesOf(await wholePiece(piece))
}

/** Ten headlines that a piece holds, best first. */
export async function headlinesOf(piece: string): Promise<Headline[]> {
  return heavy().headlines(await wholePiece(piece))
}

/** A piece as so many posts, each from a passage of its own; nothing is kept. */
export async function seriesOf(
  brand: Brand,
  piece: string,
  networks: readonly string[],
  asked: AskedOf,
  count: number,
): Promise<SeriesPost[]> {
  const [whole, passages] = await Promise.all([wholePiece(piece), all('passages', 'piece', piece)])
  const request = {
    piece: whole,
    passages: passages.filter(usable).sort(byScore),
    networks,
    house: houseOf(brand),
    link: whole.url,
    asked,
    count,
    seed: 1,
  }
  return heavy().asPosts(request)
}
