import type { FoundPassage, PassageKind, PieceContent } from '../model'
import { longestClip } from '../networks'
import { analyse, type Token } from '../reading'
import { withoutFillers } from '../speech'
import { jaccard, lexRank } from './centrality'
import {
  danglingWords,
  isBalanced,
  opensOnKnown,
  promisesList,
  sentenceFeatures,
  type SentenceFeatures,
} from './features'

interface Candidate {
  features: SentenceFeatures[]
  passage: FoundPassage
  lemmas: Set<string>
}

/** Lengths in characters that a passage may have; the best lies between 80 and 280. */
const LENGTH = { least: 35, most: 900, good: [80, 280] as const }

/** What a passage that ages is worth in a piece that does not. */
const AGEING = 0.4

/** The shortest clip that says something, and the longest that every network takes, in seconds. */
const CLIP = { least: 5, most: longestClip() }

/** When a stretch of a talk begins and ends, in seconds; null for what is read. */
function timesOf(piece: PieceContent, start: number, end: number): { from: number; to: number } | null {
  if (!piece.video) return null
  const inside = piece.sentences.filter((s) => s.start < end && s.end > start)
  const from = inside[0]?.from
  const to = inside[inside.length - 1]?.to
  return from === undefined || to === undefined ? null : { from, to }
}

/** The most sentences in a run: fewer where the piece has few, so that it does not use itself up. */
function longestRun(sentences: number): number {
  return sentences < 25 ? 2 : sentences < 60 ? 3 : 4
}

/**
 * The passages of a piece that are worth quoting, best first, none overlapping another.
 *
 * Candidates are runs of one to four neighbouring sentences of a block, and lists with their
 * lead-in. Each is scored from what it is made of: whether it stands alone, says something
 * concrete, is central to the piece (LexRank), has an edge, its length and its place. The set is
 * chosen by maximal marginal relevance (Carbonell and Goldstein 1998), so that no two say the
 * same. Furniture, headings and sentences that point out of themselves never open one. What ages
 * counts for less, unless the piece itself ends with what it tells (`ends`), as a notice does.
 */
export function findPassages(piece: PieceContent, { count = 24, ends = false } = {}): FoundPassage[] {
  const sentences = analyse(piece)
  const features = sentences.map((s) => sentenceFeatures(s, piece.publishedAt))
  const ranks = lexRank(features.map((f) => f.lemmas))
  const centrality = new Map(features.map((f, i) => [f, ranks[i] ?? 0]))
  const blocks = new Map<number, SentenceFeatures[]>()
  for (const f of features) {
    const list = blocks.get(f.sentence.block)
    if (list) list.push(f)
    else blocks.set(f.sentence.block, [f])
  }
  const candidates: Candidate[] = []
  const longest = longestRun(features.length)
  piece.blocks.forEach((block, index) => {
    if (block.furniture !== null || block.kind === 'heading' || block.kind === 'item') return
    const run = blocks.get(index) ?? []
    for (let from = 0; from < run.length; from++) {
      if (run[from]?.dangling !== null || !run[from]?.verb) continue
      let before: readonly Token[] = []
      for (let to = from; to < Math.min(run.length, from + longest); to++) {
        const f = run[to]
        if (!f || (to > from && pointsOut(f, before))) break
        before = [...before, ...f.sentence.tokens]
        const candidate = runCandidate(piece, run.slice(from, to + 1), run[to + 1], from, index, centrality)
        if (candidate) candidates.push(candidate)
      }
    }
  })
  for (const list of listCandidates(piece, blocks, centrality)) candidates.push(list)
  for (const { passage, features: run } of candidates)
    if (!ends && run.some((f) => f.ageing !== null))
      passage.score = Math.round(passage.score * AGEING * 1000) / 1000
  return choose(candidates, count)
}

/** A passage of a person's own choosing, scored like the others; any range of the text will do. */
export function passageAt(piece: PieceContent, start: number, end: number): FoundPassage {
  const inside = analyse(piece)
    .filter((s) => s.start < end && s.end > start)
    .map((s) => sentenceFeatures(s, piece.publishedAt))
  const centrality = new Map(inside.map((f) => [f, 0.5]))
  const { score, reasons } = judge(inside, piece.text.slice(start, end), 0.5, centrality, null)
  return {
    start,
    end,
    text: piece.text.slice(start, end),
    kind: kindOf(inside),
    score,
    reasons: ['chosen by hand', ...reasons],
  }
}

/**
 * Whether a sentence points out of the run that it would end, and so of every longer one. What
 * stands alone does so after other sentences too.
 */
function pointsOut({ sentence, dangling }: SentenceFeatures, before: readonly Token[]): boolean {
  return dangling !== null && danglingWords(sentence.tokens, sentence.text, before) !== null
}

function runCandidate(
  piece: PieceContent,
  run: SentenceFeatures[],
  next: SentenceFeatures | undefined,
  position: number,
  block: number,
  centrality: ReadonlyMap<SentenceFeatures, number>,
): Candidate | null {
  const first = run[0]
  const last = run[run.length - 1]
  if (!first || !last) return null
  const start = first.sentence.start
  const end = last.sentence.end
  const text = piece.text.slice(start, end)
  if (text.length < LENGTH.least || text.length > LENGTH.most) return null
  const times = timesOf(piece, start, end)
  if (times && (times.to - times.from < CLIP.least || times.to - times.from > CLIP.most)) return null
  if (last.question || !/[.!?…][”’"')\]]*$/.test(text) || !isBalanced(text)) return null
  if (first.question && run.length === 1) return null
  if (promisesList(last.sentence.text)) return null
  const cut =
    next !== undefined && /^(but|unless|otherwise|except|however|only if)\b/i.test(next.sentence.text)
  const known = position > 0 && opensOnKnown(first.sentence.tokens)
  const { score: raw, reasons } = judge(
    run,
    text,
    position === 0 ? 1 : block / piece.blocks.length < 0.15 ? 0.8 : 0.4,
    centrality,
    cut ? next.sentence.text : null,
  )
  // What was said with ums and beginnings anew is quoted only where there is nothing cleaner.
  const clean = times && withoutFillers(text) !== text ? 0.75 : 1
  const score = (known ? raw * 0.8 : raw) * clean
  return {
    features: run,
    lemmas: new Set(run.flatMap((f) => f.lemmas)),
    passage: { start, end, text, kind: kindOf(run), score, reasons },
  }
}

/** Ordered and unordered lists with the paragraph or heading that leads into them. */
function listCandidates(
  piece: PieceContent,
  blocks: ReadonlyMap<number, SentenceFeatures[]>,
  centrality: ReadonlyMap<SentenceFeatures, number>,
): Candidate[] {
  const found: Candidate[] = []
  for (let i = 0; i < piece.blocks.length; i++) {
    const block = piece.blocks[i]
    if (block?.kind !== 'item' || block.furniture !== null || !block.list || block.list.index !== 0) continue
    let last = i
    while (piece.blocks[last + 1]?.list?.id === block.list.id) last++
    if (last - i < 1) continue
    const lead = piece.blocks[i - 1]
    const leadSentences = (blocks.get(i - 1) ?? []).slice(-1)
    const leadSentence = leadSentences[0]
    const usesLead =
      lead !== undefined &&
      lead.kind === 'paragraph' &&
      lead.furniture === null &&
      leadSentence !== undefined &&
      leadSentence.sentence.text.endsWith(':') &&
      leadSentence.dangling === null
    const start = usesLead ? leadSentence.sentence.start : block.start
    const end = piece.blocks[last]?.end ?? block.end
    const text = piece.text.slice(start, end)
    if (text.length > 1400) continue
    const items = Array.from({ length: last - i + 1 }, (_, k) => blocks.get(i + k) ?? []).flat()
    if (items.length === 0 || !isBalanced(text)) continue
    const ordered = block.list.ordered
    if (!ordered && !usesLead) continue
    const { score, reasons } = judge(items, text, 0.7, centrality, null)
    found.push({
      features: items,
      lemmas: new Set(items.flatMap((f) => f.lemmas)),
      passage: {
        start,
        end,
        text,
        kind: 'steps',
        score: Math.min(1, Math.max(score, 0.55)),
        reasons: [ordered ? 'steps in order' : 'a list with its lead-in', ...reasons],
      },
    })
    i = last
  }
  return found
}

function judge(
  run: readonly SentenceFeatures[],
  text: string,
  place: number,
  centrality: ReadonlyMap<SentenceFeatures, number>,
  cutFrom: string | null,
): { score: number; reasons: string[] } {
  const reasons: string[] = []
  const words = text.split(/\s+/).length
  const numbers = run.reduce((n, f) => n + f.numbers, 0)
  const names = run.reduce((n, f) => n + f.names, 0)
  const lemmas = new Set(run.flatMap((f) => f.lemmas))
  const told = run.some((f) => f.imperative)
  const density = Math.min(1, lemmas.size / Math.max(6, words * 0.5))
  const concrete = Math.min(1, 0.55 * density + (numbers ? 0.35 : 0) + (names ? 0.15 : 0) + (told ? 0.25 : 0))
  if (numbers) reasons.push('number')
  if (names) reasons.push('named')
  if (told) reasons.push('instruction')
  const central = run.reduce((sum, f) => sum + (centrality.get(f) ?? 0), 0) / Math.max(1, run.length)
  if (central > 0.7) reasons.push('central')
  const edges = {
    contrast: run.some((f) => f.contrast),
    question: run[0]?.question ?? false,
    surprise: run.some((f) => f.surprise),
    'strong verb': run.some((f) => f.strongVerb),
    turn: /[:;]/.test(text),
    absolute: /\b(never|nobody|always|every|only|cheapest|worst|best|most)\b/i.test(text),
  }
  const edge = Math.min(1, Object.values(edges).filter(Boolean).length * 0.45)
  for (const name of ['contrast', 'question', 'surprise', 'strong verb'] as const)
    if (edges[name]) reasons.push(name)
  if (run.filter((f) => f.past).length > run.length / 2) reasons.push('story')
  const { good } = LENGTH
  const length =
    text.length < good[0]
      ? 0.45 + 0.55 * (text.length / good[0])
      : text.length <= good[1]
        ? 1
        : Math.max(0.2, 1 - (text.length - good[1]) / 600)
  const whole = run.slice(1).every((f) => f.verb) ? 1 : 0.85
  reasons.unshift('stands alone')
  let score = 0.2 * whole + 0.26 * concrete + 0.2 * central + 0.16 * edge + 0.12 * length + 0.06 * place
  const ageing = run.find((f) => f.ageing)?.ageing
  if (ageing) reasons.push(`ages: “${ageing}”`)
  if (cutFrom) {
    score *= 0.8
    reasons.push('its “but” stays behind')
  }
  return { score: Math.round(Math.min(1, score) * 1000) / 1000, reasons }
}

function kindOf(run: readonly SentenceFeatures[]): PassageKind {
  const first = run[0]
  if (!first) return 'statement'
  if (first.question) return 'question'
  const told = run.filter((f) => f.imperative).length
  if (told >= Math.max(1, run.length / 2)) return 'instruction'
  if (run.filter((f) => f.past).length > run.length / 2) return 'story'
  if (first.numbers > 0) return 'number'
  if (run.some((f) => f.contrast)) return 'contrast'
  if (first.definition) return 'definition'
  return run.some((f) => f.numbers > 0) ? 'number' : 'statement'
}

/** Maximal marginal relevance with λ = 0.75; overlapping candidates exclude each other. */
function choose(candidates: readonly Candidate[], count: number): FoundPassage[] {
  let left = [...candidates].sort(
    (a, b) => b.passage.score - a.passage.score || a.passage.start - b.passage.start,
  )
  const nearest = new Map<Candidate, number>()
  const chosen: Candidate[] = []
  while (chosen.length < count && left.length) {
    let taken = left[0] as Candidate
    let top = -Infinity
    for (const candidate of left) {
      const value = 0.75 * candidate.passage.score - 0.25 * (nearest.get(candidate) ?? 0)
      if (value > top) {
        top = value
        taken = candidate
      }
    }
    chosen.push(taken)
    left = left.filter((c) => {
      if (c.passage.start < taken.passage.end && c.passage.end > taken.passage.start) return false
      const near = Math.max(nearest.get(c) ?? 0, jaccard(c.lemmas, taken.lemmas))
      nearest.set(c, near)
      return near < 0.6
    })
  }
  return chosen.map((c) => c.passage).sort((a, b) => b.score - a.score || a.start - b.start)
}
