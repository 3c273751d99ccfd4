import type { Token } from '../sentences'
import { isImperative, isNoun, isPlural, isVerb } from '../verbs'
import { PLURAL_PRONOUNS, THIRD_PERSON } from '../words'
import { isNow } from './openings'
import { ends, type Rule } from './rule'

/** Verbs that a clause with "that" may follow: "he said that water floats". */
const CLAUSAL = new Set(
  'say know think believe mean show tell find hope learn see hear feel notice remember forget understand prove claim note decide suppose guess suggest insist swear agree explain teach discover realise realize expect ensure check warn promise admit wish argue assume imagine conclude reckon report require ask demand be'.split(
    ' ',
  ),
)

/** Two things named together, "a saw and a plane", which "them" may mean; not two things of two clauses. */
function coordinated(tokens: readonly Token[]): boolean {
  return tokens.some(
    (t, i) =>
      /^(?:and|or|nor)$/.test(t.lower) &&
      tokens.slice(Math.max(0, i - 3), i).some(isNoun) &&
      tokens.slice(i + 1, i + 5).some(isNoun) &&
      !tokens.slice(i + 1, i + 3).some((n) => isVerb(n) || n.pos === 'PRON'),
  )
}

/** "It is raining", "it takes an hour to…", "it is rain that…": a subject that points at nothing. */
function isExpletive(tokens: readonly Token[], index: number): boolean {
  if (tokens[index]?.lower !== 'it') return false
  const rest = tokens.slice(index + 1, index + 9).map((t) => t.lower)
  if (/^(?:rain|rains|rained|snow|snows|snowed)$/.test(rest[0] ?? '')) return true
  if (/^(?:what|how|who|where)$/.test(tokens[index - 1]?.lower ?? '') && /^(?:is|was)$/.test(rest[0] ?? ''))
    return true
  if (/^(?:takes?|took)$/.test(rest[0] ?? '')) return rest.includes('to')
  if (rest[0] !== 'is' && rest[0] !== 'was') return false
  return (
    (!/^an?$/.test(rest[1] ?? '') && rest.slice(1).includes('that')) ||
    (tokens[index + 2]?.pos === 'ADJ' && rest[2] === 'to' && tokens[index + 4]?.pos === 'VERB')
  )
}

/** "Tape the heel before it hurts": a word that is taken for a preposition begins a clause, whose subject the pronoun is. */
function beginsClause(word: Token, afterPronoun: Token | undefined): boolean {
  return (
    /^(?:before|after|until|till|since)$/.test(word.lower) &&
    afterPronoun !== undefined &&
    (isVerb(afterPronoun) || afterPronoun.pos === 'AUX' || /[^s]s$/.test(afterPronoun.lower))
  )
}

/** The first token of a sentence that a test finds, as its words, or null. */
const first = (tokens: readonly Token[], test: (t: Token, i: number) => boolean): string | null =>
  tokens.find(test)?.text ?? null

/**
 * Pronouns without a noun of their number before them, and things that must have been named: a stand-in
 * for coreference resolution on parts of speech.
 */
export const REFERENCE: readonly Rule[] = [
  {
    name: '“that” for what was said',
    kind: 'points',
    opening: true,
    finds: ({ tokens }) => {
      for (let i = 1; i < tokens.length; i++) {
        if (tokens[i]?.lower !== 'that') continue
        const before = tokens[i - 1] as Token
        const next = tokens[i + 1]
        // "On Saturday that means you can drive in": never "the sign that means danger", which has its noun first.
        if (next?.lower === 'means' && tokens[0]?.pos === 'ADP' && isNoun(before))
          return `${before.text} that`
        const rest = tokens.slice(i + 1)
        const mark = rest.findIndex((t) => t.pos === 'PUNCT')
        const clause = rest.slice(0, Math.max(0, mark))
        const relative = rest.findIndex((t) => /^(?:who|which|that|whose)$/.test(t.lower))
        const main = rest.slice(1, relative < 0 ? undefined : relative).some(isVerb)
        const verbNext = next !== undefined && isVerb(next)
        const alone =
          (tokens[0]?.pos === 'ADP' && isNoun(before) && verbNext && !main) ||
          (/^(?:what|how|why|where|when|if|because)$/.test(before.lower) && verbNext) ||
          (before.pos === 'ADP' && i === 1 && /^(?:you|we|i|he|she|they|it)$/.test(next?.lower ?? '')) ||
          (before.pos === 'ADP' && (ends(next) || verbNext)) ||
          (isVerb(before) && (ends(next) || (next?.pos === 'ADP' && !clause.some(isVerb)))) ||
          (/^(?:do|does|did|done|doing)$/.test(before.lower) &&
            (next === undefined || /^(?:ADP|CCONJ|SCONJ)$/.test(next.pos))) ||
          (isNoun(before) && isPlural(before) && verbNext && /[^s]s$/.test(next.lower))
        if (alone) return `${before.text} that`
      }
      return null
    },
    examples: [
      ['Without that, a restaurant bill is a private dinner.', 'Without that'],
      ['On Saturday that means you can drive in until three.', 'Saturday that'],
      ['I did that in my first winter and I lost both colonies.', 'did that'],
      ['We cannot prove that with a graph.', 'prove that'],
      ['On most spring days that gives us from eleven until two.', 'days that'],
      ['We keep a photograph on the wall of what that looks like.', 'what that'],
      ['For that you get a window the size of a plate.', 'For that'],
    ],
    counter: [
      'Half a plank that means nothing to you is a shelf to your neighbour.',
      'We know that with age comes patience.',
      'Everyone said that water floats.',
    ],
  },
  {
    name: '“there” for a place that was named',
    kind: 'points',
    opening: true,
    finds: ({ tokens }) => {
      const at = tokens.findIndex((t, i) => t.lower === 'there' && i > 0 && tokens[i - 1]?.pos === 'NOUN')
      const next = tokens[at + 1]
      return at > 0 &&
        next !== undefined &&
        next.pos !== 'PUNCT' &&
        !/^(?:is|are|was|were|will|’s|'s)$/.test(next.lower)
        ? 'there'
        : null
    },
    examples: [['A pound there feels like five.', 'there']],
    counter: ['In winter there is nothing to see.'],
  },
  {
    name: 'a pronoun beside its only noun',
    kind: 'pronoun',
    opening: true,
    // "Lay a round in it": the only noun is the object that the pronoun stands beside and so cannot mean.
    finds: ({ tokens }) => {
      const at = tokens.findIndex((t) => /^(?:it|them)$/.test(t.lower))
      const pronoun = tokens[at]
      const before = tokens[at - 1]
      if (pronoun === undefined || at < 2 || before?.pos !== 'ADP' || beginsClause(before, tokens[at + 1]))
        return null
      const clause = tokens.slice(0, at - 1)
      // "Snow lies on it": what stands in the same clause as its subject is another thing.
      const plainClause = clause.every((t) => /^(?:DET|ADJ|NOUN|PROPN|VERB|AUX|ADV)$/.test(t.pos))
      if (at <= 8 && clause.filter(isNoun).length === 1 && clause.some(isVerb) && plainClause)
        return pronoun.text
      const counted = before.lower === 'of' && tokens[at - 2]?.pos === 'NUM'
      if (counted && !tokens.slice(0, at - 2).some((t) => isNoun(t) && isPlural(t))) return pronoun.text
      const order = isImperative(tokens)
      if (at > 8 || (!order && !/^(?:i|we|you)$/.test(tokens[0]?.lower ?? ''))) return null
      const between = tokens.slice(1, at - 1)
      const verbs = between.filter(isVerb).length
      const plain = between.every((t) => /^(?:DET|ADJ|NOUN|NUM|PROPN|VERB|AUX|ADV|PART)$/.test(t.pos))
      return plain && between.filter(isNoun).length === 1 && (order ? verbs === 0 : verbs > 0)
        ? pronoun.text
        : null
    },
    examples: [
      ['Lay a round in it and leave it alone for ninety seconds.', 'it'],
      ['We stopped writing separate labels for them.', 'them'],
      ['Snow lies on it and makes the lid thicker.', 'it'],
      ['We timed four hundred of them with a stopwatch.', 'them'],
    ],
    counter: [
      'Buy a saw and a plane, and never part with them.',
      'Tape the heel before it hurts.',
      'Salt the water before it boils.',
      'Cover the dough until it doubles.',
    ],
  },
  {
    name: '“they” with no things or people before',
    kind: 'pronoun',
    opening: false,
    finds: ({ tokens, before, named }) =>
      first(tokens, (t, i) => {
        if (!PLURAL_PRONOUNS.has(t.lower)) return false
        const { plural, people } = named(i)
        return !plural && !people && !coordinated([...before, ...tokens.slice(0, i)])
      }),
    examples: [
      ['They leak at every corner.', 'They'],
      ['A free boat without them is in debt on the day you meet.', 'them'],
      ['Warm air goes up, it meets the cold lid, and it rains on them.', 'them'],
    ],
    counter: [
      'Nobody has ever come into a hut and said they wished they had turned back later.',
      'Buy a saw and a plane, and never lend them.',
    ],
  },
  {
    name: '“he” or “she” with nobody before',
    kind: 'pronoun',
    opening: false,
    finds: ({ tokens, named }) =>
      first(
        tokens,
        (t, i) =>
          /^(?:he|she|him|his|her|hers|himself|herself)$/.test(t.lower) &&
          !named(i).people &&
          !(named(i).boats && /^(?:she|hers?|herself)$/.test(t.lower)),
      ),
    examples: [
      ['Her boat is called Segunda.', 'Her'],
      ['The idea was hers.', 'hers'],
    ],
    counter: [
      'A student brought her own plane.',
      'Anna sold her boat.',
      'A boat is known by her planks.',
      'A retired anaesthetist kept at it for two years, and he could not order lunch.',
    ],
  },
  {
    name: '“it” with no thing before',
    kind: 'pronoun',
    opening: false,
    finds: ({ tokens, named }) =>
      first(
        tokens,
        (t, i) =>
          THIRD_PERSON.has(t.lower) &&
          /^(?:it|its|itself)$/.test(t.lower) &&
          !isExpletive(tokens, i) &&
          !named(i).singular,
      ),
    examples: [
      ['It leaks at every corner.', 'It'],
      ['Iron nails rot in it, and stain the plank.', 'it'],
      ['Do not bend it in jerks.', 'it'],
      ['Nobody wrote down that it had been turned off.', 'it'],
    ],
    counter: [
      'It is rain that kills boats.',
      'What does it take to catch the evening light?',
      'A plank at ten per cent will swell, and it will crush its neighbour.',
      'Buy one good flat brush and never let it dry.',
    ],
  },
  {
    name: '“this” and a thing that was not named',
    kind: 'points',
    opening: true,
    finds: ({ tokens, named }) => {
      for (const [i, token] of tokens.entries()) {
        const next = tokens[i + 1]
        if (!/^(?:this|these|those)$/.test(token.lower) || isNow(token, next)) continue
        const noun = next !== undefined && isNoun(next)
        const relative = token.lower === 'those' && /^(?:who|that|which|of|in|with)$/.test(next?.lower ?? '')
        if ((noun && named(i).has(next.lemma)) || relative) continue
        return noun ? `${token.text} ${next.text}` : token.text
      }
      return null
    },
    examples: [['You will need these boards in the spring.', 'these boards']],
    counter: ['Those who wait lose the tide.', 'We fired the kiln twice this week.'],
  },
  {
    name: '“that” and a thing that was not named',
    kind: 'points',
    opening: true,
    finds: ({ tokens, named }) => {
      for (const [i, token] of tokens.entries()) {
        const next = tokens[i + 1]
        if (token.lower !== 'that' || next === undefined || !isNoun(next) || isPlural(next)) continue
        const previous = tokens[i - 1]
        const demonstrative =
          previous === undefined ||
          previous.pos === 'ADP' ||
          previous.pos === 'PUNCT' ||
          (previous.pos === 'VERB' && !CLAUSAL.has(previous.lemma))
        if (demonstrative && !named(i).has(next.lemma)) return `${token.text} ${next.text}`
      }
      return null
    },
    examples: [
      ['Nobody reads that sentence without looking at the foot.', 'that sentence'],
      ['Ten minutes of exercises, three times a week, halve that risk.', 'that risk'],
    ],
    counter: ['Everyone said that water floats.'],
  },
]
