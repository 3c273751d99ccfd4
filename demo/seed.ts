import { RHYTHMS, TRICKLE } from '../core/planning'
import type { Account } from '../core/model'
import { type WorldPost } from '../world'
import { ACCOUNTS } from './content'
import { House } from './house'
import type { SeedRequest } from './takenIn'

/** So many days of notes are planned ahead where they go on. */
const PLANNED = 120

/**
 * The demo's workspace, made by the product's own code from what its sites have out, and the posts
 * it had published by then: two brands with their accounts, sources of every kind and pieces,
 * drips under way and some that wait for review, and pipelines that take in whatever is written
 * next.
 */
export async function makeSeed(request: SeedRequest): Promise<{ bundle: Uint8Array; out: WorldPost[] }> {
  const house = new House(request)
  await yard(house)
  await huts(house)
  return house.finished()
}

/** Oakum Yard: a blog with whole articles and a channel of films. */
async function yard(house: House): Promise<void> {
  const brand = house.brand({
    id: 'oakum-yard',
    name: 'Oakum Yard',
    zone: 'Europe/Lisbon',
    neverSay: ['cheap', 'hack', 'effortless'],
    look: { ground: '#efe7d6', ink: '#22302e', accent: '#a8432d', sign: 'Oakum Yard · wooden boats' },
  })
  const all = house.accounts(brand, ACCOUNTS['oakum-yard'])
  const on = (...networks: string[]): Account[] => all.filter((a) => networks.includes(a.network))
  const accounts = on('murmur', 'guildhall', 'shutterleaf')
  const journal = house.feed(brand, 'yard-journal', 'oakum-yard', null)
  house.films(brand, 'yard-films', 'oakum-yard')
  house.fold(brand)
  const pipeline = house.pipeline(brand, {
    id: 'journal-long',
    name: 'Journal, long and thin',
    hue: 'sky',
    sources: [journal.id],
    sieve: [{ kind: 'keeps', atLeast: 'about a year' }],
    accounts: accounts.filter((a) => a.remoteId !== 'mu-rita').map((a) => a.id),
    gate: 'what is flagged',
    shelf: {
      accounts: ['gu-yard'],
      by: {
        kind: 'shelf',
        posts: 2,
        per: 'week',
        order: 'the longest unseen first',
        restDays: 90,
        earned: null,
      },
    },
  })
  const three = accounts.filter((a) => a.remoteId !== 'mu-rita')
  house.past(brand, 'first-day-afloat', { day: -183, posts: 4, accounts, pipeline })
  house.past(brand, 'scarf-not-butt', { day: -175, posts: 6, accounts: three, pipeline })
  const rack = (name: string): Account[] => all.filter((a) => a.target?.name === name)
  house.past(brand, 'caulking-a-seam', { day: -160, posts: 6, accounts: rack('Seams and caulking') })
  house.past(brand, 'scarf-not-butt', { day: -140, posts: 6, accounts: rack('Boats at rest') })
  house.past(brand, 'reading-rot', { day: -170, posts: 4, accounts: on('broadside') })
  house.past(brand, 'first-day-afloat', { day: -140, posts: 4, accounts: on('longwave') })
  house.past(brand, 'first-day-afloat', { day: -10, posts: 4, accounts: on('loopyard') })
  const pictures = {
    'tool-row': 'Seven hand tools in a row',
    'mallet-iron': 'A caulking mallet and three irons on a bench',
    'steam-box': 'A long steam box on trestles, with a kettle at one end',
    'two-boards': 'A pale oak board beside a reddish larch board',
  }
  house.notes(brand, 'oakum-yard-notes.txt', three, { pictures })
  house.notes(brand, 'oakum-yard-notes.txt', on('hearthside', 'rackwell'), { pictures, until: PLANNED })
  const [film, picture] = [...on('longwave'), ...on('shutterleaf')]
  if (film) house.expires(film, 3)
  if (picture) house.refuses(picture, 'media', 'The picture is 1200 by 800; Shutterleaf takes 1:1 or 4:5.')
  house.drip(brand, 'steaming-a-frame', {
    day: 0,
    rhythm: TRICKLE,
    gate: 'what is flagged',
    accounts: three,
    pipeline,
  })
  house.drip(brand, 'reading-rot', {
    day: 1,
    rhythm: RHYTHMS[2] ?? TRICKLE,
    gate: 'what is flagged',
    accounts,
  })
  house.drip(brand, 'seven-tools', {
    day: 3,
    rhythm: RHYTHMS[1] ?? TRICKLE,
    gate: 'everything',
    accounts: three,
  })
  house.drip(brand, 'larch-or-oak', { day: 2, rhythm: TRICKLE, gate: 'what is flagged', accounts: three })
  house.drip(brand, 'caulking-a-seam', {
    day: 5,
    rhythm: RHYTHMS[1] ?? TRICKLE,
    gate: 'what is flagged',
    accounts,
  })
  await house.occasions(brand, three)
}

/** Fernhollow Huts: a blog with summaries only, a partner's letter, a handbook, a content sheet. */
async function huts(house: House): Promise<void> {
  const brand = house.brand({
    id: 'fernhollow',
    name: 'Fernhollow Huts',
    zone: 'Europe/Dublin',
    neverSay: ['hidden gem', 'bucket list'],
    look: {
      ground: '#e6ecdd',
      ink: '#24331f',
      accent: '#c46f46',
      words: 'Schibsted Grotesk',
      sign: 'Fernhollow Huts',
    },
  })
  const all = house.accounts(brand, ACCOUNTS.fernhollow)
  const on = (...networks: string[]): Account[] => all.filter((a) => networks.includes(a.network))
  const accounts = on('murmur', 'guildhall', 'shutterleaf')
  const journal = house.feed(brand, 'huts-journal', 'fernhollow', 'Walking')
  const letter = house.feed(brand, 'partner-letter', 'partner', 'Walking')
  await house.manuscript(brand, 'huts-handbook', 'The hut handbook')
  house.sheet(brand, 'reading-list', 'Reading list')
  house.fold(brand)
  const list = house.wordList(brand, 'shop-words', 'Shop and village', [
    'shop*',
    'offer*',
    'choir',
    'concert',
  ])
  const pipeline = house.pipeline(brand, {
    id: 'huts-pipeline',
    name: 'On the path',
    hue: 'jade',
    sources: [journal.id, letter.id],
    sieve: [
      { kind: 'words', need: 'none', words: [], lists: [list], where: 'the title' },
      { kind: 'tags', take: false, tags: ['kitchen', 'village', 'shop'] },
      { kind: 'length', least: 200, most: null },
      { kind: 'keeps', atLeast: 'months' },
    ],
    accounts: accounts.map((a) => a.id),
    gate: 'everything',
  })
  house.past(brand, 'packing-for-four-days', { day: -183, posts: 5, accounts, pipeline })
  house.past(brand, 'walking-with-children', { day: -180, posts: 5, accounts, pipeline })
  house.past(brand, 'water-on-the-ridge', { day: -170, posts: 7, accounts, pipeline })
  house.notes(brand, 'fernhollow-notes.txt', accounts, { pictures: {} })
  house.notes(brand, 'fernhollow-notes.txt', on('hearthside', 'courier'), { pictures: {}, until: PLANNED })
  house.drip(brand, 'blisters', { day: 1, rhythm: RHYTHMS[2] ?? TRICKLE, gate: 'what is flagged', accounts })
  await house.occasions(brand, accounts)
}
