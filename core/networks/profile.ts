import { z } from 'zod'
import { ConnectorId, NetworkMeasure, Slot } from '../model'

/** Where a link does its work on a network; `field` is one of its own beside the text. */
export const LinkPlace = z.enum(['text', 'first comment', 'profile', 'field', 'none'])
export type LinkPlace = z.infer<typeof LinkPlace>

const Shape = z.object({ width: z.int().positive(), height: z.int().positive() })

const Rate = z.object({ burst: z.int().positive(), perMinute: z.number().positive() })

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
    /** Null where a text may be as long as it likes. */
    limit: z.int().positive().nullable(),
    /** What a reader sees before "more", or null where all of it shows. */
    fold: z.int().positive().nullable(),
    /** What a link counts for, or null where it counts as it is written. */
    linkCounts: z.int().positive().nullable(),
  }),
  /** Fields beside the text, null where the network has none of the kind. */
  title: z.object({ limit: z.int().positive() }).nullable(),
  summary: z.object({ limit: z.int().positive() }).nullable(),
  /** Tags in a field of their own: how many, and how many characters all of them may have. */
  tags: z.object({ most: z.int().positive(), characters: z.int().positive().nullable() }).nullable(),
  /** How many parts a thread may have. */
  thread: z.object({ parts: z.int().min(2) }).nullable(),
  poll: z
    .object({
      options: z.object({ least: z.int().min(2), most: z.int().min(2) }),
      limit: z.int().positive(),
    })
    .nullable(),
  /** How many marks chapters need, the first at 0:00, and the seconds between two of them. */
  chapters: z.object({ least: z.int().positive(), gap: z.int().positive() }).nullable(),
  /** The kinds of post it takes, the usual one first. */
  formats: z.array(z.string().min(1)).min(1),
  media: z.object({
    pictures: z.object({ least: z.int().min(0), most: z.int().min(0) }),
    /** Shapes a picture may have; empty where any will do. */
    shapes: z.array(Shape),
    maxBytes: z.int().positive(),
    /** The types of pictures that it shows moving; of any other it shows the first frame. */
    animated: z.array(z.enum(['image/gif', 'image/webp'])).default([]),
    /** How long a clip may be, in seconds, and the shapes it may have, none for any; null where it takes none. */
    clip: z
      .object({ least: z.int().positive(), most: z.int().positive(), shapes: z.array(Shape) })
      .nullable(),
    /** How many clips a post takes; it has either pictures or a clip. */
    clips: z.object({ least: z.int().min(0), most: z.int().min(0) }),
    /** How many pages a document may have that is leafed through, and the shape of those that are drawn; null where it takes none. */
    document: z.object({ pages: z.int().min(2), shape: Shape }).nullable(),
    /** The shape of a story, which shows one picture or clip without words and is gone after a day; null where it has none. */
    story: z.object({ shape: Shape }).nullable(),
  }),
  hashtags: z.object({ sensible: z.int().min(0), most: z.int().min(0) }),
  link: z.object({ place: LinkPlace, live: z.boolean(), required: z.boolean() }),
  limits: z.object({
    postsPerDay: z.int().positive(),
    sensiblePostsPerDay: z.int().positive(),
    gapMinutes: z.int().min(0),
    /** Same words on sibling accounts are refused within this many days. */
    siblingDays: z.int().min(0),
  }),
  /** Posts a day that an account may make until it is so many days old, youngest first. */
  warmUp: z.array(z.object({ days: z.int().positive(), postsPerDay: z.int().positive() })),
  /** How fast calls may come: so many at once, then so many a minute; for one account, and for all of them together. */
  rates: z
    .object({ account: Rate, network: Rate })
    .default({ account: { burst: 30, perMinute: 60 }, network: { burst: 300, perMinute: 3000 } }),
  /** What the writer aims at unless a brief says otherwise. */
  brief: z.object({
    shape: z.enum([
      'short',
      'considered',
      'pictures speak',
      'neighbourly',
      'searchable',
      'video',
      'news',
      'letter',
    ]),
    length: z.object({ least: z.int().min(0), most: z.int().positive() }),
    hashtags: z.int().min(0),
    /** The reading ease that its readers are used to (Flesch 1948), 0 to 100. */
    reading: z.number(),
  }),
  /** Weekly slots proposed for a new account. */
  slots: z.array(Slot),
  /** What it counts of how readers take a post. */
  measures: z.array(NetworkMeasure).default([]),
  /** Where its service answers, below the address of the stand-in world, and by which connector. */
  service: z.object({ connector: ConnectorId, path: z.string() }).nullable(),
})
export type NetworkProfile = z.infer<typeof NetworkProfile>
