import { describe, expect, it } from 'vitest'
import { readPage, readWriting } from '../reading'
import { stockOf, strangerIn, type Run, type Stock } from './stock'
import { isWhole } from './whole'

/** Whether the first so many sentences of a paragraph are a whole thought, as one reads them. */
const whole = (paragraph: string, count: number, from = 0): boolean => {
  const stock = stockOf(readWriting(`# A bell\n\nOsric Penhallam casts bells.\n\n${paragraph}`, 'x'))
  const first = stock.study.sentences.findIndex((s) => paragraph.startsWith(s.text))
  return isWhole(stock, { from: first + from, to: first + from + count - 1 })
}

/** The last sentence of a text as a run of its own. */
function lastOf(text: string): [Stock, Run] {
  const stock = stockOf(readWriting(`# A bell\n\n${text}`, 'x'))
  const at = stock.study.sentences.length - 1
  return [stock, { from: at, to: at }]
}

describe('a whole thought', () => {
  it.each([
    ['A bell takes four months.', 1],
    ['A bell takes four months. It is cast in clay.', 2],
    ['How long does a bell take? A bell takes four months.', 2],
    ['Osric Penhallam turned the bell. Penhallam was pleased with it.', 2],
  ])('is one: %s (%d)', (text, count) => {
    expect(whole(text, count)).toBe(true)
  })

  it.each([
    ['it opens by leaning', 'It is cast in clay.', 1],
    ['it opens on a connective', 'However, a bell takes four months.', 1],
    ['it is a question without its answer', 'How long does a bell take? A bell takes four months.', 1],
    ['it points elsewhere', 'A bell takes four months. As noted above, clay is slow.', 2],
    ['it names a chapter', 'A bell takes four months. Chapter 3 says why.', 2],
    ['a caveat is cut off', 'A bell takes four months. But only in summer is the clay dry.', 1],
    ['it promises a list', 'A bell fails in three ways.', 1],
    ['it ends on a lead-in', 'A bell wants these things:', 1],
    ['somebody goes by half a name', 'A bell takes four months. Penhallam was pleased with it.', 2],
    ['a mark does not close', 'A bell takes “four months. It is cast in clay.', 2],
    ['nobody is known who says it', '“A bell takes four months. It is cast in clay.”', 2],
    ['it ages', 'A bell takes four months. We cast one last week.', 2],
    ['it ends before its example', 'A bell is a lens. Imagine a bell of glass. It would ring once.', 2],
    ['it ends on what was so once', 'A bell used to take a year. Then the pump came.', 1],
  ])('is none where %s', (_, text, count) => {
    expect(whole(text, count)).toBe(false)
  })

  it('says the term that it defines, in a list of terms', () => {
    const page = readPage(
      '<html><body><article><p>A bell is cast in clay, and the clay decides what it says for a hundred years.</p><dl><dt>Cope</dt><dd>The outer half of a mould is made in one piece.</dd><dt>Crown</dt><dd>A crown is what a bell hangs by.</dd></dl></article></body></html>',
    )
    const stock = stockOf(page)
    const may = (words: string): boolean => {
      const at = stock.study.sentences.findIndex((s) => s.text.startsWith(words))
      return isWhole(stock, { from: at, to: at })
    }
    expect(may('The outer half')).toBe(false)
    expect(may('A crown is')).toBe(true)
  })

  it('answers a question of the paragraph before only with it', () => {
    expect(isWhole(...lastOf('How long does it take in a wet year?\n\nFour months it takes.'))).toBe(false)
  })

  it('answers a question only with it, unless the answer says all', () => {
    expect(whole('How long does it take? Four months it takes.', 1, 1)).toBe(false)
    expect(whole('How long does a bell take? A bell of a ton takes four months in a dry summer.', 1, 1)).toBe(
      true,
    )
  })
})

it('a stranger is who goes by a part of the name, or acts and was named before', () => {
  const stranger = (text: string, from: number): string | null => {
    const stock = stockOf(readWriting(`# A bell\n\n${text}`, 'x'))
    return strangerIn(stock, { from, to: from })
  }
  expect(stranger('Osric Penhallam casts bells. Penhallam says little.', 1)).toBe('Penhallam')
  expect(stranger('Osric Penhallam casts bells. Osric Penhallam says little.', 1)).toBeNull()
  expect(stranger('We met Edda in May. Edda said that clay is slow.', 1)).toBe('Edda')
  expect(stranger('We met Edda in May. My neighbour Edda said that clay is slow.', 1)).toBeNull()
  expect(stranger('Bronze rings. Bronze cracks.', 1)).toBeNull()
})
