import { parseFeed as parseWithFeedsmith } from 'feedsmith'
import { XMLValidator } from 'fast-xml-parser'
import { Fault } from '../model'
import { canonicalAddress } from './address'
import { xmlFields } from './fields'
import type { Feed, FeedItem } from './item'
import { normalise, type ItemDraft } from './normalise'
import { plain } from './plain'

/** Whether a document looks like a feed of any kind. */
export function looksLikeFeed(text: string): boolean {
  const head = text.slice(0, 4000)
  if (/<(?:\w+:)?(?:rss|feed|RDF)[\s>]/i.test(head)) return !/<html[\s>]/i.test(head)
  return /^\s*\{/.test(head) && /"version"\s*:\s*"https?:\\?\/\\?\/(?:www\.)?jsonfeed\.org/.test(text)
}

/**
 * Reads RSS (0.9x, 1.0, 2.0), Atom (0.3, 1.0) or JSON Feed (1, 1.1). Addresses come out absolute
 * against the feed's own base, else `base` (the address it was fetched from). A feed that breaks
 * off is read up to its last whole item, with a note. Throws `not-a-feed` with the line where
 * there is nothing to read.
 */
export function parseFeed(text: string, base: string | null = null): Feed {
  const notes: string[] = []
  const trimmed = text.replace(/^[\uFEFF\s]+/, '')
  if (!looksLikeFeed(trimmed))
    throw new Fault(
      'not-a-feed',
      /<html[\s>]/i.test(trimmed.slice(0, 4000))
        ? 'This is a web page, not a feed. Give the address of its feed, or of a page that names one.'
        : 'This is not a feed: it has no RSS, Atom or JSON Feed in it. Check the address.',
    )
  const { parsed, raw, xml } = trimmed.startsWith('{') ? parseJson(trimmed) : parseXml(trimmed, notes)
  const { title, site, items: drafts } = normalise(parsed, base, raw)
  const fields = xml === null ? null : xmlFields(xml, drafts.length)
  const items: FeedItem[] = []
  const seen = new Set<string>()
  let doubled = 0
  let nameless = 0
  drafts.forEach((draft, index) => {
    const id = draft.id || draft.url || nameOf(draft)
    if (!id) {
      nameless++
      return
    }
    const address = draft.url ? canonicalAddress(draft.url) : id
    if (seen.has(id) || seen.has(address)) {
      doubled++
      return
    }
    seen.add(id).add(address)
    const named =
      draft.title ||
      firstSentence(draft) ||
      fileName(draft.video?.url ?? draft.images[0]?.url) ||
      draft.url ||
      id
    items.push({ ...draft, id, title: named, fields: fields?.[index] ?? draft.fields })
  })
  if (nameless)
    notes.push(
      `${nameless === 1 ? 'An item' : `${nameless} items`} without words, address or file ${nameless === 1 ? 'was' : 'were'} left out.`,
    )
  if (doubled) notes.push(`${doubled} doubled ${doubled === 1 ? 'item was' : 'items were'} left out.`)
  const undated = items.filter((i) => i.publishedAt === null).length
  if (undated && undated < items.length)
    notes.push(
      `${undated} ${undated === 1 ? 'item has' : 'items have'} no date that can be read; the day they were first seen counts.`,
    )
  if (items.length === 0 && notes.length === 0) notes.push('The feed has no items yet.')
  return { title: title || 'Untitled feed', url: site, items, notes }
}

/** What an item is known by that has neither id nor address: its title and date, else its words, else its file. */
function nameOf(draft: ItemDraft): string {
  const dated = draft.publishedAt ?? ''
  if (draft.title) return `${draft.title} ${dated}`.trim()
  const said = plain(draft.summary || draft.html).slice(0, 200)
  const file = draft.video?.url ?? draft.images[0]?.url ?? ''
  return `${said || file} ${said || file ? dated : ''}`.trim()
}

function firstSentence(draft: ItemDraft): string {
  return (
    plain(draft.summary || draft.html)
      .split(/(?<=[.!?])\s/)[0]
      ?.slice(0, 120) ?? ''
  )
}

/** The name of a file in an address, with spaces for its joints: what an episode without a title is called. */
function fileName(address: string | null | undefined): string {
  const name = /([^/?#]+?)(?:\.\w+)?(?:[?#].*)?$/.exec(address ?? '')?.[1] ?? ''
  return name.replace(/%20|[-_+]+/g, ' ').trim()
}

const parseString = (text: string) => parseWithFeedsmith(text)
interface Parse {
  parsed: ReturnType<typeof parseString>
  /** The JSON behind it, for fields of its own. */
  raw: unknown
  /** The XML it was parsed from, after mending. */
  xml: string | null
}

function parseJson(text: string): Parse {
  try {
    const raw = JSON.parse(text) as unknown
    return { parsed: parseWithFeedsmith(raw as string), raw, xml: null }
  } catch (error) {
    const at = Number(/position (\d+)/.exec(String(error))?.[1] ?? text.length)
    throw new Fault(
      'not-a-feed',
      'The JSON feed has a fault that cannot be mended: a comma, bracket or quotation mark is missing there. Ask the site to mend it.',
      `line ${lineAt(text, at)}`,
    )
  }
}

function parseXml(text: string, notes: string[]): Parse {
  // The parser is lenient: it takes half an item for a whole one, which would come again under
  // another id once the feed is whole. A feed whose root is not closed is cut after a whole item.
  const whole = /<\/(?:\w+:)?(?:rss|feed|RDF)\s*>/i.test(text)
  const attempts: [() => string, string | null][] = [
    ...(whole
      ? ([
          [() => decodeBase64(withoutControls(text, notes)), null],
          [() => escapeAmpersands(text), 'Unescaped “&” signs were read as they were meant.'],
        ] satisfies [() => string, string | null][])
      : []),
    [
      () => closeBrokenFeed(escapeAmpersands(text)),
      'The feed breaks off in the middle; its whole items were taken, the last one may be missing.',
    ],
  ]
  for (const [make, note] of attempts) {
    try {
      const xml = make()
      const parsed = parseString(xml)
      if (note) notes.push(note)
      else if (hasItems(xml) && countOf(parsed) === 0) continue
      return { parsed, raw: null, xml }
    } catch {
      // the next attempt mends more
    }
  }
  const { line, message } = firstFault(text)
  // The parser refuses a feed that has nothing it knows, such as one made by hand before its first article.
  if (whole && !message) {
    if (hasItems(text)) notes.push('Its items hold no words, no address and no file; they were left out.')
    return { parsed: { format: 'rss', feed: {} }, raw: null, xml: text }
  }
  throw new Fault(
    'not-a-feed',
    `The feed breaks off before its first whole item${message}. Ask the site to mend it, or try again later.`,
    `line ${line}`,
  )
}

const hasItems = (xml: string): boolean => /<(?:\w+:)?(?:item|entry)[\s>]/i.test(xml)

function countOf({ feed }: Parse['parsed']): number {
  return ('entries' in feed ? feed.entries : 'items' in feed ? feed.items : [])?.length ?? 0
}

/** Where an XML text first breaks the rules, by fast-xml-parser's validator. */
function firstFault(text: string): { line: number; message: string } {
  const result = XMLValidator.validate(text, { allowBooleanAttributes: true })
  if (result === true) return { line: lineAt(text, text.length), message: '' }
  return { line: result.err.line, message: ` (${result.err.msg.replace(/\.$/, '')})` }
}

function lineAt(text: string, offset: number): number {
  return text.slice(0, offset).split('\n').length
}

/** Takes out control characters, which XML forbids and editors leave behind. */
function withoutControls(text: string, notes: string[]): string {
  // eslint-disable-next-line no-control-regex
  const clean = text.replace(/[\u0000-\u0008\u000B\u000C\u000E-\u001F]/g, '')
  if (clean.length < text.length)
    notes.push(`${text.length - clean.length} control characters, which no feed may hold, were left out.`)
  return clean
}

/** Words that an Atom feed carries as base64 (`mode` in version 0.3, a media type that is no text in 1.0), as words. */
function decodeBase64(text: string): string {
  return text.replace(
    /(<(title|subtitle|tagline|summary|content)\s[^<>]*?)(?:mode="base64"|type="application\/octet-stream")([^<>]*>)\s*([A-Za-z0-9+/=\s]+?)\s*(?=<\/\2>)/g,
    (kept, open: string, _name, rest: string, coded: string) => {
      try {
        const bytes = Uint8Array.from(atob(coded.replace(/\s/g, '')), (c) => c.charCodeAt(0))
        const words = new TextDecoder('utf-8', { fatal: true }).decode(bytes)
        return `${open}type="html"${rest.replace(/\stype="[^"]*"/, '')}<![CDATA[${words.replaceAll(']]>', ']]&gt;')}]]>`
      } catch {
        return kept
      }
    },
  )
}

function escapeAmpersands(text: string): string {
  return text
    .split(/(<!\[CDATA\[[\s\S]*?\]\]>)/)
    .map((part, i) => (i % 2 ? part : part.replace(/&(?!#?\w{1,31};)/g, '&amp;')))
    .join('')
}

/** Cuts a feed after its last whole item and closes what stood open around it. */
function closeBrokenFeed(text: string): string {
  const end = Math.max(text.lastIndexOf('</item>'), text.lastIndexOf('</entry>'))
  if (end < 0) throw new Fault('not-a-feed', 'There is no whole item in it.')
  const kept = text.slice(0, text.indexOf('>', end) + 1)
  const root = /<((?:\w+:)?(?:rss|feed|RDF))[\s>]/i.exec(kept)?.[1] ?? 'rss'
  return `${kept}${root.toLowerCase() === 'rss' ? '</channel>' : ''}</${root}>`
}
