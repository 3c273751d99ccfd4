import type { Page } from '@playwright/test'
import type { Ratio } from './intake'
import { boundLine, onTheDemo, tasksWords } from './measured'

const PIECES = 20_000
const POSTS = 50_000

/** Fills the browser's database with so many brands like the demo's, their pieces and published posts. */
async function fill(page: Page, brands: number): Promise<void> {
  await page.evaluate(
    async ({ brands, pieces, posts }) => {
      const request = <T>(r: IDBRequest<T>): Promise<T> =>
        new Promise((resolve, reject) => {
          r.onsuccess = () => resolve(r.result)
          r.onerror = () => reject(new Error('The database does not answer.'))
        })
      const db = await request(indexedDB.open('dripline'))
      type Row = Record<string, unknown> & { id: string; name?: string; brand?: string }
      const rows = async (store: string): Promise<Row[]> =>
        (await request(db.transaction(store).objectStore(store).getAll())) as Row[]
      const [kept, accounts, samples, words] = await Promise.all(
        ['brands', 'accounts', 'pieces', 'posts'].map(rows),
      )
      const yard = kept?.find((b) => b.name === 'Oakum Yard')
      const mine = (list: Row[] | undefined): Row[] => (list ?? []).filter((r) => r.brand === yard?.id)
      const put = async (store: string, made: Row[]): Promise<void> => {
        for (let from = 0; from < made.length; from += 2000) {
          const tx = db.transaction(store, 'readwrite')
          for (const row of made.slice(from, from + 2000)) tx.objectStore(store).put(row)
          await new Promise((resolve) => (tx.oncomplete = resolve))
        }
      }
      const ids = Array.from({ length: brands }, (_, i) => `brand-${i}`)
      await put(
        'brands',
        ids.map((id, i) => ({ ...yard, id, name: `Brand ${i}`, createdAt: '2020-01-01T00:00:00.000Z' })),
      )
      const own = mine(accounts)
      await put(
        'accounts',
        ids.flatMap((brand) =>
          [0, 1, 2].map((n) => ({ ...own[n % own.length], id: `${brand}-a${n}`, brand })),
        ),
      )
      const of = (i: number): string => ids[i % ids.length] ?? ''
      const [many, texts] = [mine(samples), mine(words)]
      await put(
        'pieces',
        Array.from({ length: pieces }, (_, i) => ({
          ...many[i % many.length],
          id: `piece-${i}`,
          brand: of(i),
          double: null,
        })),
      )
      await put(
        'posts',
        Array.from({ length: posts }, (_, i) => {
          const at = new Date(Date.now() - i * 600_000).toISOString()
          return {
            ...texts[i % texts.length],
            id: `post-${i}`,
            brand: of(i),
            piece: `piece-${i % pieces}`,
            drip: null,
            pipeline: null,
            account: `${of(i)}-a${i % 3}`,
            state: 'published',
            at,
            publishedAt: at,
          }
        }),
      )
      // Every post was read at each age, and once more after it was taken down and went out again.
      const ages = ['1 h', '6 h', '1 d', '3 d', '7 d', '30 d', '90 d']
      for (let from = 0; from < posts; from += 2500)
        await put(
          'readings',
          Array.from({ length: 2500 }, (_, k) => from + k).flatMap((i) =>
            [...ages.map((age) => [1, age] as const), [2, '1 h'] as const].map(([generation, age], n) => ({
              id: `post-${i}:${generation}:${age}`,
              brand: of(i),
              post: `post-${i}`,
              generation,
              account: `${of(i)}-a${i % 3}`,
              age,
              takenAt: new Date(Date.now() - i * 600_000 + n * 3_600_000).toISOString(),
              measures: {
                impressions: 200 + ((i * 7919) % 900) + 60 * n,
                reactions: (i * 31) % 40,
                clicks: i % 9,
              },
              reason: '',
            })),
          ),
        )
      db.close()
    },
    { brands, pieces: PIECES, posts: POSTS },
  )
}

/**
 * Opens a workspace of so many brands with 20,000 pieces and 50,000 posts between them: until the Desk can be used, what it keeps in
 * memory, and how long Results take. The bounds are those of twenty brands; one that has it all is shown beside them.
 */
export async function largeWorkspace(brands: number): Promise<Ratio[]> {
  return onTheDemo(async (page, base, tasks) => {
    await fill(page, brands)
    await page.evaluate((last) => localStorage.setItem('dripline-brand', `brand-${last}`), brands - 1)
    const started = Date.now()
    await page.goto(base)
    await page.getByRole('region', { name: 'Went out since your last visit' }).waitFor({ timeout: 60_000 })
    const open = Date.now() - started
    await page.getByRole('button', { name: 'Hold everything' }).click({ trial: true, timeout: 60_000 })
    const usable = Date.now() - started
    await page.waitForTimeout(20_000)
    const session = await page.context().newCDPSession(page)
    await session.send('HeapProfiler.collectGarbage')
    const { usedSize } = await session.send('Runtime.getHeapUsage')
    const first = await openResults(page, base)
    // Once more: by then the readings are kept in columns where they are many.
    const results = await openResults(page, base)
    const what = `${brands === 1 ? 'one brand' : `${brands} brands`}, 20,000 pieces, 50,000 posts, 400,000 readings`
    const line = (of: string, time: string, bound: string): Ratio =>
      boundLine(`${what}: ${of}`, time, brands === 1 ? '–' : bound)
    return [
      line('until the Desk is shown', `${open} ms`, '< 2000 ms'),
      line('until it can be used', `${usable} ms`, '< 2000 ms'),
      line('memory after twenty seconds', `${(usedSize / 1e6).toFixed(0)} MB`, '< 400 MB'),
      line('tasks over 50 ms in these', tasksWords(await tasks()), '–'),
      line('until Results are shown for the first time', `${first.cold} ms`, '–'),
      line('until Results are shown after a start', `${results.cold} ms`, '–'),
      line('until they are shown when they are opened', `${results.again} ms`, '< 1000 ms'),
      line('another measure', `${results.filtered} ms`, '< 200 ms'),
    ]
  })
}

/** Opens Results after a start, opens them again, and asks for another measure; how long each takes, in milliseconds. */
async function openResults(
  page: Page,
  base: string,
): Promise<{ cold: number; again: number; filtered: number }> {
  const mean = page.getByText(/ a post after .*: [\d,.]+, of [\d,]+ posts/).first()
  const timed = async (act: () => Promise<unknown>, shown: () => Promise<unknown>): Promise<number> => {
    const started = Date.now()
    await act()
    await shown()
    return Date.now() - started
  }
  const seen = () => mean.waitFor({ timeout: 120_000 })
  const cold = await timed(() => page.goto(`${base}/results`), seen)
  await page.keyboard.press('1')
  await page.getByRole('region', { name: 'Went out since your last visit' }).waitFor()
  const again = await timed(() => page.keyboard.press('7'), seen)
  const counted = page.getByLabel('What is counted')
  const before = await mean.innerText()
  const filtered = await timed(
    () => counted.selectOption('reactions'),
    () => page.waitForFunction((old) => !document.body.innerText.includes(old), before),
  )
  return { cold, again, filtered }
}
