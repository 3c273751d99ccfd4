import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { marked } from 'marked'
import type { Site, SiteArticle, WorldAccount } from '../world'
import { picturePng } from './pictures'

const FOLDER = join(import.meta.dirname, 'content')

/** Reads an article: its head as `key: value` lines, its body in Markdown. */
export function readArticle(text: string): SiteArticle {
  const match = /^---\n([\s\S]*?)\n---\n([\s\S]*)$/.exec(text)
  if (!match) throw new Error('The article has no head.')
  const pictures = new Map<string, string>()
  const head = new Map<string, string>()
  for (const row of (match[1] ?? '').split('\n')) {
    const at = row.indexOf(':')
    const [key, value] = [row.slice(0, at).trim(), row.slice(at + 1).trim()]
    if (key === 'picture') {
      const [name, alt] = value.split('|').map((s) => s.trim())
      pictures.set(name ?? '', alt ?? '')
    } else head.set(key, value)
  }
  const get = (key: string): string => {
    const value = head.get(key)
    if (value === undefined) throw new Error(`The article has no ${key}.`)
    return value
  }
  const first = [...pictures.keys()][0] ?? ''
  const html = (marked.parse(match[2] ?? '', { async: false }) as string).replace(
    /<p><img src="picture:([\w-]+)" alt="[^"]*"(?: title="([^"]*)")?\s*\/?><\/p>/g,
    (_, name: string, caption: string | undefined) =>
      `<figure><img src="/pictures/${name}.png" alt="${(pictures.get(name) ?? '').replace(/"/g, '&quot;')}" width="1200" height="800">${caption ? `<figcaption>${caption}</figcaption>` : ''}</figure>`,
  )
  return {
    slug: get('slug'),
    title: get('title'),
    author: get('author'),
    day: Number(get('day')),
    categories: get('categories')
      .split(',')
      .map((c) => c.trim()),
    summary: get('summary'),
    html,
    picture: first,
    pictureAlt: pictures.get(first) ?? '',
  }
}

/** The journal of Oakum Yard. */
export function oakumYard(): Site {
  const folder = join(FOLDER, 'oakum-yard')
  return {
    host: 'oakum-yard',
    title: 'Oakum Yard journal',
    tagline: 'A school for restoring wooden boats on a tidal river.',
    biography: {
      'Rita Vance':
        'Rita Vance has taught at the yard since the slip was mud. She writes the Sunday letter and owns too many planes.',
      'Tomas Reyle':
        'Tomas Reyle runs the timber loft and the evening courses. He is restoring a sixteen-foot skiff, slowly.',
    },
    articles: readdirSync(folder)
      .filter((f) => f.endsWith('.md'))
      .map((f) => readArticle(readFileSync(join(folder, f), 'utf8'))),
    picture: picturePng,
  }
}

/** Logins of the agency that no brand uses yet: for linking by hand. */
export const SPARE_ACCOUNTS: readonly WorldAccount[] = ['murmur', 'guildhall', 'shutterleaf'].map(
  (network) => ({
    id: `${network}-agency`,
    network,
    handle: 'lantern.and.lathe',
    name: 'Lantern & Lathe',
    about: 'Two people, a shop window and other people’s words.',
    zone: 'Europe/Lisbon',
  }),
)

/** The logins of the sample brand on the stand-in networks. */
export const ACCOUNTS: readonly WorldAccount[] = [
  {
    id: 'mu-yard',
    network: 'murmur',
    handle: 'oakumyard',
    name: 'Oakum Yard',
    about: 'A school for restoring wooden boats.',
    zone: 'Europe/Lisbon',
  },
  {
    id: 'mu-rita',
    network: 'murmur',
    handle: 'rita.at.the.yard',
    name: 'Rita Vance',
    about: 'Teaches at Oakum Yard. Too many planes.',
    zone: 'Europe/Lisbon',
  },
  {
    id: 'gu-yard',
    network: 'guildhall',
    handle: 'oakum-yard',
    name: 'Oakum Yard',
    about: 'Boat school, eleven winters.',
    zone: 'Europe/Lisbon',
  },
  {
    id: 'sh-yard',
    network: 'shutterleaf',
    handle: 'oakum.yard',
    name: 'Oakum Yard',
    about: 'Planks, steam, varnish.',
    zone: 'Europe/Lisbon',
  },
]
