import { phrase, type Rule } from './rule'

/** Turns of phrase that point to another place of the page, or to what only its reader sees. */
export const ELSEWHERE: readonly Rule[] = [
  phrase(
    'what the writer has said already',
    'elsewhere',
    /\bas (?:i|we|you)(?:[’']ve|[’']ll| have| had| will)? (?:already |just )?(?:discuss(?:ed)?|saw|seen?|mentioned|covered|learn(?:ed|t)?|noted|described|showed|did)\b|\b(?:we|i|you)(?:[’']ve| have) (?:already|just) (?:seen|discussed|covered|mentioned|met|learned|learnt|looked at|talked about|used)\b/i,
    [
      ['As we discussed in the first talk, oak moves.', 'As we discussed'],
      ['We’ve already seen how oak moves.', 'We’ve already seen'],
      ['Oak moves, as you’ll see.', 'as you’ll see'],
    ],
    ['We have seen boats sink at their moorings.', 'As we age, our hands stiffen.'],
    { opening: false },
  ),
  phrase(
    'a numbered part',
    'elsewhere',
    /\b(?:chapter|section|listing|figure|fig\.|table|appendix|exercise|lesson|episode|step|part) (?:\d+|[A-Z]\b)|\b(?:earlier|later|previous|coming|following) (?:chapters?|sections?|parts?|posts?|articles?|lessons?|episodes?)\b/i,
    [
      ['The guessing game in Chapter 2 shows it.', 'Chapter 2'],
      ['Later chapters build on it.', 'Later chapters'],
    ],
    ['A chapter on oak would fill a shelf.', 'The last part of the hull to dry is the keel.'],
    { opening: false },
  ),
  phrase(
    'what was said in another place',
    'elsewhere',
    /\b(?:as (?:shown|above|below|mentioned|described|noted|explained|we saw|discussed|i (?:said|wrote|explained|mentioned)|we (?:said|wrote|explained|mentioned))|(?:see|shown|listed|described|pictured|linked|noted|mentioned|explained) (?:below|above|here|earlier|later|on page)(?! (?:the|a|an|your|our|its)\b)|see (?:also|number|section|chapter|step|figure|table|part)|earlier in this|later in this|(?:earlier|later) on(?: this page)?(?=[,.])|more (?:on|about) (?:that|this|which) (?:below|later|in a (?:moment|minute)))\b/i,
    [
      ['As shown above, the seam is open.', 'As shown'],
      ['The costs, listed below, are for oak.', 'listed below'],
      ['As noted above, larch moves.', 'As noted'],
      ['If the seam is wide, see number 2.', 'see number'],
    ],
    ['As the tide shows, patience pays.', 'You can see below the waterline at low tide.'],
    { opening: false },
  ),
  phrase(
    'a part of the page',
    'elsewhere',
    /\b(?:the|in the) (?:following|above|below|(?:next|last|previous|first|second|third|left|right) (?:section|column|row|page|paragraph|chapter|figure|table|chart|picture|photo)|(?:picture|photo|photograph|figure|table|diagram|chart|video|link) (?:above|below|shows?|on the (?:left|right)))\b|\bwhat follows\b/i,
    [
      ['Mix the following with warm water.', 'the following'],
      ['The third column gives the price.', 'The third column'],
      ['What follows is our order of work.', 'What follows'],
      ['In May, as the chart shows, it turns.', 'the chart shows'],
    ],
    ['Take the chart, dry.', 'Lay the table before they come.'],
    { opening: false },
  ),
  phrase(
    'what stands above or below',
    'elsewhere',
    /\b(?:the|these|those|our|my|your) (?:[\w’'-]+ ){0,3}(?:examples?|sentences?|phrases?|paragraphs?|passages?|quotations?|quotes?|lists?|formulas?|equations?|codes?|snippets?|numbers?|steps?|rules?|recipes?|instructions?|texts?|drawings?|images?|sketch(?:es)?|commands?|definitions?|names?) (?:above|below)(?=[.,;:!?)]|$| (?:is|are|was|were|has|have|can|will|shows?|gives?|do|does|and|but)\b)/i,
    [
      ['It works for short names, as in the example sentences above.', 'the example sentences above'],
      ['Take the steps below, one a day.', 'the steps below'],
      ['The list above is for oak.', 'The list above'],
    ],
    [
      'Hang the oars on the hooks above the door.',
      'Paint it in the numbers below a hundred.',
      'The rooms below are dry.',
    ],
    { opening: false },
  ),
  phrase(
    'a picture on the page',
    'elsewhere',
    /\bthe (?:picture|photo|photograph|figure|table|diagram|chart|video|link)\b(?! (?:frame|film|shop|leg|saw|salt|top|tennis)\b)/i,
    [['The photo was taken in May.', 'The photo']],
    ['The table saw was too loud.', 'A chart is only paper.'],
  ),
  phrase(
    'here and now on the page',
    'elsewhere',
    /\b(?:click here|(?<!: )(?:that|this)(?: is|’s|'s) (?:what|how|why|where)\b|here(?:’|')s|here (?:is|are)|the ones? (?:above|below)|in this (?:article|post|piece|section|chapter|book|guide|tutorial|course|video|episode|series|issue|newsletter)|the present(?:ed)? (?:article|tutorial|text|paper|document|chapter|solution|example)|read on|scroll (?:down|up)|(?:in|at) the (?:end|bottom|top) of (?:this|the) (?:page|post|article))\b/i,
    [
      ['Here’s the test we use.', 'Here’s'],
      ['In this guide we steam a frame.', 'In this guide'],
      ['This is why a seam opens.', 'This is why'],
      ['The presented solution builds on it.', 'The presented solution'],
    ],
    [
      'Read only what is written.',
      'The end of the page was torn.',
      '2.6 posts a month: that is what they published.',
    ],
    { opening: false },
  ),
]

const NUMBER = '(?:two|three|four|five|six|seven|eight|nine|ten|twelve)'

/** Turns of phrase by which an opening sentence leans without a pronoun that could be looked up. */
export const PHRASES: readonly Rule[] = [
  phrase(
    'a deed that was named before',
    'points',
    /^[^,;:.!?“”"]{0,44}\b(?:to|can|could|will|would|must|should|may|might|by|not|for) (?:do|doing|achiev(?:e|ing)|avoid(?:ing)?|prevent(?:ing)?|address(?:ing)?|solv(?:e|ing)|handl(?:e|ing)|accomplish(?:ing)?) (?:that|this|so)\b(?! (?:which|whose|\w+(?:ing)?\b))|^[^,;:.!?“”"]{0,30}\bto do (?:that|this|so) (?:is|was|would|will)\b/i,
    [
      ['A good way to do that would be a second boat.', 'A good way to do that would'],
      ['Nobody should do so, whatever the weather.', 'Nobody should do so'],
    ],
    ['A good way to do this job is with two planes.', 'Few can avoid that which they built.'],
  ),
  phrase(
    'a thing of a kind that was named before',
    'points',
    /^(?:if|when|where|with|for|in|after|before|unless|once|using|under|from) such (?![^,.]{0,30} as\b)(?:an? )?[a-z]+(?: [a-z]+)?/i,
    [['If such a frame is still wanted, steam it twice.', 'If such a frame is']],
    ['In such a way as this nothing splits.', 'With a saw of such a size the work is slow.'],
  ),
  phrase('how often what', 'left out', /^(?:once|twice|\w+ times)(?: an? \w+)? (?:is|are|was|were)\b/i, [
    ['Once a week is enough.', 'Once a week is'],
    ['Twice a week is enough.', 'Twice a week is'],
  ]),
  phrase(
    'after which time',
    'points',
    /^(?:after|within|in) (?:an? )?(?:\w+ )?(?:minutes?|hours?|days?|weeks?|months?|years?)(?:,? (?:you|it|they|we|he|she|your)\b|, [a-z]+ (?:the|a|an|your|it|them|on|in)\b)/i,
    [
      ['After an hour you turn it over.', 'After an hour you'],
      ['After six weeks you will be a minute faster per kilometre.', 'After six weeks you'],
    ],
    ['After a winter of rain the deck leaks.'],
  ),
  phrase(
    'when is then',
    'points',
    /^(?:by|until|since|from|before|after) then\b|^by the (?:afternoon|evening|morning|end)\b(?! of)|\b(?:since|until|by|before) then\b/i,
    [
      ['By then the pitch has dropped and I have to raise it first.', 'By then'],
      ['By the afternoon we were all correcting people who guessed.', 'By the afternoon'],
      ['Every contract since then has a line about rain.', 'since then'],
    ],
    ['By the end of the month you will know who fights with whom.'],
  ),
  phrase('one for a thing', 'left out', /^(?:an?|the|every|each) (?:\w+ )?ones?\b(?! of\b| who\b| that\b)/i, [
    ['A bored one needs only a reason.', 'A bored one'],
  ]),
  phrase('an object after two words', 'pronoun', /^\w+ \w+ (?:it|them)(?=[.:;])/, [
    ['Water makes them.', 'Water makes them'],
  ]),
  phrase(
    'a thing in it',
    'pronoun',
    /^(?:the|an?) \w+ (?:in|on|of|under|behind|from|inside|around) (?:it|them)\b/i,
    [['The glue in it turns brown.', 'The glue in it']],
  ),
  phrase('what does it', 'pronoun', /^\w+ing (?:is|was) what \w+ (?:it|them)\b/i, [
    ['Washing is what keeps it alive.', 'Washing is what keeps it'],
  ]),
  phrase('an answer after its case', 'joins', /^[^,.:;]{3,40}, (?:yes|no)(?=[:.,;])/i, [
    ['On bush varieties, no: the fruit comes there.', 'On bush varieties, no'],
  ]),
  phrase('helps against what', 'left out', /\b(?:will|does|do|can|would) not help(?=\.$)/i, [
    ['Eggshells will not help.', 'will not help'],
  ]),
  phrase(
    'first among what',
    'left out',
    /\b(?:is|are|was|were|came) (?:only )?(?:first|second|third|fourth|fifth|sixth|seventh|eighth|ninth|tenth|last)(?=\.$)/i,
    [['Losing a job was ninth.', 'was ninth']],
  ),
  phrase(
    'a hundred of what',
    'left out',
    /\b(?:an?|one|two|three|four|five|six|eight|nine) (?:hundred|thousand)(?: and [a-z-]+)?(?=[.!]$)/i,
    [['Most of our labels had a hundred and twenty.', 'a hundred and twenty']],
  ),
  phrase(
    'instead of what',
    'joins',
    /\binstead\b(?! of)/i,
    [['What barley gives instead is flavour.', 'instead']],
    ['Do not sand it; scrape it instead.'],
    { unless: /\b(?:not|n[’']t|never|no)\b/i },
  ),
  phrase('as well as what', 'joins', /\b(?:too|afterwards)(?=[.!]$)|\bas well\b(?! as)/i, [
    ['The inside cabins are quieter too.', 'too'],
  ]),
  phrase(
    'also, beside what',
    'joins',
    /^(?:[\p{L}’']+ ){1,5}?(?<words>also)\b|^(?:[\p{L}’']+ ){1,3}?(?<other>then|therefore|however|though)\b/u,
    [
      ['A strong password is also a long one.', 'also'],
      ['You should also see a doctor about the ankle.', 'also'],
    ],
    ['Not only oak moves; larch also moves.', 'If the cap is loose then the tank leaks.'],
    { unless: /\bnot (?:only|just)\b|^(?:if|when|where|since|once|wait|look|rinse|cut|stop|first)\b/i },
  ),
  phrase(
    'would, if what',
    'left out',
    /^\p{Lu}[^,;:]*? would\b/u,
    [['The lake would fill with ice.', 'The lake would']],
    ['The lake would freeze if the wind dropped.'],
    {
      unless:
        /\b(?:if|unless|without|were|had|should|who|which|that|rather|otherwise|I|we|you|people|nobody|anyone|everyone|most)\b/i,
    },
  ),
  phrase('by that alone', 'points', /\b(?:by|with|from|for|on) that alone\b/i, [
    ['Seven of ten were cured by that alone.', 'by that alone'],
  ]),
  phrase(
    'like that',
    'points',
    /\b(?:like (?:that|this|these|those)(?: ones?)?(?=[.,;!]|$| (?:on|in|at|for|from|with|to|can|will|is|are)\b)|that (?:one|much|way|sort|kind)\b(?! (?:of|who|that|you|we|it)\b))/i,
    [
      ['Nobody has ever written a cheque to a sentence like that one.', 'like that one'],
      ['Whoever can lay a plank like that on a frame can build her.', 'like that'],
      ['I would never do it that way.', 'that way'],
    ],
  ),
  phrase('from which place', 'points', /^(?:\w+ ){0,3}(?:from|to|in) there\b/i, [
    ['To get from there to nine in ten takes years.', 'To get from there'],
  ]),
  phrase(
    'which of several parts',
    'elsewhere',
    /\bthe (?:first|second|third|last|next) (?:step|part|half|point|question|reason|rule|thing)\b(?! (?:i|you|we|to|that|a|an|is|of)\b)/i,
    [['Then comes the second step.', 'the second step']],
    ['The first thing you do is stop.'],
  ),
  phrase(
    'the opposite of what',
    'left out',
    /\b(?:do|does|did|say|says|is|be|are) (?:just |exactly |quite )?the (?:opposite|reverse|same)\b(?! (?:of|as|\w+s?\b))/i,
    [['A hot pan does the opposite: the outside sets at once.', 'does the opposite']],
  ),
  phrase(
    'one in ten of what',
    'left out',
    new RegExp(
      `^(?:one|${NUMBER.slice(3)} (?:in|out of) (?:every )?(?:two|three|four|five|six|seven|eight|nine|ten|twenty|a hundred)(?! (?:of|people|men|women|children)\\b| [a-z]+s [a-z])`,
      'i',
    ),
    [['One in ten breaks, and you should cut the timber for it.', 'One in ten']],
    ['One in ten planks breaks, and you should cut the timber for it.'],
  ),
  phrase(
    'the day after which',
    'points',
    /^(?:until|on|in|by|from)? ?the (?:next|following|previous|same) (?:day|morning|evening|week|month|year|spring|summer|autumn|winter)\b(?! (?:as|that|after))/i,
    [['Until the next day, leave the clamps on.', 'Until the next day']],
  ),
  phrase(
    'all of how many',
    'left out',
    new RegExp(`\\ball ${NUMBER}\\b(?! (?:of|[a-z]+s)\\b)`, 'i'),
    [
      ['If all seven are sound, ask why.', 'all seven'],
      ['Anna did all three.', 'all three'],
    ],
    ['All three boats leaked.'],
    { opening: false },
  ),
  phrase(
    'other than what',
    'left out',
    /\b(?:every|any|no|some)(?:thing|body|one) else\b/i,
    [['Then everything else fails.', 'everything else']],
    ['Oak does it better than anything else.'],
    { unless: /\bthan\b/i },
  ),
  phrase(
    'the second of what',
    'left out',
    /\bthe (?:second|third|fourth|fifth|latter|former|other|others)\b/i,
    [['Leave the other alone until spring.', 'the other']],
    ['Hold one end and lift the other.', 'Of the two, the second dries first.'],
    {
      unless:
        /\b(?:one|first|both|two)\b[\s\S]*\bthe (?:second|third|fourth|fifth|latter|former|other|others)\b/i,
    },
  ),
  phrase(
    'how many things',
    'left out',
    new RegExp(
      `\\b(?:first|all|other|last|these|those) ${NUMBER}(?= (?:are|is|were|was|do|did|have|had|came|come|cost|go|went|take|took)\\b|[.,;])`,
      'i',
    ),
    [['In spring the first three are enough.', 'first three']],
    ['The first three boats are sold.'],
  ),
]
