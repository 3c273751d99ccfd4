/** Words in brackets that tell what happens in a recording, and no words of anybody. */
const STAGE =
  /[[(](?:(?:both |all )?laugh(?:s|ing|ter)?|chuckl(?:es|ing)|giggl(?:es|ing)|sigh(?:s|ing)?|applause|music(?: plays)?|pause[sd]?|cross-?talk|inaudible|unintelligible|cough(?:s|ing)?|sniffs|gasps|silence|beep|whispers|shouts|nods|smiles|long pause)[\])]/giu

/** Marks of a footnote: "[1]", "[^note]", "[a]", daggers and arrows back; never "[sic]". */
const FOOTNOTE =
  /\[\^[\w-]{1,20}\](?!:)|(?<=[\p{L}\p{N}.,;:!?”’")])\s?\[(?:\d{1,3}|[a-z]|edit|citation needed|note \d+)\]|(?<=[\p{L}.,;:!?”’")])[†‡]+|[↩↑]\uFE0E?/gu

/** Signs that a page puts at headings to link to them. */
const ANCHOR = /\s*[¶🔗](?=\s|$)|(?<=\S)\s*#$/gu

/** Signs and labels before a remark, "💡 Tip: …": what follows is the sentence. */
const LABEL =
  /^(?:\p{Extended_Pictographic}[\uFE0F\u200D\p{Extended_Pictographic}]*\s+)?(?:(?:note|tip|hint|pro tip|important|warning|caution|n\.?b\.?)\s?:\s+(?=[\p{Lu}“"]))?/iu

/**
 * A line of text without what is no word of it: footnote marks, pilcrows and other signs that link to
 * a heading, stage directions, and the sign or label before a remark. Spaces that are left over close up.
 */
export function cleanWords(line: string): string {
  const text = line.replace(LABEL, '')
  if (!/[[(†‡¶🔗#↩↑]/u.test(text)) return text
  return text
    .replace(STAGE, ' ')
    .replace(FOOTNOTE, '')
    .replace(ANCHOR, '')
    .replace(/ {2,}/g, ' ')
    .replace(/ (?=[,.;:!?](?:\s|$))/g, '')
    .trim()
}

/** A footnote itself, as Markdown or a page writes it below: "[^1]: …", "1. ↩". */
export function isFootnote(text: string): boolean {
  return (
    /^\[\^[\w-]{1,20}\]:/.test(text) || /^(?:\^|\[\d{1,3}\]\s|†\s|‡\s)/.test(text) || /↩\uFE0E?$/u.test(text)
  )
}

/** The label of a picture, table or listing: "Figure 2.", "Fig. 3:", "Table 1 –". */
export function isFigureLabel(text: string): boolean {
  return /^(?:fig(?:ure|\.)?|table|listing|plate|map|chart|exhibit|photo)\.? ?\d{1,3}(?:\.\d+)?[a-z]?\s*(?:[.:–—-]|$)/i.test(
    text,
  )
}

const SECTION_NUMBER =
  /^(?:§\s*)?(?:(\d{1,2})[.):]?|(\d{1,2})(?:\.\d{1,2})+\.?|\(?([ivx]{1,5}|[a-h])[.)])\s+(?=[\p{Lu}“"‘'(])/u

/** The number at the beginning of a line, "3. " or "2.1 ", and what follows it; null where there is none. */
export function numbered(text: string): { number: string; rest: string; certain: boolean } | null {
  const match = SECTION_NUMBER.exec(text)
  if (!match) return null
  const certain = /^(?:§|\d{1,2}(?:\.\d{1,2})+|\(?[ivxa-h]+[.)]|\d{1,2}[.)])/.test(match[0])
  return { number: match[0].trim(), rest: text.slice(match[0].length), certain }
}
