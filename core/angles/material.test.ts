import fc from 'fast-check'
import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { ANGLES, type PieceContent } from '../model'
import { NETWORKS } from '../networks'
import { weighPassages } from '../passages'
import { read, readWriting } from '../reading'
import { PLAIN_HOUSE } from '../house'
import { studyOf } from '../study'
import { anglesOf, MATERIAL_KINDS, materialOf, type MaterialKind } from './material'
import { writeDrip } from '../drips'

/* A field of its own, with one thing of each kind. */
const BEES = readWriting(
  `# Keeping bees on a roof

A hive on a roof costs 240 euros in its first year and wants an hour a week. Bees fly upwards from the door, so nobody below is bothered.

## Choosing the place

An apiary is a place where hives stand. Put the hive where the morning sun reaches it. Weigh the lid with two bricks. Leave a metre free behind it.

Many people believe that bees need a garden. They need a park within two kilometres, not a garden.

## How do you know they are well?

Look at the landing board. Pollen on legs means brood inside.

> A roof is a quiet place for a loud animal.

Last June my neighbour found a swarm on her bicycle. She called me at six, and I walked over with a cardboard box.

Never open a hive in the rain, because wet bees are cold bees and cold bees sting.

1. Light the smoker.
2. Lift the lid.
3. Wait a minute.`,
  'bees',
)

const saying = (kind: MaterialKind): string[] =>
  materialOf(studyOf(BEES))
    .filter((m) => m.kind === kind)
    .map((m) => m.says)
const at = (kind: MaterialKind): string[] =>
  materialOf(studyOf(BEES))
    .filter((m) => m.kind === kind)
    .map((m) => BEES.text.slice(m.start, m.end))

describe('the material of a piece', () => {
  it('has every kind with the words that make it one', () => {
    expect(saying('goal')).toContain('Choosing the place')
    expect(saying('cost')).toEqual(['240 euros'])
    expect(saying('number')).toEqual(expect.arrayContaining(['240 euros']))
    expect(at('definition')).toContain('An apiary is a place where hives stand.')
    expect(at('contrast')).toContain('They need a park within two kilometres, not a garden.')
    expect(at('quotation')).toEqual(['A roof is a quiet place for a loud animal.'])
    expect(at('anecdote')[0]).toMatch(/^Last June my neighbour .* a cardboard box\.$/)
    expect(at('warning')).toEqual([expect.stringMatching(/^Never open a hive in the rain/)])
    expect(at('instruction')).toContain('Weigh the lid with two bricks.')
  })

  it('knows what belongs together: a belief and what is true, a question and its answer', () => {
    const rest = (kind: MaterialKind) =>
      materialOf(studyOf(BEES)).flatMap((m) =>
        m.kind === kind && m.with ? [BEES.text.slice(m.with.start, m.with.end)] : [],
      )
    expect(rest('belief')).toEqual(['They need a park within two kilometres, not a garden.'])
    expect(rest('question')).toEqual(['Look at the landing board.'])
  })

  it('finds steps in lists and in runs of orders, whole', () => {
    expect(at('steps')).toContain(
      'Put the hive where the morning sun reaches it. Weigh the lid with two bricks. Leave a metre free behind it.',
    )
    expect(at('steps')).toContain('Light the smoker.\n\nLift the lid.\n\nWait a minute.')
  })

  it('has its key phrases, each where it stands first', () => {
    expect(saying('phrase')).toContain('bees')
    for (const m of materialOf(studyOf(BEES)).filter((x) => x.kind === 'phrase'))
      expect(BEES.text.slice(m.start, m.end).toLowerCase()).toBe(m.says)
  })

  it('has one claim, which says what the piece is about', () => {
    expect(at('claim')).toHaveLength(1)
    expect(at('claim')[0]).toMatch(/hive|bees/i)
  })

  it('offers an angle only where its material is', () => {
    expect(anglesOf(studyOf(BEES))).toEqual([...ANGLES])
    const apiary = BEES.text.indexOf('An apiary')
    const here = anglesOf(studyOf(BEES), [{ start: apiary, end: apiary + 40 }])
    expect(here).toContain('definition')
    for (const angle of ['myth', 'story', 'quotation', 'number'] as const) expect(here).not.toContain(angle)
    const thin = readWriting('# Rain\n\nIt rained and rained.', 'rain')
    expect(anglesOf(studyOf(thin))).not.toContain('myth')
  })

  it('has nothing of furniture', () => {
    const marked: PieceContent = {
      ...BEES,
      blocks: BEES.blocks.map((b) => ({ ...b, furniture: 'sign-up box' })),
    }
    expect(materialOf(studyOf(marked))).toEqual([])
  })

  it('stands in its place, whatever the text is', () => {
    const bit = fc.constantFrom(
      'How to fix it. ',
      'Many people believe that. ',
      '“Never,” said Ann. ',
      'Is it so? ',
      '1. One\n2. Two\n',
      '\n\n# Doing it\n\n',
      'It cost £12 and 3 days. ',
      'She went home. ',
      'Ⅷ 😀 ',
    )
    fc.assert(
      fc.property(fc.array(bit, { maxLength: 20 }), (bits) => {
        const piece = readWriting(`It is so. ${bits.join('')}`, 'x')
        for (const m of materialOf(studyOf(piece))) {
          expect(m.start).toBeGreaterThanOrEqual(0)
          expect(m.end).toBeGreaterThan(m.start)
          expect(m.end).toBeLessThanOrEqual(piece.text.length)
          if (!['steps', 'quotation'].includes(m.kind)) expect(m.says).not.toBe('')
        }
      }),
      { numRuns: 60 },
    )
  })
})

describe('the captions of texts of many fields', () => {
  const folder = join(import.meta.dirname, '../../bench/corpus')
  it.each(readdirSync(folder).filter((_, i) => i % 4 === 1))(
    'stand in an angle for which %s holds material',
    async (name) => {
      const result = await read(new Uint8Array(readFileSync(join(folder, name))), { name })
      if (result.kind !== 'piece') throw new Error(name)
      const { piece } = result
      const found = weighPassages(piece).map((w) => w.passage)
      const written = writeDrip({
        piece,
        passages: found,
        accounts: NETWORKS.map(({ id }) => ({ id, network: id })),
        days: [0, 1, 2, 3, 4, 5],
        house: PLAIN_HOUSE,
        link: null,
        seed: 3,
      })
      const made = written.flatMap((w) => (w.wording ? [w.wording, ...w.others] : []))
      expect(made.length).toBeGreaterThan(5)
      for (const wording of made.filter((w) => w.poll.length === 0 && w.parts.length === 0))
        expect([
          wording.text,
          anglesOf(studyOf(piece), wording.spans).some((a) => a === wording.angle),
        ]).toEqual([wording.text, true])
      expect(
        MATERIAL_KINDS.filter((k) => materialOf(studyOf(piece)).some((m) => m.kind === k)).length,
      ).toBeGreaterThan(5)
    },
  )
})
