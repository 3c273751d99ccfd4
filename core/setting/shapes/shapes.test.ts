import { describe, expect, it } from 'vitest'
import type { Paragraph } from '../draft'
import { SHAPES } from '.'

const prose = (...sentences: string[]): Paragraph => ({ kind: 'prose', sentences })
const list: Paragraph = { kind: 'list', lead: 'Take with you:', items: ['water', 'a rope'], ordered: false }
const FOUR = prose('One is first.', 'Two follows.', 'Three goes on.', 'Four ends it.')

describe('the shapes', () => {
  it.each([
    ['short', [FOUR], 'One is first. Two follows. Three goes on. Four ends it.'],
    ['short', [list], 'Take with you:\n– water\n– a rope'],
    ['considered', [FOUR], 'One is first.\n\nTwo follows. Three goes on.\n\nFour ends it.'],
    ['considered', [prose('One.'), prose('Two.', 'Three.')], 'One.\n\nTwo. Three.'],
    ['considered', [prose('He said “one.', 'Two.” Then', 'three.')], 'He said “one. Two.” Then\n\nthree.'],
    ['considered', [list], 'Take with you:\n\n– water\n– a rope'],
    ['neighbourly', [FOUR], 'One is first. Two follows. Three goes on. Four ends it.'],
    ['neighbourly', [prose('One.', 'Two.', 'Three.', 'Four.', 'Five.')], 'One. Two. Three.\n\nFour. Five.'],
    ['pictures speak', [prose('One.'), prose('Two.')], 'One.\n\nTwo.'],
    ['searchable', [prose('One.'), prose('Two.')], 'One. Two.'],
    ['news', [prose('One.', 'Two.')], 'One.\nTwo.'],
    ['video', [prose('One.', 'Two.')], 'One. Two.'],
    [
      'letter',
      [{ kind: 'heading', text: 'The slip' }, prose('One.', 'Two.'), { ...list, lead: '', ordered: true }],
      '## The slip\n\nOne. Two.\n\n1. water\n2. a rope',
    ],
    ['letter', [{ kind: 'quotation', text: 'Haul.' }], '> Haul.'],
  ] as const)('%s', (name, paragraphs, text) => {
    expect(SHAPES[name].lays(paragraphs)).toBe(text)
  })

  it.each(Object.values(SHAPES))(
    '$name lays its good examples as they are, and the bad ones otherwise',
    (shape) => {
      for (const [posts, same] of [
        [shape.good, true],
        [shape.bad, false],
      ] as const)
        for (const post of posts) expect([post, shape.lays(asDraft(post)) === post]).toEqual([post, same])
    },
  )

  it.each([
    ['short', [2, 1], [5, 1]],
    ['considered', [5, 3], [1, 1]],
    ['considered', [5, 3], [5, 1]],
    ['pictures speak', [2, 1], [4, 1]],
    ['neighbourly', [3, 2], [1, 1]],
    ['news', [3, 1], [6, 1]],
    ['letter', [9, 4], [2, 1]],
  ] as const)('%s suits %j better than %j', (name, better, worse) => {
    expect(SHAPES[name].suits(better[0], better[1])).toBeGreaterThan(SHAPES[name].suits(worse[0], worse[1]))
  })
})

/** A post as the draft it might come from: all its sentences in one paragraph, its marks as they are. */
function asDraft(post: string): Paragraph[] {
  const parts = post.split('\n\n')
  const marked = parts.some((p) => /^(?:#|>|- |\d+\. )/.test(p))
  if (marked)
    return parts.map((p): Paragraph => {
      if (p.startsWith('## ')) return { kind: 'heading', text: p.slice(3) }
      if (p.startsWith('- '))
        return { kind: 'list', lead: '', items: p.split('\n').map((l) => l.slice(2)), ordered: false }
      return prose(p)
    })
  return [prose(...post.split(/(?<=\.)\s+/))]
}
