import type { Counts, Piece, Pipeline, Source, WordList } from '../model'
import { sieve, type SieveContext, type Sieved, type SieveResult } from './judge'

/** The sources a pipeline takes from: those it names, and whatever is in its groups. */
export function sourcesOf(
  pipeline: Pick<Pipeline['takeIn'], 'sources' | 'groups'>,
  sources: readonly Pick<Source, 'id' | 'group'>[],
): Set<string> {
  return new Set([
    ...pipeline.sources,
    ...sources.filter((s) => s.group !== null && pipeline.groups.includes(s.group)).map((s) => s.id),
  ])
}

/** Whether a piece is for a pipeline: it is of its sources, or another pipeline handed it on to it. */
export function isFor(
  pipeline: Pick<Pipeline, 'id' | 'takeIn'>,
  sources: readonly Pick<Source, 'id' | 'group'>[],
): (piece: Pick<Piece, 'source' | 'handedTo' | 'through'>) => boolean {
  const from = sourcesOf(pipeline.takeIn, sources)
  return (p) => p.handedTo.includes(pipeline.id) || (p.through.length === 0 && from.has(p.source))
}

/** What is around pieces while they are sieved, from the records of their brand. */
export function sieveContext(around: {
  now: string
  zone: string
  lists: readonly WordList[]
  sources: readonly Pick<Source, 'id' | 'title'>[]
  pieces: readonly Pick<Piece, 'source' | 'counts'>[]
}): SieveContext {
  const counts = new Map<string, Counts[]>()
  for (const p of around.pieces) {
    const list = counts.get(p.source)
    if (list) list.push(p.counts)
    else counts.set(p.source, [p.counts])
  }
  const names = new Map(around.sources.map((s) => [s.id, s.title]))
  return {
    now: around.now,
    zone: around.zone,
    lists: around.lists,
    ofSource: (id) => counts.get(id) ?? [],
    sourceName: (id) => names.get(id) ?? 'a removed source',
  }
}

/** What a pipeline's sieve says of a piece; a person's word comes before the rules. */
export function judge(
  piece: Sieved & Pick<Piece, 'letThrough' | 'double' | 'unfolded' | 'dealt'>,
  rules: Pipeline['takeIn']['sieve'],
  context: SieveContext,
): SieveResult {
  const say = (passed: boolean, reason: string): SieveResult => ({ passed, rule: null, reason, words: [] })
  if (piece.dealt?.by === 'set aside') return say(false, 'A person set it aside.')
  if (piece.letThrough) return say(true, 'A person let it through.')
  if (piece.double && !piece.unfolded)
    return say(false, `It is folded under another piece: ${piece.double.why}.`)
  return sieve(piece, rules, context)
}
