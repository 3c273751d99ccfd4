import { Fault } from '../model'
import { NetworkProfile } from './profile'
import broadside from './profiles/broadside.json'
import courier from './profiles/courier.json'
import guildhall from './profiles/guildhall.json'
import hearthside from './profiles/hearthside.json'
import longwave from './profiles/longwave.json'
import loopyard from './profiles/loopyard.json'
import murmur from './profiles/murmur.json'
import rackwell from './profiles/rackwell.json'
import shutterleaf from './profiles/shutterleaf.json'

/** The profiles that ship, in the order in which they are shown. */
export const NETWORKS: readonly NetworkProfile[] = [
  murmur,
  guildhall,
  shutterleaf,
  hearthside,
  rackwell,
  loopyard,
  longwave,
  courier,
  broadside,
].map((p) => NetworkProfile.parse(p))

/** A network whose service answers, so that accounts can be linked on it. */
export type ServedNetwork = NetworkProfile & { service: NonNullable<NetworkProfile['service']> }

/** The networks on which an account can be linked. */
export const SERVED: readonly ServedNetwork[] = NETWORKS.filter((n): n is ServedNetwork => n.service !== null)

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

/** Where a network's service answers, below the address of the world. Throws where none answers yet. */
export function servicePath(id: string): string {
  const found = network(id)
  if (!found.service) throw new Fault('unknown-network', `${found.name} has no service that answers yet.`, id)
  return found.service.path
}

/** The longest clip that all of some networks take, in seconds; all that are served where none is named. */
export function longestClip(profiles: readonly NetworkProfile[] = SERVED): number {
  return Math.min(...profiles.map((p) => p.media.clip?.most ?? Infinity))
}

/**
 * What a network shows beside words: whether anything, whether it takes no post without, and whether nothing but clips, so
 * that what is shown has to move.
 */
export function shownOn({ media: { pictures, clips } }: NetworkProfile): {
  any: boolean
  needed: boolean
  moving: boolean
} {
  return {
    any: pictures.most > 0 || clips.most > 0,
    needed: pictures.least > 0 || clips.least > 0,
    moving: pictures.most === 0 && clips.most > 0,
  }
}

/** How long a clip may be on a network, in seconds; one of a minute where it takes none. */
export function clipBound({ media: { clip } }: NetworkProfile): { least: number; most: number } {
  return { least: clip?.least ?? 1, most: clip?.most ?? 60 }
}
