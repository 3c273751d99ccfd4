import {
  drawnCard,
  Fault,
  HOOK_MOST,
  type Card,
  type Cut,
  type FilmPart,
  type Look,
  type Post,
  type PostMedia,
  type Stretch,
  type WholePiece,
} from '../../../core/model'
import { clipBound, network, type Shape } from '../../../core/networks'
import type { Cards, ClipOrder } from '../../workers/cards'
import { cards, heavy, pictures } from '../../workers'
import { must, one, wholePiece } from '../store'
import { cardsFor } from './drawing'
import { asCut, filmOf } from './films'
import type { OfFilm } from './madeClip'
import { showPictures } from './postPictures'

/** How long a moving card plays, in seconds. */
export async function clipLasts(order: ClipOrder): Promise<number> {
  return (await cardsFor(order.look)).lasts(order)
}

/** What a moving card shows at a moment, in seconds, so many pixels wide. */
export async function clipFrame(order: ClipOrder, at: number, width: number): Promise<ImageBitmap> {
  return (await cardsFor(order.look)).frame(order, at, width)
}

/** What stands about a part of a film, as an image element shows it, and where the film stands in it. */
export async function clipPlate(...asked: Parameters<Cards['plate']>) {
  const { svg, plate } = await (await cardsFor(asked[1])).plate(...asked)
  return { url: URL.createObjectURL(new Blob([svg], { type: 'image/svg+xml' })), plate }
}

/** How loud a part of a recording is, over a plate, as image elements show it: what was heard, and what is to come. */
export async function clipWave(
  url: string,
  part: FilmPart,
  plate: Parameters<Cards['wave']>[2],
  look: Look,
): Promise<{ heard: string; toCome: string }> {
  const { heard, toCome } = await (await cardsFor(look)).wave(await filmOf(url), part, plate, look)
  const shown = (svg: string): string => URL.createObjectURL(new Blob([svg], { type: 'image/svg+xml' }))
  return { heard: shown(heard), toCome: shown(toCome) }
}

/** What is said over a plate, as an image element shows it. */
export async function clipSaid(...asked: Parameters<Cards['said']>): Promise<string> {
  return URL.createObjectURL(
    new Blob([await (await cardsFor(asked[2])).said(...asked)], { type: 'image/svg+xml' }),
  )
}

/** Lets a post's card move: a clip takes the place of all its pictures. Refuses it where the network takes no clips. */
export async function letMove(id: string): Promise<void> {
  const post = await must('posts', id)
  const { name, media } = network(post.network)
  if (media.clips.most === 0) throw new Fault('bad-request', `${name} takes no clips.`)
  const title = post.piece ? ((await one('pieces', post.piece))?.title ?? '') : ''
  const clip = await heavy().clipMedia(firstCard(post), title, post.network)
  await showPictures(id, [clip], 'Let a card move')
}

/** Shows the card of a clip still again. Refuses it where the network takes no pictures. */
export async function keepStill(id: string): Promise<void> {
  const post = await must('posts', id)
  const { name, media } = network(post.network)
  if (media.pictures.most === 0) throw new Fault('bad-request', `${name} takes nothing but clips.`)
  const { look } = await must('brands', post.brand)
  const still = await heavy().cardPictures(firstCard(post), post.network, look)
  await showPictures(id, still, 'Keep a card still')
}

function firstCard({ media: [first] }: Post): Card {
  const card = first ? drawnCard(first.source) : null
  if (!card) throw new Fault('bad-request', 'Only a card can move. Choose a card first.')
  return card
}

/** Changes the words that a post's clip opens with, or that stand over its film; none for it to have none. */
export async function changeHook(id: string, index: number, hook: string): Promise<void> {
  const words = hook.trim()
  if (words.length > HOOK_MOST)
    throw new Fault('bad-request', `A clip opens with at most ${HOOK_MOST} characters. Shorten them.`)
  await changeMedia(id, index, 'Change what a clip opens with', ({ source, ...media }) =>
    source.from === 'moving'
      ? { ...media, source: { ...source, hook: words } }
      : {
          ...media,
          source: source.from === 'film' && source.part ? partly(source, { hook: words }) : source,
        },
  )
}

/**
 * Lets a part of a film fill its clip, about a part of it that is chosen, else about what is most worth showing of its middle; or lets
 * it stand whole in the brand's frame.
 */
export async function fillClip(id: string, index: number, filled: boolean, cut: Cut | null): Promise<void> {
  const label = filled ? 'Let a film fill its clip' : 'Frame a film'
  await changeMedia(id, index, label, async ({ cut: _, ...media }) => {
    const { source, shape } = media
    if (source.from !== 'film' || !source.part) return media
    const { start, end } = source.part
    const about = filled && (cut ?? (shape && (await foundCut(source.url, (start + end) / 2, shape))))
    return { ...media, source: partly(source, { filled }), ...(about ? { cut: about } : {}) }
  })
}

/** The part of a film's picture at a moment that is proposed for a shape; null where that picture cannot be had, and the middle will do. */
async function foundCut(url: string, moment: number, shape: Shape): Promise<Cut | null> {
  try {
    const still = await cards().still(await filmOf(url), moment)
    return still && (await pictures().propose(still, shape))
  } catch {
    return null
  }
}

/**
 * Lets a part of a film begin and end at other moments, in seconds of the film; what is said there by then is subtitled, and where
 * pauses are left out, they are looked for anew. Refuses (`bad-request`) what ends before it begins, or is shorter or longer than the
 * network takes clips.
 */
export async function moveClip(id: string, index: number, start: number, end: number): Promise<void> {
  if (!(start >= 0 && end > start))
    throw new Fault('bad-request', 'A clip ends after it begins. Give the later moment second.')
  const { movedSubtitles, partSeconds } = await import('../../../core/pictures')
  await changePart(id, index, 'Move the ends of a clip', async (before, url, post) => {
    const subtitles = movedSubtitles(await wordsOf(post), before.subtitles, { start, end })
    const { leftOut, ...part } = { ...before, start, end, subtitles }
    const moved = leftOut ? { ...part, leftOut: await pausesIn(post, url, part) } : part
    refuseLength(post, partSeconds(moved))
    return moved
  })
}

/** Refuses (`bad-request`) what is shorter or longer than a post's network takes clips. */
function refuseLength(post: Post, seconds: number): void {
  const profile = network(post.network)
  const { least, most } = clipBound(profile)
  if (seconds < least || seconds > most)
    throw new Fault(
      'bad-request',
      `This would be ${seconds.toFixed(1)} s long; ${profile.name} takes clips of ${least} to ${most} s.`,
    )
}

/** The words of a post's piece with their times; none where it has no piece. */
async function wordsOf(post: Post): Promise<Pick<WholePiece, 'sentences' | 'text'>> {
  return post.piece ? wholePiece(post.piece, post.pieceRevision) : { sentences: [], text: '' }
}

/** What may be left out of a part of a film; nothing where it has no sound. */
async function pausesIn(post: Post, url: string, part: FilmPart): Promise<Stretch[]> {
  const { pausesOf } = await import('../../../core/pictures')
  const levels = await cards()
    .levels(await filmOf(url), part.start, part.end)
    .catch((error: unknown) => {
      throw asCut(error)
    })
  return pausesOf(await wordsOf(post), part, levels ?? [])
}

/**
 * Leaves the pauses and sounds of hesitation out of a part of a film, or puts them back. Refuses (`bad-request`) where there are none,
 * and where the clip would then be shorter or longer than the network takes clips.
 */
export async function tightenClip(id: string, index: number, tight: boolean): Promise<void> {
  const { partSeconds } = await import('../../../core/pictures')
  const label = tight ? 'Leave pauses out of a clip' : 'Put pauses back into a clip'
  await changePart(id, index, label, async ({ leftOut: _, ...part }, url, post) => {
    const after = tight ? { ...part, leftOut: await pausesIn(post, url, part) } : part
    if (tight && partSeconds(after) === partSeconds(part))
      throw new Fault(
        'bad-request',
        'Nobody pauses here for longer than half a second, and no “um” stands alone, so there is nothing to leave out.',
      )
    refuseLength(post, partSeconds(after))
    return after
  })
}

/** Changes what is said below a film, a line each; an empty line shows nothing. Refuses more or fewer lines than there are. */
export async function changeSubtitles(id: string, index: number, lines: readonly string[]): Promise<void> {
  const source = (await must('posts', id)).media[index]?.source
  const before = source?.from === 'film' ? (source.part?.subtitles ?? []) : []
  if (lines.length !== before.length)
    throw new Fault(
      'bad-request',
      `There are ${before.length} subtitles, a line each, and these are ${lines.length} lines. Leave one empty that is not to be shown.`,
    )
  const subtitles = before.map((s, i) => ({ ...s, text: (lines[i] ?? '').trim() }))
  await changeMedia(id, index, 'Change subtitles', ({ source: of, ...media }) => ({
    ...media,
    source: of.from === 'film' ? partly(of, { subtitles }) : of,
  }))
}

function partly(source: OfFilm, by: Partial<FilmPart>): OfFilm {
  return source.part ? { ...source, part: { ...source.part, ...by } } : source
}

/** Changes the part of its film that a post shows; nothing where it shows something else by now. */
async function changePart(
  id: string,
  index: number,
  label: string,
  change: (part: FilmPart, url: string, post: Post) => Promise<FilmPart>,
): Promise<void> {
  await changeMedia(id, index, label, async (media, post) => {
    const { source } = media
    if (source.from !== 'film' || !source.part) return media
    return { ...media, source: { ...source, part: await change(source.part, source.url, post) } }
  })
}

let last: Promise<unknown> = Promise.resolve()

/** Changes a clip of a post, one change after the other: some have to listen to it first. */
function changeMedia(
  id: string,
  index: number,
  label: string,
  change: (media: PostMedia, post: Post) => PostMedia | Promise<PostMedia>,
): Promise<void> {
  const next = last.then(async () => {
    const post = await must('posts', id)
    const before = post.media[index]
    if (!before) return
    const after = { ...(await change(before, post)), hash: null }
    await showPictures(id, post.media.with(index, after), label)
  })
  last = next.catch(() => undefined)
  return next
}
