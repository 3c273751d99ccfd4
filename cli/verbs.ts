import { materialOf } from '../core/angles'
import { studyOf } from '../core/study'
import { writeDrip, type WrittenPost } from '../core/drips'
import { PLAIN_HOUSE, type House } from '../core/house'
import { Angle, ANGLES, Brief, Fault, HouseStyle, type PieceContent } from '../core/model'
import { z } from 'zod'
import { measure, network, NETWORKS } from '../core/networks'
import { findPassages, weighPassages } from '../core/passages'
import { beatDays, plan, RHYTHMS, rhythmNamed, type PlanInput } from '../core/planning'
import { KINDS, read, readFragment, type ReadKind, type ReadResult } from '../core/reading'
import { jsonIn } from './jsonIn'
import { CaptionRow, CardOutput, MaterialRow, PassageRow, ReadOutput } from './output'

export interface Options {
  help?: boolean | undefined
  url?: string | undefined
  as?: string | undefined
  count?: string | undefined
  networks?: string | undefined
  rhythm?: string | undefined
  seed?: string | undefined
  house?: string | undefined
  brief?: string | undefined
  angle?: string | undefined
  wordings?: string | undefined
  item?: string | undefined
  look?: string | undefined
  shape?: string | undefined
}

type Verb = (bytes: Uint8Array, file: string, options: Options) => Promise<unknown>

/** The verbs of the command line. Each takes a file's bytes and gives what is printed as JSON. */
export const VERBS: Readonly<Record<string, Verb>> = {
  read: async (bytes, file, options) => ReadOutput.parse(await readFileAs(bytes, file, options)),
  passages: async (bytes, file, options) => {
    const count = options.count === undefined ? 24 : wholeNumber(options.count, 'count', 1)
    return PassageRow.array().parse(findPassages(await pieceOf(bytes, file, options), { count }))
  },
  material: async (bytes, file, options) =>
    MaterialRow.array().parse(materialOf(studyOf(await pieceOf(bytes, file, options)))),
  captions: async (bytes, file, options) => captions(await pieceOf(bytes, file, options), options),
  card: async (bytes, file, { look, shape }) =>
    CardOutput.parse(await (await import('./card')).card(bytes, file, look, shape)),
  plan: async (bytes) => {
    let input: unknown
    try {
      input = JSON.parse(new TextDecoder().decode(bytes))
    } catch (error) {
      throw new Fault(
        'bad-plan',
        `The plan is not JSON (${error instanceof Error ? error.message : ''}). Mend it and try again.`,
      )
    }
    return plan(input as PlanInput)
  },
}

async function readFileAs(bytes: Uint8Array, file: string, options: Options): Promise<ReadResult> {
  const as = options.as as ReadKind | undefined
  if (as !== undefined && !KINDS.includes(as))
    throw new Fault('bad-request', `--as takes ${KINDS.join(', ')}, not ${as}.`, 'as')
  return read(bytes, { as, url: options.url, name: file })
}

async function pieceOf(bytes: Uint8Array, file: string, options: Options): Promise<PieceContent> {
  const result = await readFileAs(bytes, file, options)
  if (result.kind === 'piece') return result.piece
  if (options.item === undefined)
    throw new Fault(
      'needs-item',
      `This is a feed of ${result.feed.items.length} items. Say which one with --item N (the first is 1).`,
      'item',
    )
  const number = wholeNumber(options.item, 'item', 1)
  const item = result.feed.items[number - 1]
  if (!item)
    throw new Fault(
      'needs-item',
      `The feed has ${result.feed.items.length} items; there is no item ${number}.`,
      'item',
    )
  return readFragment(item.html || `<p>${item.summary}</p>`, item)
}

async function captions(piece: PieceContent, options: Options): Promise<CaptionRow[]> {
  const names = (options.networks ?? NETWORKS.map((n) => n.id).join(','))
    .split(',')
    .map((n) => n.trim())
    .filter(Boolean)
  const accounts = names.map((name) => ({ id: name, network: network(name).id }))
  if (accounts.length === 0) throw new Fault('bad-request', '--networks wants at least one name.', 'networks')
  const rhythm = rhythmNamed(options.rhythm ?? 'Trickle')
  if (!rhythm)
    throw new Fault(
      'bad-request',
      `There is no rhythm ${options.rhythm}. Known are ${RHYTHMS.map((r) => r.name).join(', ')}.`,
      'rhythm',
    )
  const days = beatDays(rhythm)
  const angle = options.angle === undefined ? undefined : Angle.safeParse(options.angle)
  if (angle && !angle.success)
    throw new Fault(
      'bad-request',
      `There is no angle ${options.angle}. Known are ${ANGLES.join(', ')}.`,
      'angle',
    )
  const wordings = options.wordings === undefined ? 0 : wholeNumber(options.wordings, 'wordings', 0)
  const lasting = weighPassages(piece).filter((w) => !w.passage.reasons.some((r) => r.startsWith('ages')))
  const written = writeDrip({
    piece,
    passages: lasting.filter((w) => w.kept).map((w) => w.passage),
    accounts,
    days,
    house: { ...(await houseIn(options.house)), briefs: await briefsIn(options.brief) },
    link: piece.url,
    seed: options.seed === undefined ? 1 : wholeNumber(options.seed, 'seed', 0),
    angle: angle?.data,
    wordings,
  })
  return written.map((post) => row(post, wordings))
}

/** What makes a caption no caption yet, but would with a picture or a clip. */
const MEDIA = new Set(['no-media'])

function row(post: WrittenPost, wordings: number): CaptionRow {
  const profile = network(post.network)
  const blocked = post.checks.some((c) => c.severity === 'block' && !MEDIA.has(c.code))
  const made = blocked ? null : post.wording
  return CaptionRow.parse({
    beat: post.beat,
    day: post.day,
    network: post.network,
    angle: made?.angle ?? null,
    format: made?.format ?? null,
    ...(made?.title ? { title: made.title } : {}),
    ...(made?.summary ? { summary: made.summary } : {}),
    text: made?.text ?? null,
    ...(made?.parts.length ? { parts: made.parts } : {}),
    ...(made?.poll.length ? { poll: made.poll } : {}),
    ...(made?.firstComment ? { firstComment: made.firstComment } : {}),
    ...(made?.tags.length ? { tags: made.tags } : {}),
    hashtags: made?.hashtags ?? [],
    length: made ? measure(made.text, profile.text) : 0,
    limit: profile.text.limit,
    passage: post.passage && { text: post.passage.text, start: post.passage.start, end: post.passage.end },
    spans: made?.spans ?? [],
    checks: post.checks,
    ...(wordings > 0 ? { wordings: post.others.slice(0, wordings) } : {}),
  })
}

async function houseIn(file: string | undefined): Promise<Omit<House, 'briefs'>> {
  if (file === undefined) return PLAIN_HOUSE
  const { data, raw } = await jsonIn(file, 'house style', 'house', HouseStyle)
  const brand =
    raw && typeof raw === 'object' && 'brand' in raw && typeof raw.brand === 'string' ? raw.brand : ''
  return { style: data, brand }
}

async function briefsIn(file: string | undefined): Promise<Brief[]> {
  if (file === undefined) return []
  const { data } = await jsonIn(file, 'brief', 'brief', z.union([Brief.transform((b) => [b]), Brief.array()]))
  for (const brief of data) network(brief.network)
  return data
}

function wholeNumber(text: string, name: string, least: number): number {
  const value = Number(text)
  if (!Number.isInteger(value) || value < least)
    throw new Fault('bad-request', `--${name} wants a whole number from ${least}, not ${text}.`, name)
  return value
}
