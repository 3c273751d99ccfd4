import type { Check, Wording } from '../model'
import type { NetworkProfile } from '../networks'
import type { House } from '../house'

/** Everything a caption is held against. */
export interface CheckContext {
  profile: NetworkProfile
  house: House
  /** The piece's text with its title, author and categories. */
  source: string | null
  /** The piece's language, two letters; null for English. */
  language?: string | null
  /** When the piece was written, which decides which dates in a caption age; null where unknown. */
  writtenAt?: string | null
  pictures: number
  clips?: number
  /** Pages of a document that is leafed through. */
  pages?: number
  /** Alternative texts of the pictures. */
  alts?: readonly string[]
  /** The lines that have to stand in the text for the pictures to be shown. */
  credits?: readonly string[]
  /** How many of its cards are to carry the link as a code. */
  codes?: number
  /** The address the post leads to. */
  link?: string | null
  /** The last day for which the piece keeps, and the day on which the post goes out (local dates). */
  keepsUntil?: string | null
  goesOut?: string | null
  /** What was wrong with the page it leads to when it was last looked at. */
  linkTrouble?: string | null
  /** Other captions of the same account or of siblings on the network; what was `longAgo` may be more alike. */
  others: readonly { text: string; sibling: boolean; longAgo?: boolean | undefined }[]
  /** What stands beside the text, where the post has it. */
  beside?: Partial<Pick<Wording, 'title' | 'parts' | 'format' | 'poll' | 'summary' | 'closing'>>
}

/** A caption as the rules look at it. */
export interface Caption {
  text: string
  /** Without links and tags. */
  prose: string
  /** The hashtags with their signs. */
  tags: readonly string[]
}

/** What a rule says of a caption: a check without its code where the rule has but one. */
export type Finding = Omit<Check, 'code'> & { code?: string }

/** One thing that captions are held against, and what would mend it by itself. */
export interface Rule {
  /** The code of what it finds. */
  code: string
  /** Whether it asks of words what only English can answer. */
  english: boolean
  /** Whether it finds blocks, which decide whether a draft can be set at all. */
  blocks: boolean
  finds: (caption: Caption, context: CheckContext) => Finding[]
  /** The caption as a click would leave it; the caller checks it again. */
  mends?: (text: string, check: Pick<Check, 'code' | 'words'>, profile: NetworkProfile) => string | null
}

/** A finding, or none. */
export const when = (is: unknown, finding: () => Finding): Finding[] => (is ? [finding()] : [])
