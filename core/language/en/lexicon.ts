/**
 * Classes of English words by what they do in a sentence, in lower case. A word may stand in several.
 * They are closed lists of the language and of the trade of publishing, not words of any one field.
 */
const CLASSES = {
  it: 'it its itself',
  they: 'they them their theirs themselves',
  'he or she': 'he she him her his hers himself herself',
  I: "i me my mine myself i'm",
  we: 'we us our ours ourselves',
  you: 'you your yours yourself yourselves',
  this: 'this that these those such',
  'joining word': 'and but or so nor yet',
  connective:
    'however therefore thus hence also still instead otherwise moreover furthermore besides meanwhile nevertheless consequently similarly likewise afterwards finally secondly thirdly lastly next anyway plus unlike then again too either neither indeed though',
  not: "not n't n’t no never nor without none nobody nothing cannot neither",
  absolute:
    'never nobody nothing always every everybody everyone everything none only no any anyone whole all ever',
  ought: 'should must ought need needs has cannot may might',
  hedge:
    'perhaps maybe probably quite rather fairly somewhat sort kind bit little roughly about seems seem suppose guess think reckon believe hopefully possibly',
  comparison:
    'more less fewer better worse than rather longer shorter cheaper faster slower easier harder bigger smaller stronger higher lower earlier later greater older younger',
  extreme: 'most least best worst first last hardest easiest cheapest biggest smallest only single',
  offer:
    'free book booking subscribe subscribers subscription sign newsletter download offer discount ticket tickets shop order orders visit contact email call ring register registration join follow share forward workshop course courses webinar trial demo pricing checkout voucher sale members membership donate sponsor sponsored quote quotes enquiry enquiries team services service site website app link inbox basket',
  'about the text':
    'article post section guide below above list read reading following chapter series part episode listen transcript edition issue newsletter piece column essay blog page table figure chart photo picture image diagram footnote notes note here earlier later previous next recap summary introduction conclusion tip tips step steps number reader readers scroll skip jump pdf template checklist video',
  thanks:
    'thanks thank hello hi welcome hey goodbye sorry congratulations cheers please dear regards yours comments comment reply replies',
  biography:
    'writes lives author editor founder director consultant freelance works runs teaches edits born photographer journalist correspondent columnist edited published updated written',
  now: 'today tomorrow yesterday tonight week month year weekend now currently recently latest new soon upcoming monday tuesday wednesday thursday friday saturday sunday january february march april june july august september october november december',
  'opening noise':
    'well now anyway actually basically ok okay right look yes yeah oh ah um so sure honestly frankly',
  cause: 'because since therefore why reason so',
  condition: 'if unless when whenever until once',
  against: 'but yet though although whereas instead while rather despite',
  person:
    'man woman person people student customer customers owner child children kid kids friend teacher doctor wife husband mother father sister brother colleague boss client clients neighbour neighbor manager user users reader parent parents daughter son',
  money:
    'pound pounds quid pence euro euros dollar dollars cent cents price prices cost costs paid pay fee fees budget money',
  time: 'second seconds minute minutes hour hours day days week weeks month months year years',
  saying: 'said says say told tell tells asked asks ask explains explained wrote added replied',
  vague:
    'thing things stuff way ways lot lots something anything reason point points question questions answer part parts case kind sort idea matter issue',
  mind: 'know knows knew think thinks believe feel feels want wants notice remember forget learn learned hope fear trust expect understand',
  be: "is are was were be been being am 's ’s 're ’re",
  'past be': 'was were had did',
  article: 'the',
  a: 'a an',
  relative: 'who which whose whom that',
  asking: 'what why how who when where which',
  each: 'each every any whoever whatever anyone anybody everyone everybody somebody someone',
  'number word':
    'two three four five six seven eight nine ten eleven twelve fifteen twenty thirty forty fifty sixty hundred thousand million half third quarter twice dozen',
} as const

/** The name of a class of words. */
export type WordClass = keyof typeof CLASSES

/** The classes, in the order of their numbers. */
export const WORD_CLASSES = Object.keys(CLASSES) as WordClass[]

/** The numbers of the classes a word stands in. */
export const CLASS_OF: ReadonlyMap<string, readonly number[]> = (() => {
  const found = new Map<string, number[]>()
  WORD_CLASSES.forEach((name, number) => {
    for (const word of CLASSES[name].split(' ')) found.set(word, [...(found.get(word) ?? []), number])
  })
  return found
})()
