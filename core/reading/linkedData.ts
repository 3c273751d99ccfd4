import { type Queryable, squeeze, absolute, instantOf, personName } from './pageWords'

interface LinkedData {
  title: string
  url: string | null
  author: string | null
  publishedAt: string | null
  summary: string
  tags: string[]
  images: string[]
}

/** What JSON-LD says of the article: the first object of a kind that is written. */
export function linkedData(page: Queryable): LinkedData {
  const none: LinkedData = {
    title: '',
    url: null,
    author: null,
    publishedAt: null,
    summary: '',
    tags: [],
    images: [],
  }
  for (const script of page.querySelectorAll('script[type="application/ld+json"]')) {
    let data: unknown
    try {
      data = JSON.parse((script.textContent ?? '').replace(/^\s*<!\[CDATA\[|\]\]>\s*$/g, ''))
    } catch {
      continue
    }
    const article = objectsIn(data).find(
      (o) =>
        /article|posting|report|review|recipe|howto|creativework|webpage/i.test(String(o['@type'] ?? '')) &&
        ('headline' in o || 'datePublished' in o || 'author' in o),
    )
    if (!article) continue
    const text = (value: unknown): string => (typeof value === 'string' ? squeeze(value) : '')
    const keywords = article['keywords']
    return {
      title: text(article['headline']) || text(article['name']),
      url: absolute(text(article['url']) || text(idOf(article['mainEntityOfPage']))),
      author: personName(namesIn(article['author'])[0] ?? null),
      publishedAt: instantOf(text(article['datePublished'])) ?? instantOf(text(article['dateCreated'])),
      summary: text(article['description']),
      tags: (Array.isArray(keywords) ? keywords.map(text) : text(keywords).split(',')).concat(
        [article['articleSection']].flat().map(text),
      ),
      images: [article['image']].flat().flatMap((i) => text(i) || text(idOf(i)) || []),
    }
  }
  return none
}

type Json = Record<string, unknown>
const isObject = (value: unknown): value is Json =>
  typeof value === 'object' && value !== null && !Array.isArray(value)

function objectsIn(data: unknown): Json[] {
  if (Array.isArray(data)) return data.flatMap(objectsIn)
  if (!isObject(data)) return []
  return [data, ...objectsIn(data['@graph']), ...objectsIn(data['mainEntity'])]
}

const idOf = (value: unknown): unknown =>
  isObject(value) ? (value['url'] ?? value['contentUrl'] ?? value['@id']) : value

function namesIn(value: unknown): string[] {
  if (typeof value === 'string') return [value]
  if (Array.isArray(value)) return value.flatMap(namesIn)
  return isObject(value) && typeof value['name'] === 'string' ? [value['name']] : []
}
