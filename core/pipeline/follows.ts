import { isToCome, type Drip, type Follow, type Pipeline, type Post, type Recipe, type Told } from '../model'

/** The words that a message may have filled in, with what each stands for. */
export const FILLINGS = {
  title: 'the title of the piece',
  text: 'the caption',
  network: 'the network',
  account: 'the account',
  link: 'where the post stands, or the page it leads to',
  posts: 'how many posts',
  reason: 'why it failed',
  pipeline: 'the name of this pipeline',
} as const
export type Filling = keyof typeof FILLINGS

/** What a message begins with, for each thing that can be told. */
export const MESSAGES: Readonly<Record<Told, string>> = {
  'is taken in': '{pipeline} took in “{title}”: {posts}.',
  'is published': '{account} on {network}, of “{title}”: {link}',
  fails: '{account} on {network} could not post of “{title}”: {reason}',
  'is finished': 'The last post of “{title}” is out: {posts} in all.',
}

/** What can be filled in where each thing is told. */
export const FILLED_IN: Readonly<Record<Told, readonly Filling[]>> = {
  'is taken in': ['title', 'posts', 'link', 'pipeline'],
  'is published': ['title', 'text', 'network', 'account', 'link', 'pipeline'],
  fails: ['title', 'text', 'network', 'account', 'link', 'reason', 'pipeline'],
  'is finished': ['title', 'posts', 'link', 'pipeline'],
}

const BRACED = /\{([^{}\s]+)\}/g

/** A message with its words filled in, once: what is filled in is never filled in again. No line ends in spaces. */
export function filledIn(text: string, words: Partial<Record<Filling, string>>): string {
  return text
    .replace(BRACED, (whole, name: string) =>
      Object.hasOwn(words, name) ? (words[name as Filling] ?? '') : whole,
    )
    .replace(/[ \t]+(?=\n|$)/g, '')
    .trim()
}

/** The words in braces of a message that nothing can be filled in for where `when` is told. */
export function unfilled(text: string, when: Told): string[] {
  const known: readonly string[] = FILLED_IN[when]
  return [...new Set([...text.matchAll(BRACED)].map((m) => m[1] ?? ''))].filter((n) => !known.includes(n))
}

/** The other pipelines that a pipeline hands on to: as it runs, and as it would with what was changed. */
function handsOnTo(pipeline: Pick<Pipeline, 'follows' | 'draft'>): string[] {
  return [...pipeline.follows, ...(pipeline.draft?.follows ?? [])].flatMap((f) =>
    f.kind === 'pipeline' ? [f.pipeline] : [],
  )
}

/**
 * The circle that would close if a pipeline handed on to another one: the names from it back to itself; null where
 * there is none. Depth-first over what each pipeline hands on to.
 */
export function circle(
  pipelines: readonly Pick<Pipeline, 'id' | 'name' | 'follows' | 'draft'>[],
  from: string,
  to: string,
): string[] | null {
  const byId = new Map(pipelines.map((p) => [p.id, p]))
  const name = (id: string): string => byId.get(id)?.name ?? 'a removed pipeline'
  const seen = new Set<string>()
  const way = (id: string): string[] | null => {
    if (id === from) return [name(id)]
    if (seen.has(id)) return null
    seen.add(id)
    for (const next of handsOnTo(byId.get(id) ?? { follows: [], draft: null })) {
      const rest = way(next)
      if (rest) return [name(id), ...rest]
    }
    return null
  }
  const back = way(to)
  return back && [name(from), ...back]
}

/** Since when something follows a pipeline's work: what came before is not told, or handed on. */
export function followsSince(pipeline: Pick<Pipeline, 'versions' | 'savedAt'>, id: string): string {
  const has = (recipe: Recipe): boolean => recipe.follows.some((f) => f.id === id)
  const before = pipeline.versions.findLastIndex((v) => !has(v.recipe))
  return pipeline.versions[before + 1]?.at ?? pipeline.savedAt
}

/**
 * Whether all that a pipeline made of a piece is over: something went out, nothing is to come, no failed post waits
 * for a decision, and none is still to be written when its day is near.
 */
export function isFinished(
  drips: readonly Pick<Drip, 'id' | 'days' | 'accounts' | 'missing' | 'endedAt'>[],
  posts: readonly Pick<Post, 'drip' | 'state' | 'beat' | 'account'>[],
): boolean {
  if (!posts.some((p) => p.state === 'published')) return false
  if (posts.some((p) => isToCome(p) || p.state === 'failed')) return false
  return drips.every((d) => {
    if (d.endedAt !== null) return true
    const made = new Set(
      [...posts.filter((p) => p.drip === d.id), ...d.missing].map((x) => `${x.beat} ${x.account}`),
    )
    return d.days.every((_, beat) => d.accounts.every((account) => made.has(`${beat} ${account}`)))
  })
}

/** A follow as a line of a list has it. `nameOf` gives a pipeline's name, or null where it is gone. */
export function followWords(follow: Follow, nameOf: (pipeline: string) => string | null): string {
  switch (follow.kind) {
    case 'chat':
      return `the team chat is told when a ${follow.when === 'is taken in' || follow.when === 'is finished' ? 'piece' : 'post'} ${follow.when}`
    case 'sheet':
      return `each published post is a row of the archive sheet “${follow.title}”`
    case 'feed':
      return `the last ${follow.items} published posts are the ${follow.format} feed “${follow.title}”`
    case 'pipeline': {
      const name = nameOf(follow.pipeline)
      return `${name ? `“${name}”` : 'a pipeline that was removed'} takes over ${follow.takes}`
    }
  }
}
