import { decodeHTML } from 'entities'

/** A short field without its markup, entities decoded, spaces as one. */
export function plain(html: string): string {
  if (!/[<&\s]/.test(html)) return html
  const bare = html.includes('<') ? html.replace(/<(?:\/?[a-z!][^>]*|!--[\s\S]*?--)>/gi, ' ') : html
  return (bare.includes('&') ? decodeHTML(bare) : bare).replace(/\s+/g, ' ').trim()
}

/** Plain text as paragraphs of HTML, parted at blank lines. */
export function paragraphs(text: string): string {
  const escape = (s: string): string => s.replace(/&/g, '&amp;').replace(/</g, '&lt;')
  return text
    .split(/\n\s*\n/)
    .filter((p) => p.trim())
    .map((p) => `<p>${escape(p.trim())}</p>`)
    .join('\n')
}

/** Names without markup, each once, empty ones left out. */
export function names(list: readonly (string | undefined)[] | undefined): string[] {
  return [...new Set((list ?? []).map((n) => plain(n ?? '')).filter(Boolean))]
}
