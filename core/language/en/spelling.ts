import { cased } from './grammar'

/*
 * British and American spelling by word families (after Peters, The Cambridge Guide to English
 * Usage, 2004). Families that differ in one direction only (British "tyre" is American "tire", but
 * "to tire" is the same in both) stand in ONE_WAY.
 */

const list = (words: string): string[] => words.trim().split(/\s+/)

const ISE = list(
  'apolog author categor character civil critic custom emphas fertil final general harmon hypnot item local maxim memor minim modern neutral optim organ oxid patron prior publ real recogn revital special stabil standard steril subsid summar symbol sympath util visual vandal',
)
const OUR = list(
  'arm behavi cand clam col endeav fav fl&av harb hon hum lab neighb od parl ranc rig rum sav splend tum val vap vig',
).map((w) => w.replace('&', ''))
const RE = list('cent fib lit met theat calib somb lust spect meag')
const LL = list(
  'cancel channel counsel dial duel fuel label level marvel model panel pencil quarrel signal travel tunnel unravel',
)

const PLAIN: readonly (readonly [string, string])[] = [
  ...ISE.flatMap((stem) =>
    [
      ['ise', 'ize'],
      ['ises', 'izes'],
      ['ised', 'ized'],
      ['ising', 'izing'],
      ['isation', 'ization'],
      ['iser', 'izer'],
    ].map(([b, a]) => [`${stem}${b}`, `${stem}${a}`] as const),
  ),
  ...OUR.flatMap((stem) =>
    ['', 's', 'ed', 'ing', 'able', 'ful', 'less', 'hood', 'ite'].map(
      (end) => [`${stem}our${end}`, `${stem}or${end}`] as const,
    ),
  ),
  ...RE.flatMap((stem) => [[`${stem}re`, `${stem}er`] as const, [`${stem}res`, `${stem}ers`] as const]),
  ...LL.flatMap((stem) =>
    ['led', 'ling', 'ler', 'lers'].map((end) => [`${stem}${end}`, `${stem}${end.slice(1)}`] as const),
  ),
  ...([
    ['defence', 'defense'],
    ['offence', 'offense'],
    ['pretence', 'pretense'],
    ['catalogue', 'catalog'],
    ['dialogue', 'dialog'],
    ['analogue', 'analog'],
    ['grey', 'gray'],
    ['greys', 'grays'],
    ['plough', 'plow'],
    ['ploughs', 'plows'],
    ['ploughed', 'plowed'],
    ['ploughing', 'plowing'],
    ['mould', 'mold'],
    ['moulds', 'molds'],
    ['moulding', 'molding'],
    ['mouldy', 'moldy'],
    ['aluminium', 'aluminum'],
    ['sceptic', 'skeptic'],
    ['sceptical', 'skeptical'],
    ['pyjamas', 'pajamas'],
    ['cosy', 'cozy'],
    ['jewellery', 'jewelry'],
    ['moustache', 'mustache'],
    ['ageing', 'aging'],
    ['judgement', 'judgment'],
    ['manoeuvre', 'maneuver'],
    ['manoeuvres', 'maneuvers'],
    ['anaesthetic', 'anesthetic'],
    ['paediatric', 'pediatric'],
    ['enrol', 'enroll'],
    ['fulfil', 'fulfill'],
    ['skilful', 'skillful'],
    ['wilful', 'willful'],
    ['instalment', 'installment'],
    ['woollen', 'woolen'],
    ['marvellous', 'marvelous'],
    ['yoghurt', 'yogurt'],
    ['analyse', 'analyze'],
    ['analysed', 'analyzed'],
    ['analyses', 'analyzes'],
    ['analysing', 'analyzing'],
    ['paralyse', 'paralyze'],
    ['paralysed', 'paralyzed'],
  ] as const),
]

const ONE_WAY: readonly (readonly [string, string])[] = [
  ['tyre', 'tire'],
  ['tyres', 'tires'],
  ['kerb', 'curb'],
  ['programme', 'program'],
  ['programmes', 'programs'],
  ['storey', 'story'],
  ['storeys', 'stories'],
  ['draught', 'draft'],
  ['draughts', 'drafts'],
  ['practise', 'practice'],
  ['practised', 'practiced'],
  ['practising', 'practicing'],
  ['licence', 'license'],
]

const TO_AMERICAN = new Map<string, string>([...PLAIN, ...ONE_WAY])
// "Analyses" is a plural in America too, so it is changed in neither direction.
TO_AMERICAN.delete('analyses')
const TO_BRITISH = new Map<string, string>(
  PLAIN.flatMap(([b, a]) =>
    /^(dialog|analog|catalog|meter|meters|armor)/.test(a) && a !== 'catalog' ? [] : [[a, b] as const],
  ),
)

/** A text in British or American spelling. Names, capitals inside a sentence, are left as they are. */
export function respell(text: string, spelling: 'British' | 'American'): string {
  const words = spelling === 'American' ? TO_AMERICAN : TO_BRITISH
  return text.replace(/\p{L}+/gu, (word, at: number) => {
    const fresh = words.get(word.toLowerCase())
    if (!fresh) return word
    const named = /^\p{Lu}/u.test(word) && /[\p{L}\p{N},;] $/u.test(text.slice(0, at))
    return named ? word : cased(fresh, word)
  })
}

/** A word in the one spelling in which words are compared. */
export function oneSpelling(word: string): string {
  return TO_AMERICAN.get(word) ?? word
}
