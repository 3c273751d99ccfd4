import type { Known } from './about'
import { instantOf } from './pageWords'

/** Where an author says what a manuscript is: the lines between two rules at its top. */
const BLOCK = /^\uFEFF?---[ \t]*\r?\n([\s\S]*?)\r?\n(?:---|\.\.\.)[ \t]*(?:\r?\n|$)/

/** A value without its quotation marks and what stands after a comment sign. */
function bareValue(text: string): string {
  const value = text.trim()
  const quoted = /^(["'])([\s\S]*)\1\s*(?:#.*)?$/.exec(value)
  return quoted
    ? (quoted[2] ?? '').replace(/\\(["\\])/g, '$1').replace(/''/g, "'")
    : value.replace(/\s+#.*$/, '')
}

/**
 * The front matter of a manuscript: fields of one line and lists, as YAML writes them plainly. What is
 * nested deeper is left out. `body` is the text after it.
 */
export function frontMatter(text: string): { known: Known; body: string } {
  const match = BLOCK.exec(text)
  if (!match) return { known: {}, body: text }
  const fields = new Map<string, string[]>()
  let open: string[] | null = null
  for (const line of (match[1] ?? '').split(/\r?\n/)) {
    const item = /^\s*-\s+(.*)$/.exec(line)
    if (item) {
      open?.push(bareValue(item[1] ?? ''))
      continue
    }
    const field = /^([A-Za-z][\w-]*)\s*:\s*(.*)$/.exec(line)
    if (!field) continue
    const value = (field[2] ?? '').trim()
    const list = /^\[(.*)\]$/.exec(value)
    open = list ? (list[1] ?? '').split(',').map(bareValue) : value ? [bareValue(value)] : []
    fields.set((field[1] ?? '').toLowerCase(), open)
  }
  const one = (...names: string[]): string | null =>
    names.map((n) => fields.get(n)?.[0]).find((v) => v !== undefined && v !== '') ?? null
  const many = (...names: string[]): string[] =>
    names
      .flatMap((n) => fields.get(n) ?? [])
      .flatMap((v) => v.split(','))
      .map((v) => v.trim())
      .filter(Boolean)
  const title = one('title')
  const known: Known = {
    ...(title ? { title } : {}),
    author: one('author', 'authors', 'by'),
    publishedAt: instantOf(one('published', 'date', 'pubdate', 'publishdate', 'created')),
    language: one('lang', 'language', 'locale'),
    categories: many('tags', 'categories', 'keywords', 'category'),
    summary: one('description', 'summary', 'excerpt') ?? '',
  }
  const url = one('canonical', 'canonical_url', 'url', 'link')
  return {
    known: url && /^https?:/i.test(url) ? { ...known, url } : known,
    body: text.slice(match[0].length),
  }
}
