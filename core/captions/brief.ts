import type { HouseStyle } from '../model'
import type { NetworkProfile } from '../networks'

/** The writing instructions for one network. */
export interface Brief {
  shape: NetworkProfile['brief']['shape']
  length: { least: number; most: number }
  hashtags: number
}

/** What every caption of a drip is written for. */
export interface House {
  style: HouseStyle
  /** The brand's name, which is never taken for something foreign to the piece. */
  brand: string
}

export const PLAIN_HOUSE: House = {
  brand: '',
  style: { hashtags: [], neverSay: [], closingLines: [] },
}

/** The brief a network's profile proposes. */
export function briefOf(profile: NetworkProfile): Brief {
  return { shape: profile.brief.shape, length: profile.brief.length, hashtags: profile.brief.hashtags }
}
