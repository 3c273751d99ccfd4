import type { Page } from '@playwright/test'
import type { Account, Occasion, Pipeline, Post } from '../core/model'
import { openPage, startDemo } from './demo'
import { freePairs } from './ports'
import { demoTime, moveTime } from './time'

/*
 * npm run year [weeks]: lets the demo run for a year in the moved clock, in a browser, and holds what stands in its database
 * then against what the shelf, the limits and the occasions promise. It shares no code with them. Half an hour.
 */

const say = (line: string): boolean => process.stdout.write(`${line}\n`)
const WEEKS = Number(process.argv[2] ?? 52)
const DAY = 86_400_000
/** Days for which an account says nothing twice. */
const YEAR = 365

interface Kept {
  accounts: Account[]
  occasions: Occasion[]
  pipelines: Pipeline[]
  posts: Post[]
}

/** Some tables of the browser's database, as they stand. */
const tables = (page: Page, names: readonly (keyof Kept)[]): Promise<Kept> =>
  // No function in it has a name: the compiler would call a helper of its own for that, which the page has not.
  page.evaluate(async (wanted) => {
    const kept: Record<string, unknown> = {}
    for (const { name } of await indexedDB.databases()) {
      const db = await new Promise<IDBDatabase>((resolve, reject) => {
        const opening = indexedDB.open(name ?? '')
        opening.onsuccess = () => resolve(opening.result)
        opening.onerror = () => reject(opening.error as Error)
      })
      for (const table of wanted.filter((t) => db.objectStoreNames.contains(t)))
        kept[table] = await new Promise((resolve, reject) => {
          const reading = db.transaction(table).objectStore(table).getAll()
          reading.onsuccess = () => resolve(reading.result)
          reading.onerror = () => reject(reading.error as Error)
        })
      db.close()
    }
    return kept as unknown as Kept
  }, names)

/** The local day of an instant. */
const dayOf = (at: string, zone: string): string =>
  new Intl.DateTimeFormat('en-CA', { timeZone: zone, dateStyle: 'short' }).format(new Date(at))

/** The Monday of a local day's week. */
function mondayOf(day: string): string {
  const date = new Date(`${day}T12:00:00Z`)
  date.setUTCDate(date.getUTCDate() - ((date.getUTCDay() + 6) % 7))
  return date.toISOString().slice(0, 10)
}

/** How often each of some texts stands in a list, where that is more than so often. */
function tooOften(list: readonly string[], most: number): [string, number][] {
  const counts = new Map<string, number>()
  for (const x of list) counts.set(x, (counts.get(x) ?? 0) + 1)
  return [...counts].filter(([, n]) => n > most)
}

/** What a year must not hold on one account, a sentence each. */
function faultsOf(account: Account, { occasions, pipelines, posts }: Kept, begun: number): string[] {
  const bare = (p: Post): string => p.wording.text.replace(/https?:\S+/g, '').replace(/\s+/g, ' ')
  const mine = posts
    .filter((p) => p.account === account.id && !['set aside', 'failed'].includes(p.state))
    .flatMap((post) =>
      post.at ? [{ post, at: Date.parse(post.at), day: dayOf(post.at, account.zone) }] : [],
    )
    .sort((a, b) => a.at - b.at)
  const rowOf = ({ drip, passage, pipeline }: Post) =>
    drip === null && passage !== null
      ? pipelines
          .find((p) => p.id === pipeline)
          ?.release.flatMap((r) => (r.by.kind === 'shelf' ? [r.by] : []))[0]
      : undefined
  const pairs = mine.flatMap((later, i) => mine.slice(0, i).map((sooner) => ({ later, sooner })))
  const apart = pairs.flatMap(({ later, sooner }) => {
    const days = (later.at - sooner.at) / DAY
    const rest = rowOf(later.post)?.restDays ?? 0
    return [
      ...(days < YEAR && bare(later.post) === bare(sooner.post) ? ['the same words'] : []),
      ...(later.post.passage === sooner.post.passage && days < rest - 0.5
        ? ['a passage that had not rested']
        : []),
    ].map((what) => `${what} on ${sooner.day} and ${later.day}`)
  })
  const since = mine.filter((x) => x.at >= begun)
  const days = tooOften(
    since.map((x) => x.day),
    account.maxPerDay,
  ).map(([day, n]) => `${n} posts on ${day}, where it has ${account.maxPerDay} a day`)
  const shelved = since.filter((x) => rowOf(x.post)?.per === 'week')
  const weeks = tooOften(
    shelved.map((x) => mondayOf(x.day)),
    (shelved[0] && rowOf(shelved[0].post)?.posts) ?? Infinity,
  ).map(([week, n]) => `${n} posts from the shelf in the week of ${week}`)
  const elsewhere = mine.flatMap(({ post, day }) => {
    const occasion = occasions.find((o) => o.id === post.occasion?.id)
    return occasion && post.occasion?.day !== day ? [`“${occasion.name}” stands on ${day}`] : []
  })
  return [...apart, ...days, ...weeks, ...elsewhere].map((what) => `@${account.handle}: ${what}.`)
}

const [port = 0] = await freePairs(1)
const { base, stop } = await startDemo(port, port + 1)
const { browser, page } = await openPage()
const TABLES = ['accounts', 'occasions', 'pipelines', 'posts'] as const
try {
  page.on('pageerror', (error) => say(String(error)))
  await page.goto(base)
  await page.getByRole('heading', { name: /wait/ }).waitFor()
  const begun = await demoTime(page)
  for (let week = 1; week <= WEEKS; week++) {
    await moveTime(page, '+1 week')
    const { posts } = await tables(page, TABLES)
    say(`week ${week}: ${posts.filter((p) => p.state === 'published').length} posts are out`)
  }
  const kept = await tables(page, TABLES)
  const out = kept.posts.filter((p) => p.state === 'published' && Date.parse(p.at ?? '') >= begun)
  const shelved = out.filter((p) => p.drip === null && p.passage !== null && p.pipeline !== null)
  const found = kept.accounts.flatMap((account) => faultsOf(account, kept, begun))
  if (shelved.length === 0) found.push('Nothing came from the shelf.')
  say(`${out.length} posts went out, ${shelved.length} of them from the shelf; ${found.length} faults`)
  for (const fault of found) say(fault)
  process.exitCode = found.length ? 1 : 0
} finally {
  await browser.close()
  stop()
}
