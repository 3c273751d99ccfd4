/**
 * What a sentence may be that is no part of what its piece says: the writer's life, an offer, a call to do
 * something with the page, a promise of what the text will do, a disclaimer, a greeting. Each kind is known
 * by its turns of phrase; `examples` and `lookAlikes` are its tests.
 */
export interface AsideRule {
  reason: string
  finds: RegExp
  /** Only in this stretch of the piece, from 0 (top) to 1 (end); everywhere where it is left out. */
  within?: readonly [number, number]
  /** Whether one such sentence makes an aside of a short paragraph at the end of the piece. */
  colours?: true
  examples: readonly string[]
  lookAlikes: readonly string[]
}

/** Things that a page offers. */
const OFFERED =
  '(?:workshops?|master ?class(?:es)?|web(?:inars?)?|courses?|class(?:es)?|sessions?|consultations?|appointments?|audits?|check-?ups?|surveys?|valuations?|trials?|demos?|walk-?throughs?|spots?|seats?|places?|tickets?|slots?|spaces?|subscriptions?|planners?|checklists?|templates?|downloads?|worksheets?|e-?books?|guides?|handouts?|PDFs?|newsletters?|mailing lists?|programmes?|programs?|reviews?)'

export const ASIDES: readonly AsideRule[] = [
  {
    reason: 'call to subscribe',
    finds:
      /^(?:subscribe(?: now| here| today| below| to (?:our|my|the \w+ (?:list|letter))|[.!]|$)|sign up(?! for (?:nothing|any))|follow (?:us|me)|join (?:our|my|the) (?:\w+ ){0,2}(?:newsletter|mailing|list|letter|community)|never miss|get (?:our|the|my) .{0,30}(?:newsletter|letter|inbox))\b|\b(?:sign up|subscribe) (?:below|here|now|for (?:our|my|the))\b|\b(?:to|for) (?:our|the|my) (?:\w+ )?(?:newsletter|letter)\b.*\b(?:inbox|week|month|free)\b|\b(?:hit|tap|press|click) (?:the )?(?:follow|like|subscribe|bell)\b|\b(?:our|my|the) (?:\w+ )?(?:newsletter|mailing list|weekly e-?mail|monthly e-?mail)\b.*\b(?:free|sign|join|pop|box|every|more)\b/i,
    colours: true,
    examples: [
      'Sign up for our monthly letter and get it in your inbox.',
      'Join our mailing list.',
      'My free planner is on the mailing list, just pop your email in the box.',
      'If you’re new, hit follow wherever you listen!',
    ],
    lookAlikes: [
      'Follow the grain with the plane.',
      'Sign up for nothing that you cannot leave.',
      'A newsletter is a habit before it is a channel.',
    ],
  },
  {
    reason: 'call to share or write',
    finds:
      /^(?:share (?:this|it) with|leave (?:us |me )?a (?:comment|review)|let (?:me|us) know\b.*(?:comments?|think|below|on with|went|how you)|(?:please )?(?:do )?(?:drop|send|write) (?:me|us) (?:a line|an? e-?mail|a note|photos?|pictures?|your)|(?:enjoying|enjoyed|liked?|loved) (?:this (?:post|article|guide|piece|episode)|what you)|click here|read more|continue reading|tag (?:us|me)\b|reply to this)\b|\b(?:leave|post|put) (?:them|it|a comment|your \w+) (?:in the comments|below)|\bin the comments(?: below)?[.!]?$|\bcomments are (?:open|closed)\b|\bif you (?:liked|enjoyed|found) this\b|\b(?:i|we) hope (?:that )?(?:you(?:[’']ve)? (?:found|enjoyed)|this (?:guide|post|article|has|was|helps))\b|\bfeel free to (?:share|forward|get in touch|reach out)\b|\b(?:if this (?:has )?(?:helped|was useful)), (?:share|send|forward|pass)\b|\bforward it to a friend\b|\b(?:pop|put|drop|leave|post) (?:it|them|a (?:comment|note)|any questions?)(?: \w+)? (?:in the comments|below|and let (?:me|us) know)\b|\b(?:tell|let) (?:me|us)(?: know)? in the comments\b|\b(?:drop|leave) a comment\b|\bcheck out (?:our|my) \w+|\bhit reply\b|\bi(?:[’']d| would) (?:love|be glad|like) to hear from you\b/i,
    colours: true,
    examples: [
      'We hope you found this guide helpful!',
      'If you have questions, leave them in the comments below.',
      'Let me know how you get on with the glue.',
      'If this helped, share it with somebody whose shed is worse.',
      'Questions? Comments are open till Friday.',
      'Any questions, pop them in the comments.',
      'Tell us in the comments: what do you use?',
    ],
    lookAlikes: [
      'Share the load with the crew.',
      'Leave a gap of two millimetres.',
      'I hope it holds until spring.',
      'Let the glue know who is in charge.',
    ],
  },
  {
    reason: 'offer',
    finds: new RegExp(
      [
        `^(?:book|reserve|save|claim|grab|get|start|request|try) (?:your|my|a|an|our) (?:free|(?:place|seat|spot|ticket|copy)\\b(?! for)|trial|no-obligation|complimentary|\\d+-\\w+ (?:trial|call))`,
        `\\b(?:book|reserve|save) (?:your|my) (?:place|seat|spot|ticket)s?\\b`,
        `\\bfree,? (?:[\\w-]+,? ){0,4}${OFFERED}\\b`,
        `\\b(?:complimentary|no-obligation|without obligation)\\b`,
        `\\b(?:${'a few|two|three|four|five|six|ten|twelve|some|limited|\\d+'}) (?:places|spots|seats|spaces|tickets)(?: are)?(?: still)?(?: left| available| remain)\\b`,
        `\\bspots? (?:left|are limited)\\b|\\bspaces are limited\\b`,
        `\\bdownload (?:the|our|my|your|a) (?:\\w+ ){0,4}(?:${OFFERED}|comparison|report|handout|sheet)\\b`,
        `\\bwe(?:[’']re| are) (?:also |always )?hiring\\b|\\bsee our open roles\\b`,
        `\\b(?:contact|call|ring|e-?mail|get in touch with) (?:us|our|reception|your (?:friendly |local |account )?\\w+|a member of|the (?:office|shop|studio))\\b.{0,80}(?:today|now|to (?:book|arrange|schedule|discuss|find out)|on \\d|below|number|enquir|for (?:a|an|your|more))`,
        `\\bto (?:book|arrange|schedule) (?:a|an|your) (?:\\w+ ){0,3}(?:${OFFERED}|call|chat|discussion|visit|viewing)\\b`,
        `\\b(?:book|arrange) (?:a|an|your) (?:free|chat|call|demo|appointment|\\d+-minute)\\b`,
        `\\b(?:use|with|enter|quote) (?:the )?(?:discount |promo )?(?:code|coupon) \\w+\\b|\\b\\d+ ?% off your\\b|\\b(?:this|today[’']s) (?:episode|post|issue|newsletter) is (?:brought to you|sponsored|supported) by\\b`,
        `\\b(?:grab|get) (?:it|yours|my|our|the) (?:here|free|\\w+ (?:checklist|template|cheat ?sheet|planner|guide|workbook))\\b|\\bwant (?:my|our|to see it in action)\\b`,
        `\\b(?:next|new|live) (?:\\w+ )?(?:${OFFERED})\\b.{0,40}\\b(?:is|are|starts?|starting|runs?)? ?(?:on|from) (?:the \\d|(?:mon|tues|wednes|thurs|fri|satur|sun)day|\\d)`,
        `^(?:donate|give) (?:now|today)\\b|\\bto give [£$€]\\d+`,
        `\\bno credit card\\b|\\bstarts? your free\\b|\\b(?:details|booking|book|link)(?:[’']s| is| are)? (?:and booking )?(?:at the bottom|here|in (?:the|my) bio)\\b`,
        `\\b(?:our|my) (?:\\w+ ){0,3}(?:workshops?|classes|courses?|trainings?|programme|program) (?:starts?|begins?|runs?|is|are|opens?)\\b.*\\b(?:\\d|place|spot|book|monday|tuesday|wednesday|thursday|friday|saturday|sunday|term)`,
      ].join('|'),
      'i',
    ),
    colours: true,
    examples: [
      'Book a free 20-minute audit with one of our specialists.',
      'There are three places left in Beginners.',
      'Download our FREE 27-point Checklist today.',
      'Save your seat today!',
      'Call us to arrange a visit.',
      'Start your free 30-day trial →',
      'We’re also hiring: see our open roles.',
      'Use code BELL at checkout for 15% off your first order.',
      'This episode is brought to you by a maker of labels.',
      'A new puppy class is starting on Tuesday 12 September.',
    ],
    lookAlikes: [
      'A course of bricks takes an hour.',
      'Book the hall before you print the posters.',
      'Save a seat for the person who is late.',
      'Free checks find what paid ones miss.',
      'Call the harbour before you sail.',
      'There are two places where oak rots first.',
    ],
  },
  {
    reason: 'promise of what follows',
    finds:
      /\b(?:in (?:this|today[’']s) (?:post|article|guide|tutorial|piece|blog(?: post)?|episode|series|e-?book|issue|video|comparison|review|how-?to))\b[^.!?]{0,24}\b(?:i|we|you)(?:[’'](?:m|re|ll|d|ve)| will| am| are| shall| have| looked| covered| want)?\b|^(?:this|the following) (?:post|article|guide|tutorial|piece|blog post) (?:will|covers?|explains?|walks?|looks?|shows?|is part|takes)\b|^(?:so,? )?(?:okay,? |ok,? )?(?:now,? )?let[’']s (?:get (?:started|into|going|stuck)|dive|begin|jump|go[.!]|look at (?:each|them|these)|take (?:these|them|each)|start with (?:what|the))|\b(?:grab a (?:coffee|cuppa|drink)|without further ado|read on|keep reading|stay tuned|stay with me|bear with me|more on (?:that|this|which) (?:in a|later|below))\b|\bskip (?:to|ahead|straight) (?:to )?(?:the|number|step|section)|\b(?:short on time|here[’']s (?:what[’']s covered|what we[’']ll))\b|^(?:(?:now )?that we[’']ve covered|now,? let[’']s)\b|\blet[’']s (?:take a (?:closer )?look at|get (?:practical|into the))\b|^more on (?:the|that|this|what|which)\b.{0,40}\b(?:minute|moment|later|post|below)\b|^(?:we|i)[’']ll (?:come|get) (?:back )?to\b|^(?:here we go|on (?:to|with) the \w+|to recap)\b|\bby the end of (?:it|this (?:post|article|guide|tutorial))\b|^ready\?$|^(?:great|right|okay|ok|all right|alright|so)[.!]$/i,
    examples: [
      'In this post I’m going to walk you through the eleven mistakes.',
      'In this guide, we’ll cover everything that you need.',
      'Let’s get started!',
      'Grab a coffee and let’s dive in.',
      'We’ll come back to most of these in a minute.',
      'This article explains how the two differ.',
      'More on that last one in a minute.',
      'Now that we’ve covered the metrics, let’s take a look at some pitfalls.',
    ],
    lookAlikes: [
      'In this valley we plant late.',
      'Let’s be honest about the price.',
      'By the end of the week the glue has set.',
      'This guide rail takes eighty kilograms.',
      'Skip the primer on larch.',
      'More on the rudder than on the keel.',
    ],
  },
  {
    reason: 'disclaimer',
    finds:
      /\b(?:affiliate links?|(?:does|do) not constitute|no liability is accepted|past performance|at no (?:extra )?cost to you|informational purposes|general (?:information|in nature)|educational purposes|(?:not|isn[’']t|is not|n[’']t) (?:intended as |meant as |a substitute for |financial |legal |medical |tax |professional ){1,3}(?:advice|reading|an examination|your|professional|a)|(?:please )?consult (?:a|us|your|with) (?:qualified |licensed )?(?:professional|adviser|advisor|doctor|lawyer|solicitor|accountant|about))\b/i,
    examples: [
      'This is general information and not legal advice.',
      'It isn’t financial advice.',
      'Some links in this article are affiliate links.',
      'Please consult a qualified professional before you invest.',
    ],
    lookAlikes: ['Good advice is not legal tender.', 'Ask a doctor what she does herself.'],
  },
  {
    reason: 'biography',
    finds:
      /^(?:About the author: .*|(?:\p{Lu}[\p{L}’'.-]+ ){2,4}(?:\([^)]*\) )?(?:is (?:an?|the|our|senior|head|lead|chief|director|VP|vice|managing|founding|former|currently|\p{Lu}\p{L}*)|was (?:an?|born)|has (?:taught|written|worked|been|run|lived|directed|led|served|spent)|teaches|writes|lives|works|runs|leads|edits|reviews|makes|founded|owns|directs|advises|coaches|keeps|farms|gives talks)\b.*|(?:He|She|They) (?:lives?|writes? here|teach(?:es)?|gives? talks|holds? a|previously|is based|now teaches|has written|is a keen|is currently)\b.*|(?:His|Her|Their) (?:podcast|book|latest book|last column|first book|work has|newsletter)\b.*|[Ww]hen (?:he|she|they)(?:[’']s|[’']re) not \w+ing\b.*)$/u,
    within: [0.85, 1],
    examples: [
      'Trent Halverpike is Senior Content Strategist at Brightfennel Digital.',
      'Ada Fell has written about boats since 2004.',
      'She lives in Falmouth with two greyhounds.',
      'When she’s not writing, you can find her on the water.',
    ],
    lookAlikes: ['Oak has been used since the Bronze Age.', 'Glue is a promise.', 'He left the shed at six.'],
  },
  {
    reason: 'farewell or signature',
    finds:
      /^(?:[—–-] ?\p{Lu}[\p{L}’'-]+|(?:with (?:warmth|love|thanks)|warmly|best(?: wishes)?|cheers|yours|sincerely|kind regards|love)(?:,|$)(?: [\p{L} ]{0,24})?|(?:\p{Lu}[\p{L}’'-]+ )?x{1,3}o?\.?|xo,? \p{Lu}\p{L}+|see you (?:next|in|on|at|there|after)\b.{0,40}|until next (?:time|week|month)\b.{0,20}|happy (?:\w+ing|new year|reading)\b.{0,24}|(?:many )?thanks (?:for reading|to \p{Lu}\p{L}+ for)\b.*|that[’']s (?:all|it) (?:i[’']ve got|for (?:today|now|this \w+)|folks)\b.*|next (?:week|time|month|issue)(?::| i(?:[’']m| am|[’']ll)| we(?:[’']re| are|[’']ll)).*|(?:lots of love|(?:with )?warmest wishes|respectfully),)[.!]*$/iu,
    within: [0.8, 1],
    examples: ['— Birdie', 'With warmth, Pippa x', 'See you next week!', 'Thanks for reading.', 'Ros x'],
    lookAlikes: ['Best results come from cold steel.', 'Love the plane you have.', 'See you to the door.'],
  },
  {
    reason: 'greeting',
    finds:
      /^(?:(?:hi|hey|hello),? (?:everyone|everybody|all|there|folks|friends|and welcome|from)\b.*|welcome (?:back )?to (?:the|our|another|this|episode|my)\b.*|dear (?:\p{L}+ ?){1,3},?|we[’']re so glad you[’']re here|happy new year\b.*|thank you for (?:opening|joining|reading) .*)[.!]*$/iu,
    within: [0, 0.15],
    examples: [
      'Hey everybody, welcome to the show notes.',
      'Dear Partners,',
      'Welcome back to the Long Span.',
    ],
    lookAlikes: ['Hello is the cheapest marketing there is.', 'Dear materials punish cheap hands.'],
  },
  {
    reason: 'picture credit',
    finds:
      /^(?:photo(?:graph)?s?|pictures?|images?|illustrations?|drawings?)(?: credit)?(?: by|:)|^\[?(?:chart|photo|image|figure|video|graph|table): .*\]$/i,
    examples: ['Photographs by Ada Fell.', '[Chart: oak and larch over 30 years]'],
    lookAlikes: ['Photographs of the hull show where it leaks.'],
  },
  {
    reason: 'note on the page',
    finds:
      /^(?:reading time:|jump to (?:the )?\w+|(?:read )?next: |you (?:might|may) also like\b|\[?(?:edit|update|updated|edited|correction)(?:ed)?[,:(\]]|last (?:reviewed|updated|modified)\b|(?:this|the) (?:post|article|page|transcript|guide) (?:was|is|has been) (?:first |originally |last |automatically |generated |regularly )*(?:published|updated|reviewed|generated|based on|part \w+ of)|this is (?:part|number|episode) \w+ (?:of|in) (?:our|my|a|the)|sources?: .*(?:\bvols?\.|\bpp?\.|\b(?:1[6-9]|20)\d\d\b|letters|archives?|interviews?)|copies of .* are (?:still )?available|all rights reserved|©|copyright (?:©|\d)|mentioned on the show|support the show)/i,
    examples: [
      'EDIT, March 9: several people have written to say that it leaks.',
      'Last reviewed: September 2024.',
      'This is part two of our series on how we work.',
      'Sources: logbooks, vols. 2–31.',
      'Reading time: 6 minutes',
    ],
    lookAlikes: ['Updates come with the tide.', 'This is the part to get right.', 'Edit with a saw.'],
  },
]

/** What a sentence is beside its piece, by the first rule that finds it; null where it belongs to it. */
export function asideOf(sentence: string, position: number): AsideRule | null {
  return (
    ASIDES.find(
      ({ finds, within: [from, to] = [0, 1] }) => position >= from && position <= to && finds.test(sentence),
    ) ?? null
  )
}
