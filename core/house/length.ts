import type { Length } from '../model'
import { graphemes, type NetworkProfile } from '../networks'
import { withoutAddresses } from '../text'

/**
 * How long a caption is for its network: in the lower third of what the network's own brief aims at or below it, in the
 * middle, or above. Addresses do not count, since they are as long as they are.
 */
export function lengthOf(text: string, { brief }: Pick<NetworkProfile, 'brief'>): Length {
  const { least, most } = brief.length
  const characters = graphemes(withoutAddresses(text).trim())
  const third = (most - least) / 3
  return characters < least + third ? 'short' : characters <= most - third ? 'usual' : 'long'
}
