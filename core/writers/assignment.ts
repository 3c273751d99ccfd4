import {
  inPart,
  type Angle,
  type FoundPassage,
  type PieceContent,
  type TagFigures,
  type Wording,
} from '../model'
import { briefOf, taggedLink, type House } from '../house'
import { network } from '../networks'
import { setDraft, tagsOf, type Draft, type Tag } from '../setting'
import type { Stock } from './stock'

/** An account as the writers know it. */
export interface Recipient {
  id: string
  network: string
}

/** What holds for everything that is written of a piece for a brand. */
export interface Order {
  piece: PieceContent
  house: House
  /** The piece's address, without tags. */
  link: string | null
  seed: number
  /** The pipeline’s name, for the tags of links. */
  pipeline?: string | undefined
  /** How often tags are posted with, by network and tag, where the networks tell it. */
  tagFigures?: Readonly<Record<string, TagFigures>> | undefined
}

/** One post that is to be written: the same for the built-in writer and a connected one. */
export interface Assignment {
  order: Order
  stock: Stock
  account: Recipient
  /** The passage it is of; null for a post of the whole piece. */
  passage: FoundPassage | null
  /** Its place in the drip, from 0. */
  beat: number
  /** Write in this angle only. */
  angle?: Angle | undefined
  /** Whether a film is shown in part only, so that its chapters do not stand below. */
  part?: boolean
}

/** The piece's address with the house's tags, for one post. */
export function linkFor(
  { order, account, beat }: Pick<Assignment, 'order' | 'account' | 'beat'>,
  angle: Angle | null,
): string | null {
  const { link, house, pipeline = '' } = order
  if (link === null) return null
  return taggedLink(link, house.style.linkTags, {
    brand: house.brand,
    network: account.network,
    pipeline,
    angle: angle ?? '',
    account: account.id,
    beat: beat + 1,
  })
}

/** Sets a draft for an assignment's account, with a title where the network wants one; null where it does not fit. */
export function settled(
  assignment: Assignment,
  draft: Draft,
  title: string | null,
  closed: ReadonlySet<string> = new Set(),
): Omit<Wording, 'score'> | null {
  const { order, stock, account, part = false } = assignment
  const profile = network(account.network)
  const { piece, sought } = stock
  return setDraft(draft, profile, briefOf(profile, order.house), {
    piece: part ? inPart(piece) : piece,
    house: order.house,
    link: linkFor(assignment, draft.angle),
    tags: tagsFor(order, stock, account.network),
    phrases: sought,
    title,
    closed,
  })
}

/** The tags that a piece may have on a network, found once an order, since every wording of it asks. */
function tagsFor(order: Order, { study, terms }: Stock, networkId: string): readonly Tag[] {
  const known = tagsByOrder.get(order) ?? new Map<string, readonly Tag[]>()
  tagsByOrder.set(order, known)
  const tags =
    known.get(networkId) ?? tagsOf(study, terms, order.house.style.hashtags, order.tagFigures?.[networkId])
  known.set(networkId, tags)
  return tags
}
const tagsByOrder = new WeakMap<Order, Map<string, readonly Tag[]>>()
