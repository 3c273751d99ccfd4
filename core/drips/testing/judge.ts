import { ownWords, strangeSentences } from './verbatim'

/*
 * A strict reader of captions, as far as rules can be one. It shares no code and no list with what writes
 * and checks them: it imports only its own two lines on whose words they are. `npm run evaluate` and the
 * tests hold captions against it.
 */

/** What is read: a caption on a network, and what it is of. */
export interface ReadCaption {
  network: string
  account: string
  title: string | null
  text: string
  parts: readonly string[]
  hashtags: readonly string[]
}
export interface ReadSource {
  title: string
  text: string
  categories: readonly string[]
}

/** What the networks take, as `networks.md` says: characters, a link counting as so many where given. */
const LIMITS: Readonly<Record<string, { most: number; link?: number; tags: number }>> = {
  murmur: { most: 300, link: 24, tags: 5 },
  guildhall: { most: 3000, tags: 5 },
  shutterleaf: { most: 2200, tags: 30 },
  hearthside: { most: 5000, tags: 10 },
  rackwell: { most: 500, tags: 20 },
  loopyard: { most: 2200, tags: 10 },
  longwave: { most: 5000, tags: 15 },
  courier: { most: 4096, tags: 5 },
  broadside: { most: Infinity, tags: 10 },
}

const POINTERS =
  /\b(?:as (?:noted|mentioned|shown|described|discussed) (?:above|earlier|below)|(?:see|in) (?:number|chapter|section|figure|table|step|part) \d|(?:previous|next|earlier|later) (?:section|chapter|post|article)s?|the following|click here|read on|in this (?:article|post|guide|chapter|section|book|tutorial)|(?:see|shown|listed|described) (?:above|below))\b/i
const LEANS_FIRST =
  /^(?:and|but|or|so|because|however|therefore|then|also|instead|otherwise|it|its|they|them|their|he|him|his|she|her|hers|this|that|these|those|such|both|neither|either|another|the (?:other|others|same|latter|former|second|third))\b/i
const LEFTOVERS =
  /[¶§†‡]|\[\d+\]|\(\d+\)(?=[.,]|$)|\p{L}[¹²³⁴-⁹⁰]|\[\d\d?:\d\d|\((?:laugh\w*|pause|music|applause)\)|&\w+;|<\/?\w+>|\{\{|\*\*|undefined|\bQ:|\bA:|\b[A-Z]{2}: /u
/** Tags that nobody searches for to find such a post. */
const SILLY = new Set(
  'way ways day days time times year years week month second seconds minute hour thing things people person job jobs part parts place end point question answer reason case fact line lot number word words world work life man woman good great new next last first not what how example examples user users list step steps tool tools method function level idea help use today'.split(
    ' ',
  ),
)
/** Words by which one sells, not in any list of the product. */
const SELLS =
  /\b(?:sign up|book now|subscribe|early bird|places left|% off|free trial|buy now|register (?:now|by|here))\b/i

const wordsOf = (text: string): string[] => text.toLowerCase().match(/[\p{L}\p{N}’']+/gu) ?? []
const lettersOf = (text: string): string => text.toLowerCase().replace(/[^\p{L}\p{N}]/gu, '')

/** The faults of one caption, each in a few words. */
export function faultsOf(caption: ReadCaption, source: ReadSource): string[] {
  const found: string[] = []
  const whole = `${source.title}\n${source.text}`
  const said = ownWords(caption.text)
  const limit = LIMITS[caption.network]
  const characters = [...new Intl.Segmenter('en').segment(caption.text)].length
  const links = caption.text.match(/https?:\S+/g) ?? []
  const counted =
    limit?.link === undefined ? characters : characters - links.join('').length + links.length * limit.link
  if (limit && counted > limit.most) found.push(`over the limit by ${counted - limit.most}`)
  if (limit && caption.hashtags.length > limit.tags) found.push('too many tags')
  for (const text of [caption.text, ...caption.parts])
    for (const s of strangeSentences(text, whole)) found.push(`not the piece’s: ${s}`)
  const [first = ''] = said.split('\n')
  if (LEANS_FIRST.test(first)) found.push(`opens by pointing back: ${first.slice(0, 40)}`)
  if (/^\p{Ll}/u.test(said)) found.push('begins in the middle of a sentence')
  const pointer = POINTERS.exec(said)
  if (pointer) found.push(`points elsewhere: ${pointer[0]}`)
  const leftover = LEFTOVERS.exec(said)
  if (leftover) found.push(`a leftover: ${leftover[0]}`)
  if (SELLS.test(said)) found.push(`sells: ${SELLS.exec(said)?.[0]}`)
  const lines = said.split('\n').filter(Boolean)
  if (lines.length > 1 && lines[0]?.endsWith(':') && !/^(?:[–✅-]|\d+\.) /mu.test(caption.text))
    found.push(`a label: ${lines[0]}`)
  const last = said.split(/(?<=[.!?])\s+/).at(-1) ?? ''
  if (last.endsWith('?') && !lettersOf(whole).includes(lettersOf(last)))
    found.push(`a question of ours: ${last}`)
  if (last.endsWith(':')) found.push('ends before what it announces')
  const author = new Set(source.categories.map(lettersOf))
  const spoken = new Set(wordsOf(`${said} ${source.title}`).map(stem))
  for (const tag of caption.hashtags) {
    if (author.has(lettersOf(tag))) continue
    if (SILLY.has(tag.toLowerCase())) found.push(`a silly tag: #${tag}`)
    const parts = tag.split(/(?<=\p{Ll})(?=\p{Lu})/u).map((w) => stem(w.toLowerCase()))
    if (!parts.every((p) => spoken.has(p))) found.push(`a tag that it does not speak of: #${tag}`)
  }
  return found
}

const stem = (word: string): string => (word.length > 3 ? word.replace(/(?:ies|es|s|ing|ed|e|y)$/, '') : word)

/** What is wrong between the captions of one drip: openings and words that come twice, likeness on one network. */
export function faultsBetween(captions: readonly ReadCaption[]): string[] {
  const found: string[] = []
  const opened = new Map<string, string>()
  captions.forEach((a, i) => {
    const key = `${a.title ?? ''} ${wordsOf(ownWords(a.text)).slice(0, 4).join(' ')}`
    if (opened.has(key)) found.push(`${a.account} opens as ${opened.get(key)}: ${key}`)
    opened.set(key, a.account)
    for (const b of captions.slice(i + 1)) {
      if (lettersOf(ownWords(a.text)) === lettersOf(ownWords(b.text)))
        found.push(`${a.account} and ${b.account} say the same: ${a.text.slice(0, 40)}`)
      if (a.network === b.network && alike(a.text, b.text) > 0.3)
        found.push(`two on ${a.network} are alike: ${a.text.slice(0, 40)}`)
    }
  })
  return found
}

/** The share of runs of three words that two texts have in common. */
function alike(a: string, b: string): number {
  const runs = (text: string): Set<string> => {
    const words = wordsOf(ownWords(text))
    return new Set(words.slice(2).map((w, i) => `${words[i]} ${words[i + 1]} ${w}`))
  }
  const [x, y] = [runs(a), runs(b)]
  const shared = [...x].filter((r) => y.has(r)).length
  return shared === 0 ? 0 : shared / (x.size + y.size - shared)
}
