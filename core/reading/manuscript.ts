import { marked } from 'marked'
import { parseHTML } from 'linkedom'
import { Fault } from '../model'
import { countWords } from '../text'

/** A part of a manuscript that can be a piece of its own. */
export interface ManuscriptChapter {
  title: string
  html: string
  words: number
}

const SPELLED =
  /^(?:#+\s*)?((?:chapter|part|book)\s+(?:\d+|[ivxlc]+|one|two|three|four|five|six|seven|eight|nine|ten|eleven|twelve)\b[^\n]{0,80}|prologue|epilogue|introduction|foreword|afterword)\s*$/i

/** Markdown or plain text as HTML; lines such as "Chapter 3" become headings. */
export function writingToHtml(text: string): string {
  const body = outdented(withoutComments(text.replace(/\r\n?/g, '\n')))
  const source = withTitleLine(body)
    .split('\n')
    .map((line, i, lines) =>
      SPELLED.test(line) && !line.startsWith('#') && !(lines[i + 1] ?? '').trim()
        ? `# ${line.trim()}\n`
        : line,
    )
    .join('\n')
  return marked.parse(source, { async: false, gfm: true })
}

/**
 * Lines of code that begin with a hash are no titles: outside of a fenced block, "# …" directly below other words or
 * beside its like is the comment of a script that was pasted with its article.
 */
function withoutComments(text: string): string {
  const lines = text.split('\n')
  const hash = (line: string | undefined): boolean => line !== undefined && /^#\s/.test(line)
  const ends = /^(?:#{1,6}\s|\s*(?:```|~~~|---|\*\*\*|===)|.*-->\s*$|\s*<|\([\w-]+\)=\s*$)/
  let fenced = false
  return lines
    .map((line, i) => {
      if (/^\s*(?:```|~~~)/.test(line)) fenced = !fenced
      if (fenced || !hash(line)) return line
      const above = lines[i - 1] ?? ''
      const under = above.trim() !== '' && !ends.test(above)
      return under || hash(above) || hash(lines[i + 1]) ? `\\${line}` : line
    })
    .join('\n')
}

/** From this share of indented lines on, a text's indentation is its layout and no mark of code. */
const INDENTED = 0.6

/**
 * Plain text that is set in from the margin, as manuals are: without the margin, and what stands out of it
 * over a block of text as its heading.
 */
function outdented(text: string): string {
  const lines = text.split('\n')
  const depth = (line: string | undefined): number =>
    line?.trim() ? line.length - line.trimStart().length : 0
  const full = lines.filter((l) => l.trim())
  const set = full.filter((l) => depth(l) >= 3).length
  if (set < full.length * INDENTED || /^(?:#+ |```)/m.test(text)) return text
  return lines
    .map((line, i) => {
      const alone = !lines[i - 1]?.trim() && line.trim().length > 0 && line.trim().length <= 80
      const heads = alone && depth(lines[i + 1]) > depth(line) && !/[.:;,]$/.test(line.trim())
      return heads ? `## ${line.trim()}\n` : line.trimStart()
    })
    .join('\n')
}

/** Plain text whose first line stands alone and is no sentence has that line for its title. */
function withTitleLine(text: string): string {
  const [, first, rest] = /^\s*([^\n]{3,90})\n\s*\n([\s\S]+)$/.exec(text) ?? []
  if (!first || !rest || /^\s*(?:[#>*<[-]|\d+[.)])|[.!:;,]\s*$/.test(first) || /^#+ /m.test(rest)) return text
  return `# ${first.trim()}\n\n${rest}`
}

/** A Word document as HTML, by mammoth. Throws `bad-file` where it does not open. */
export async function docxToHtml(bytes: Uint8Array): Promise<string> {
  const { default: mammoth } = await import('mammoth')
  try {
    // The library takes a buffer on a server and an array buffer in a browser.
    const input = { buffer: bytes, arrayBuffer: bytes.slice().buffer } as unknown as {
      arrayBuffer: ArrayBuffer
    }
    const { value } = await mammoth.convertToHtml(input, { includeDefaultStyleMap: true })
    if (!value.trim()) throw new Error('empty')
    return value
  } catch {
    throw new Fault(
      'bad-file',
      'This Word document cannot be opened, or holds no text. Save it again as .docx, or paste its text.',
    )
  }
}

/** Words from which a manuscript without main headings is parted at its second-level ones. */
const LONG = 2500

/** So many words may stand before the heading that is a text's title. */
const PREFACE = 60

/**
 * The chapters of a manuscript: parted at its main headings where it has at least two; a long one also
 * where they are of a lower level, or at the level below its only main heading (its title). What stands before
 * the first heading goes with the first chapter. One chapter, the whole, where nothing parts it or
 * it is not to be parted.
 */
export function chaptersOf(html: string, title: string, part = true): ManuscriptChapter[] {
  const { document } = parseHTML(`<!doctype html><html><head></head><body>${html}</body></html>`)
  const nodes = [...document.body.children]
  const words = countWords(document.body.textContent ?? '')
  const countAt = (level: number): number => nodes.filter((n) => n.tagName === `H${level}`).length
  const first = [1, 2, 3].find((l) => countAt(l) > 0) ?? 1
  // Sections below a title that stands elsewhere make an article; only in a book are they chapters.
  const parted = countAt(first) >= 2 && (first === 1 || words >= LONG)
  const level = parted ? first : words >= LONG && countAt(first + 1) >= 2 ? first + 1 : null
  const main = nodes.find((n) => n.tagName === `H${first}`)
  const preface = countWords(
    nodes
      .slice(0, main ? nodes.indexOf(main) : 0)
      .map((n) => n.textContent ?? '')
      .join(' '),
  )
  const heads = first === 1 ? preface <= PREFACE : main === nodes[0]
  const heading = heads ? main?.textContent?.trim() : null
  if (level === null || !part) return [{ title: heading || title, html, words }]
  const parts: { title: string; html: string; text: string }[] = []
  let before = { html: '', text: '' }
  for (const node of nodes) {
    if (node.tagName === `H${level}`) {
      parts.push({ title: (node.textContent ?? '').trim() || title, html: before.html, text: before.text })
      before = { html: '', text: '' }
      continue
    }
    if (level > first && node.tagName === `H${first}`) continue
    const open = parts[parts.length - 1] ?? before
    open.html += node.outerHTML
    open.text += ` ${node.textContent ?? ''}`
  }
  return parts
    .map((p) => ({ title: p.title, html: p.html, words: countWords(p.text) }))
    .filter((p) => p.words > 0)
}
