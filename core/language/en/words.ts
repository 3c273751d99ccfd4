/** Small closed word lists of English that the stages share. */
const set = (words: string): ReadonlySet<string> => new Set(words.split(/\s+/))

/** Words too common to carry a subject: articles, pronouns, auxiliaries, prepositions, connectives. */
export const STOP_WORDS = set(
  `a an the this that these those i you he she it we they me him her us them my your his its our their mine yours ours theirs who whom whose which what when where why how if unless until while because as than then so and or but nor not no yes do does did done be is am are was were been being have has had having will would shall should can could may might must of in on at by for with from to into onto over under about after before between against through during without within along across up down out off near there here all any both each few more most other some such only own same too very just also even still yet ever never always often once again one two s t don didn isn aren wasn weren won wouldn couldn shouldn hasn haven hadn thing things way lot get got make made take took go goes went come came say said put let keep kept much many every nobody somebody anybody everybody nothing something anything everything`,
)

/** Openings whose meaning lies in the sentence before. */
export const CONNECTIVES = set(
  `but and or so then however therefore thus hence also still yet instead otherwise moreover furthermore besides meanwhile nevertheless nonetheless consequently similarly likewise accordingly afterwards finally secondly thirdly lastly next anyway plus unlike because although`,
)

/** Third-person pronouns, which need a noun before them. */
export const THIRD_PERSON = set(
  `it they them he she him her hers its their his itself themselves himself herself theirs`,
)

export const PLURAL_PRONOUNS = set(`they them their themselves theirs`)

/** Past forms that do not end in "ed". */
export const IRREGULAR_PAST = set(
  `was were had did said kept broke took went came found gave made stood left felt knew thought told began became brought bought built caught chose cut drew drove fell flew forgot got grew heard held hung hit hurt laid led lent lost meant met paid put ran read rode rose sat saw sent set shook shot showed slept sold spent spoke stuck swam taught threw understood woke wore won wrote hid bent fed dug froze`,
)

/** Numbers written as words, by value. */
export const NUMBER_WORDS: Readonly<Record<string, number>> = {
  zero: 0,
  one: 1,
  two: 2,
  three: 3,
  four: 4,
  five: 5,
  six: 6,
  seven: 7,
  eight: 8,
  nine: 9,
  ten: 10,
  eleven: 11,
  twelve: 12,
  thirteen: 13,
  fourteen: 14,
  fifteen: 15,
  sixteen: 16,
  seventeen: 17,
  eighteen: 18,
  nineteen: 19,
  twenty: 20,
  thirty: 30,
  forty: 40,
  fifty: 50,
  sixty: 60,
  seventy: 70,
  eighty: 80,
  ninety: 90,
  hundred: 100,
  thousand: 1000,
  million: 1_000_000,
  half: 0.5,
  third: 1 / 3,
  quarter: 0.25,
  dozen: 12,
  twice: 2,
  once: 1,
  first: 1,
  second: 2,
}

/** Verbs of something that happens to somebody or something, by lemma; one sees them happen. */
export const STRONG_VERBS: ReadonlySet<string> = new Set(
  'bend bite bleed boil break burn burst choke chop collapse crack crash creep crush cut die drag drown drip explode fail flood freeze grind halve haul hiss hum jam kill leak lose melt pour pull push rip rot ruin scrape scream shatter shiver shrink sink slam slip smash snap soak split spoil starve steal sting swell tear throw triple twist warp win wreck'.split(
    ' ',
  ),
)
