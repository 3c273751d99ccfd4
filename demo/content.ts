import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { marked } from 'marked'
import { z } from 'zod'
import { NETWORKS } from '../core/networks'
import {
  endingOf,
  type Recording,
  type Site,
  type SiteArticle,
  type SiteFilm,
  type WorldLogin,
} from '../world'
import { writeDocx } from './docx'
import { picturePng } from './pictures'

const FOLDER = join(import.meta.dirname, 'content')
const textOf = (...path: string[]): string => readFileSync(join(FOLDER, ...path), 'utf8')

/** Head lines of the form `key: value`; a key may come more than once. */
function readHead(text: string): { get: (key: string) => string; all: (key: string) => string[] } {
  const rows = text.split('\n').map((row) => {
    const at = row.indexOf(':')
    return [row.slice(0, at).trim(), row.slice(at + 1).trim()] as const
  })
  const all = (key: string): string[] => rows.filter(([k]) => k === key).map(([, value]) => value)
  return {
    all,
    get: (key) => {
      const [value] = all(key)
      if (value === undefined) throw new Error(`There is no ${key}.`)
      return value
    },
  }
}

/** Reads an article: its head as `key: value` lines, its body in Markdown. */
export function readArticle(text: string): SiteArticle {
  const match = /^---\n([\s\S]*?)\n---\n([\s\S]*)$/.exec(text)
  if (!match) throw new Error('The article has no head.')
  const head = readHead(match[1] ?? '')
  const pictures = new Map(
    head.all('picture').map((value) => {
      const [name = '', alt = ''] = value.split('|').map((s) => s.trim())
      return [name, alt] as const
    }),
  )
  const first = [...pictures.keys()][0] ?? ''
  const html = (marked.parse(match[2] ?? '', { async: false }) as string).replace(
    /<p><img src="picture:([\w-]+)" alt="[^"]*"(?: title="([^"]*)")?\s*\/?><\/p>/g,
    (_, name: string, caption: string | undefined) =>
      `<figure><img src="/pictures/${name}.png" alt="${(pictures.get(name) ?? '').replace(/"/g, '&quot;')}" width="1200" height="800">${caption ? `<figcaption>${caption}</figcaption>` : ''}</figure>`,
  )
  // A picture that the text does not place stands above it.
  const placed = html.includes(`/pictures/${first}.png`)
  const lead = `<figure><img src="/pictures/${first}.png" alt="${(pictures.get(first) ?? '').replace(/"/g, '&quot;')}" width="1200" height="800"></figure>`
  return {
    slug: head.get('slug'),
    title: head.get('title'),
    author: head.get('author'),
    day: Number(head.get('day')),
    categories: head
      .get('categories')
      .split(',')
      .map((c) => c.trim()),
    summary: head.get('summary'),
    html: first && !placed ? lead + html : html,
    picture: first,
    pictureAlt: pictures.get(first) ?? '',
    changes: head.all('change').map((value) => {
      const [day = '', from = '', to = ''] = value.split('|').map((s) => s.trim())
      return { day: Number(day), from, to }
    }),
  }
}

/** Reads a film: its head, and what is said in it under its chapters. */
/** A film as it is written, before it is recorded. */
export type FilmText = Omit<SiteFilm, 'recording'>

function readFilm(text: string): FilmText {
  const at = text.indexOf('\n\n')
  const head = readHead(text.slice(0, at))
  const parts: { chapter: string | null; paragraphs: string[] }[] = []
  for (const line of text.slice(at).split('\n').filter(Boolean)) {
    if (line.startsWith('## ')) parts.push({ chapter: line.slice(3), paragraphs: [] })
    else {
      if (parts.length === 0) parts.push({ chapter: null, paragraphs: [] })
      parts[parts.length - 1]?.paragraphs.push(line)
    }
  }
  return {
    slug: head.get('slug'),
    title: head.get('title'),
    speaker: head.get('speaker'),
    day: Number(head.get('day')),
    picture: head.get('picture'),
    tags: head
      .get('tags')
      .split(',')
      .map((t) => t.trim()),
    about: head.get('about'),
    chaptered: head.all('chapters')[0] !== 'no',
    transcribed: head.all('transcript')[0] !== 'by hand',
    parts,
  }
}

function every<T>(folder: string, read: (text: string) => T): T[] {
  return readdirSync(join(FOLDER, folder))
    .filter((f) => f.endsWith('.md'))
    .map((f) => read(textOf(folder, f)))
}

/** The films of the channel as they are written. */
export function filmTexts(): FilmText[] {
  return every('oakum-yard-films', readFilm)
}

/** The huts' talks, which have no pictures, as they are written. */
export function talkTexts(): FilmText[] {
  return every('fernhollow-talks', readFilm)
}

/** A film or a talk as `npm run films` recorded it. */
function recordingOf(folder: 'films' | 'talks', slug: string): Recording {
  const path = join(import.meta.dirname, folder, slug)
  const told = JSON.parse(readFileSync(`${path}.json`, 'utf8')) as Omit<Recording, 'bytes'>
  return { ...told, bytes: () => readFileSync(`${path}.${endingOf(told.type)}`) }
}

/** The journal and the films of Oakum Yard. */
export function oakumYard(): Site {
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
    feed: { kind: 'rss', whole: true },
    newsletter: {
      title: 'The Sunday letter',
      text: 'One page about old boats, every Sunday. No photographs of sunsets.',
      button: 'Send it to me',
      line: 'Subscribe to the Sunday letter: one page about old boats, every week, in your inbox.',
    },
    articles: every('oakum-yard', readArticle),
    films: filmTexts().map((film) => ({ ...film, recording: recordingOf('films', film.slug) })),
    picture: picturePng,
  }
}

/** The writing of Fernhollow Huts: a journal whose feed carries summaries only, and a handbook. */
export function fernhollow(): Site {
  return {
    host: 'fernhollow',
    title: 'Fernhollow Huts',
    tagline: 'Twelve walkers’ huts on a long upland path.',
    biography: {
      'Maren Tolle': 'Maren Tolle has walked the path forty-one times and still carries too much cheese.',
      'Joren Aske': 'Joren Aske looks after the weather books. He teaches navigation to people who got lost.',
      'Sunniva Dray':
        'Sunniva Dray is the warden of the eighth hut. She lives there with a donkey and nine shelves.',
    },
    feed: { kind: 'atom', whole: false },
    newsletter: {
      title: 'Hut post',
      text: 'Opening dates, path conditions and the state of the donkey, once a month.',
      button: 'Put me on the list',
      line: 'Get our hut post once a month, in your inbox.',
    },
    articles: every('fernhollow', readArticle),
    talks: talkTexts().map((talk) => ({ ...talk, recording: recordingOf('talks', talk.slug) })),
    files: {
      '/handbook.md': { type: 'text/markdown; charset=utf-8', body: () => handbook().markdown },
      '/handbook-winter.docx': {
        type: 'application/vnd.openxmlformats-officedocument.wordprocessingml.document',
        body: () => handbook().docx,
      },
    },
    picture: picturePng,
  }
}

/** The huts' handbook: two chapters in Markdown and one as a Word document. */
export function handbook(): { markdown: string; docx: Uint8Array } {
  return {
    markdown: textOf('fernhollow-handbook', 'handbook.md'),
    docx: writeDocx(textOf('fernhollow-handbook', 'chapter-three.md')),
  }
}

/** A content sheet of the huts' agency, with addresses as they stand at a world's origin. */
export function readingList(origin: string): string {
  return textOf('partner', 'reading-list.csv').replace(/PORT/g, new URL(origin).port)
}

const PartnerItem = z.object({
  id: z.string(),
  slug: z.string(),
  title: z.string(),
  day: z.number(),
  tags: z.array(z.string()),
  author: z.string(),
  km: z.number().optional(),
  html: z.string().optional(),
  /** The article of the huts that it tells again, and how many of its sections. */
  repeats: z.string().optional(),
  sections: z.number().optional(),
  intro: z.string().optional(),
})

/** A partner's letter that tells articles of the huts again, under other titles, among other things. */
export function partner(): Site {
  const huts = new Map(every('fernhollow', readArticle).map((a) => [a.slug, a]))
  const items = PartnerItem.array().parse(JSON.parse(textOf('partner', 'items.json')))
  return {
    host: 'partner',
    title: 'The Long Grass Letter',
    tagline: 'Notes from a village at the foot of the hills.',
    biography: {},
    feed: { kind: 'json', whole: true },
    newsletter: {
      title: 'By post',
      text: 'Four times a year, on paper.',
      button: 'Write to us',
      line: 'The Long Grass Letter comes four times a year, on paper, to whoever asks.',
    },
    articles: items.map((item): SiteArticle => {
      const repeated = item.repeats ? huts.get(item.repeats) : undefined
      const sections = (repeated?.html ?? '').split(/(?=<h2)/)
      const html = item.html ?? sections.slice(0, item.sections ?? sections.length).join('')
      return {
        slug: item.slug,
        title: item.title,
        author: item.author,
        day: item.day,
        categories: item.tags,
        summary: item.intro ?? repeated?.summary ?? item.title,
        html: (item.intro ? `<p>${item.intro}</p>` : '') + html,
        picture: '',
        pictureAlt: '',
        ...(item.km === undefined ? {} : { fields: { distance_km: item.km } }),
      }
    }),
    files: { '/reading-list.csv': { type: 'text/csv; charset=utf-8', body: readingList } },
    robots: 'User-agent: *\nDisallow: /members/\nCrawl-delay: 0\n',
    picture: () => null,
  }
}

/** Every site of the demo. */
export function sites(): Site[] {
  return [oakumYard(), fernhollow(), partner()]
}

const place = (kind: string, ...names: string[]) =>
  names.map((name) => ({ id: name.toLowerCase().replace(/\W+/g, '-'), name, kind }))

/** A login of the agency that no brand uses yet, on every network: for linking by hand. */
export const SPARE_ACCOUNTS: readonly WorldLogin[] = NETWORKS.map(({ id: network }) => ({
  id: `${network}-agency`,
  network,
  handle: 'lantern.and.lathe',
  name: 'Lantern & Lathe',
  about: 'Two people, a shop window and other people’s words.',
  zone: 'Europe/Lisbon',
  targets:
    network === 'hearthside'
      ? [...place('page', 'Lantern & Lathe'), ...place('group', 'Shop windows')]
      : network === 'rackwell'
        ? place('rack', 'Windows', 'Lamps', 'Lathes')
        : [],
}))

const YARD = { name: 'Oakum Yard', zone: 'Europe/Lisbon' }
const HUTS = { name: 'Fernhollow Huts', zone: 'Europe/Dublin' }

/** The logins of the sample brands on the stand-in networks. */
export const ACCOUNTS: Readonly<Record<'oakum-yard' | 'fernhollow', readonly WorldLogin[]>> = {
  'oakum-yard': [
    {
      ...YARD,
      id: 'mu-yard',
      network: 'murmur',
      handle: 'oakumyard',
      about: 'A school for restoring wooden boats.',
    },
    {
      id: 'mu-rita',
      network: 'murmur',
      handle: 'rita.at.the.yard',
      name: 'Rita Vance',
      about: 'Teaches at Oakum Yard. Too many planes.',
      zone: YARD.zone,
    },
    {
      ...YARD,
      id: 'gu-yard',
      network: 'guildhall',
      handle: 'oakum-yard',
      about: 'Boat school, eleven winters.',
    },
    {
      ...YARD,
      id: 'sh-yard',
      network: 'shutterleaf',
      handle: 'oakum.yard',
      about: 'Planks, steam, varnish.',
    },
    {
      ...YARD,
      id: 'he-yard',
      network: 'hearthside',
      handle: 'yardside',
      about: 'What goes on at the slip.',
      targets: [...place('page', 'Oakum Yard'), ...place('group', 'Old boats, free weekends')],
    },
    {
      ...YARD,
      id: 'ra-yard',
      network: 'rackwell',
      handle: 'yard.racks',
      about: 'Boats, tools and seams, to keep.',
      targets: place('rack', 'Seams and caulking', 'Tools worth keeping', 'Boats at rest'),
    },
    { ...YARD, id: 'lw-yard', network: 'longwave', handle: 'yard.films', about: 'Work on the slip, filmed.' },
    {
      ...YARD,
      id: 'lo-yard',
      network: 'loopyard',
      handle: 'yard.loops',
      about: 'Half a minute at the bench.',
    },
    { ...YARD, id: 'br-yard', network: 'broadside', handle: 'yard.letter', about: 'The Sunday letter.' },
  ],
  fernhollow: [
    { ...HUTS, id: 'mu-huts', network: 'murmur', handle: 'fernhollow', about: 'Twelve huts, one long path.' },
    {
      ...HUTS,
      id: 'gu-huts',
      network: 'guildhall',
      handle: 'fernhollow-huts',
      about: 'Twelve huts, one long path.',
    },
    {
      ...HUTS,
      id: 'sh-huts',
      network: 'shutterleaf',
      handle: 'fernhollow.huts',
      about: 'Ridge, stove, donkey.',
    },
    {
      ...HUTS,
      id: 'he-huts',
      network: 'hearthside',
      handle: 'hutside',
      about: 'Twelve stoves and who sits at them.',
      targets: place('page', 'Fernhollow Huts'),
    },
    { ...HUTS, id: 'co-huts', network: 'courier', handle: 'hut.post', about: 'The path, in a line a day.' },
  ],
}
