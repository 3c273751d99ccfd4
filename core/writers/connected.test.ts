import fc from 'fast-check'
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { ANGLES, HouseStyle } from '../model'
import { measure, network, NETWORKS } from '../networks'
import { weighPassages } from '../passages'
import { readWriting } from '../reading'
import { PLAIN_HOUSE, type House } from '../house'
import { commission, sentBack, weighAnswer, type Commission } from './connected'

const ankle = readWriting(
  readFileSync(join(import.meta.dirname, '../../bench/corpus/medical-sprained-ankle.md'), 'utf8'),
  'ankle',
)
const passage = weighPassages(ankle)
  .map((w) => w.passage)
  .find((p) => p.text.startsWith('Cold packs ease the pain'))!
const own = ankle.text.slice(passage.start, passage.end)
const asked = (change: Partial<Commission> = {}): Commission => ({
  piece: ankle,
  passage,
  angle: 'lesson',
  account: { id: 'a', network: 'murmur' },
  beat: 0,
  drip: [],
  house: PLAIN_HOUSE,
  link: 'https://clinic.example/ankle',
  seed: 1,
  ...change,
})
const faultsOf = (answer: string, change?: Partial<Commission>): string[] => {
  const weighed = weighAnswer(answer, asked(change))
  return 'faults' in weighed ? weighed.faults : []
}

describe('the instructions for a connected writer', () => {
  const house: House = {
    brand: 'The Clinic',
    briefs: [],
    style: HouseStyle.parse({
      voice: { formality: -2, vividness: 0, warmth: 1, speaker: 'we' },
      neverSay: ['miracle'],
      spelling: 'British',
    }),
  }

  it('hold the passage, the brief and the house style, and the rule to stay within them', () => {
    const [rules, wanted] = commission(asked({ house, angle: 'myth' }))
    expect(rules?.content).toMatch(/posts for The Clinic.*Stay within them/s)
    expect(wanted?.content).toContain(`"""\n${own}\n"""`)
    expect(wanted?.content).toMatch(/Murmur.*between \d+ and \d+ characters/s)
    expect(wanted?.content).toMatch(/very casual, warm, speaks as “we”.*British.*Never say: miracle/s)
    expect(wanted?.content).toContain('mistaken belief')
    expect(wanted?.content).not.toContain('"title"')
  })

  it('name the day that it is for, where it is for one', () => {
    const wanted = (day?: string): string => commission(asked(day ? { day } : {}))[1]?.content ?? ''
    expect(wanted('Winter solstice')).toContain('It goes out on this day: Winter solstice.')
    expect(wanted()).not.toContain('It goes out on this day')
  })

  it('ask for what each network has, in every angle, with room for its link and tags', () => {
    for (const { id, title, text } of NETWORKS)
      for (const angle of ANGLES) {
        const said = commission(asked({ account: { id: 'a', network: id }, angle }))
        expect(said[0]?.content.includes('"title"')).toBe(title !== null)
        const most = Number(/between \d+ and (\d+) characters/.exec(said[1]?.content ?? '')?.[1])
        expect(most).toBeGreaterThan(40)
        expect(most).toBeLessThanOrEqual(text.limit ?? Infinity)
        expect(/first sentence has at most/.test(said[1]?.content ?? '')).toBe(text.fold !== null && !title)
      }
  })

  it('come again with the answer and its faults named', () => {
    const again = sentBack(commission(asked()), 'Too much.', ['It has 900 characters.'])
    expect(again.slice(2).map((m) => m.role)).toEqual(['assistant', 'user'])
    expect(again[3]?.content).toContain('- It has 900 characters.')
  })
})

describe('an answer', () => {
  it('that keeps to the passage is fitted like any caption, with link and tags, and says who wrote it', () => {
    const weighed = weighAnswer(JSON.stringify({ text: own }), asked())
    expect(weighed).toMatchObject({ wording: { by: 'connected', angle: 'lesson' } })
    if ('faults' in weighed) throw new Error(weighed.faults.join())
    expect(weighed.wording.text).toContain('https://clinic.example/ankle')
    expect(measure(weighed.wording.text, network('murmur').text)).toBeLessThanOrEqual(300)
    expect(weighed.checks.filter((c) => c.severity !== 'note')).toEqual([])
  })

  it('is freed of a fence, of talk around it, and of links and tags of its own', () => {
    const plain = weighAnswer(own, asked())
    for (const answer of [
      `Sure! Here it is:\n\n\`\`\`json\n${JSON.stringify({ text: own })}\n\`\`\`\nTell me if you want another.`,
      JSON.stringify({ text: `${own} #Health https://elsewhere.example/x` }),
    ])
      expect(weighAnswer(answer, asked())).toEqual(plain)
  })

  it('with an invented number or name, or what the brand never says, is sent back with the words named', () => {
    expect(faultsOf(`${own} In 87 of 100 cases it heals.`).join()).toContain('“87”')
    expect(faultsOf(`${own} So says Doctor Armitage of Leeds.`).join()).toMatch(/Armitage/)
    const word = own.split(' ').find((w) => /^\p{Ll}{5,}$/u.test(w)) ?? ''
    const house: House = { ...PLAIN_HOUSE, style: HouseStyle.parse({ neverSay: [word] }) }
    expect(faultsOf(own, { house }).join()).toContain('never-say')
  })

  it('that is a refusal, nonsense, empty or broken off is sent back', () => {
    expect(faultsOf('I’m sorry, but I can’t help with that request.')).toEqual([
      expect.stringContaining('something else than the passage'),
    ])
    expect(faultsOf('Blue ideas sleep furiously beside the humming marmalade.')).toHaveLength(1)
    expect(faultsOf('{"text": ""}')).toEqual(['There were no words in it.'])
    expect(faultsOf(own.slice(0, -8)).join()).toContain('in the middle of a sentence')
  })

  it('that is far too long is sent back with both lengths', () => {
    const said = faultsOf(ankle.blocks.map((b) => ankle.text.slice(b.start, b.end)).join('\n\n'))
    expect(said.join()).toMatch(/It has \d{4} characters; write between \d+ and \d+\./)
  })

  it('that opens or goes like another post is sent back', () => {
    const earlier = [{ account: 'b', network: 'murmur', text: own }]
    expect(faultsOf(own, { earlier }).join()).toMatch(/% like another|same words go out/)
    expect(faultsOf(own, { earlier: [{ ...earlier[0]!, network: 'guildhall' }] })).toEqual([])
    expect(faultsOf(own, { drip: ['Something else.', own] }).join()).toContain('opens with the same words')
    expect(commission(asked({ drip: [own] }))[1]?.content).toContain(`open otherwise:\n- `)
  })

  it('for a network with titles gets the title it gave, or one of the piece', () => {
    const account = { id: 'a', network: 'rackwell' }
    const title = ankle.title
    const given = weighAnswer(JSON.stringify({ text: own, title }), asked({ account }))
    expect(given).toMatchObject({ wording: { title } })
    const without = weighAnswer(JSON.stringify({ text: own }), asked({ account }))
    if ('faults' in without) throw new Error(without.faults.join())
    expect(without.wording.title).toBeTruthy()
  })

  it('whatever it is, never makes a caption over the limit, ungrounded, or with a block or flag', () => {
    const sentences = ankle.text.match(/[^.!?\n]+[.!?]/g)!.map((s) => s.trim())
    const bits = fc.oneof(
      fc.constantFrom(...sentences),
      fc.constantFrom(
        '```',
        '"',
        '{"text": "',
        '#Tag',
        'https://x.example',
        'It cures 99% of us.',
        '\n\n',
        '**',
      ),
      fc.string({ maxLength: 30 }),
    )
    fc.assert(
      fc.property(
        fc.array(bits, { maxLength: 14 }),
        fc.constantFrom(...NETWORKS.map((n) => n.id)),
        (parts, id) => {
          const weighed = weighAnswer(parts.join(' '), asked({ account: { id: 'a', network: id } }))
          if ('faults' in weighed) return weighed.faults.length > 0
          const { text } = weighed.wording
          return (
            measure(text, network(id).text) <= (network(id).text.limit ?? Infinity) &&
            !/99/.test(text) &&
            weighed.checks.every((c) => c.severity === 'note')
          )
        },
      ),
      { numRuns: 150 },
    )
  })
})
