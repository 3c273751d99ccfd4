import {
  HouseStyle,
  usualLook,
  type Look,
  NO_LIMITS,
  PLAIN_MAKE,
  type Account,
  type Brand,
  type FromShelf,
  type Pipeline,
  type Target,
  USUAL_WEIGHTS,
} from '../core/model'
import { freshPipeline } from '../core/formats'
import { network, proposedLimits, servicePath } from '../core/networks'
import { addDays, TRICKLE, type Random } from '../core/planning'
import { type WorldLogin } from '../world'
import { picturePrint } from './pictures'

/** What tells one of the demo's brands from another. */
export interface BrandGiven {
  id: string
  name: string
  zone: string
  neverSay: string[]
  look: Partial<Look>
}

/** A brand of the demo. */
export function brandOf(of: BrandGiven, createdAt: string): Brand {
  const { neverSay, look, ...rest } = of
  return {
    ...rest,
    quiet: [{ yearly: '12-25' }, { yearly: '01-01' }],
    slots: [],
    weights: USUAL_WEIGHTS,
    houseStyle: HouseStyle.parse({ neverSay }),
    look: { ...usualLook(of.name), ...look },
    briefs: [],
    held: null,
    endedAt: null,
    createdAt,
  }
}

/** What tells one of the demo's pipelines from another. */
export type PipelineGiven = Pick<Pipeline, 'id' | 'name' | 'hue' | 'gate'> &
  Pick<Pipeline['takeIn'], 'sources' | 'sieve'> & {
    accounts: string[]
    /** What comes from the shelf, and to whom. */
    shelf?: { accounts: string[]; by: FromShelf }
  }

/** A pipeline of the demo, switched on since `now`, with one row for all of its accounts, and one that drips from the shelf. */
export function pipelineOf(brand: Brand, of: PipelineGiven, now: string): Pipeline {
  const row = { id: '', pieces: { kind: 'all' as const }, format: null, groups: [], again: null }
  const { id, name, hue, sources, sieve, accounts, gate, shelf } = of
  let rows = 0
  const made = freshPipeline(
    {
      takeIn: { sources, groups: [], sieve, since: now, aRun: null, aWeek: null, changed: false },
      make: PLAIN_MAKE,
      release: [
        { ...row, accounts, by: { kind: 'rhythm', rhythm: TRICKLE } },
        ...(shelf ? [{ ...row, ...shelf }] : []),
      ],
      gate,
      limits: NO_LIMITS,
      follows: [],
      priority: 0,
    },
    { id, brand: brand.id, name, hue, now, newId: () => `row-${++rows}` },
  )
  return { ...made, on: true }
}

/** For how many days the demo's young accounts are open and linked, and for how many the others are linked. */
const YOUNG = 10
const OLD = 190

/** The accounts of a login of the demo: itself, or one for each of its places. */
export function accountsOf(login: WorldLogin, brand: Brand, now: string, port: number): Account[] {
  const places = login.targets ?? []
  if (places.length === 0) return [accountOf(login, null, brand, now, port)]
  return places.map((target) => accountOf(login, target, brand, now, port))
}

function accountOf(
  login: WorldLogin,
  target: Target | null,
  brand: Brand,
  now: string,
  port: number,
): Account {
  const profile = network(login.network)
  const profileUrl = `http://localhost:${port}${servicePath(profile.id)}/@${login.handle}`
  const connector = profile.service?.connector ?? 'stand-in'
  const young = profile.warmUp.length > 0
  const linkedAt = `${addDays(now.slice(0, 10), -(young ? YOUNG : OLD))}T09:00:00.000Z`
  return {
    id: target === null ? login.id : `${login.id}-${target.id}`,
    brand: brand.id,
    network: login.network,
    connector,
    // A site of one's own is known by its address.
    remoteId: connector === 'micropub' ? profileUrl : login.id,
    target,
    handle: target === null ? login.handle : `${login.handle} · ${target.name}`,
    name: login.name,
    profileUrl,
    groups: [],
    zone: login.zone,
    ...proposedLimits(profile),
    quiet: [],
    openedOn: young ? linkedAt.slice(0, 10) : null,
    warmUp: null,
    health: { state: 'linked', since: linkedAt, message: 'Linked.', endsAt: null },
    held: null,
    endedAt: null,
    linkedAt,
  }
}

/** A picture of the demo's sites as it is when somebody has looked at it. */
export function seen<I extends { url: string }>(image: I): I & { seen?: { print: string; trouble: null } } {
  const print = picturePrint(/([^/]+)\.png$/.exec(image.url)?.[1] ?? '')
  return print ? { ...image, seen: { print, trouble: null } } : image
}

/** Ids that are the same for the same seed of chance: sixteen letters of base 36. */
export function idMaker(random: Random): () => string {
  return () => Array.from({ length: 16 }, () => Math.floor(random() * 36).toString(36)).join('')
}
