import type { NetworkProfile } from './profile'
import { tagsIn, withoutAddresses } from '../text'
import { graphemes, measure } from './measure'

/** A rule of the network that a payload breaks, with the field it concerns. */
export interface PayloadFault {
  field: 'text' | 'parts' | 'poll' | 'media' | 'hashtags'
  reason: string
}

/**
 * What a network would refuse about a post. The stand-in world answers 422 from this, and the
 * writer's checks block on it, so the two cannot disagree. Picture sizes are in pixels.
 */
export function payloadFaults(
  profile: NetworkProfile,
  post: {
    text: string
    parts?: readonly string[]
    poll?: readonly string[]
    pictures: readonly { width: number; height: number; bytes: number }[]
  },
): PayloadFault[] {
  const faults: PayloadFault[] = []
  const length = measure(post.text, profile.text)
  if (length > (profile.text.limit ?? Infinity))
    faults.push({
      field: 'text',
      reason: `The text has ${length} characters; ${profile.name} takes ${profile.text.limit}.`,
    })
  faults.push(...formFaults(profile, post.parts ?? [], post.poll ?? []))
  const { least, most } = profile.media.pictures
  if (post.pictures.length < least)
    faults.push({ field: 'media', reason: `${profile.name} wants at least ${plural(least, 'picture')}.` })
  if (post.pictures.length > most)
    faults.push({
      field: 'media',
      reason: `There are ${post.pictures.length} pictures; ${profile.name} takes at most ${most}.`,
    })
  if (!post.text.trim() && post.pictures.length === 0)
    faults.push({ field: 'text', reason: 'There is neither text nor a picture.' })
  for (const picture of post.pictures) {
    if (picture.bytes > profile.media.maxBytes)
      faults.push({
        field: 'media',
        reason: `A picture has ${Math.ceil(picture.bytes / 1e6)} MB; ${profile.name} takes ${profile.media.maxBytes / 1e6} MB.`,
      })
    const fits =
      profile.media.shapes.length === 0 ||
      profile.media.shapes.some((s) => Math.abs(picture.width / picture.height - s.width / s.height) < 0.02)
    if (!fits)
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

function plural(count: number, noun: string): string {
  return `${count === 1 ? 'one' : count} ${noun}${count === 1 ? '' : 's'}`
}

/** What is wrong with the parts of a thread or the answers of a poll. */
function formFaults(
  profile: NetworkProfile,
  parts: readonly string[],
  poll: readonly string[],
): PayloadFault[] {
  const faults: PayloadFault[] = []
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
