import { decodeHTML } from 'entities'

/** A short field without its markup, entities decoded, spaces as one. */
export function plain(html: string): string {
  if (!/[<&\s]/.test(html)) return html
  const bare = html.includes('<') ? html.replace(/<(?:\/?[a-z!][^>]*|!--[\s\S]*?--)>/gi, ' ') : html
  return squeezed(bare.includes('&') ? decodeHTML(bare) : bare)
}

/** Runs of spaces as one; the single ones, which are nearly all, are left alone. */
function squeezed(text: string): string {
  return text.replace(/ *[^\S ]\s*| \s+/g, ' ').trim()
}

/** The longest summary that is kept, in characters: above that a feed carries a text, not a summary. */
const SUMMARY = 1200

/** The beginning of a text as a summary, without its markup, cut between words. */
export function summaryOf(html: string): string {
  const start = html.length > 3 * SUMMARY ? html.slice(0, 3 * SUMMARY).replace(/<[^>]*$/, '') : html
  const text = plain(start)
  if (text.length <= SUMMARY) return text
  const at = text.lastIndexOf(' ', SUMMARY)
  // Not every script parts its words by spaces.
  return `${text.slice(0, at > 0 ? at : SUMMARY)} …`
}

/** An item's body as HTML: its own, else a description that is a text and no summary; empty where there is neither. */
export function bodyOf(body: string, description: string): string {
  if (body) return body
  if (description.length <= SUMMARY && !/<p[\s>]/i.test(description)) return ''
  return /<\/?[a-z]/i.test(description) ? description : paragraphs(description)
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
