import { z } from 'zod'
import { Credit } from './picture'
import { FEED_FORMATS } from './pipeline'
import { Id, Instant, LocalDate } from './primitives'

/** Where an outside service answers. */
const Address = z
  .url({ protocol: /^https?$/, error: 'an address looks like https://service.example/v1' })
  .max(500)

/** A writer that speaks the chat-completions form over HTTP, all but its key, which stays on the server. */
export const WriterSettings = z.object({
  /** Up to and without `/chat/completions`. */
  address: Address,
  model: z.string().trim().min(1, 'name the model').max(200),
  /** The temperature that is asked for: 0 for the likeliest words, 2 for the wildest. */
  creativity: z.number().min(0).max(2),
  /** The most words of one answer. */
  length: z.int().min(40).max(4000),
  /** The most words of a day, those that are sent and those that come back. */
  dailyWords: z.int().min(0).max(10_000_000),
})
export type WriterSettings = z.infer<typeof WriterSettings>

/** How a connected writer stands: `settings` is null while none is connected. */
export const WriterState = z.object({
  settings: WriterSettings.nullable(),
  hasKey: z.boolean(),
  /** The day by the shared clock, in UTC, and the words and questions of that day. */
  day: LocalDate,
  words: z.int().min(0),
  questions: z.int().min(0),
})
export type WriterState = z.infer<typeof WriterState>

export const ChatMessage = z.object({
  role: z.enum(['system', 'user', 'assistant']),
  content: z.string().min(1).max(60_000),
})
export type ChatMessage = z.infer<typeof ChatMessage>

/** How many captions one question to a connected writer may be for. */
export const TOGETHER = 12

/** What a connected writer answered, and the words that question and answer came to. */
export const WriterAnswer = z.object({
  text: z.string(),
  words: z.int().min(0),
  milliseconds: z.int().min(0),
})
export type WriterAnswer = z.infer<typeof WriterAnswer>

/** A shortener as a person sets it up; its key stays on the server. */
export const ShortenerSettings = z.object({ address: Address })
export type ShortenerSettings = z.infer<typeof ShortenerSettings>

export const ShortenerState = z.object({ settings: ShortenerSettings.nullable(), hasKey: z.boolean() })
export type ShortenerState = z.infer<typeof ShortenerState>

/** A stock of pictures as a person sets it up; its key stays on the server. */
export const StockSettings = z.object({ address: Address })
export type StockSettings = z.infer<typeof StockSettings>

export const StockState = z.object({ settings: StockSettings.nullable(), hasKey: z.boolean() })
export type StockState = z.infer<typeof StockState>

/** A picture that a stock offers. */
export const StockPicture = z.object({
  id: z.string().max(200),
  title: z.string().max(400),
  width: z.int().positive(),
  height: z.int().positive(),
  /** Where a small copy lies, and where the picture itself does. */
  preview: z.url({ protocol: /^https?$/ }),
  file: z.url({ protocol: /^https?$/ }),
  credit: Credit,
})
export type StockPicture = z.infer<typeof StockPicture>

/** One page of what a stock found. */
export const StockPage = z.object({
  total: z.int().min(0),
  page: z.int().min(1),
  pages: z.int().min(0),
  pictures: z.array(StockPicture),
})
export type StockPage = z.infer<typeof StockPage>

/** A service that makes pictures to order, all but its key. */
export const MakerSettings = z.object({
  address: Address,
  /** The most pictures that are ordered on one day. */
  dailyPictures: z.int().min(0).max(10_000),
})
export type MakerSettings = z.infer<typeof MakerSettings>

/** How it stands: the day by the shared clock, in UTC, and the pictures ordered on it. */
export const MakerState = z.object({
  settings: MakerSettings.nullable(),
  hasKey: z.boolean(),
  day: LocalDate,
  pictures: z.int().min(0),
})
export type MakerState = z.infer<typeof MakerState>

/** How an order stands: where its picture lies once it is ready, and why it failed where it did. */
export const MakerOrder = z.object({
  state: z.enum(['waiting', 'ready', 'failed']),
  url: z.string().nullable(),
  reason: z.string().nullable(),
})
export type MakerOrder = z.infer<typeof MakerOrder>

/** What is made short: an address, and for whom, so that each post has a link of its own by which its readers are counted. */
export const ToShorten = z.object({ url: z.url().max(2000), key: z.string().min(1).max(200) })
export type ToShorten = z.infer<typeof ToShorten>

/** A short link, where it leads and how often it was followed. */
export const ShortLink = z.object({ short: z.url(), url: z.url(), clicks: z.int().min(0) })
export type ShortLink = z.infer<typeof ShortLink>

/** A link of a brand's page, with the moment from which it stands there. */
export const PageLink = z.object({
  title: z.string(),
  url: z.url({ protocol: /^https?$/ }),
  at: Instant,
})
export type PageLink = z.infer<typeof PageLink>

/** How often tags were posted with in the last seven days on one network, by tag as asked for. */
export const TagFigures = z.record(z.string(), z.number().min(0))
export type TagFigures = z.infer<typeof TagFigures>

/** One entry of a calendar that is written: a post at its moment. */
export const CalendarEntry = z.object({
  id: z.string().max(200),
  account: z.string().max(200),
  at: Instant,
  title: z.string().max(400),
  text: z.string().max(20_000),
  url: z.string().max(4000).nullable(),
  /** Whether it will go out as it stands, or still waits for a person. */
  certain: z.boolean(),
})
export type CalendarEntry = z.infer<typeof CalendarEntry>

/** The team chat as a person sets it up. Its address is a secret and stays on the server; its host is told. */
export const ChatSettings = z.object({ address: Address })
export type ChatSettings = z.infer<typeof ChatSettings>

export const ChatState = z.object({
  host: z.string().nullable(),
  /** Messages that are still to be sent, and why the last try failed. */
  waiting: z.int().min(0),
  trouble: z.string().nullable(),
})
export type ChatState = z.infer<typeof ChatState>

/** A message for the team chat; one key is said once. */
export const ChatLine = z.object({ key: z.string().min(1).max(300), text: z.string().min(1).max(4000) })
export type ChatLine = z.infer<typeof ChatLine>

/** A published post, as a feed or an archive sheet has it. */
export const Publication = z.object({
  post: Id,
  /** When it went out; null while it is handed over: the server knows when it does. */
  at: Instant.nullable(),
  network: z.string().max(80),
  account: z.string().max(200),
  title: z.string().max(1000),
  text: z.string().max(60_000),
  link: z.string().max(4000).nullable(),
  /** Where it stands on its network. */
  publicUrl: z.string().max(4000).nullable(),
  tags: z.array(z.string().max(200)).max(60),
})
export type Publication = z.infer<typeof Publication>

/** What a brand publishes of its posts through the server, under an address of its own. */
export const PublishedDocument = z.object({
  kind: z.enum([...FEED_FORMATS, 'CSV']),
  title: z.string().min(1).max(80),
  /** The page that a feed belongs to. */
  home: z.url().max(2000).nullable(),
  /** At most so many of the newest. */
  items: z.int().min(1).max(5000),
  publications: z.array(Publication).max(6000),
})
export type PublishedDocument = z.infer<typeof PublishedDocument>
