import { calendarEntries } from '../../../core/formats'
import { call, get, post } from '../api'
import { nowIso } from '../clock'
import { all } from '../store'

/** The days around today that a subscribed calendar shows, and how many posts at most. */
const BACK_DAYS = 30
const AHEAD_DAYS = 400
const MOST = 3000
const DAY = 86_400_000

const published = new Map<string, string>()
/** The addresses that the server told; asked for once a brand. */
const addresses = new Map<string, string | null>()

/** The address under which a brand's calendar is subscribed to, or null. */
export async function calendarAddress(brand: string): Promise<string | null> {
  const { url } = await get<{ url: string | null }>(`/api/calendars/${encodeURIComponent(brand)}`)
  addresses.set(brand, url)
  return url
}

/** Gives a brand's calendar an address, or another one, which ends the old. */
export async function renewCalendar(brand: string): Promise<string | null> {
  const { url } = await post<{ url: string | null }>(`/api/calendars/${encodeURIComponent(brand)}/secret`, {})
  addresses.set(brand, url)
  published.delete(brand)
  await publishCalendars()
  return url
}

/** Ends the address of a brand's calendar. */
export async function endCalendar(brand: string): Promise<void> {
  await call('DELETE', `/api/calendars/${encodeURIComponent(brand)}`)
  addresses.set(brand, null)
  published.delete(brand)
}

/** Sends the calendars that have an address and changed. */
export async function publishCalendars(): Promise<void> {
  const now = Date.parse(nowIso())
  const from = new Date(now - BACK_DAYS * DAY).toISOString()
  const to = new Date(now + AHEAD_DAYS * DAY).toISOString()
  for (const brand of await all('brands')) {
    const url = addresses.has(brand.id) ? addresses.get(brand.id) : await calendarAddress(brand.id)
    if (!url) continue
    const [posts, accounts] = await Promise.all([
      all('posts', 'brand', brand.id),
      all('accounts', 'brand', brand.id),
    ])
    const entries = calendarEntries(posts, accounts)
      .filter((e) => e.at >= from && e.at <= to)
      .sort((a, b) => (a.at < b.at ? -1 : 1))
      .slice(0, MOST)
    const content = JSON.stringify([brand.name, entries])
    if (published.get(brand.id) === content) continue
    await call('PUT', `/api/calendars/${encodeURIComponent(brand.id)}`, { name: brand.name, entries })
    published.set(brand.id, content)
  }
}
