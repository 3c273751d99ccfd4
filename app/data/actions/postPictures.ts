import {
  cardAlt,
  cardLacks,
  Fault,
  firstPicture,
  next,
  ownPictureHash,
  withCredits,
  type Card,
  type Cut,
  type Layout,
  type LibraryPicture,
  type Post,
  type PostMedia,
} from '../../../core/model'
import type { ExampleCards, PictureOption } from '../../../core/pipeline'
import { mediaIn, noStory, shownIn, STORY, chooseShape, network, type Shape } from '../../../core/networks'
import { heavy } from '../../workers'
import { all, must, one, wholePiece } from '../store'
import { changePost } from './life'
import { libraryMedia, takePicture, titleOfFile } from './library'
import { aroundPost, checksOf, doubted } from './posts'

/** The pictures that a post may show, those first that may stand there; nothing is changed. */
export async function pictureOptions(id: string): Promise<PictureOption[]> {
  const { post, brand, piece, passages, posts } = await aroundPost(id)
  const passage = passages.find((p) => p.id === post.passage) ?? null
  return heavy().pictureOptions(post, piece, passage, brand, near(post, posts))
}

/** Only what a network shows can stand too near on it. */
const near = (post: Post, posts: readonly Post[]): Post[] => posts.filter((p) => p.network === post.network)

/**
 * Shows other pictures with a post, in order; an approval stays, unless they break a rule. Its caption names whose they are
 * where they may not be shown without. What nobody has seen yet (`unseen`) wants approval again.
 */
export async function showPictures(
  id: string,
  media: PostMedia[],
  label = 'Show another picture',
  unseen = false,
): Promise<void> {
  const post = await must('posts', id)
  const { most } = network(post.network).media.pictures
  const shown = shownIn(post, media)
  if (mediaIn({ ...post, media: shown }).pictures > most)
    throw new Fault(
      'bad-request',
      `${network(post.network).name} takes ${most === 0 ? 'no pictures' : `at most ${most}`}. Take one away first.`,
    )
  const wording = { ...post.wording, text: withCredits(post.wording.text, post.media, shown) }
  const checks = await checksOf({ ...post, media: shown, wording })
  await changePost(post, label, 'edit', (p) => {
    const changed = doubted({ ...p, media: shown, wording, checks })
    return unseen && changed.state === 'approved' ? next(changed, 'doubt') : changed
  })
}

/** Shows the next of the pictures that a post may show: the best that may stand there, then the one after it. */
export async function nextPicture(id: string): Promise<void> {
  const [post, options] = await Promise.all([must('posts', id), pictureOptions(id)])
  const shown = firstPicture(post)
  const at = options.findIndex((o) => firstPicture(o) === shown)
  const next = options[(at + 1) % Math.max(1, options.length)]
  if (!next || (options.length === 1 && at === 0))
    throw new Fault(
      'not-found',
      'This piece has no other picture, and its words make no other card. Take in a picture of your own.',
    )
  await showPictures(id, next.media)
}

/** Takes a picture out of a file into the library and shows it with a post, after those it has or in their place. */
export async function showFile(id: string, file: Blob, after: readonly PostMedia[]): Promise<void> {
  const { brand } = await must('posts', id)
  const picture = await takePicture(brand, file, { origin: 'file', title: titleOfFile(file) })
  await showOwn(id, picture, after)
}

/**
 * Shows a picture of the library with a post, in the shape its network takes, after those it has or in their place. One
 * that was made to order may be anything, so that an approval falls.
 */
export async function showOwn(
  id: string,
  picture: Parameters<typeof libraryMedia>[0] & {
    size?: { width: number; height: number } | null
    origin?: LibraryPicture['origin']
  },
  after: readonly PostMedia[],
): Promise<void> {
  const post = await must('posts', id)
  const { shapes } = network(post.network).media
  const info = await one('media', ownPictureHash(picture.url) ?? '')
  const media = { ...libraryMedia(picture), shape: chooseShape(picture.size ?? info ?? null, shapes) }
  await showPictures(id, [...after, media], 'Show a picture of the library', picture.origin === 'order')
}

/** Says in words what a picture of a post shows. */
export async function describePicture(id: string, index: number, alt: string): Promise<void> {
  const post = await must('posts', id)
  const media = post.media.map((m, i) => (i === index ? { ...m, alt: alt.trim() } : m))
  await showPictures(id, media, 'Describe a picture')
}

/** Shows another part of a picture of a post, in one of the shapes its network takes; without a part, what is proposed. */
export async function cutPicture(id: string, index: number, shape: Shape, cut: Cut | null): Promise<void> {
  const post = await must('posts', id)
  const media = post.media.map((m, i): PostMedia => {
    if (i !== index) return m
    const { cut: _, ...rest } = m
    return { ...rest, shape, hash: null, ...(cut ? { cut } : {}) }
  })
  await showPictures(id, media, 'Crop a picture')
}

/** Changes the words or the layout of a post's card; what is told of it to those who cannot see it goes with them. */
export async function changeCard(id: string, index: number, card: Card): Promise<void> {
  const lacks = cardLacks(card)
  if (lacks) throw new Fault('bad-request', lacks)
  const post = await must('posts', id)
  const media = post.media.map((m, i): PostMedia => {
    if (i !== index || (m.source.from !== 'card' && m.source.from !== 'moving')) return m
    const alt = m.alt === cardAlt(m.source.card) ? cardAlt(card) : m.alt
    return { ...m, source: { ...m.source, card }, alt, hash: null }
  })
  await showPictures(id, media, 'Change a card')
}

/** Parts a post's card of a list or steps into slides, where its network has posts to be leafed through. */
export async function asSlides(id: string): Promise<void> {
  const post = await must('posts', id)
  const { look } = await must('brands', post.brand)
  const [first] = post.media
  const slides =
    first?.source.from === 'card' ? await heavy().cardPictures(first.source.card, post.network, look) : []
  if (slides.length < 2)
    throw new Fault(
      'bad-request',
      'Slides are made of a list or steps with a heading, where the network takes several to be leafed through.',
    )
  await showPictures(id, slides, 'Make slides')
}

/**
 * Lets a post go out as a story, which shows its first picture or clip alone and tall, or as the network's usual post again.
 * Refuses it (`bad-request`) where the network has no stories.
 */
export async function asStory(id: string, story: boolean): Promise<void> {
  const post = await must('posts', id)
  const { name, formats, media } = network(post.network)
  if (!media.story) throw new Fault('bad-request', `${name} has no stories.`)
  const wording = { ...post.wording, format: story ? STORY : (formats[0] ?? '') }
  const shown = story ? shownIn({ ...post, wording }, post.media) : noStory(post.media, post.network)
  const checks = await checksOf({ ...post, wording, media: shown })
  await changePost(post, story ? 'Make it a story' : 'Make it a post again', 'edit', (p) =>
    doubted({ ...p, wording, media: shown, checks }),
  )
}

/** The cards that a piece's best passages make, and for each layout one of them; nothing is kept. */
export async function exampleCards(piece: string, layouts: readonly Layout[]): Promise<ExampleCards> {
  const [whole, passages] = await Promise.all([wholePiece(piece), all('passages', 'piece', piece)])
  const usable = passages.filter((p) => p.choice !== 'left out' && !p.lostPlace)
  usable.sort((a, b) => Number(b.choice === 'kept') - Number(a.choice === 'kept') || b.score - a.score)
  return heavy().exampleCards(whole, usable, layouts)
}
