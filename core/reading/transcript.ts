import { decodeHTML } from 'entities'
import { z } from 'zod'
import { seconds } from '../feeds'
import { Fault, type Chapter, type PieceContent } from '../model'
import { readSentences } from '../language'
import { analyse, assemblePiece, type BlockDraft } from './piece'
import { countWords } from '../text'

/** One cue of a timed text: seconds from the beginning, its lines, and who says it. */
export interface Cue {
  from: number
  to: number
  text: string
  speaker: string | null
}

// Few digits, and none before them: a line of 80,000 digits is looked through once, not from each of them on.
const STAMP = String.raw`(?:\d{1,4}:)?\d{1,2}:\d{2}(?:[.,]\d{1,3})?`
const TIMING = new RegExp(`(?<!\\d)(${STAMP})\\s*(?:-->|,(?=\\d+:\\d\\d))\\s*(${STAMP})`)
const PLAIN = new RegExp(`^[\\[(]?(${STAMP})[\\])]?(?:\\s*[-–—|]\\s*|\\s+|$)(.*)$`)

/**
 * The cues of a timed text, tags removed, in order: WebVTT, SubRip, lines that begin with a time
 * (`[0:04] And then …`), or the JSON of the podcast namespace. Captions that roll (each cue
 * repeats the line before) are merged, speakers are taken off the words. Throws `bad-file` where
 * it has no times.
 */
export function parseCues(text: string): Cue[] {
  const clean = text.replace(/^\uFEFF/, '').replace(/\r\n?/g, '\n')
  const cues = /^\s*[[{]\s*["[{]/.test(clean) && !/^\s*\[\d/.test(clean) ? jsonCues(clean) : textCues(clean)
  if (cues.length === 0)
    throw new Fault(
      'bad-file',
      'There are no timed lines in this transcript; a line looks like 00:01.000 --> 00:04.000, or begins with a time such as 0:01.',
    )
  return withSpeakers(merged(cues.sort((a, b) => a.from - b.from)))
}

function textCues(text: string): Cue[] {
  const lines = text.split('\n')
  return lines.some((l) => TIMING.test(l)) ? rangedCues(lines) : stampedCues(lines)
}

/** WebVTT and SubRip: a line with two times, then the words up to a blank line or the next times. */
function rangedCues(lines: readonly string[]): Cue[] {
  const cues: Cue[] = []
  let open: { from: number; to: number; words: string[] } | null = null
  const close = (): void => {
    if (!open) return
    // The number that stands before the next times belongs to it.
    const voice = /<v(?:\.[\w.]+)?\s+([^>]+)>/.exec(open.words.join(' '))?.[1]?.trim() ?? null
    const words = open.words.map(bare).filter(Boolean).join('\n')
    if (words && open.to >= open.from)
      cues.push({ from: open.from, to: open.to, text: words, speaker: voice })
    open = null
  }
  for (const [index, line] of lines.entries()) {
    const times = TIMING.exec(line)
    if (times) {
      close()
      open = { from: seconds(times[1]) ?? 0, to: seconds(times[2]) ?? 0, words: [] }
    } else if (!line.trim()) close()
    else if (open && !(/^\d+$/.test(line.trim()) && TIMING.test(lines[index + 1] ?? '')))
      open.words.push(line)
  }
  close()
  return cues
}

/** Lines that begin with a time; each lasts to the next, at most as long as its words take to say. */
function stampedCues(lines: readonly string[]): Cue[] {
  const starts: { from: number; words: string[] }[] = []
  const read = lines.map((line) => {
    const match = PLAIN.exec(line.trim())
    return { line, at: match ? seconds(match[1]) : null, words: match?.[2] ?? '' }
  })
  const timed = read.flatMap(({ at }) => (at === null ? [] : [at]))
  let passed = 0
  for (const { line, at, words } of read) {
    const before = starts.at(-1)?.from ?? Infinity
    const after = at === null ? Infinity : (timed[++passed] ?? Infinity)
    // "12:30 is when we stop for lunch", said between the first and the second minute, is speech.
    const said = at !== null && after >= before && after < at
    if (at !== null && !said) starts.push({ from: at, words: words ? [words] : [] })
    else if (line.trim()) starts[starts.length - 1]?.words.push(line)
  }
  return starts.flatMap(({ from, words }, i): Cue[] => {
    const text = words.map(bare).filter(Boolean).join(' ')
    if (!text) return []
    const next = starts[i + 1]?.from ?? Infinity
    return [{ from, to: Math.min(next, from + Math.max(2, countWords(text) / 2)), text, speaker: null }]
  })
}

const JsonTranscript = z.object({
  segments: z.array(
    z.object({
      startTime: z.number(),
      endTime: z.number().optional(),
      speaker: z.string().optional(),
      body: z.string(),
    }),
  ),
})

function jsonCues(text: string): Cue[] {
  let parsed: z.infer<typeof JsonTranscript>
  try {
    parsed = JsonTranscript.parse(JSON.parse(text))
  } catch {
    throw new Fault('bad-file', 'This JSON is not a transcript: it has no segments with a time and words.')
  }
  return parsed.segments
    .filter((s) => s.body.trim())
    .map((s) => ({
      from: s.startTime,
      to: s.endTime ?? s.startTime + countWords(s.body) / 2.5,
      text: bare(s.body),
      speaker: s.speaker ?? null,
    }))
}

function bare(line: string): string {
  return decodeHTML(line.replace(/<[^>]*>/g, '').replace(/\{\\[^}]*\}/g, ''))
    .replace(/\s+/g, ' ')
    .trim()
}

/** How near in time a cue must follow for its repeated line to be the same words. */
const ROLLING = 1

/**
 * Merges captions that roll. A cue that grows the one before replaces it; lines that it repeats
 * from the end of the one before are taken off. Single repeats far apart in time are speech.
 */
function merged(cues: readonly Cue[]): Cue[] {
  const result: Cue[] = []
  let shown: string[] = []
  for (const cue of cues) {
    const last = result[result.length - 1]
    const lines = cue.text.split('\n')
    const near = last !== undefined && cue.from - last.to < ROLLING
    if (near && shown.length && joined(cue.text).startsWith(`${joined(shown.join(' '))} `)) {
      // It grows word by word: what is new is what follows.
      const fresh = joined(cue.text).slice(joined(shown.join(' ')).length + 1)
      result.push({ ...cue, text: fresh })
      shown = lines
      continue
    }
    let overlap = 0
    if (near)
      for (let k = Math.min(shown.length, lines.length); k > 0 && !overlap; k--)
        if (shown.slice(-k).join('\n') === lines.slice(0, k).join('\n')) overlap = k
    const short = overlap === lines.length && countWords(cue.text) < 3 && cue.from >= (last?.to ?? 0)
    if (overlap && !short) {
      const fresh = lines.slice(overlap).join(' ')
      if (last) last.to = Math.max(last.to, fresh ? last.to : cue.to)
      if (fresh) result.push({ ...cue, text: fresh })
    } else result.push({ ...cue, text: joined(cue.text) })
    shown = lines
  }
  return result
}

const joined = (text: string): string => text.replace(/\s+/g, ' ').trim()

const LABEL =
  /^(?:>>|-)?\s*\[?((?:\p{Lu}[\p{L}’'.-]*)(?: (?:\p{Lu}[\p{L}’'.-]*|de|van|von|of)){0,3}|Speaker \d+)\]?:\s+(?=\S)/u

/** Takes "Rita:" off the words where such labels come back, as those of speakers do. */
function withSpeakers(cues: readonly Cue[]): Cue[] {
  const heard = new Map<string, number>()
  for (const { text } of cues) {
    const name = LABEL.exec(text)?.[1]
    if (name) heard.set(name, (heard.get(name) ?? 0) + 1)
  }
  for (const name of heard.keys()) if (isSaid(name, cues)) heard.delete(name)
  const labels = [...heard.values()].reduce((a, b) => a + b, 0)
  const isSpeaker = (name: string): boolean =>
    heard.has(name) && labels >= 3 && heard.size >= 2 && ((heard.get(name) ?? 0) >= 2 || heard.size <= 3)
  let speaking: string | null = null
  return cues.map((cue) => {
    const match = LABEL.exec(cue.text)
    const name = match?.[1]
    if (match && name && isSpeaker(name)) {
      speaking = titled(name)
      return { ...cue, speaker: speaking, text: cue.text.slice(match[0].length) }
    }
    const turn = /^>>\s*/.exec(cue.text)
    if (turn) return { ...cue, text: cue.text.slice(turn[0].length), speaker: cue.speaker }
    if (cue.speaker) speaking = titled(cue.speaker)
    return { ...cue, speaker: speaking }
  })
}

/** Words with a colon by which people announce what they say next, and which are nobody's name. */
const ANNOUNCED =
  /^(?:remember|note|tip|hint|warning|caution|careful|important|question|answer|example|rule|step|first|second|third|next|finally|again|now|result|conclusion|summary|lesson|fact|myth|update|spoiler|disclaimer|and|but|so|because|here|there|this|that|these|those|yes|no|okay|ok)\b/i

/** Whether what stands before a colon is said rather than a name: it announces, or is a plain word elsewhere. */
function isSaid(label: string, cues: readonly Cue[]): boolean {
  if (ANNOUNCED.test(label)) return true
  if (/[\s\d]/.test(label)) return false
  const plain = new RegExp(`(?<![\\p{L}\\p{N}])${escaped(label.toLowerCase())}(?![\\p{L}\\p{N}])`, 'u')
  return cues.some((c) => plain.test(c.text))
}

function escaped(text: string): string {
  return text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')
}

function titled(name: string): string {
  return /^[\p{Lu}\s.’'-]+$/u.test(name) && name.length > 3
    ? name.toLowerCase().replace(/(^|[\s’'-])\p{L}/gu, (c) => c.toUpperCase())
    : name
}

/** A silence that ends a paragraph, and one that ends a line of words without punctuation, in seconds. */
const PAUSE = 1.5
const BREATH = 0.7
/** Words after which a paragraph ends at the next full stop. */
const LONG = 90

/**
 * Joins cues into sentences that keep their times, in paragraphs parted by pauses, changes of
 * speaker, chapters and length. A sentence's times are read off its place within its cues.
 */
export function readTranscript(
  text: string,
  about: Pick<PieceContent, 'title'> & Partial<Omit<PieceContent, 'text' | 'words' | 'blocks' | 'sentences'>>,
  chapters: readonly Chapter[] = [],
): PieceContent {
  const cues = parseCues(text)
  const all = cues.map((c) => c.text).join(' ')
  const punctuated = (all.match(/[.!?](?=\s|$)/g)?.length ?? 0) * 40 >= countWords(all)
  const said: SpokenDraft[] = []
  let last: Cue | null = null
  for (const cue of cues) {
    const open = said[said.length - 1]
    const previous = last
    const ends =
      !open ||
      !previous ||
      cue.speaker !== previous.speaker ||
      cue.from - previous.to >= (punctuated ? PAUSE : BREATH) ||
      chapters.some((c) => c.at > previous.from + 0.5 && c.at <= cue.from + 0.5) ||
      (countWords(open.text) >= LONG && (!punctuated || /[.!?]["”’)]?$/.test(open.text)))
    if (ends)
      said.push({
        kind: 'paragraph',
        text: cue.text,
        furniture: null,
        ...(cue.speaker ? { speaker: cue.speaker } : {}),
        spans: [{ at: 0, cue }],
      })
    else {
      open.spans.push({ at: open.text.length + 1, cue })
      open.text += ` ${cue.text}`
    }
    last = cue
  }
  const drafts = withoutFrame(said)
  const piece = assemblePiece(
    {
      url: null,
      author: null,
      publishedAt: null,
      language: null,
      categories: [],
      summary: '',
      ...about,
      video: {
        url: about.video?.url ?? null,
        seconds: about.video?.seconds ?? Math.ceil(cues[cues.length - 1]?.to ?? 1),
        chapters: [...chapters],
        chaptersFound: false,
        transcript: about.video?.transcript ?? 'dropped',
        ...(about.video?.sound ? { sound: true as const } : {}),
      },
    },
    drafts.map(({ spans: _, ...draft }) => draft),
    about.images ?? [],
  )
  piece.sentences = analyse(piece).map(({ start, end, block }) => {
    const offset = piece.blocks[block]?.start ?? 0
    const spans = drafts[block]?.spans ?? []
    return { start, end, block, from: timeAt(spans, start - offset), to: timeAt(spans, end - offset) }
  })
  return piece
}

interface SpokenDraft extends BlockDraft {
  /** From which letter on each cue is said. */
  spans: { at: number; cue: Cue }[]
}

const OPENERS = String.raw`(?:(?:okay|ok|so|well|right|um|uh|now)[,.… ]+)*`
const GREETING = new RegExp(
  `^${OPENERS}(?:(?:hi|hello|hey|welcome|good (?:morning|afternoon|evening))\\b|(?:today|in this (?:video|film|talk|episode|one))\\b.*\\b(?:talk|speak|look at|show you|tell you)\\b|my name(?: is|[’']s)\\b|i(?:[’']m| am) going to (?:talk|speak|show you|tell you)\\b)`,
  'i',
)
const FAREWELL = new RegExp(
  `^${OPENERS}(?:(?:that|this)[’']s (?:it|all)\\b[^,;]*$|(?:i[’']ll |we[’']ll )?see you\\b|thanks?(?: you)?(?: very much| so much)? for (?:watching|listening|coming)\\b|(?:good ?)?bye\\b|until next time\\b|(?:please )?(?:subscribe\\b|like (?:and subscribe|(?:this|the) (?:video|film|talk|episode))\\b))`,
  'i',
)

/** A talk whose greeting and farewell stand in paragraphs of their own, marked as furniture. */
function withoutFrame(said: readonly SpokenDraft[]): SpokenDraft[] {
  const drafts = [...said]
  const first = drafts[0]
  const opening = first ? readSentences(first.text) : []
  const begins = opening.findIndex((s) => !GREETING.test(first?.text.slice(s.start, s.end) ?? ''))
  const from = begins < 0 ? (first?.text.length ?? 0) : (opening[begins]?.start ?? 0)
  if (first && from > 0) drafts.splice(0, 1, ...parted(first, from, 'greeting', null))
  const last = drafts[drafts.length - 1]
  if (!last || last.furniture) return drafts
  const closing = readSentences(last.text)
  let ends = closing.length
  while (ends > 0 && FAREWELL.test(last.text.slice(closing[ends - 1]?.start, closing[ends - 1]?.end))) ends--
  const to = closing[ends]?.start
  if (to !== undefined) drafts.splice(-1, 1, ...parted(last, to, null, 'farewell'))
  return drafts
}

/** A paragraph in two at a letter, each with its cues and its mark; the empty one is left out. */
function parted(draft: SpokenDraft, at: number, before: string | null, after: string | null): SpokenDraft[] {
  const head = { ...draft, text: draft.text.slice(0, at).trimEnd(), furniture: before }
  const tail = {
    ...draft,
    text: draft.text.slice(at),
    furniture: after,
    spans: draft.spans.map((s) => ({ ...s, at: s.at - at })),
  }
  return [head, tail].filter((d) => d.text)
}

/** The time at which a paragraph's words have come as far as an offset, by its share of its cue. */
function timeAt(spans: readonly { at: number; cue: Cue }[], offset: number): number {
  const inside = [...spans].reverse().find((s) => s.at <= offset) ?? spans[0]
  if (!inside) return 0
  const { cue, at } = inside
  const share = Math.min(1, Math.max(0, (offset - at) / Math.max(1, cue.text.length)))
  return Math.round((cue.from + share * (cue.to - cue.from)) * 100) / 100
}
