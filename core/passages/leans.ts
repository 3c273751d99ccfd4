/** A turn of phrase by which an opening sentence leans on something said before it. */
interface Lean {
  pattern: RegExp
  /** Words elsewhere in the sentence that say what it leans on. */
  unless?: RegExp
  /** For those who read this list. */
  example: string
}

/**
 * Turns of phrase that point out of a sentence without a pronoun that could be looked up: a share
 * of what, after which day, than what. The words that match are named to the person.
 */
const LEANS: readonly Lean[] = [
  {
    example: 'For example, a wet board swells.',
    pattern:
      /^(?:for (?:example|instance)|in other words|that is|that said|as a result|in this (?:case|mode|way)|by contrast)\b/i,
  },
  {
    example: 'Twice a week is enough.',
    pattern: /^(?:once|twice|\w+ times)(?: an? \w+)? (?:is|are|was|were)\b/i,
  },
  {
    example: 'After an hour you turn it over.',
    pattern:
      /^(?:after|within|in) (?:an? )?(?:\w+ )?(?:minutes?|hours?|days?|weeks?|months?|years?)(?:,? (?:you|it|they|we|he|she|your)\b|, [a-z]+ (?:the|a|an|your|it|them|on|in)\b)/i,
  },
  {
    example: 'By then the pitch has dropped.',
    pattern:
      /^(?:(?:by|until|since|from|before|after) then\b|by the (?:afternoon|evening|morning|end)\b(?! of))/i,
  },
  {
    example: 'A bored one needs only a reason.',
    pattern: /^(?:an?|the|every|each) (?:\w+ )?ones?\b(?! of\b| who\b| that\b)/i,
  },
  { example: 'Water makes them.', pattern: /^\w+ \w+ (?:it|them)(?=[.:;])/ },
  {
    example: 'The glue in it turns brown.',
    pattern: /^(?:the|an?) \w+ (?:in|on|of|under|behind|from|inside|around) (?:it|them)\b/i,
  },
  { example: 'Washing is what keeps it alive.', pattern: /^\w+ing (?:is|was) what \w+ (?:it|them)\b/i },
  {
    example: 'On bush varieties, no: the fruit comes there.',
    pattern: /^[^,.:;]{3,40}, (?:yes|no)(?=[:.,;])/i,
  },
  { example: 'Eggshells will not help.', pattern: /\b(?:will|does|do|can|would) not help(?=\.$)/i },
  {
    example: 'Losing a job was ninth.',
    pattern:
      /\b(?:is|are|was|were|came) (?:only )?(?:first|second|third|fourth|fifth|sixth|seventh|eighth|ninth|tenth|last)(?=\.$)/i,
  },
  {
    example: 'Most of our labels had a hundred and twenty.',
    pattern:
      /\b(?:an?|one|two|three|four|five|six|eight|nine) (?:hundred|thousand)(?: and [a-z-]+)?(?=[.!]$)/i,
  },
  {
    example: 'What barley gives instead is flavour.',
    pattern: /\binstead\b(?! of)/i,
    unless: /\b(?:not|n[’']t|never|no)\b/i,
  },
  {
    example: 'The inside cabins are quieter too.',
    pattern: /\b(?:too|afterwards)(?=[.!]$)|\bas well\b(?! as)/i,
  },
  {
    example: 'The lake would fill with ice.',
    pattern: /^\p{Lu}[^,;:]*? would\b/u,
    unless: /\b(?:if|unless|without|were|had|should|who|which|that|rather|otherwise|I|we|you)\b/i,
  },
  { example: 'Seven of ten were cured by that alone.', pattern: /\b(?:by|with|from|for|on) that alone\b/i },
  {
    example: 'To get from there to nine in ten takes years.',
    pattern: /^(?:\w+ ){0,3}(?:from|to|in) there\b/i,
  },
  {
    example: 'Then comes the second step.',
    pattern: /\bthe (?:first|second|third|last|next) (?:step|part|half|point|question|reason|rule|thing)\b/i,
  },
  {
    example: 'A hot pan does the opposite.',
    pattern:
      /\b(?:do|does|did|say|says|is|be|are) (?:just |exactly |quite )?the (?:opposite|reverse|same)\b(?! (?:of|as|\w+s?\b))/i,
  },
  {
    example: 'One in ten breaks.',
    pattern:
      /^(?:one|two|three|four|five|six|seven|eight|nine) (?:in|out of) (?:every )?(?:two|three|four|five|six|seven|eight|nine|ten|twenty|a hundred)(?! (?:of|people|men|women|children)\b| [a-z]+s [a-z])/i,
  },
  {
    example: 'Until the next day it stays soft.',
    pattern:
      /^(?:until|on|in|by|from)? ?the (?:next|following|previous|same) (?:day|morning|evening|week|month|year|spring|summer|autumn|winter)\b(?! (?:as|that|after))/i,
  },
]

/** The turn of phrase by which a sentence leans on what was said before it, or null. */
export function leanOf(text: string): string | null {
  for (const { pattern, unless } of LEANS) {
    const found = pattern.exec(text)
    if (found && !unless?.test(text)) return found[0]
  }
  return null
}

/** A sentence of each kind, for tests. */
export const LEANING: readonly string[] = LEANS.map((l) => l.example)
