import { isImperative, isVerb } from '../verbs'
import { ends, type Rule } from './rule'

const AUXILIARY = /^(?:is|are|was|were|do|does|did|have|has|had|can|could|will|would|should)$/

/** Verbs and nouns that were left out because the sentence before had them. */
export const CUT: readonly Rule[] = [
  {
    name: 'a verb left out',
    kind: 'left out',
    opening: true,
    finds: ({ tokens }) => {
      for (let i = 1; i < tokens.length; i++) {
        const token = tokens[i]
        const after = tokens[i + 1]
        if (!token) break
        if (token.lower === 'that' && /^(?:do|does|did|is|are)$/.test(after?.lower ?? '')) continue
        if (
          token.pos === 'VERB' ||
          /^(?:what|how|who|where|which|that|than|as|when|whatever)$/.test(token.lower)
        )
          return null
        if (!AUXILIARY.test(token.lower)) continue
        const negated = /^n?o?[’']?t$/.test(after?.lower ?? '') || after?.lower === 'not'
        // "A dog that does not has to stay on a lead": the verb is in the sentence before.
        if (negated && /^(?:has|is|was|must|will|can)$/.test(tokens[i + 2]?.lower ?? ''))
          return `${token.text} ${after?.text ?? ''}`
        if (ends(tokens[negated ? i + 2 : i + 1])) return `${tokens[i - 1]?.text ?? ''} ${token.text}`.trim()
      }
      return null
    },
    examples: [
      ['Water does not, and you can see at once where it beads.', 'Water does'],
      ['Slow checkouts are.', 'checkouts are'],
      ['A manual is, whatever it costs.', 'manual is'],
      ['A dog that does not has to stay on a lead for fifteen years.', 'does not'],
    ],
    counter: ['A torn shoot does not come back, and a cut one does.', 'Nobody knows what it is.'],
  },
  {
    name: 'ends on an auxiliary',
    kind: 'left out',
    opening: true,
    finds: ({ words, text }) => {
      const last = words[words.length - 1]
      const tail = words.slice(-6, -1)
      const whole =
        words.length <= 3 ||
        /, (?:and|but|or) /.test(text) ||
        tail.some((t) => /^(?:what|who|how|where|as|than|that|which|when|why|whatever|if)$/.test(t.lower))
      return last && !whole && AUXILIARY.test(last.lower) ? last.text : null
    },
    examples: [['Ice that slides into the sea from the land does.', 'does']],
    counter: ['Age is not a disease, but a rotten tooth is.', 'Nobody knows who they are.'],
  },
  {
    name: 'each one of what',
    kind: 'left out',
    opening: true,
    finds: ({ text }) => {
      const found = /\b(?:each|every) one\b(?! of)/i.exec(text)
      return found && !/[a-z]{3,}s\b/i.test(text.slice(0, found.index)) ? found[0] : null
    },
    examples: [['In ice each one holds hands with four others.', 'each one']],
    counter: ['We counted the planks, and each one was sound.'],
  },
  {
    name: 'a count of what',
    kind: 'left out',
    opening: true,
    // "Put two on a card": two of what?
    finds: ({ tokens }) =>
      isImperative(tokens) &&
      tokens[1]?.pos === 'NUM' &&
      /^(?:ADP|PUNCT)$/.test(tokens[2]?.pos ?? '') &&
      tokens[2]?.lower !== 'of' &&
      !/^\d/.test(tokens[1].text)
        ? tokens[1].text
        : null,
    examples: [['Put two on a card by the toothbrush.', 'two']],
    counter: ['Put two clamps on the plank.'],
  },
  {
    name: 'a number without its unit',
    kind: 'left out',
    opening: true,
    finds: ({ text, words }) => {
      const match = /(?<![\d.:]) (\d+(?:\.\d+)?)(?:[.!]?$| (?:as|and|or|than|in)\b)/.exec(text)
      const found = match?.[1]
      // "2.6 posts a month, where the others had 11.4": counted of the same.
      if (match && /\d \p{Ll}{3,}s\b/u.test(text.slice(0, match.index))) return null
      return words.length > 2 && found && !/^(?:19|20)\d\d$/.test(found) ? found : null
    },
    examples: [
      ['Larch weighs about 590.', '590'],
      ['You can multiply by 2.4 as well as we can.', '2.4'],
    ],
    counter: [
      'The slip was built in 1954.',
      'Set the oven to 220 °C and wait.',
      'The best wrote 2.6 posts a month and the rest wrote 11.4.',
    ],
  },
  {
    name: 'how many a day of what',
    kind: 'left out',
    opening: true,
    finds: ({ tokens, named }) => {
      const at = tokens.findIndex(
        (t, i) =>
          t.pos === 'NUM' &&
          /^an?$/.test(tokens[i + 1]?.lower ?? '') &&
          /^(?:second|minute|hour|day|night|week|month|year)$/.test(tokens[i + 2]?.lemma ?? '') &&
          !named(i).plural,
      )
      return tokens[at]?.text ?? null
    },
    examples: [['You will see twenty a day in a thaw.', 'twenty']],
    counter: ['Boats arrive at twenty a day.'],
  },
  {
    name: 'a pronoun for things that were counted',
    kind: 'pronoun',
    opening: false,
    // "Read both, …", "if you pick one out".
    finds: ({ tokens, named }) => {
      const at = tokens.findIndex((token, i) => {
        const next = tokens[i + 1]
        const before = tokens[i - 1]
        if (token.lower === 'both') return ends(next) && !named(i).plural
        return (
          token.lower === 'one' &&
          before !== undefined &&
          isVerb(before) &&
          (ends(next) ||
            next?.pos === 'ADP' ||
            /^(?:out|up|down|off|away|in|on|back|over)$/.test(next?.lower ?? '')) &&
          !named(i).singular
        )
      })
      return tokens[at]?.text ?? null
    },
    examples: [
      ['Read both, look up the dew point, and then lay your palm on the wood.', 'both'],
      ['If you pick one out you leave a crater.', 'one'],
    ],
    counter: ['Buy a brush before you need one.', 'Read the two gauges, and trust both.'],
  },
]
