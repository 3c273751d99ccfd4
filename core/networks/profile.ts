import { z } from 'zod'
import { Slot } from '../model'

/** Where a link does its work on a network. */
export const LinkPlace = z.enum(['text', 'first comment', 'profile'])
export type LinkPlace = z.infer<typeof LinkPlace>

/**
 * A network described by what it takes. Lengths are in graphemes: what a reader sees as one
 * character. The code knows no network by name; everything it needs is here.
 */
export const NetworkProfile = z.object({
  id: z.string().regex(/^[a-z][a-z0-9-]*$/),
  name: z.string(),
  /** The two letters it is known by on small drawings, and the hatch behind them. */
  mark: z.string().length(2),
  hatch: z.enum(['rising', 'falling', 'level', 'upright', 'dots', 'cross', 'grid', 'waves', 'plain']),
  kind: z.string(),
  text: z.object({
    limit: z.int().positive(),
    /** What a reader sees before "more", or null where all of it shows. */
    fold: z.int().positive().nullable(),
    /** What a link counts for, or null where it counts as it is written. */
    linkCounts: z.int().positive().nullable(),
  }),
  media: z.object({
    pictures: z.object({ least: z.int().min(0), most: z.int().min(0) }),
    /** Shapes a picture may have; empty where any will do. */
    shapes: z.array(z.object({ width: z.int().positive(), height: z.int().positive() })),
    maxBytes: z.int().positive(),
    /** How long a clip may be, in seconds. */
    clip: z.object({ least: z.int().positive(), most: z.int().positive() }),
  }),
  hashtags: z.object({ sensible: z.int().min(0), most: z.int().min(0) }),
  link: z.object({ place: LinkPlace }),
  limits: z.object({
    postsPerDay: z.int().positive(),
    sensiblePostsPerDay: z.int().positive(),
    gapMinutes: z.int().min(0),
    /** Same words on sibling accounts are refused within this many days. */
    siblingDays: z.int().min(0),
  }),
  /** What the writer aims at unless a brief says otherwise. */
  brief: z.object({
    shape: z.enum(['short', 'considered', 'pictures speak']),
    length: z.object({ least: z.int().min(0), most: z.int().positive() }),
    hashtags: z.int().min(0),
  }),
  /** Weekly slots proposed for a new account. */
  slots: z.array(Slot),
  /** Where its service answers, below the address of the stand-in world. */
  service: z.object({ path: z.string() }),
})
export type NetworkProfile = z.infer<typeof NetworkProfile>
