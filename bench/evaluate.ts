import { readdirSync, readFileSync } from 'node:fs'
import { join, resolve } from 'node:path'
import { performance } from 'node:perf_hooks'
import { writeDrip, type WrittenPost } from '../core/drips'
import { faultsBetween, faultsOf, type ReadCaption } from '../core/drips/testing/judge'
import { PLAIN_HOUSE } from '../core/house'
import type { PieceContent } from '../core/model'
import { network, NETWORKS } from '../core/networks'
import { findPassages } from '../core/passages'
import { read } from '../core/reading'

/*
 * npm run evaluate: what the writer makes of twenty texts in different fields, registers and structures
 * (bench/corpus), for all nine networks and nine beats, read by a judge that shares no code with it. Prints
 * the figures a text each and fails where a caption has a fault. A folder of other texts may be named.
 * --show prints every caption, to be read; --networks a,b and --beats N bound what is written.
 */

const argument = (name: string): string | undefined => {
  const at = process.argv.indexOf(`--${name}`)
  return at < 0 ? undefined : process.argv[at + 1]
}
const named = process.argv
  .slice(2)
  .find((a, i, all) => !a.startsWith('--') && !/^--(?:networks|beats)$/.test(all[i - 1] ?? ''))
const folder = named ? resolve(named) : join(import.meta.dirname, 'corpus')
const beats = Number(argument('beats') ?? 9)
const wanted = argument('networks')?.split(',') ?? NETWORKS.map((n) => n.id)
const accounts = wanted.map((id) => ({ id, network: network(id).id }))

const rows: Record<string, string | number>[] = []
const faults: string[] = []
let seconds = 0
let captions = 0

for (const file of readdirSync(folder).sort()) {
  if (!/\.(?:md|html?|txt|docx)$/.test(file)) continue
  const result = await read(readFileSync(join(folder, file)), {
    name: file,
    url: `https://texts.example/${file}`,
  })
  if (result.kind !== 'piece') throw new Error(`${file} is no piece.`)
  const { piece } = result
  const passages = findPassages(piece)
  const started = performance.now()
  const posts = writeDrip({
    piece,
    passages,
    accounts,
    days: Array.from({ length: beats }, (_, i) => i * 7),
    house: PLAIN_HOUSE,
    link: piece.url,
    seed: 1,
  })
  seconds += (performance.now() - started) / 1000
  rows.push(judge(file, piece, posts, passages.length))
}

function judge(
  file: string,
  piece: PieceContent,
  posts: readonly WrittenPost[],
  kept: number,
): Record<string, string | number> {
  const made = posts.flatMap(({ account, network: on, wording }): ReadCaption[] =>
    wording ? [{ account, network: on, ...wording }] : [],
  )
  captions += made.length
  const found = [
    ...made.flatMap((c) => faultsOf(c, piece).map((fault) => `${c.network}: ${fault}`)),
    ...faultsBetween(made),
  ].map((fault) => `${file}, ${fault}`)
  faults.push(...found)
  if (process.argv.includes('--show'))
    for (const c of made)
      console.log(
        `\n[${file} · ${network(c.network).name}]${c.title ? ` «${c.title}»` : ''}\n${[c.text, ...c.parts].join('\n  | ')}`,
      )
  return {
    text: file.replace(/\.\w+$/, ''),
    words: piece.words,
    passages: kept,
    captions: made.length,
    networks: new Set(made.map((c) => c.network)).size,
    angles: new Set(posts.flatMap((p) => p.wording?.angle ?? [])).size,
    'with tags': made.filter((c) => c.hashtags.length > 0).length,
    faults: found.length,
  }
}

console.table(rows)
console.log(`${captions} captions, ${Math.round(captions / seconds)} a second, ${faults.length} faults`)
for (const fault of faults.slice(0, 60)) console.log(`- ${fault}`)
process.exitCode = faults.length ? 1 : 0
