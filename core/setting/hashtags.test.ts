import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { read, readWriting } from '../reading'
import { studyOf } from '../study'
import { camelCase, fittingTags, tagsOf, termsOf } from './hashtags'

const LOOM = studyOf(
  readWriting(
    `# Warping a rigid heddle loom on Sundays

A rigid heddle loom holds every warp thread at one tension. On Sundays people wind the warp thread too fast, and the warp thread slackens at the selvedge.

## The selvedge

A selvedge is where weft turns. Most ways of mending a selvedge take minutes, and some people make it a job of hours.

## A better selvedge

On Sundays beat the weft once. The selvedge follows the warp thread, whatever people say.`,
    'loom',
  ),
)

describe('the terms of a piece', () => {
  it('are phrases of its field that come again, and no word of every day', () => {
    const terms = termsOf(LOOM)
    expect(terms).toContain('warp thread')
    expect(terms).toContain('selvedge')
    for (const word of ['sundays', 'sunday', 'days', 'people', 'ways', 'minutes', 'job', 'hours', 'thread'])
      expect(terms).not.toContain(word)
  })

  it('are no common adjective before a noun', () => {
    const paragraphs = [
      'A good selvedge starts at the warp thread. Nobody weaves a good selvedge in a hurry.',
      'The warp thread slackens first, and a good selvedge goes with it.',
      'Mend the warp thread and the good selvedge comes back.',
    ]
    const terms = termsOf(studyOf(readWriting(`# Sheds and beams\n\n${paragraphs.join('\n\n')}`, 'loom')))
    expect(terms).toContain('warp thread')
    expect(terms).not.toContain('good selvedge')
  })

  it('hold some of the tags that authors gave, though they were not told them', async () => {
    const folder = join(import.meta.dirname, '../../train/quotable')
    let found = 0
    let pieces = 0
    let words = 0
    for (const file of readdirSync(folder)
      .filter((f) => f.endsWith('.md') && f !== 'README.md')
      .slice(0, 24)) {
      const result = await read(readFileSync(join(folder, file)), { name: file })
      if (result.kind !== 'piece') continue
      const { piece } = result
      const own = new Set(piece.categories.flatMap((c) => c.toLowerCase().split(/\s+/).map(rough)))
      const terms = termsOf(studyOf({ ...piece, categories: [] }), 3)
      pieces++
      words += terms.length
      found += terms.filter((t) => t.split(' ').some((w) => own.has(rough(w)))).length
    }
    expect(pieces).toBe(24)
    expect(found / words).toBeGreaterThan(0.35)
  })
})

const rough = (word: string): string => word.toLowerCase().replace(/(?:ies|es|s|ing)$/, '')

describe('tags', () => {
  it('are written so that a reader aloud can part the words', () => {
    expect(camelCase('winter lay-up')).toBe('WinterLayUp')
  })

  it('are the house’s first, then the author’s, then terms, none twice', () => {
    const piece = { ...LOOM.piece, categories: ['Weaving', 'Looms'] }
    const tags = tagsOf({ piece }, ['loom', 'warp thread'], ['SlowCloth'])
    expect(tags.map((t) => [t.text, t.from])).toEqual([
      ['SlowCloth', 'the house'],
      ['Weaving', 'the author'],
      ['Looms', 'the author'],
      ['WarpThread', 'the piece'],
    ])
  })

  it('that are used go before what nobody finds, and crowded ones behind', () => {
    const piece = { ...LOOM.piece, categories: ['Weaving', 'Looms', 'Cloth'] }
    const ranked = (figures: Record<string, number>): string[] =>
      tagsOf({ piece }, [], [], figures).map((t) => t.text)
    expect(ranked({ Weaving: 0, Looms: 4000, Cloth: 0 })[0]).toBe('Looms')
    expect(ranked({ Weaving: 90_000_000, Looms: 9000 })[0]).toBe('Looms')
  })

  const ALL = tagsOf(
    {
      piece: {
        ...LOOM.piece,
        text: `${LOOM.piece.text} Weaving takes time.`,
        categories: ['Weaving', 'System boot'],
      },
    },
    ['selvedge', 'warp thread'],
    ['Slow'],
  )
  // The piece says “weaving” somewhere, and nothing of a system that boots.
  it.each([
    ['The warp thread slackens.', 4, ['Slow', 'WarpThread', 'Weaving']],
    ['Weaving starts at the selvedge and ends there.', 2, ['Slow', 'Weaving']],
    ['Nothing of it.', 4, ['Slow', 'Weaving']],
    ['It ends at the selvedge.', 4, ['Slow', 'Weaving']],
    ['The warp is wound.', 4, ['Slow', 'Weaving']],
    ['The warp thread slackens.', 0, []],
  ])('of a post: %s (%d)', (body, most, expected) => {
    expect(fittingTags(ALL, body, most)).toEqual(expected)
  })
})
