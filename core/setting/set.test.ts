import fc from 'fast-check'
import { expect, it } from 'vitest'
import { briefOf, PLAIN_HOUSE } from '../house'
import { measure, network } from '../networks'
import { proseDraft } from './draft'
import { setDraft, type Surroundings } from './set'

const around = (tags: readonly string[]): Surroundings => ({
  piece: { title: 'A piece', author: null, video: null },
  house: PLAIN_HOUSE,
  link: 'https://a.example/piece',
  tags: tags.map((text) => ({ text, from: 'the author', stems: [text.toLowerCase()], inPiece: true })),
  phrases: [],
  title: null,
  closed: new Set(),
})

it('never cuts inside a sentence and never exceeds the band', () => {
  const sentence = fc.integer({ min: 2, max: 30 }).map((n) => `${'Oak '.repeat(n).trim()}.`)
  fc.assert(
    fc.property(
      fc.array(sentence, { minLength: 1, maxLength: 6 }),
      fc.array(fc.constantFrom('Oak', 'SteamBox', 'GreenTimber', 'Ribband'), { maxLength: 6 }),
      fc.constantFrom('murmur', 'guildhall', 'shutterleaf'),
      (sentences, hashtags, id) => {
        const profile = network(id)
        const draft = proseDraft('lesson', [sentences.join(' ')], [], 0.5)
        const made = setDraft(draft, profile, briefOf(profile), around(hashtags))
        if (!made) return
        expect(made.text.startsWith(sentences.join(' '))).toBe(true)
        expect(measure(made.text, profile.text)).toBeLessThanOrEqual(
          Math.min(profile.text.limit ?? Infinity, briefOf(profile).length.most),
        )
        expect(made.hashtags.length).toBeLessThanOrEqual(profile.hashtags.most)
      },
    ),
  )
})

it('puts the link where the network makes it useful, and its tags beside it or in the first comment', () => {
  const text = 'A plank of green oak bends once, and then it keeps the curve it was given.'
  const set = (id: string) =>
    setDraft(proseDraft('lesson', [text], [], 0.5), network(id), briefOf(network(id)), around(['Oak']))
  expect(set('murmur')?.text).toBe(`${text} https://a.example/piece #Oak`)
  expect(set('guildhall')).toMatchObject({
    text: `${text}\n\nLink in the first comment.\n\n#Oak`,
    firstComment: 'A piece\nhttps://a.example/piece',
  })
  expect(set('shutterleaf')?.text).toBe(`${text}\n\nLink in the profile.\n\n#Oak`)
})

it('sets nothing whose first sentence the fold would cut', () => {
  const long = `${'A plank that has lain for nine years in the shade of the long shed '.repeat(5)}bends.`
  const set = (text: string) =>
    setDraft(
      proseDraft('lesson', [text], [], 0.5),
      network('guildhall'),
      briefOf(network('guildhall')),
      around([]),
    )
  expect(set(long)).toBeNull()
  expect(set(`Oak bends when it is green and hot, once. ${long}`)).not.toBeNull()
})
