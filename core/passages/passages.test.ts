import { readFileSync, readdirSync } from 'node:fs'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { readArticle } from '../../demo/content'
import type { PieceContent } from '../model'
import { ageingWords, analyse, readFragment, readTranscript } from '../reading'
import { readSentences } from '../reading/language'
import { findPassages, passageAt } from '.'
import { lexRank } from './centrality'
import {
  danglingWords,
  hasVerb,
  isContrast,
  isDefinition,
  isImperative,
  isPast,
  promisesList,
  sentenceFeatures,
} from './features'
import { LEANING } from './leans'

const dangling = (text: string): string | null => {
  const [first] = readSentences(text)
  return danglingWords(first?.tokens ?? [], text)
}
const tokens = (text: string) => readSentences(text)[0]?.tokens ?? []

/** The demo's articles, read as the feed would bring them. */
function articles(): PieceContent[] {
  const folder = join(import.meta.dirname, '../../demo/content/oakum-yard')
  return readdirSync(folder).map((f) => {
    const a = readArticle(readFileSync(join(folder, f), 'utf8'))
    return readFragment(a.html, { title: a.title, author: a.author, categories: a.categories })
  })
}

describe('a sentence that opens', () => {
  it.each(LEANING)('leans on what was said before it: “%s”', (text) => {
    expect(dangling(text)).not.toBeNull()
  })

  it.each([
    'The lake would freeze if the wind dropped.',
    'Seven of ten jackets leak.',
    'In an old house the pipes freeze first.',
    'No choir sings well at nine in the morning.',
  ])('stands alone: “%s”', (text) => {
    expect(dangling(text)).toBeNull()
  })

  it.each([
    'In an account that you can empty in a day and that is not the one your card is attached to.',
    'From a variety you like, yes, as long as it is not a hybrid.',
    'From the moment the first truss has set, once a week, with something high in potash.',
    'Usually because the nights are cold and the days are hot.',
    'Once in spring and once in autumn, about three weeks after the heating goes off or comes on.',
  ])('is the answer to a question and no sentence: “%s”', (text) => {
    expect(hasVerb(tokens(text))).toBe(false)
  })

  it.each([
    'In the archive at Corran there are sixteen ledgers.',
    'In a greenhouse, tap the canes at noon.',
    'With a tool that is sharp you cut once.',
    'On the day that the lamp went out the keeper was asleep.',
    'When the bell rings and the door opens you may go in.',
    'Before you carry anything inside, take photographs.',
  ])('has its verb: “%s”', (text) => {
    expect(hasVerb(tokens(text))).toBe(true)
  })
})

describe('what points out of a sentence', () => {
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
  ])('%s', (text, words) => {
    expect(dangling(text)).toBe(words)
  })

  it.each([
    'It is rain that kills boats.',
    'Nobody has ever come into a hut and said they wished they had turned back later.',
    'Boats do not wear out in summer.',
    'If you cannot see two cairns ahead, stop.',
    'There is a moment when the talking stops.',
    'A plank at ten per cent will swell, and it will crush its neighbour.',
    'A torn shoot does not come back, and a cut one does.',
    'Nobody knows what it is.',
    'We know that with age comes patience.',
    'This year the yard got a new slip.',
    'Half a plank that means nothing to you is a shelf to your neighbour.',
    'We fired the kiln twice this week.',
    'Buy a saw and a plane, and never lend them.',
    'Buy one good flat brush and never let it dry.',
    'An old tree that has been left for fifteen years wants three winters.',
    'A choir that is afraid of being too loud stops pronouncing.',
    'The fee for a business account is deductible in full.',
    'In a strong colony you will see old bees at the entrance.',
    'Most people guess, and most of them guess too high.',
    'One in ten planks breaks, and you should cut the timber for it.',
    'Take the pressure off and you can hear it: one splash, or eight.',
    'Everyone said that water floats.',
    'By the end of the month you will know who fights with whom.',
  ])('nothing in: %s', (text) => {
    expect(dangling(text)).toBeNull()
  })
})

it('hears a contrast only where one thing is set against another', () => {
  for (const text of [
    'An inspector looks at paper, not at intentions.',
    'A soft note needs more support than a loud one.',
    'It is not a safety net, it is noise with a pager.',
    'Use fondant rather than syrup.',
  ])
    expect(isContrast(text), text).toBe(true)
  for (const text of [
    'Nobody likes being overtaken.',
    'Never lift the lid in March.',
    'We waited while it rained.',
  ])
    expect(isContrast(text), text).toBe(false)
})

it('knows a definition, and a sentence that promises a list', () => {
  expect(isDefinition(tokens('A scarf is a joint with two long slopes.'))).toBe(true)
  expect(isDefinition(tokens('A scarf is stronger.'))).toBe(false)
  expect(promisesList('Rot begins in three places.')).toBe(true)
  expect(promisesList('Take these with you:')).toBe(true)
  expect(promisesList('Rot begins in three places: the stem, the sternpost and the deck edge.')).toBe(false)
})

it('knows a sentence from a fragment, whatever the tagger takes its verb for', () => {
  for (const text of [
    'The court charges a fee, which you get back if you win.',
    'Nobody looks at the door.',
    'A cup cracks along the line where its handle was joined.',
    'The thing that matters is rest.',
    'People ring me when it sounds bad.',
  ])
    expect(hasVerb(tokens(text)), text).toBe(true)
  for (const text of [
    'Twice a year, in a house where people live.',
    'Ten metres of light rope, clipped to a harness and never to a collar.',
    'Week three, on a long line.',
    'Two visits instead of one.',
    'Big stone at the bottom, as large as two people can turn.',
  ])
    expect(hasVerb(tokens(text)), text).toBe(false)
})

it('tells instructions and stories from statements', () => {
  for (const text of [
    'Rake the seam out to bare wood.',
    'Do not push it.',
    'Never work from the tin.',
    'Plane both planks at once.',
    'Call when there is a distraction a long way off.',
    'Press on the bony knobs at either side of the ankle.',
    'Walk up, show it the cheese, walk backwards and let it follow.',
  ])
    expect(isImperative(tokens(text)), text).toBe(true)
  for (const text of [
    'Oak belongs where things are fastened.',
    'We rake the seam.',
    'Planks are shorter than boats.',
    'Week two, in the garden.',
    'Set beside the barometer, the knee is right on four days out of five.',
    'Paint on the deck is dry by noon.',
  ])
    expect(isImperative(tokens(text)), text).toBe(false)
  expect(isPast(tokens('Our first frame broke in her hands.'))).toBe(true)
  expect(isPast(tokens('A frame breaks on the outside.'))).toBe(false)
})

it('knows what ages', () => {
  expect(ageingWords('Every plank we cut out last winter had one.')).toBe('last winter')
  expect(ageingWords('The prices of 2026 will not hold.')).toBe('2026')
  expect(ageingWords('Varnish laid in November stays soft.')).toBeNull()
})

it('ranks the sentence that shares most with the others highest', () => {
  const rank = lexRank([['oak', 'steam'], ['oak', 'frame'], ['oak', 'steam', 'frame'], ['tea']])
  expect(rank.indexOf(Math.max(...rank))).toBe(2)
  expect(rank[3]).toBeLessThan(rank[0] as number)
  expect(lexRank([])).toEqual([])
})

describe('findPassages', () => {
  it('finds enough for a Trickle in every article, exact, apart, whole and without furniture', () => {
    for (const piece of articles()) {
      const found = findPassages(piece)
      expect(found.length, piece.title).toBeGreaterThanOrEqual(8)
      const ends = new Set(piece.sentences.map((s) => s.end))
      for (const p of found) {
        expect(piece.text.slice(p.start, p.end)).toBe(p.text)
        expect(ends.has(p.end), p.text).toBe(true)
        expect(found.every((q) => q === p || q.end <= p.start || q.start >= p.end)).toBe(true)
        expect(p.text).not.toMatch(/^(It (?!is \w+ that)|(They|This(?! year)|But|And|So|However)\b)/)
      }
      expect([...found].sort((a, b) => b.score - a.score)).toEqual(found)
    }
  })

  it('ranks what ages last, but not in a piece that ends with it', () => {
    const piece = readFragment(
      '<p>The kiln was lit at six this week and held 1,240 degrees.</p><p>A cup cracks along the line where its handle was joined.</p>',
    )
    const first = (ends: boolean) => findPassages(piece, { ends })[0]?.text
    expect(first(true)).toMatch(/^The kiln/)
    expect(first(false)).toMatch(/^A cup/)
  })

  it('clips of a talk last from five seconds to the longest that every network takes', () => {
    const cue = (from: number, to: number, text: string): string =>
      `00:${String(Math.floor(from / 60)).padStart(2, '0')}:${String(from % 60).padStart(2, '0')}.000 --> 00:${String(Math.floor(to / 60)).padStart(2, '0')}:${String(to % 60).padStart(2, '0')}.000\n${text}`
    const piece = readTranscript(
      [
        'WEBVTT',
        cue(1, 4, 'Four coils of cotton were enough for a hull of nine metres.'),
        cue(60, 72, 'A seam of four millimetres wants two strands of cotton.'),
        cue(80, 175, 'A plank of larch takes nine weeks to lose its water in the shade.'),
      ].join('\n\n'),
      { title: 'A talk' },
    )
    expect(findPassages(piece).map((p) => p.text)).toEqual([
      'A seam of four millimetres wants two strands of cotton.',
    ])
  })

  it('hears a surprise and a verb that one sees happen, and puts them before what says the same flatly', () => {
    const features = (text: string) => sentenceFeatures(analyse(readFragment(`<p>${text}</p>`))[0]!)
    expect(features('Most people think that bees sleep in winter.')).toMatchObject({ surprise: true })
    expect(features('It turned out that the roof was dry.')).toMatchObject({ surprise: true })
    expect(features('Bees hang in a ball in winter.')).toMatchObject({ surprise: false, strongVerb: false })
    expect(features('The handle broke on a cold morning.')).toMatchObject({ strongVerb: true })
    const piece = readFragment(
      '<p>A cup is weak at the place where its handle was joined.</p><p>A jug will crack at the place where its handle was joined.</p>',
    )
    const [first] = findPassages(piece)
    expect(first?.text).toMatch(/^A jug will crack/)
    expect(first?.reasons).toContain('strong verb')
  })

  it('keeps a list whole with its lead-in', () => {
    const piece = readFragment(
      '<p>Before you open the box, look at four things:</p><ul><li>gloves on</li><li>clamps open</li><li>path clear</li><li>somebody at the far end who knows what you shout</li></ul><p>Nothing more is needed for it.</p>',
      { title: 'Steam' },
    )
    expect(findPassages(piece)[0]).toMatchObject({
      kind: 'steps',
      text: expect.stringMatching(/^Before you open[\s\S]*you shout$/) as string,
    })
  })

  it('never quotes furniture', () => {
    const piece = readFragment(
      `<p>${'An hour in the box for every inch of thickness. '.repeat(2)}</p><div class="author-box"><p>Rita Vance has taught at the yard for 40 years and never broke a frame.</p></div>`,
      { title: 'Steam' },
    )
    for (const p of findPassages(piece)) expect(p.text).not.toMatch(/Rita/)
  })

  it('scores a passage chosen by hand like the others', () => {
    const piece = articles()[0] as PieceContent
    const s = piece.sentences[0]!
    expect(passageAt(piece, s.start, s.end)).toMatchObject({
      text: piece.text.slice(s.start, s.end),
      reasons: expect.arrayContaining(['chosen by hand']) as string[],
    })
  })
})
