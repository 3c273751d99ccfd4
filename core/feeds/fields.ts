/**
 * The named fields of each item of an XML feed: elements below it that hold a short text and that
 * no format or namespace we read knows, such as `g:price`. The parser drops them, so they are
 * found in the text itself; CDATA and nested markup are passed over. One record an item, in order;
 * null where the items cannot be told apart.
 */
export function xmlFields(text: string, items: number): Record<string, string>[] | null {
  const tag = /<entry[\s>]/.test(text) ? 'entry' : 'item'
  const parts = text.split(new RegExp(`<${tag}(?=[\\s>])`)).slice(1)
  if (parts.length !== items) return null
  return parts.map((part) => {
    const end = part.indexOf(`</${tag}`)
    const body = (end < 0 ? part : part.slice(0, end)).replace(/<!\[CDATA\[[\s\S]*?\]\]>/g, '')
    const fields: Record<string, string> = {}
    for (const match of body.matchAll(
      /<([A-Za-z][\w-]*:[A-Za-z][\w.-]*)(?:\s[^<>]*)?>([^<>]{1,80})<\/\1>/g,
    )) {
      const [, name = '', value = ''] = match
      if (!KNOWN.has(name.slice(0, name.indexOf(':')))) fields[name] = value.trim()
    }
    return fields
  })
}

/** Prefixes of the namespaces that are read into fields of their own. */
const KNOWN = new Set(
  'content dc dcterms media itunes podcast slash thr georss geo atom psc yt wfw feedburner sy admin xhtml creativeCommons googleplay'.split(
    ' ',
  ),
)

/** The named fields of an item of a JSON feed: what stands below names that begin with an underscore. */
export function jsonFields(item: unknown): Record<string, string> {
  const fields: Record<string, string> = {}
  for (const [name, value] of Object.entries(item as object)) {
    if (!name.startsWith('_')) continue
    const inner =
      value !== null && typeof value === 'object' ? Object.entries(value as object) : [['', value]]
    for (const [key, v] of inner as [string, unknown][])
      if (typeof v === 'number' || (typeof v === 'string' && v.length <= 80))
        fields[key ? `${name.slice(1)}.${key}` : name.slice(1)] = String(v)
  }
  return fields
}
