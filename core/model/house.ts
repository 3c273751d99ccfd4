import { z } from 'zod'
import { Angle } from './angle'
import { Id, LocalDate } from './primitives'

/** One of the sliders of a voice, from −2 to 2. */
const Slider = z.int().min(-2).max(2)

/** How a brand sounds: three sliders, and who speaks. */
export const Voice = z.object({
  /** −2 casual … 2 formal. */
  formality: Slider.default(0),
  /** −2 plain … 2 vivid. */
  vividness: Slider.default(0),
  /** −2 reserved … 2 warm. */
  warmth: Slider.default(0),
  speaker: z.enum(['we', 'I', 'you', 'nobody']).default('nobody'),
})
export type Voice = z.infer<typeof Voice>

/** A word that is said in another way: everywhere, or on one network. */
export const WordSwap = z.object({
  from: z.string().trim().min(1),
  to: z.string().trim().min(1),
  network: Id.nullable().default(null),
})
export type WordSwap = z.infer<typeof WordSwap>

/** A line that may close a post where the post says one of some words, in any form; with none, everywhere; a bare text is one of those. */
export const ClosingLine = z.preprocess(
  (line) => (typeof line === 'string' ? { text: line } : line),
  z.object({
    text: z.string().trim().min(1),
    where: z.array(z.string().trim().min(1)).default([]),
  }),
)
export type ClosingLine = z.infer<typeof ClosingLine>

/** What holds for everything a brand publishes. */
export const HouseStyle = z.object({
  voice: Voice.prefault({}),
  swaps: z.array(WordSwap).default([]),
  /**
   * Words and phrases that never go out, compared by their forms without regard to case; one
   * between slashes is a pattern (a regular expression).
   */
  neverSay: z.array(z.string().min(1)).default([]),
  /** Standing hashtags without the number sign, put before those found in a piece. */
  hashtags: z.array(z.string().regex(/^[\p{L}\p{N}_]+$/u, 'a hashtag is one word')).default([]),
  /** Lines that may close a post, taken in turn, each only where its condition holds. */
  closingLines: z.array(ClosingLine).default([]),
  /** Whether the author of a piece is named where there is room. */
  credit: z.boolean().default(false),
  /**
   * What links carry so that visits can be counted: parameters with templates in which {brand},
   * {network}, {pipeline}, {angle}, {account} and {beat} are filled; empty for none.
   */
  linkTags: z
    .array(z.object({ name: z.string().regex(/^[\w.-]+$/, 'a parameter has no spaces'), value: z.string() }))
    .default([]),
  /** Whether links go out as short links of the connected shortener. */
  shortLinks: z.boolean().default(false),
  /** Who writes captions: the writer that ships, or the connected one, for which that one stands in. */
  writer: z.enum(['built-in', 'connected']).default('built-in'),
  spelling: z.enum(['as written', 'British', 'American']).default('as written'),
})
export type HouseStyle = z.infer<typeof HouseStyle>

/** How much a reader knows, which says how hard the words may be. */
export const READERS = ['anyone', 'somebody who tries', 'the trade'] as const
export const Reader = z.enum(READERS)
export type Reader = z.infer<typeof Reader>

/** The writing instructions for one network. Null is what the network or the house proposes. */
export const Brief = z.object({
  network: Id,
  voice: Voice.nullable().default(null),
  reader: Reader.default('somebody who tries'),
  length: z
    .object({ least: z.int().min(0), most: z.int().positive() })
    .refine((l) => l.least < l.most, 'the shortest length lies below the longest')
    .nullable()
    .default(null),
  /** The angles that may be used; empty for all. */
  angles: z.array(Angle).default([]),
  hashtags: z.int().min(0).max(30).nullable().default(null),
  /** Where hashtags stand. */
  hashtagsIn: z.enum(['text', 'first comment']).default('text'),
  emoji: z.enum(['none', 'where it helps']).default('none'),
  link: z.enum(['text', 'first comment', 'profile', 'none']).nullable().default(null),
  closing: z.enum(['a line of the house', 'none']).nullable().default(null),
  /** How pictures look that are made to order for it; absent for as usual. */
  picture: z.string().max(400).optional(),
  /** Whether captions lean to what earned more there (`Leaning`); absent for yes. */
  leans: z.boolean().optional(),
})
export type Brief = z.infer<typeof Brief>

/** How long a caption is for its network: below what a brief aims at, about there, or above. */
export const LENGTHS = ['short', 'usual', 'long'] as const
export const Length = z.enum(LENGTHS)
export type Length = z.infer<typeof Length>

/** How a caption opens. */
export const OPENINGS = ['a question', 'a number', 'a quotation', 'a statement'] as const
export const Opening = z.enum(OPENINGS)
export type Opening = z.infer<typeof Opening>

/** What a brand's results say for certain of captions on a network, all else alike, which its writer leans to. */
export const Leaning = z.object({
  network: Id,
  of: z.union([z.object({ angle: Angle }), z.object({ length: Length }), z.object({ opening: Opening })]),
  /** How many times as much such posts earn, and the bounds of that 95 times in 100. */
  times: z.object({ at: z.number().positive(), low: z.number().positive(), high: z.number().positive() }),
  /** In how many posts it was seen. */
  posts: z.int().min(1),
  /** The day on which it was certain first. */
  since: LocalDate,
})
export type Leaning = z.infer<typeof Leaning>
