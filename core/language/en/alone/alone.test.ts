import { describe, expect, it } from 'vitest'
import { readSentences } from '../sentences'
import { danglingWords, LEAN_RULES } from '.'
import { look } from './rule'

const seen = (text: string) => look(readSentences(text)[0]?.tokens ?? [], text, [])

describe.each(LEAN_RULES.map((rule) => [rule.name, rule] as const))('%s', (_, rule) => {
  it('finds the words of its examples and nothing in sentences that look alike', () => {
    for (const [text, words] of rule.examples) expect(rule.finds(seen(text)), text).toBe(words)
    for (const text of rule.counter) expect(rule.finds(seen(text)), text).toBeNull()
  })
})

it('has a name for every rule, and an example', () => {
  expect(new Set(LEAN_RULES.map((r) => r.name)).size).toBe(LEAN_RULES.length)
  for (const rule of LEAN_RULES) expect(rule.examples.length, rule.name).toBeGreaterThan(0)
})

it('lets the sentence before say what a pronoun means', () => {
  const [first, second] = readSentences('The plank was wet. It shrank by a finger.')
  expect(danglingWords(second!.tokens, 'It shrank by a finger.')).toBe('It')
  expect(danglingWords(second!.tokens, 'It shrank by a finger.', first!.tokens)).toBeNull()
})

it.each([
  'It is rain that kills boats.',
  'Nobody has ever come into a hut and said they wished they had turned back later.',
  'Boats do not wear out in summer.',
  'A plank at ten per cent will swell, and it will crush its neighbour.',
  'A torn shoot does not come back, and a cut one does.',
  'Nobody knows what it is.',
  'We know that with age comes patience.',
  'This year the yard got a new slip.',
  'Half a plank that means nothing to you is a shelf to your neighbour.',
  'We fired the kiln twice this week.',
  'Buy a saw and a plane, and never lend them.',
  'Buy one good flat brush and never let it dry.',
  'One in ten planks breaks, and you should cut the timber for it.',
  'Everyone said that water floats.',
  'By the end of the month you will know who fights with whom.',
  'There is a moment when the talking stops.',
  'If you cannot see two cairns ahead, stop.',
  'The fee for a business account is deductible in full.',
  'In a strong colony you will see old bees at the entrance.',
  'An old tree that has been left for fifteen years wants three winters.',
  'A choir that is afraid of being too loud stops pronouncing.',
  'Take the pressure off and you can hear it: one splash, or eight.',
  'In an old house the pipes freeze first.',
  'No choir sings well at nine in the morning.',
  'Most people guess, and most of them guess too high.',
  'A jar of nails is worth a drawer of screws.',
])('stands alone: %s', (text) => {
  expect(danglingWords(readSentences(text)[0]?.tokens ?? [], text)).toBeNull()
})

it.each([
  ['It leaks at every corner.', 'It'],
  ['However, nobody writes it down.', 'However'],
  ['This third is for the putty.', 'This'],
  ['The other eighty-one go elsewhere.', 'The other'],
  ['Do not bend it in jerks.', 'it'],
  ['If all seven are sound, ask why.', 'all seven'],
  ['More is not better.', 'More'],
  ['The last one is the one people leave out.', 'The last'],
  ['As shown above, the seam is open.', 'As shown'],
  ['Larch weighs about 590.', '590'],
  ['You can multiply by 2.4 as well as we can.', '2.4'],
  ['Water does not, and you can see at once where it beads.', 'Water does'],
  ['Slow checkouts are.', 'checkouts are'],
  ['A manual is, whatever it costs.', 'manual is'],
  ['None at all, for a week, is what should worry you.', 'None'],
  ['Without that, a restaurant bill is a private dinner.', 'Without that'],
  ['On Saturday that means you can drive in until three.', 'Saturday that'],
  ['I did that in my first winter and I lost both colonies.', 'did that'],
  ['Warm air goes up, it meets the cold lid, and it rains on them.', 'them'],
  ['We cannot prove that with a graph.', 'prove that'],
  ['On most spring days that gives us from eleven until two.', 'days that'],
  ['We keep a photograph on the wall of what that looks like.', 'what that'],
  ['Read both, look up the dew point, and then lay your palm on the wood.', 'both'],
  ['If you pick one out you leave a crater.', 'one'],
  ['Once a week is enough.', 'Once a week is'],
  ['In June it fell by nothing that our meter could show.', 'it'],
  ['At a shout it stays by itself.', 'it'],
  ['Here’s the test we use.', 'Here’s'],
  ['Anna did all three.', 'all three'],
  ['Her boat is called Segunda.', 'Her'],
  ['So we did not float her.', 'So'],
  ['The idea was hers.', 'hers'],
  ['You will see twenty a day in a thaw.', 'twenty'],
  ['After six weeks you will be a minute faster per kilometre.', 'After six weeks you'],
  ['Lay a round in it and leave it alone for ninety seconds.', 'it'],
  ['We stopped writing separate labels for them.', 'them'],
  ['Snow lies on it and makes the lid thicker.', 'it'],
  ['We timed four hundred of them with a stopwatch.', 'them'],
  ['Nobody reads that sentence without looking at the foot.', 'that sentence'],
  ['Ten minutes of exercises, three times a week, halve that risk.', 'that risk'],
  ['A hot pan does the opposite: the outside sets at once.', 'does the opposite'],
  ['By then the pitch has dropped and I have to raise it first.', 'By then'],
  ['By the afternoon we were all correcting people who guessed.', 'By the afternoon'],
  ['Ice that slides into the sea from the land does.', 'does'],
  ['A dog that does not has to stay on a lead for fifteen years.', 'does not'],
  ['In ice each one holds hands with four others.', 'each one'],
  ['Put two on a card by the toothbrush.', 'two'],
  ['For that you get a window the size of a plate.', 'For that'],
  ['Nobody wrote down that it had been turned off.', 'it'],
  ['It took two of us three winters to read them.', 'them'],
  ['Beginners cut straighter with it on their first day.', 'it'],
  ['One in ten breaks, and you should cut the timber for it.', 'One in ten'],
  ['Until the next day, leave the clamps on.', 'Until the next day'],
])('says which words lean: %s', (text, words) => {
  expect(danglingWords(readSentences(text)[0]?.tokens ?? [], text)).toBe(words)
})
