import { HouseStyle, type Angle, type Brand, type Brief, type Leaning, type Make, type Voice } from '../model'
import type { LinkPlace, NetworkProfile } from '../networks'

/** What every caption of a brand is written for. */
export interface House {
  style: HouseStyle
  /** The brand's name, which is never taken for something foreign to the piece. */
  brand: string
  /** The briefs that differ from what the networks propose. */
  briefs: readonly Brief[]
  /** The angles that may be used whatever a brief says; empty for all. */
  angles?: readonly Angle[]
  /** A line that closes every post, in the place of the closing lines. */
  last?: string | null
  /** A line that closes every post instead and names the day on which it goes out, so that “today” in it is true; as it is written. */
  dated?: string | null
  /** What its results say of captions, network by network; nothing where absent. */
  leanings?: readonly Leaning[]
}

export const PLAIN_HOUSE: House = { brand: '', style: HouseStyle.parse({}), briefs: [] }

/** The house of a brand, with what a pipeline makes otherwise. */
export function houseOf(
  brand: Pick<Brand, 'name' | 'houseStyle' | 'briefs' | 'learned'>,
  make: Pick<Make, 'briefs' | 'angles' | 'after'> | null = null,
): House {
  const { name, houseStyle: style, briefs, learned } = brand
  const house: House = { brand: name, style, briefs, leanings: learned?.leanings ?? [] }
  if (!make) return house
  const own = new Set(make.briefs.map((b) => b.network))
  return {
    ...house,
    briefs: [...make.briefs, ...brand.briefs.filter((b) => !own.has(b.network))],
    angles: make.angles,
    last: make.after,
  }
}

/** The writing instructions for one network, with every gap filled. */
export interface WholeBrief {
  shape: NetworkProfile['brief']['shape']
  voice: Voice
  length: { least: number; most: number }
  /** Null for all. */
  angles: ReadonlySet<Angle> | null
  hashtags: number
  hashtagsIn: Brief['hashtagsIn']
  emoji: boolean
  link: LinkPlace
  closing: NonNullable<Brief['closing']>
  /** The least reading ease (Flesch 1948) that its reader takes without effort. */
  reading: number
  /** What the results say of captions here, unless the brief takes no notice. */
  leanings: readonly Leaning[]
}

const EASIER: Readonly<Record<Brief['reader'], number>> = {
  anyone: 8,
  'somebody who tries': 0,
  'the trade': -15,
}
const CLOSES: ReadonlySet<string> = new Set(['considered', 'neighbourly'])

/** What a brief and a pipeline both allow; the pipeline's where they have none in common. Null for all. */
function anglesOf(brief: readonly Angle[], pipeline: readonly Angle[]): ReadonlySet<Angle> | null {
  if (brief.length === 0 && pipeline.length === 0) return null
  const both = brief.filter((a) => pipeline.includes(a))
  return new Set(both.length ? both : pipeline.length ? pipeline : brief)
}

/** A network's brief: what a person wrote down for it, else what its profile and the house propose. */
export function briefOf(profile: NetworkProfile, house: House = PLAIN_HOUSE): WholeBrief {
  const own = house.briefs.find((b) => b.network === profile.id)
  const proposed = profile.brief
  return {
    shape: proposed.shape,
    voice: own?.voice ?? house.style.voice,
    length: own?.length ?? proposed.length,
    angles: anglesOf(own?.angles ?? [], house.angles ?? []),
    hashtags: Math.min(own?.hashtags ?? proposed.hashtags, profile.hashtags.most),
    hashtagsIn: own?.hashtagsIn ?? 'text',
    emoji: own?.emoji === 'where it helps',
    link: own?.link ?? profile.link.place,
    closing: own?.closing ?? (CLOSES.has(proposed.shape) ? 'a line of the house' : 'none'),
    reading: proposed.reading + EASIER[own?.reader ?? 'somebody who tries'],
    leanings: own?.leans === false ? [] : (house.leanings ?? []).filter((l) => l.network === profile.id),
  }
}
