import type { Token } from '../sentences'
import { isNoun, isVerb, TIMES } from '../verbs'
import { CONNECTIVES, THIRD_PERSON } from '../words'
import { ends, phrase, type Looked, type Rule } from './rule'

/** "This year", "this Monday": it points at the day of writing, not at words before; it ages instead. */
export function isNow(token: Token, next: Token | undefined): boolean {
  return (
    token.lower === 'this' &&
    next !== undefined &&
    TIMES.has(next.lemma) &&
    !/^(?:second|minute|hour|day|time|moment|first)$/.test(next.lemma)
  )
}

/** A rule that looks at the first words of a sentence. */
function opener(
  name: string,
  kind: Rule['kind'],
  finds: (first: Token, second: Token | undefined, third: Token | undefined, s: Looked) => string | null,
  examples: Rule['examples'],
  counter: readonly string[],
): Rule {
  return {
    name,
    kind,
    opening: true,
    finds: (s) => (s.words[0] ? finds(s.words[0], s.words[1], s.words[2], s) : 'nothing'),
    examples,
    counter,
  }
}

const POINTER = /^(?:this|that|these|those|such|ours|theirs|mine|another|neither|either|both|there)$/
const COUNT =
  /^(?:one|two|three|four|five|six|seven|eight|nine|ten|most|some|many|few|all|none|each|half|several)$/

/** How a sentence that opens may lean by its first words. */
export const OPENINGS: readonly Rule[] = [
  opener(
    'a word that joins',
    'joins',
    (first) => (CONNECTIVES.has(first.lower) ? first.text : null),
    [
      ['However, nobody writes it down.', 'However'],
      ['So we did not float her.', 'So'],
      ['But the seam was open.', 'But'],
    ],
    ['Boats do not wear out in summer.', 'Nobody writes down the date.'],
  ),
  phrase(
    'a phrase that joins',
    'joins',
    /^(?:(?:for|as) (?:an(?:other)? )?(?:example|instance)|another example|in (?:other words|fact|short|the end|addition|contrast|this (?:case|mode|way))|that is|that said|as a result|by contrast|on the (?:other hand|flip side|contrary)|of course|after all|at the same time|all the same|even so|if so|if not|to be fair|by the way|in that case|worse|better still|what is more|what’s more|besides|indeed|undeterred|undaunted|sure enough|in reality|in any case|in turn|conversely|as such|to that end)(?:[,:]|\b(?= (?:a|the|we|you|it|they)\b))/i,
    [
      ['For example, a wet board swells.', 'For example,'],
      ['In fact, a city in June suits bees.', 'In fact,'],
      ['After all, a roof is only a hat.', 'After all,'],
      ['Indeed, there is no point in one lock.', 'Indeed,'],
      ['On the flip side, do not sand it too soon.', 'On the flip side,'],
      ['As another example, take a wet board.', 'As another example,'],
    ],
    ['In the end grain the varnish sinks.', 'Worse boats than ours have crossed.'],
  ),
  phrase(
    'an aside in brackets',
    'joins',
    /^(?=\([^)]*\)["”’]?[.!?]?$)\(\S+(?: \S+){0,2}/,
    [['(The oars were ash, by the way.)', '(The oars were']],
    ['(Dry) oak is white (or grey).', 'Oak is white (or grey).'],
  ),
  opener(
    'an answer',
    'joins',
    (_first, _second, _third, s) => /^(?:yes|no|yeah|yep|nope)[.,;:–!]/i.exec(s.text)?.[0] ?? null,
    [['No. Age has little to do with it.', 'No.']],
    ['No choir sings well at nine in the morning.'],
  ),
  opener(
    'points at what was said',
    'points',
    (first, second) => {
      if (!POINTER.test(first.lower) || isNow(first, second)) return null
      const existential =
        first.lower === 'there' && second !== undefined && /^(?:is|are|was|were|’s|'s)$/.test(second.lower)
      const whole = /^(?:both|neither|either)$/.test(first.lower) && second !== undefined && isNoun(second)
      return existential || whole ? null : first.text
    },
    [
      ['This third is for the putty.', 'This'],
      ['There we stopped for lunch.', 'There'],
    ],
    [
      'There is a moment when the talking stops.',
      'This year the yard got a new slip.',
      'Both hands hold the plane.',
    ],
  ),
  opener(
    '“the” with its noun left out',
    'left out',
    (first, second, third) => {
      if (first.lower !== 'the' || !second) return null
      const noun = third !== undefined && isNoun(third)
      const elliptical =
        second.lower === 'same' ||
        /^ones?$/.test(third?.lower ?? '') ||
        (/^(?:others?|rest|latter|former)$/.test(second.lower) && !noun && third?.lower !== 'of') ||
        (/^(?:second|third|last|next|first|answer|result|difference|alternative|trick|reason|problem|exception)$/.test(
          second.lower,
        ) &&
          !(noun || third?.pos === 'NUM' || third?.lower === 'of')) ||
        ((second.pos === 'ADJ' || second.pos === 'NUM') && third !== undefined && isVerb(third))
      return elliptical ? `${first.text} ${second.text}` : null
    },
    [
      ['The other eighty-one go elsewhere.', 'The other'],
      ['The last one is the one people leave out.', 'The last'],
      ['The same holds for oak.', 'The same'],
    ],
    ['The first frost splits the pots.', 'The rest of the crew slept ashore.'],
  ),
  opener(
    'a count without its things',
    'left out',
    (first, second, third) => {
      if (!second || !COUNT.test(first.lower)) return null
      const ofPronoun = second.lower === 'of' && third !== undefined && THIRD_PERSON.has(third.lower)
      const bare = isVerb(second) && !/^(?:most|all)$/.test(first.lower)
      return ofPronoun || bare ? first.text : null
    },
    [
      ['Three were broken by frost.', 'Three'],
      ['Most of them guess.', 'Most'],
    ],
    ['Most people guess.', 'All is well that ends dry.', 'Two planks were cracked.'],
  ),
  opener(
    'more than what',
    'left out',
    (first, second) =>
      second && /^(?:more|less|fewer|enough)$/.test(first.lower) && isVerb(second) ? first.text : null,
    [['More is not better.', 'More']],
    ['More rain fell on the west than on the east.'],
  ),
  opener(
    'none of what',
    'left out',
    (first, second) => (first.lower === 'none' && second?.lower !== 'of' ? first.text : null),
    [['None at all, for a week, is what should worry you.', 'None']],
    ['None of the planks was dry.'],
  ),
  phrase(
    'a label of a list or a form',
    'joins',
    /^(?:result|results|pros?|cons?|verdict|answer|example|solution|outcome|reason|cause|step \w+|tip \w+|conclusion|and yet|but why|why):/i,
    [['Result: two sopranos and a man with a piano.', 'Result:']],
    ['A good test: would a camera see it?'],
  ),
  {
    name: 'a pronoun after a fronted phrase',
    kind: 'pronoun',
    opening: true,
    finds: ({ tokens }) => {
      const at = tokens.findIndex((t) => /^(?:it|they|he|she)$/.test(t.lower))
      const before = tokens.slice(0, at)
      const next = tokens[at + 1]
      return at > 0 &&
        before[0]?.pos === 'ADP' &&
        before.length <= 7 &&
        !before.some(isVerb) &&
        next !== undefined &&
        isVerb(next) &&
        !ends(next)
        ? (tokens[at]?.text ?? null)
        : null
    },
    examples: [
      ['At a shout it stays by itself.', 'it'],
      ['In June it fell by nothing that our meter could show.', 'it'],
    ],
    counter: ['After rain falls it dries.', 'Water freezes where it stands.'],
  },
]
