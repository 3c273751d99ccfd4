import { graphemes, measure, type NetworkProfile } from '../../core/networks'
import { tagsIn, withoutAddresses } from '../../core/text'

/** A rule of the network that a post breaks, with the field it concerns. */
export interface PostFault {
  field:
    | 'format'
    | 'target'
    | 'title'
    | 'summary'
    | 'tags'
    | 'text'
    | 'parts'
    | 'poll'
    | 'link'
    | 'media'
    | 'hashtags'
  reason: string
}

/** A post as it is sent to a network; pictures with their size in pixels and bytes. */
export interface SentPost {
  text: string
  format?: string
  title?: string | null
  summary?: string | null
  tags?: readonly string[]
  parts?: readonly string[]
  poll?: readonly string[]
  link?: string | null
  pictures: readonly { width: number; height: number; bytes: number }[]
  clips?: readonly { width: number; height: number; bytes: number; seconds: number }[]
  documents?: readonly { pages: number; bytes: number }[]
}

/** What a stand-in network refuses about a post, by its profile. What the app checks before is written apart from this. */
export function postFaults(profile: NetworkProfile, post: SentPost): PostFault[] {
  const faults: PostFault[] = []
  const length = measure(post.text, profile.text)
  if (length > (profile.text.limit ?? Infinity))
    faults.push({
      field: 'text',
      reason: `The text has ${length} characters; ${profile.name} takes ${profile.text.limit}.`,
    })
  faults.push(...fieldFaults(profile, post))
  faults.push(...formFaults(profile, post.parts ?? [], post.poll ?? []))
  const { least, most } = profile.media.pictures
  const clips = post.clips ?? []
  if (post.pictures.length < least && clips.length === 0)
    faults.push({ field: 'media', reason: `${profile.name} wants at least ${plural(least, 'picture')}.` })
  if (post.pictures.length > most)
    faults.push({
      field: 'media',
      reason: `There are ${post.pictures.length} pictures; ${profile.name} takes at most ${most}.`,
    })
  faults.push(...clipFaults(profile, post), ...documentFaults(profile, post), ...storyFaults(profile, post))
  if (!post.text.trim() && post.pictures.length === 0 && clips.length === 0)
    faults.push({ field: 'text', reason: 'There is neither text nor a picture.' })
  for (const picture of post.pictures) {
    if (picture.bytes > profile.media.maxBytes)
      faults.push({
        field: 'media',
        reason: `A picture has ${Math.ceil(picture.bytes / 1e6)} MB; ${profile.name} takes ${profile.media.maxBytes / 1e6} MB.`,
      })
    // What shape a story has is a rule of its own.
    const shapes = post.format === STORY ? [] : profile.media.shapes
    if (shapes.length > 0 && !shapes.some((shape) => isOf(picture, shape)))
      faults.push({
        field: 'media',
        reason: `The picture is ${picture.width} by ${picture.height}; ${profile.name} takes ${profile.media.shapes.map((s) => `${s.width}:${s.height}`).join(' or ')}.`,
      })
  }
  const tags = tagsIn(withoutAddresses(post.text)).length
  if (tags > profile.hashtags.most)
    faults.push({
      field: 'hashtags',
      reason: `There are ${tags} hashtags; ${profile.name} takes at most ${profile.hashtags.most}.`,
    })
  return faults
}

/** Whether a picture or clip has a shape. */
function isOf(of: { width: number; height: number }, shape: { width: number; height: number }): boolean {
  return Math.abs(of.width / of.height - shape.width / shape.height) < 0.02
}

/** The format that is gone after a day. */
export const STORY = 'story'

/** What is wrong with a story: it shows one tall picture or clip, and says nothing beside it. */
function storyFaults(
  { name, media: { story } }: NetworkProfile,
  { format, text, pictures, clips = [] }: SentPost,
): PostFault[] {
  if (format !== STORY || !story) return []
  const shown = [...pictures, ...clips]
  const faults: PostFault[] = []
  if (text.trim()) faults.push({ field: 'text', reason: `A story on ${name} has no words beside it.` })
  if (shown.length !== 1)
    faults.push({
      field: 'media',
      reason: `A story on ${name} shows one picture or clip, not ${shown.length}.`,
    })
  const { width, height } = story.shape
  for (const one of shown)
    if (!isOf(one, story.shape))
      faults.push({
        field: 'media',
        reason: `It is ${one.width} by ${one.height}; a story on ${name} is ${width}:${height}.`,
      })
  return faults
}

/** What is wrong with the documents: how many there are, of how many pages, and what stands beside them. */
function documentFaults(
  { name, media: { document, maxBytes } }: NetworkProfile,
  { format, documents = [], pictures, clips = [] }: SentPost,
): PostFault[] {
  const faults: PostFault[] = []
  const add = (reason: string): void => void faults.push({ field: 'media', reason })
  if (documents.length > (document ? 1 : 0))
    add(`${name} takes ${document ? 'one document' : 'no documents'}.`)
  if (documents.length > 0 && pictures.length + clips.length > 0)
    add(`${name} takes a document or pictures or a clip, not several of them.`)
  if ((format === 'document') !== documents.length > 0)
    add(`A document on ${name} is one file of pages in the format “document”.`)
  for (const { pages, bytes } of documents) {
    if (pages > (document?.pages ?? 0))
      add(`The document has ${pages} pages; ${name} takes ${document?.pages ?? 0}.`)
    if (bytes > maxBytes)
      add(`The document has ${Math.ceil(bytes / 1e6)} MB; ${name} takes ${maxBytes / 1e6} MB.`)
  }
  return faults
}

/** What is wrong with the clips: how many there are, how long, of what shape and size. */
function clipFaults(
  { name, chapters, media: { clips: number, clip, maxBytes } }: NetworkProfile,
  { clips = [], pictures, format, text }: SentPost,
): PostFault[] {
  const faults: PostFault[] = []
  const add = (reason: string): void => void faults.push({ field: 'media', reason })
  if (clips.length < number.least) add(`${name} wants a clip.`)
  if (clips.length > number.most) add(`${name} takes at most ${plural(number.most, 'clip')}.`)
  if (clips.length > 0 && pictures.length > 0) add(`${name} takes pictures or a clip, not both.`)
  // A video with chapters may be as long as it likes.
  const isVideo = chapters !== null && format === VIDEO
  const bound = isVideo ? null : clip
  if (isVideo && !marksChapters(text, chapters))
    add(
      `A video on ${name} has at least ${chapters.least} chapters, the first at 0:00, each ${chapters.gap} s or more.`,
    )
  for (const { seconds, width, height, bytes } of clips) {
    if (bound && (seconds < bound.least || seconds > bound.most))
      add(`The clip is ${seconds.toFixed(1)} s long; ${name} takes ${bound.least} to ${bound.most} s.`)
    const shapes = bound?.shapes ?? []
    if (shapes.length > 0 && !shapes.some((shape) => isOf({ width, height }, shape)))
      add(
        `The clip is ${width} by ${height}; ${name} takes ${shapes.map((s) => `${s.width}:${s.height}`).join(' or ')}.`,
      )
    if (bytes > maxBytes)
      add(`The clip has ${Math.ceil(bytes / 1e6)} MB; ${name} takes ${maxBytes / 1e6} MB.`)
  }
  return faults
}

/** The format of a film that is shown whole. */
const VIDEO = 'video'

/** Whether the lines of a text that begin with a time are chapters as a network asks for them. */
function marksChapters(text: string, { least, gap }: { least: number; gap: number }): boolean {
  const marks = [...text.matchAll(/^(?:(\d+):)?(\d{1,2}):(\d\d) \S/gm)].map(
    ([, hours, minutes, seconds]) => Number(hours ?? 0) * 3600 + Number(minutes) * 60 + Number(seconds),
  )
  const apart = marks.every((at, i) => i === 0 || at - (marks[i - 1] ?? 0) >= gap)
  return marks.length >= least && marks[0] === 0 && apart
}

function plural(count: number, noun: string): string {
  return `${count === 1 ? 'one' : count} ${noun}${count === 1 ? '' : 's'}`
}

/** What is wrong with the format, and with the fields beside the text. */
function fieldFaults(profile: NetworkProfile, post: SentPost): PostFault[] {
  const faults: PostFault[] = []
  const add = (field: PostFault['field'], reason: string): void => void faults.push({ field, reason })
  const { format = '', title = null, summary = null, tags = [], link = null } = post
  if (format && !profile.formats.includes(format))
    add('format', `${profile.name} knows ${profile.formats.join(', ')}, not ${format}.`)
  if (profile.title && !title?.trim()) add('title', `${profile.name} wants a title.`)
  if (title !== null && !profile.title) add('title', `${profile.name} has no titles.`)
  if (profile.title && graphemes(title ?? '') > profile.title.limit)
    add(
      'title',
      `The title has ${graphemes(title ?? '')} characters; ${profile.name} takes ${profile.title.limit}.`,
    )
  if (summary !== null && graphemes(summary) > (profile.summary?.limit ?? 0))
    add('summary', `${profile.name} takes a summary of at most ${profile.summary?.limit ?? 0} characters.`)
  if (tags.length > (profile.tags?.most ?? 0))
    add('tags', `${profile.name} takes at most ${profile.tags?.most ?? 0} tags beside the text.`)
  const all = tags.reduce((sum, t) => sum + graphemes(t), 0)
  if (all > (profile.tags?.characters ?? Infinity))
    add(
      'tags',
      `The tags have ${all} characters; ${profile.name} takes ${profile.tags?.characters ?? 0} in all.`,
    )
  if (profile.link.required && !link) add('link', `${profile.name} wants a link.`)
  return faults
}

/** What is wrong with the parts of a thread or the answers of a poll. */
function formFaults(profile: NetworkProfile, parts: readonly string[], poll: readonly string[]): PostFault[] {
  const faults: PostFault[] = []
  const longest = Math.max(0, ...parts.map((p) => measure(p, profile.text)))
  if (parts.length && !profile.thread)
    faults.push({ field: 'parts', reason: `${profile.name} knows no threads.` })
  else if (parts.length + 1 > (profile.thread?.parts ?? Infinity))
    faults.push({
      field: 'parts',
      reason: `The thread has ${parts.length + 1} parts; ${profile.name} takes ${profile.thread?.parts}.`,
    })
  else if (longest > (profile.text.limit ?? Infinity))
    faults.push({
      field: 'parts',
      reason: `A part has ${longest} characters; ${profile.name} takes ${profile.text.limit}.`,
    })
  if (!poll.length) return faults
  if (!profile.poll) return [...faults, { field: 'poll', reason: `${profile.name} knows no polls.` }]
  const { options, limit } = profile.poll
  if (poll.length < options.least || poll.length > options.most || poll.some((o) => graphemes(o) > limit))
    faults.push({
      field: 'poll',
      reason: `A poll on ${profile.name} has ${options.least} to ${options.most} answers of at most ${limit} characters.`,
    })
  return faults
}
