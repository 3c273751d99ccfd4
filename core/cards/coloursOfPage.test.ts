import { describe, expect, it } from 'vitest'
import { coloursOfPage, type UsedColour } from './coloursOfPage'

const used = (...of: [selector: string, property: string, colour: string][]): UsedColour[] =>
  of.map(([selector, property, colour]) => ({ selector, property, colour }))

describe('the colours of a page', () => {
  it('are the ground and the words of all of it, and what is to be pressed', () => {
    const of = used(
      ['body', 'background-color', '#fdfcf8'],
      ['body', 'color', '#22302e'],
      ['.banner', 'background-color', '#c0392b'],
      ['a', 'color', '#1f6f8b'],
      ['.btn-primary', 'background-color', '#1f6f8b'],
      ['.note', 'color', '#777777'],
    )
    expect(coloursOfPage(of, null)).toEqual({ ground: '#fdfcf8', ink: '#22302e', accent: '#1f6f8b' })
  })

  it('follow the later rule, and one for several things', () => {
    const of = used(
      ['body', 'background-color', '#ffffff'],
      ['html, body', 'background-color', '#101820'],
      [':root', 'color', '#f2f2f2'],
    )
    expect(coloursOfPage(of, '#e0a030')).toEqual({ ground: '#101820', ink: '#f2f2f2', accent: '#e0a030' })
  })

  it('are readable where the page says nothing of its words', () => {
    expect(coloursOfPage(used(['a', 'color', '#cc0000']), null)).toEqual({
      ground: '#ffffff',
      ink: '#1a1a1a',
      accent: '#cc0000',
    })
    // The grey that most of it is written in; what is too faint on its ground is none.
    const of = used(
      ['p', 'color', '#444444'],
      ['li', 'color', '#444444'],
      ['h1', 'color', '#000000'],
      ['i', 'color', '#dddddd'],
    )
    expect(coloursOfPage(of, null)?.ink).toBe('#444444')
    expect(coloursOfPage(used(['body', 'background-color', '#000000']), null)?.ink).toBe('#f5f5f5')
  })

  it('name their accent as a property of their own where they do', () => {
    const of = used(
      [':root', '--shade', '#00aa00'],
      [':root', '--brand-colour', '#aa0055'],
      ['b', 'color', '#0000aa'],
    )
    expect(coloursOfPage(of, null)?.accent).toBe('#aa0055')
  })

  it('are marked in the tint of a muted page', () => {
    const of = used(
      ['body', 'background-color', '#fdfcf8'],
      ['header', 'background-color', '#2d3b3a'],
      ['p', 'color', '#333333'],
    )
    expect(coloursOfPage(of, null)?.accent).toBe('#2d3b3a')
  })

  it('are none where it has none', () => {
    expect(coloursOfPage([], null)).toBeNull()
    expect(coloursOfPage(used(['body', 'color', '#000000']), null)?.accent).toBe('#404040')
  })
})
