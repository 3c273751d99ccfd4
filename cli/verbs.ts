import { readFile } from 'node:fs/promises'
import { PLAIN_HOUSE, writeDrip, type House } from '../core/captions'
import { Fault, HouseStyle, type PieceContent } from '../core/model'
import { measure, network, NETWORKS } from '../core/networks'
import { findPassages } from '../core/passages'
import { beatDays, plan, RHYTHMS, rhythmNamed, type PlanInput } from '../core/planning'
import { KINDS, read, readFragment, type ReadKind, type ReadResult } from '../core/reading'
import { CaptionRow, PassageRow, ReadOutput } from './output'

export interface Options {
  help?: boolean | undefined
  url?: string | undefined
  as?: string | undefined
  count?: string | undefined
  networks?: string | undefined
  rhythm?: string | undefined
  seed?: string | undefined
  house?: string | undefined
  item?: string | undefined
}

type Verb = (bytes: Uint8Array, file: string, options: Options) => Promise<unknown>

/** The verbs of the command line. Each takes a file's bytes and gives what is printed as JSON. */
export const VERBS: Readonly<Record<string, Verb>> = {
  read: async (bytes, file, options) => ReadOutput.parse(await readFileAs(bytes, file, options)),
  passages: async (bytes, file, options) => {
    const count = options.count === undefined ? 24 : wholeNumber(options.count, 'count', 1)
    return PassageRow.array().parse(findPassages(await pieceOf(bytes, file, options), { count }))
  },
  captions: async (bytes, file, options) => captions(await pieceOf(bytes, file, options), options),
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
  const found = findPassages(piece)
  const quotable = found.filter((p) => !p.reasons.some((r) => r.startsWith('ages')))
  const written = writeDrip({
    piece,
    passages: quotable.slice(0, days.length),
    spare: quotable.slice(days.length),
    accounts,
    days,
    house: await houseOf(options.house),
    link: piece.url,
    seed: options.seed === undefined ? 1 : wholeNumber(options.seed, 'seed', 0),
  })
  return written.map((post) => {
    const profile = network(post.network)
    const blocked = post.checks.some((c) => c.severity === 'block')
    const text = blocked ? null : (post.wording?.text ?? null)
    return CaptionRow.parse({
      beat: post.beat,
      day: post.day,
      network: post.network,
      angle: post.wording?.angle ?? null,
      text,
      hashtags: post.wording?.hashtags ?? [],
      length: text === null ? 0 : measure(text, profile.text),
      limit: profile.text.limit,
      passage: post.passage && { text: post.passage.text, start: post.passage.start, end: post.passage.end },
      spans: post.wording?.spans ?? [],
      checks: post.checks,
    })
  })
}

async function houseOf(file: string | undefined): Promise<House> {
  if (file === undefined) return PLAIN_HOUSE
  let raw: unknown
  try {
    raw = JSON.parse(await readFile(file, 'utf8'))
  } catch (error) {
    throw new Fault(
      'bad-file',
      `The house style cannot be read (${error instanceof Error ? error.message : ''}). Mend the file, or leave --house out.`,
      file,
    )
  }
  const style = HouseStyle.safeParse(raw)
  if (!style.success) {
    const issue = style.error.issues[0]
    throw new Fault(
      'bad-file',
      `The house style is not right at ${issue?.path.join('.') || 'its top'}: ${issue?.message}.`,
      file,
    )
  }
  const brand =
    raw && typeof raw === 'object' && 'brand' in raw && typeof raw.brand === 'string' ? raw.brand : ''
  return { style: style.data, brand }
}

function wholeNumber(text: string, name: string, least: number): number {
  const value = Number(text)
  if (!Number.isInteger(value) || value < least)
    throw new Fault('bad-request', `--${name} wants a whole number from ${least}, not ${text}.`, name)
  return value
}
