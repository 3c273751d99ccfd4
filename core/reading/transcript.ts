import { Fault, type PieceContent } from '../model'
import { assemblePiece, analyse, type BlockDraft } from './piece'

/** One cue of a timed text: seconds from the beginning, and its words. */
export interface Cue {
  from: number
  to: number
  text: string
}

const TIMING = /((?:\d+:)?\d{1,2}:\d{2}[.,]\d{1,3})\s*-->\s*((?:\d+:)?\d{1,2}:\d{2}[.,]\d{1,3})/

/** The cues of a WebVTT or SubRip file, tags removed, in order. Throws `bad-file` where it has none. */
export function parseCues(text: string): Cue[] {
  const cues: Cue[] = []
  for (const chunk of text.replace(/\r\n?/g, '\n').split(/\n\s*\n/)) {
    const lines = chunk.split('\n')
    const at = lines.findIndex((l) => TIMING.test(l))
    const times = at < 0 ? null : TIMING.exec(lines[at] ?? '')
    if (!times) continue
    const words = lines
      .slice(at + 1)
      .join(' ')
      .replace(/<[^>]*>/g, '')
      .replace(/\s+/g, ' ')
      .trim()
    if (words) cues.push({ from: seconds(times[1] ?? ''), to: seconds(times[2] ?? ''), text: words })
  }
  if (cues.length === 0)
    throw new Fault(
      'bad-file',
      'There are no timed lines in this transcript; a line looks like 00:01.000 --> 00:04.000.',
    )
  return cues
}

/** Joins cues into sentences that keep their times, in paragraphs parted by pauses of 1.5 s. */
export function readTranscript(text: string, title: string, url: string | null = null): PieceContent {
  const cues = parseCues(text)
  const drafts: BlockDraft[] = []
  const times: { block: number; at: number; from: number; to: number }[] = []
  let last: Cue | null = null
  for (const cue of cues) {
    const open = drafts[drafts.length - 1]
    if (!open || !last || cue.from - last.to >= 1.5)
      drafts.push({ kind: 'paragraph', text: cue.text, furniture: null })
    else open.text += ` ${cue.text}`
    const block = drafts.length - 1
    times.push({ block, at: (drafts[block]?.text.length ?? 0) - cue.text.length, from: cue.from, to: cue.to })
    last = cue
  }
  const piece = assemblePiece(
    { title, url, author: null, publishedAt: null, language: null, categories: [], summary: '' },
    drafts,
    [],
  )
  piece.sentences = analyse(piece).map(({ start, end, block }) => {
    const offset = piece.blocks[block]?.start ?? 0
    const inside = times.filter((t) => t.block === block)
    const first = inside.filter((t) => t.at <= start - offset).pop() ?? inside[0]
    const final = inside.filter((t) => t.at < end - offset).pop() ?? first
    return { start, end, block, from: first?.from ?? 0, to: final?.to ?? 0 }
  })
  return piece
}

function seconds(stamp: string): number {
  return stamp
    .replace(',', '.')
    .split(':')
    .reduce((sum, part) => sum * 60 + Number(part), 0)
}
