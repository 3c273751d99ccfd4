import { isImperative } from './verbs'
import { readSentences } from './sentences'

/*
 * Small, certain pieces of English word formation (after Huddleston and Pullum, The Cambridge
 * Grammar of the English Language, 2002, chapter 18). What is not certain is not formed.
 */

const DOUBLED_LATE = new Set(
  'admit begin commit control equip forget occur permit prefer refer regret submit transfer'.split(' '),
)

/** The -ing form of a verb's base: "make" making, "cut" cutting, "tie" tying, "see" seeing. */
export function gerund(base: string): string {
  if (/ie$/.test(base)) return `${base.slice(0, -2)}ying`
  if (/(?:ee|oe|ye)$/.test(base) || base === 'be') return `${base}ing`
  if (/e$/.test(base)) return `${base.slice(0, -1)}ing`
  return doubles(base) ? `${base}${base.slice(-1)}ing` : `${base}ing`
}

/** Whether the last letter is doubled before an ending: one short vowel and one consonant, stressed. */
function doubles(base: string): boolean {
  if (DOUBLED_LATE.has(base)) return true
  return /^[^aeiou]*(?:qu)?[aeiou][^aeiouwxy]$/.test(base)
}

/** "a" or "an" before a word, by its sound: "an hour", "a unit", "an X-ray". */
export function indefinite(word: string): 'a' | 'an' {
  const lower = word.toLowerCase()
  if (/^(?:hour|honest|honou?r|heir)/.test(lower)) return 'an'
  if (/^(?:uni(?!n|m)|use|usu|eu|ewe|one\b|once|ut[ei]|u[bkr][aeiou])/.test(lower)) return 'a'
  if (/^(?:8|11(?!\d)|18(?!\d))/.test(lower)) return 'an'
  if (/^[FHLMNRSX](?:[A-Z]|-|$)/.test(word)) return 'an'
  return /^[aeiou]/.test(lower) ? 'an' : 'a'
}

/** The plural of a regular noun: "box" boxes, "story" stories, "thread" threads. */
export function plural(noun: string): string {
  if (/(?:s|x|z|ch|sh)$/.test(noun)) return `${noun}es`
  if (/[^aeiou]y$/.test(noun)) return `${noun.slice(0, -1)}ies`
  return `${noun}s`
}

/** A text with a capital at its beginning. */
export function upperFirst(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1)
}

/** A text as it stands inside a sentence: in lower case at its beginning, unless a name or "I" stands there. */
export function lowerFirst(text: string): string {
  const tokens = readSentences(text)[0]?.tokens ?? []
  const [first] = tokens
  if (!first || first.text === 'I' || first.text.startsWith('I’') || /^\p{Lu}{2}/u.test(text)) return text
  const named = first.pos === 'PROPN' && !isImperative(tokens)
  return named ? text : text.charAt(0).toLowerCase() + text.slice(1)
}

/** A word with the capitals of another: "Article" for "thread" gives "Thread". */
export function cased(word: string, like: string): string {
  if (/^\p{Lu}{2,}$/u.test(like)) return word.toUpperCase()
  return /^\p{Lu}/u.test(like) ? upperFirst(word) : word
}

const IRREGULAR: Readonly<Record<string, string>> = {
  be: 'was',
  become: 'became',
  begin: 'began',
  bring: 'brought',
  build: 'built',
  buy: 'bought',
  catch: 'caught',
  choose: 'chose',
  come: 'came',
  cut: 'cut',
  do: 'did',
  draw: 'drew',
  drive: 'drove',
  eat: 'ate',
  fall: 'fell',
  feel: 'felt',
  find: 'found',
  get: 'got',
  give: 'gave',
  go: 'went',
  have: 'had',
  hear: 'heard',
  hold: 'held',
  keep: 'kept',
  know: 'knew',
  lay: 'laid',
  leave: 'left',
  let: 'let',
  lose: 'lost',
  make: 'made',
  mean: 'meant',
  pay: 'paid',
  put: 'put',
  read: 'read',
  run: 'ran',
  say: 'said',
  see: 'saw',
  sell: 'sold',
  send: 'sent',
  set: 'set',
  show: 'showed',
  speak: 'spoke',
  spend: 'spent',
  stand: 'stood',
  take: 'took',
  teach: 'taught',
  tell: 'told',
  think: 'thought',
  win: 'won',
  write: 'wrote',
}

const PARTICIPLES =
  'been:be become:become begun:begin broken:break chosen:choose come:come done:do drawn:draw driven:drive eaten:eat fallen:fall given:give gone:go grown:grow hidden:hide known:know seen:see shown:show spoken:speak taken:take thrown:throw torn:tear worn:wear written:write were:be broke:break grew:grow sang:sing sung:sing swam:swim swum:swim tore:tear wore:wear drank:drink drunk:drink flew:fly flown:fly froze:freeze frozen:freeze rode:ride ridden:ride rose:rise risen:rise sank:sink sunk:sink slept:sleep sat:sit shot:shoot struck:strike swept:sweep threw:throw woke:wake woken:wake fed:feed led:lead lent:lend met:meet bent:bend dug:dig hung:hang shook:shake shaken:shake'

const BASES: ReadonlyMap<string, string> = new Map([
  ...Object.entries(IRREGULAR).map(([base, done]) => [done, base] as const),
  ...PARTICIPLES.split(' ').map((pair) => pair.split(':') as [string, string]),
])

/** The base of an irregular past form or participle, or the word itself. */
export function baseOf(word: string): string {
  return BASES.get(word) ?? word
}

/** The past form of a verb's base. */
export function past(base: string): string {
  const known = IRREGULAR[base]
  if (known) return known
  if (/e$/.test(base)) return `${base}d`
  if (/[^aeiou]y$/.test(base)) return `${base.slice(0, -1)}ied`
  return doubles(base) ? `${base}${base.slice(-1)}ed` : `${base}ed`
}
