import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { performance } from 'node:perf_hooks'
import {
  likeness,
  LIKENESS_BOUND,
  opening,
  originsOf,
  PLAIN_HOUSE,
  writeDrip,
  type WrittenPost,
} from '../core/captions'
import type { PieceContent } from '../core/model'
import { graphemes, measure, network, NETWORKS } from '../core/networks'
import { weighPassages } from '../core/passages'
import { read } from '../core/reading'

/*
 * npm run evaluate: what the writer makes of twenty texts in different fields, registers and
 * structures (bench/corpus), for all nine networks and nine beats. Prints the figures a text each
 * and fails where a caption breaks a bound: over a limit, something that is not in the piece, too
 * like another, opening as another, a leftover, or a sentence that nothing accounts for.
 * --show prints every caption, to be read.
 */

const BEATS = 9
const folder = join(import.meta.dirname, 'corpus')
const accounts = NETWORKS.map((n) => ({ id: n.id, network: n.id }))
const DOUBTS = new Set(['not-grounded', 'other-words'])
const BROKEN = new Set(['leftover', 'doubled-marks', 'unbalanced', 'points-nowhere'])

const rows: Record<string, string | number>[] = []
const faults: string[] = []
let seconds = 0
let captions = 0

for (const file of readdirSync(folder).sort()) {
  const result = await read(readFileSync(join(folder, file)), {
    name: file,
    url: `https://texts.example/${file}`,
  })
  if (result.kind !== 'piece') throw new Error(`${file} is no piece.`)
  const { piece } = result
  const lasting = weighPassages(piece).filter((w) => !w.passage.reasons.some((r) => r.startsWith('ages')))
  const started = performance.now()
  const posts = writeDrip({
    piece,
    passages: lasting.filter((w) => w.kept).map((w) => w.passage),
    spare: lasting.filter((w) => !w.kept).map((w) => w.passage),
    accounts,
    days: Array.from({ length: BEATS }, (_, i) => i * 7),
    house: PLAIN_HOUSE,
    link: piece.url,
    seed: 1,
  })
  seconds += (performance.now() - started) / 1000
  rows.push(judge(file, piece, posts))
}

function judge(
  file: string,
  piece: PieceContent,
  posts: readonly WrittenPost[],
): Record<string, string | number> {
  const made = posts.flatMap((post) => (post.wording ? [{ post, wording: post.wording }] : []))
  captions += made.length
  const say = (post: WrittenPost, what: string): void => {
    faults.push(`${file}, ${post.network}, beat ${post.beat + 1}: ${what}`)
  }
  const openings = new Map<string, WrittenPost>()
  let reworded = 0
  let sentences = 0
  for (const { post, wording } of made) {
    const profile = network(post.network)
    if (measure(wording.text, profile.text) > (profile.text.limit ?? Infinity)) say(post, 'over the limit')
    if (profile.title && (!wording.title || graphemes(wording.title) > profile.title.limit))
      say(post, `a title that does not fit: ${wording.title ?? 'none'}`)
    for (const check of post.checks)
      if (DOUBTS.has(check.code) || BROKEN.has(check.code))
        say(post, `${check.code}: ${check.words ?? check.message}`)
    for (const other of made)
      if (
        other.post !== post &&
        other.post.account === post.account &&
        likeness(other.wording.text, wording.text) > LIKENESS_BOUND
      )
        say(post, `too like beat ${other.post.beat + 1}`)
    const key = profile.title
      ? `${post.network} ${wording.title ?? ''} ${opening(wording.text)}`
      : opening(wording.text)
    if (openings.has(key)) say(post, `opens as another: ${key}`)
    openings.set(key, post)
    for (const { sentence, origin } of originsOf(wording.text, piece)) {
      sentences++
      if (origin === null) say(post, `a sentence that nothing accounts for: ${sentence}`)
      if (origin === 'the piece, reworded by grammar') reworded++
    }
    if (process.argv.includes('--show'))
      console.log(
        `\n[${file} · ${profile.name} · ${wording.angle} · beat ${post.beat + 1}]${wording.title ? ` «${wording.title}»` : ''}\n${wording.text}`,
      )
  }
  const framed = made.filter((m) => m.wording.frame !== null).length
  if (framed * 3 > made.length + 3)
    faults.push(`${file}: ${framed} of ${made.length} open with words that are not the piece’s`)
  return {
    text: file.replace(/\.\w+$/, ''),
    words: piece.words,
    captions: made.length,
    of: posts.length,
    angles: new Set(made.map((m) => m.wording.angle)).size,
    'open with our words': `${Math.round((framed / Math.max(1, made.length)) * 100)} %`,
    'reworded sentences': `${Math.round((reworded / Math.max(1, sentences)) * 100)} %`,
    faults: faults.filter((f) => f.startsWith(`${file},`)).length,
  }
}

console.table(rows)
console.log(`${captions} captions, ${Math.round(captions / seconds)} a second, ${faults.length} faults`)
for (const fault of faults.slice(0, 60)) console.log(`- ${fault}`)
process.exitCode = faults.length ? 1 : 0
