import { Fault } from '../model'
import { NetworkProfile } from './profile'
import guildhall from './profiles/guildhall.json'
import murmur from './profiles/murmur.json'
import shutterleaf from './profiles/shutterleaf.json'

export { NetworkProfile } from './profile'
export { graphemes, measure, sliceGraphemes, URL_PATTERN } from './measure'
export { chooseShape, cropAboutCentre, type Shape } from './shape'
export { payloadFaults } from './validate'

/** The profiles that ship, in the order in which they are shown. */
export const NETWORKS: readonly NetworkProfile[] = [murmur, guildhall, shutterleaf].map((p) =>
  NetworkProfile.parse(p),
)

/** When and how often a new account may post, as its network's profile proposes. */
export function proposedLimits(profile: NetworkProfile) {
  return {
    slots: profile.slots,
    maxPerDay: profile.limits.sensiblePostsPerDay,
    maxPerWeek: profile.limits.sensiblePostsPerDay * 7,
    gapMinutes: profile.limits.gapMinutes,
  }
}

/** The profile of a network by its id. Throws `unknown-network` with the ids there are. */
export function network(id: string): NetworkProfile {
  const found = NETWORKS.find((n) => n.id === id)
  if (!found)
    throw new Fault(
      'unknown-network',
      `There is no network called ${id}. Known are ${NETWORKS.map((n) => n.id).join(', ')}.`,
      id,
    )
  return found
}

/** The longest clip that all of some networks take, in seconds; all that ship where none is named. */
export function longestClip(profiles: readonly NetworkProfile[] = NETWORKS): number {
  return Math.min(...profiles.map((p) => p.media.clip.most))
}
