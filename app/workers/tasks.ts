import { nanoid } from 'nanoid'
import { anglesOf } from '../../core/angles'
import {
  asPosts,
  reword,
  rewordSelection,
  writeDrip,
  type RewordRequest,
  type SeriesPost,
  type Way,
  type WrittenPost,
} from '../../core/drips'
import { type House } from '../../core/house'
import { checkCaption, remedyFor } from '../../core/judging'
import { headlines, tagsOf, termsOf, type Headline } from '../../core/setting'
import { studyOf } from '../../core/study'
import {
  answersOf,
  choiceOf,
  commission,
  commissionChoice,
  commissionDrip,
  weighAnswer,
  type Commission,
  type Reply,
  type Weighed,
} from '../../core/writers'
import {
  commonPlaces,
  discoverFeeds,
  itemOfPage,
  looksLikeFeed,
  parseFeed,
  type Feed,
  type FeedItem,
} from '../../core/feeds'
import {
  quotable,
  type Angle,
  type ChatMessage,
  type Check,
  type Double,
  type FoundPassage,
  type Passage,
  type Piece,
  type Place,
  type PieceContent,
  type PieceText,
  type Post,
  type PostMedia,
  type SheetRow,
  type Sketch,
  type WholePiece,
} from '../../core/model'
import { network } from '../../core/networks'
import { ThemeIndex, type Nearness, type ThemeText } from '../../core/occasions'
import {
  occurrences,
  openPlaces,
  planChecked,
  startDays,
  type Plan,
  type PlanOutput,
} from '../../core/planning'
import { passageAt } from '../../core/passages'
import {
  carriesFullText,
  contextFor,
  cardPictures,
  clipMedia,
  exampleCards,
  finishPiece,
  handPosts,
  itemPrint,
  makeDrip,
  mediaAfter,
  pictureOptions,
  pieceOfPost,
  revisePiece,
  singlePost,
  takePiece,
  takeRow,
  takeWriting,
  withTranscript,
  type Document,
  type DripRequest,
  type DripResult,
  type ExampleCards,
  type Fetched,
  type HandPost,
  type HandRequest,
  type Owner,
  type PictureOption,
  type SingleRequest,
  type TakenPiece,
} from '../../core/pipeline'
import { rehearse, type Comparison, type RehearsalRequest } from '../../core/rehearsal'
import { blockPrints, readTexts } from '../../core/reading'
import { findDoubles, nearDoubles } from '../../core/sieve'
import { fileTasks } from './fileTasks'

/** The words of other pages of a source, for what repeats. */
type Sibling = Pick<PieceText, 'piece' | 'text' | 'blocks'>
const prints = (siblings: readonly Sibling[], but: string): Set<string>[] =>
  siblings.filter((s) => s.piece !== but).map((s) => new Set(blockPrints(s)))

/** What the page asks of the heavy worker. Everything here is core's, faults are thrown; the worker only carries it. */
export const tasks = {
  ...fileTasks,

  /** A feed, or the feeds that a page names, and where they commonly lie. */
  readAddress: (
    text: string,
    url: string,
  ): { feed: Feed | null; named: { url: string; title: string }[]; common: string[] } => {
    if (looksLikeFeed(text.replace(/^\uFEFF/, '')))
      return { feed: parseFeed(text, url), named: [], common: [] }
    if (!/<(?:html|body|head|!doctype)/i.test(text.slice(0, 4000))) parseFeed(text, url)
    return { feed: null, named: discoverFeeds(text, url), common: commonPlaces(url) }
  },

  /** What must be fetched before an item can be read. */
  wants: (item: FeedItem): { page: string | null; transcript: string | null; chapters: string | null } => ({
    page: carriesFullText(item) ? null : item.url,
    transcript: item.video?.transcripts[0]?.url ?? null,
    chapters: item.video && item.video.chapters.length === 0 ? item.video.chaptersUrl : null,
  }),

  itemOfPage: (page: Document): FeedItem => itemOfPage(page.text, page.url),

  itemPrint: (item: FeedItem): string => itemPrint(item),

  takePiece: (item: FeedItem, fetched: Fetched, owner: Owner): WholePiece => takePiece(item, fetched, owner),

  takeRow: (row: SheetRow, page: Document, owner: Owner): WholePiece => takeRow(row, page, owner),

  takeWriting: (
    content: PieceContent,
    owner: Owner,
    itemId: string,
    kind: 'manuscript' | 'video',
  ): WholePiece => takeWriting(content, owner, { itemId, kind }),

  /** A published post as a piece of its own, for the pipeline that takes it over. */
  pieceOfPost: (
    post: Post,
    piece: Piece,
    of: Parameters<typeof pieceOfPost>[2],
  ): ReturnType<typeof pieceOfPost> => pieceOfPost(post, piece, of),

  withTranscript: (piece: WholePiece, text: string): PieceContent => withTranscript(piece, text),

  /** Finishes pieces of one source together: what repeats among them is furniture of each. */
  finishPieces: (read_: WholePiece[], siblings: Sibling[], now: string): TakenPiece[] => {
    const all = [...siblings, ...read_.map((p) => ({ piece: p.id, text: p.text, blocks: p.blocks }))]
    return read_.map((piece) => finishPiece(piece, prints(all, piece.id), now, nanoid))
  },

  revisePiece: (
    before: WholePiece,
    passages: Passage[],
    content: PieceContent,
    siblings: Sibling[],
    now: string,
  ): TakenPiece =>
    revisePiece(before, passages, contentOf(content), {
      others: prints(siblings, before.id),
      now,
      newId: nanoid,
    }),

  /** For each new sketch the pieces that may tell the same, those among the new ones included. */
  nearDoubles: (standing: Sketch[], fresh: Sketch[]): Map<string, string[]> => nearDoubles(standing, fresh),

  /** Which new pieces are doubles, and of what. `others` are the candidates that stood before. */
  findDoubles: (
    fresh: WholePiece[],
    standing: { id: string; address: string | null }[],
    near: Map<string, string[]>,
    others: WholePiece[],
  ): Map<string, Double> => {
    const told = (p: WholePiece) => ({ title: p.title, text: quotable(p) })
    const words = new Map([...others, ...fresh].map((p) => [p.id, told(p)]))
    return findDoubles(
      fresh.map((p) => ({ ...p, ...told(p) })),
      standing,
      near,
      (id) => words.get(id),
    )
  },

  passageAt: (piece: WholePiece, start: number, end: number): FoundPassage => passageAt(piece, start, end),

  passagesAt: (piece: WholePiece, places: readonly Place[]): FoundPassage[] =>
    places.map(({ start, end }) => passageAt(piece, start, end)),

  readTexts: (...asked: Parameters<typeof readTexts>): PieceContent => readTexts(...asked),

  makeDrip: (
    request: Omit<DripRequest, 'newId'>,
    onProgress: (done: number, all: number) => void,
  ): DripResult => makeDrip({ ...request, newId: nanoid }, onProgress),

  /** What a house and its briefs make of a piece: two captions for each network. Nothing is kept. */
  example: (
    piece: WholePiece,
    passages: readonly FoundPassage[],
    house: House,
    networks: readonly string[],
  ): WrittenPost[] =>
    writeDrip({
      piece,
      passages,
      accounts: networks.map((id) => ({ id, network: id })),
      days: [0, 7],
      house,
      link: piece.url,
      seed: 1,
    }),

  /** The caption as a check's remedy leaves it, or null. */
  remedy: (check: Check, text: string, networkId: string): string | null =>
    remedyFor(check, text, network(networkId)),

  /** The pictures that a post may show, those that may stand there first. */
  pictureOptions: (...asked: Parameters<typeof pictureOptions>): PictureOption[] => pictureOptions(...asked),

  exampleCards: (...asked: Parameters<typeof exampleCards>): ExampleCards => exampleCards(...asked),

  cardPictures: (...asked: Parameters<typeof cardPictures>): PostMedia[] => cardPictures(...asked),

  clipMedia: (...asked: Parameters<typeof clipMedia>): PostMedia => clipMedia(...asked),

  mediaAfter: (...asked: Parameters<typeof mediaAfter>): PostMedia[] => mediaAfter(...asked),

  rewordSelection: (selected: string, way: Way): string[] => rewordSelection(selected, way),

  reword: (request: RewordRequest): ReturnType<typeof reword> => reword(request),

  /** The angles for which a piece holds material. */
  anglesOf: (piece: WholePiece): Angle[] => anglesOf(studyOf(piece)),

  /** The hashtags that a piece offers, of which the networks can tell how often they are used. */
  hashtags: (piece: WholePiece): string[] => {
    const study = studyOf(piece)
    return tagsOf(study, termsOf(study), []).map((t) => t.text)
  },

  commission: (request: Commission): ChatMessage[] => commission(request),

  /** One question for all posts of a drip, or null where the piece is too long for one. */
  commissionDrip: (requests: readonly Commission[]): ChatMessage[] | null => commissionDrip(requests),

  answersOf: (answer_: string, requests: readonly Commission[]): (Reply | null)[] =>
    answersOf(answer_, requests),

  /** The question by which a connected writer chooses passages, or null where the piece is too long. */
  commissionChoice: (piece: WholePiece): ChatMessage[] | null => commissionChoice(piece),

  choiceOf: (answer_: string, piece: WholePiece): FoundPassage[] => choiceOf(answer_, piece),

  weighAnswer: (answer_: string | Reply, request: Commission): Weighed => weighAnswer(answer_, request),

  headlines: (piece: WholePiece): Headline[] => headlines(studyOf(piece)),

  asPosts: (request: Parameters<typeof asPosts>[0]): SeriesPost[] => asPosts(request),

  plan: (input: Plan): PlanOutput => planChecked(input),

  rehearse: (request: RehearsalRequest): Comparison => rehearse(request),

  startDays: (...asked: Parameters<typeof startDays>): ReturnType<typeof startDays> => startDays(...asked),

  openPlaces: (...asked: Parameters<typeof openPlaces>): ReturnType<typeof openPlaces> =>
    openPlaces(...asked),

  handPosts: (request: Omit<HandRequest, 'newId'>): HandPost[] => handPosts({ ...request, newId: nanoid }),

  singlePost: (request: Omit<SingleRequest, 'newId'>): Post => singlePost({ ...request, newId: nanoid }),

  occurrences: (...asked: Parameters<typeof occurrences>): string[] => occurrences(...asked),

  /** Of each theme the nearest texts, so many at most. */
  nearThemes: (themes: readonly string[][], texts: readonly ThemeText[], most: number): Nearness[][] => {
    const index = new ThemeIndex(texts)
    return themes.map((theme) => index.near(theme).slice(0, most))
  },

  recheck: (
    post: Post,
    ...around: [
      Parameters<typeof contextFor>[1],
      Parameters<typeof contextFor>[2],
      Parameters<typeof contextFor>[3],
    ]
  ): Check[] => checkCaption(post.wording.text, contextFor(post, ...around)),
}

/** What a page says of a piece, without what the product knows of it. */
function contentOf(piece: PieceContent): PieceContent {
  const { title, url, author, publishedAt, language, categories, summary, words, images, video } = piece
  const { text, blocks, sentences } = piece
  return {
    title,
    url,
    author,
    publishedAt,
    language,
    categories,
    summary,
    words,
    images,
    video,
    text,
    blocks,
    sentences,
  }
}

export type Tasks = typeof tasks
