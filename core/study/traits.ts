import { isNoun, isPlural, isVerb, rarity, type Token } from '../language'
import type { Profile } from './profile'

/** The share of some lemmas that others hold. */
export function overlap(a: readonly string[], b: readonly string[] | ReadonlySet<string>): number {
  if (a.length === 0) return 0
  const held = 'has' in b ? (x: string) => b.has(x) : (x: string) => b.includes(x)
  return a.filter(held).length / a.length
}

/** Words of content that a sentence says twice, and forms of parallel: "the more …, the more …". */
export function repeated(p: Profile): number {
  return p.s.lemmas.length - new Set(p.s.lemmas).size
}

/** How like the two halves of a sentence are in their parts of speech: the Jaccard index of their bigrams. */
export function parallel(p: Profile): number {
  const at = p.tokens.findIndex(
    (t, i) =>
      i > 2 &&
      i < p.tokens.length - 3 &&
      (/^[,;:–—.]$/.test(t.text) || t.lower === 'and' || t.lower === 'but'),
  )
  if (at < 0) return 0
  const grams = (list: readonly Token[]): Set<string> =>
    new Set(list.slice(1).map((t, i) => `${list[i]?.pos}${t.pos}`))
  const a = grams(p.tokens.slice(0, at).filter((t) => t.word))
  const b = grams(p.tokens.slice(at + 1).filter((t) => t.word))
  let shared = 0
  for (const x of a) if (b.has(x)) shared++
  return shared / Math.max(1, a.size + b.size - shared)
}

/** A subject that stands for all of its kind, "a modern wall", "old walls", "nobody", with a verb of the present. */
export function generic(p: Profile): boolean {
  const [first, second] = p.words
  if (!first || p.past) return false
  if (/^(?:a|an|every|any|no|most|nobody|everybody|everyone|people|all|each)$/.test(first.lower)) return true
  const noun = [first, second, p.words[2]].find((t) => t !== undefined && isNoun(t))
  const before = p.words.slice(0, noun ? p.words.indexOf(noun) : 0)
  return (
    noun !== undefined &&
    noun.pos === 'NOUN' &&
    before.every((t) => t.pos === 'ADJ' || t.pos === 'NOUN') &&
    (isPlural(noun) || before.length > 0 || isVerb(p.words[1] ?? noun))
  )
}

/** "More", "better", "further" with no "than" that says than what. */
export function halfCompared(p: Profile): boolean {
  return (
    /\b(?:better|worse|cheaper|faster|slower|easier|harder|bigger|smaller|stronger|longer|shorter|higher|lower|earlier|later|further|\w{3,}ier)\b/i.test(
      p.s.text,
    ) && !/\bthan\b/i.test(p.s.text)
  )
}

/** Numbers that no thing stands behind, other than years. */
export function bareNumbers(p: Profile): number {
  return p.words.filter(
    (t, i) =>
      t.pos === 'NUM' &&
      !/^(?:NOUN|PROPN|ADJ|NUM)$/.test(p.words[i + 1]?.pos ?? '') &&
      !/^(?:19|20)\d\d$/.test(t.text),
  ).length
}

/** Things that stand with "a" or with nothing, not with a word that points at them. */
export function indefinite(p: Profile): number {
  return p.words.filter((t, i) => {
    if (t.pos !== 'NOUN') return false
    let j = i - 1
    while (j >= 0 && /^(?:ADJ|NOUN|ADV|NUM)$/.test(p.words[j]?.pos ?? '')) j--
    return j < 0 || !/^(?:the|this|that|these|those|its|their|his|her|our|my)$/.test(p.words[j]?.lower ?? '')
  }).length
}

/** Words with a capital inside the sentence that everyday English does not know. */
export function unknownCapitals(p: Profile): number {
  return p.words.filter(
    (t, i) => i > 0 && (p.rareness[i] ?? 0) > 13.5 && t.text.length > 1 && /^\p{Lu}/u.test(t.text),
  ).length
}

/** Names of one word that no other name stands beside. */
export function firstNames(p: Profile): number {
  return p.words.filter(
    (t, i) =>
      t.pos === 'PROPN' &&
      /^\p{Lu}\p{Ll}/u.test(t.text) &&
      p.words[i - 1]?.pos !== 'PROPN' &&
      p.words[i + 1]?.pos !== 'PROPN',
  ).length
}

/** How many words of a sentence are among those that the piece says often and everyday English seldom. */
export function topical(p: Profile): number {
  return p.s.lemmas.filter((l) => (p.study.lemmas.get(l)?.count ?? 0) >= 3 && rarity(l) > 10).length
}

/** Whether a word of the title, or a noun that the piece says often, stands before the verb. */
export function namesSubject(p: Profile): boolean {
  const verb = p.words.findIndex(isVerb)
  return p.words
    .slice(0, verb < 0 ? p.n : verb)
    .some(
      (t) =>
        p.study.titleLemmas.has(t.lemma) || ((p.study.lemmas.get(t.lemma)?.count ?? 0) >= 4 && isNoun(t)),
    )
}

/** How many sentences ago the first noun was last named; 40 where it never was. */
export function sinceNamed(p: Profile, all: readonly Profile[]): number {
  const noun = p.nouns[0]
  if (!noun || (p.study.lemmas.get(noun.lemma)?.first ?? Infinity) >= p.s.index) return 40
  for (let k = 1; k < 40; k++) if (all[p.s.index - k]?.s.lemmas.includes(noun.lemma)) return k
  return 40
}
