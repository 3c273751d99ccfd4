import { z } from 'zod'
import { Id, LocalDate } from './primitives'
import { PieceKind, Span } from './piece'

/** Where the words of a rule are looked for. */
export const FIELDS_SEARCHED = ['the title', 'the title and the text', 'the tags', 'the author'] as const
export const FieldSearched = z.enum(FIELDS_SEARCHED)
export type FieldSearched = z.infer<typeof FieldSearched>

/** What is counted of a piece where it stands. */
export const COUNTED = ['shares', 'comments', 'views', 'likes'] as const
export const Counted = z.enum(COUNTED)
export type Counted = z.infer<typeof Counted>

/**
 * One rule of a sieve; a piece passes when it keeps all of them. A word that ends in `*` stands
 * for every word that begins like it; several words in one entry are a phrase.
 */
export const SieveRule = z.discriminatedUnion('kind', [
  z.object({
    kind: z.literal('words'),
    need: z.enum(['any', 'all', 'none']),
    words: z.array(z.string()),
    /** Saved word lists, whose words count as well. */
    lists: z.array(Id),
    where: FieldSearched,
  }),
  z.object({ kind: z.literal('source'), take: z.boolean(), sources: z.array(Id) }),
  z.object({ kind: z.literal('domain'), take: z.boolean(), domains: z.array(z.string()) }),
  z.object({ kind: z.literal('kind'), kinds: z.array(PieceKind) }),
  z.object({ kind: z.literal('tags'), take: z.boolean(), tags: z.array(z.string()) }),
  z.object({
    kind: z.literal('length'),
    least: z.int().min(0).nullable(),
    most: z.int().min(0).nullable(),
  }),
  z.object({ kind: z.literal('age'), mostDays: z.int().min(0) }),
  /** It came out from a day on, until a day, both counted in; null for no bound. */
  z.object({ kind: z.literal('date'), from: LocalDate.nullable(), until: LocalDate.nullable() }),
  z.object({ kind: z.literal('keeps'), atLeast: Span }),
  z.object({ kind: z.literal('language'), languages: z.array(z.string()) }),
  z.object({ kind: z.literal('picture') }),
  z.object({
    kind: z.literal('popularity'),
    measure: Counted,
    /** A number, or a share of its source such as 0.1 for the top tenth. */
    least: z.number().min(0).nullable(),
    top: z.number().min(0).max(1).nullable(),
  }),
  z.object({
    kind: z.literal('field'),
    name: z.string(),
    least: z.number().nullable(),
    most: z.number().nullable(),
  }),
])
export type SieveRule = z.infer<typeof SieveRule>

/** A list of words that several sieves share. */
export const WordList = z.object({
  id: Id,
  brand: Id,
  name: z.string().min(1).max(80),
  words: z.array(z.string()),
})
export type WordList = z.infer<typeof WordList>
