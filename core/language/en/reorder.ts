import { danglingWords } from './alone'
import { hasVerb } from './verbs'
import { readSentences } from './sentences'
import { lowerFirst, upperFirst } from './grammar'

/** Clauses that may stand before or after what they belong to (Quirk and others 1985, § 15.17 ff.). */
const FRONT =
  /^(If|When|Once|Before|After|Until|Unless|Wherever|Whenever) ([^,;:–()“”"?]{6,90}), ([^;:–()“”"?]{4,140})\.$/
const BACK =
  /^([^,;:–()“”"?]{8,140}?) (if|when|once|before|after|until|unless|wherever|whenever) ((?:you|we|I|the|a|an|your|our|my|somebody|anybody|nobody|no one|there) [^,;:–()“”"?]{4,90})\.$/
/** How a clause with a verb of its own begins. */
const SUBJECT = /^(?:you|we|I|the|a|an|your|our|my|somebody|anybody|nobody|no one|there|people)\b/
const POINTS =
  /\b(?:it|its|they|them|their|he|she|him|her|his|this|that|these|those|so|then|there|both|one|ones)\b/i

/**
 * A sentence with its clause of time or condition moved to the other end, or null where grammar
 * does not make that certain: "Take photographs before you carry anything inside." as "Before you
 * carry anything inside, take photographs." No pronoun may be parted from its noun.
 */
export function turned(sentence: string): string | null {
  if (sentence.length > 220) return null
  const front = FRONT.exec(sentence)
  if (front) {
    const [, word = '', clause = '', main = ''] = front
    if (POINTS.test(sentence) || !SUBJECT.test(clause) || main.includes(', ')) return null
    // "Choose if you have two things to say": a main clause so short wants the last place.
    if (/\b(?:if|when|while|before|after|until|once|because)\b/i.test(main) || main.split(' ').length < 3)
      return null
    if (sharesWord(main, clause)) return null
    return whole(`${upperFirst(main)} ${word.toLowerCase()} ${clause}.`)
  }
  const back = BACK.exec(sentence)
  if (!back) return null
  const [, main = '', word = '', clause = ''] = back
  const before = /(\S+)$/.exec(main)?.[1] ?? ''
  // "the day when", "ask when", "not until": no clause of its own.
  if (
    /^(?:day|time|moment|week|year|point|hour|evening|morning|know|ask|see|say|tell|not|only|even|just|soon|long|right|shortly|matter|remember|and|or|but|what|as|than|is|are|was|were)$/i.test(
      before,
    )
  )
    return null
  if (POINTS.test(sentence) || / (?:and|but|or) .* (?:if|when|before|after|until) /.test(sentence))
    return null
  if (
    /\b(?:and|but|or)\b/.test(clause) ||
    /^(?:if|when|before|after|until|unless|once|because|although|while|as|who|what|how|why|where)\b/i.test(
      main,
    )
  )
    return null
  if (sharesWord(main, clause)) return null
  const opens = lowerFirst(main)
  // A capital that may be a name's is not moved into a sentence.
  return opens === main && !/^I\b/.test(main) ? null : whole(`${upperFirst(word)} ${clause}, ${opens}.`)
}

/** Whether a thing is named in both halves: then the second leans on the first, and they keep their order. */
function sharesWord(one: string, other: string): boolean {
  const words = (text: string): string[] => text.toLowerCase().match(/\p{L}{5,}/gu) ?? []
  const first = new Set(words(one))
  return words(other).some((w) => first.has(w))
}

function whole(sentence: string): string | null {
  const [read, more] = readSentences(sentence)
  if (!read || more) return null
  return hasVerb(read.tokens) && danglingWords(read.tokens, sentence) === null ? sentence : null
}

/** Connectives that only join a sentence to the one before it; what follows them is a sentence too. */
const JOINS =
  /^(?:But|And|So|Yet|However,|Still,|Moreover,|Furthermore,|In fact,|Of course,|Indeed,|Therefore,|Thus,|Besides,|In other words,|After all,|Also,) (?=[\p{L}“])/u

/** A sentence without the connective that it opens with, or null where it has none or does not stand without it. */
export function unjoined(sentence: string): string | null {
  const joint = JOINS.exec(sentence)
  if (!joint) return null
  const rest = sentence.slice(joint[0].length)
  // "So long as", "So do the others": no connective.
  if (/^(?:long|far|much|many|do|does|did|is|are|that|too|what|if|why|how|be|it)\b/i.test(rest)) return null
  return whole(upperFirst(rest))
}
